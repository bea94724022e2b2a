import { plainNumber } from "./mass";

/** A percentage as it is written; what it is of stands beside it wherever one is kept. */
export function formatPercent(percent: number, decimals = 1): string {
  return `${plainNumber(percent, decimals)} %`;
}
