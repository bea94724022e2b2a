/** A clip's time as a person finds it again: 1:04.25. */
export function formatClipTime(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  const rest = (seconds - 60 * minutes).toFixed(2).padStart(5, "0");
  return `${minutes}:${rest}`;
}
