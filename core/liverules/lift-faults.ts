import { BOX_FAULTS } from "../boxsquat/box-faults";

/** What a watcher tags at the rack, by lift, in the field's plain words. */
const PRESS = [
  "Bounced off the chest",
  "Uneven lockout",
  "Hips left the bench",
  "Short of the chest",
  "Wrists bent back",
  "Slow lowering lost",
];
const SQUAT = [
  "Too high",
  "Knees in",
  "Heels or toes lifting",
  "Bar off centre",
  "Hips rose first",
  "Breath let out",
];
const PULL = [
  "Back rounded",
  "Hips rose first",
  "Bar away from the shins",
  "Hitched",
  "Soft lockout",
];

const BY_LIFT: Record<string, readonly string[]> = {
  bench: PRESS,
  press: ["Leaned back", "Uneven lockout", "Ribs flared", "Knees helped"],
  squat: SQUAT,
  deadlift: PULL,
};

/** The faults to offer for a lift, on the box with their cues; else a short general list. */
export function faultsFor(lift: string): Array<{ seen: string; cue?: string }> {
  if (lift === "box-squat") return BOX_FAULTS.map(({ seen, cue }) => ({ seen, cue }));
  const known = BY_LIFT[lift] ?? ["Out of line", "Short range", "Lost tightness"];
  return known.map((seen) => ({ seen }));
}
