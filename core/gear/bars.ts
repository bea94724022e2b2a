/** What a bar is, as far as a lift asks for it. */
export interface BarKind {
  shape: string;
  name: string;
}

const SHAPES = ["straight", "safety", "cambered", "trap", "thick"];
const plain = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/\s*bar$/, "");

/**
 * Whether a bar is of the kind that a lift variant asks for: one of the usual kinds by its kind,
 * any other ("multi-grip") by a bar that carries that name.
 * @example barFits("safety", { shape: "straight", name: "Straight bar" }) // false
 */
export function barFits(asked: string, bar: BarKind): boolean {
  const kind = plain(asked);
  if (kind === "") return true;
  return SHAPES.includes(kind) ? bar.shape === kind : plain(bar.name).includes(kind);
}

/** Said where no rack of a room has the bar that a lift asks for. */
export const noBarWords = (asked: string, roomName: string): string =>
  `No rack in ${roomName} has a ${plain(asked)} bar. Put one on a rack, or choose another variant.`;
