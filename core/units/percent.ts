/** A percentage is always of something: the base travels with it. */
export interface Percentage {
  /** 0–100 and over; 42.5 means 42.5 %. */
  percent: number;
  /** What it is of, in words a card can print: "working max, bench". */
  of: string;
}

export function formatPercent(percent: number, decimals = 1): string {
  return `${Number(percent.toFixed(decimals))} %`;
}
