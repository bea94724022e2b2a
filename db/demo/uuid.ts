import type { Random } from "../../core/numeric/random";

/** Ids from a seed, so that the same demo always has the same addresses. */
export function uuidFrom(random: Random): () => string {
  const hex = (digits: number) =>
    Math.floor(random.uniform() * 16 ** digits)
      .toString(16)
      .padStart(digits, "0");
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(6)}${hex(6)}`;
}
