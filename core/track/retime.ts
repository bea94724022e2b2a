/** How many times slower a film usually plays than it was filmed. */
export const USUAL_SLOWED = [1, 2, 4, 8] as const;
/** A rate within this share of a usual one is that one: phones keep their rates to about a hundredth. */
const SAME_RATE = 0.03;
/** Beyond this a film is no slow motion of a set, but a tag that was read wrongly. */
const MOST_SLOWED = 40;

/**
 * The rate a film was filmed at, as its file says, where phones write it: a number as text, or four or
 * eight bytes of a float, most significant first.
 * @returns pictures a second; undefined where it says nothing that a camera does
 */
export function filmedHzOf(tag: unknown): number | undefined {
  const hz =
    typeof tag === "string"
      ? Number.parseFloat(tag)
      : tag instanceof Uint8Array && (tag.length === 4 || tag.length === 8)
        ? floatOf(tag)
        : Number.NaN;
  return hz >= 5 && hz <= 2000 ? hz : undefined;
}

function floatOf(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  return bytes.length === 4 ? view.getFloat32(0) : view.getFloat64(0);
}

/**
 * How many times slower a film plays than it was filmed.
 * @param filmedHz pictures a second as filmed
 * @param playsHz pictures a second as it plays
 * @returns undefined where the two make no sense together
 */
export function slowedOf(filmedHz: number, playsHz: number): number | undefined {
  const ratio = filmedHz / playsHz;
  if (!(ratio > 1 - SAME_RATE && ratio <= MOST_SLOWED)) return undefined;
  return USUAL_SLOWED.find((one) => Math.abs(ratio / one - 1) <= SAME_RATE) ?? ratio;
}
