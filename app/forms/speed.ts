/** A speed as it is typed at the bar: "82" and "0.82" are both 0.82 m/s. */
export function readSpeed(text: string): number | undefined {
  const trimmed = text.trim().replace(",", ".");
  if (!/^\d+(\.\d+)?$/.test(trimmed)) return undefined;
  const value = trimmed.includes(".") ? Number(trimmed) : Number(trimmed) / 100;
  return value >= 0.05 && value <= 4 ? value : undefined;
}
