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
  "box-squat": [...SQUAT, "Rocked back", "Dropped on to the box"],
  deadlift: PULL,
};

/** The faults to offer for a lift; a short general list where the lift has none of its own. */
export function faultsFor(lift: string): readonly string[] {
  return BY_LIFT[lift] ?? ["Out of line", "Short range", "Lost tightness"];
}

/** The fault that a rep which turned back carries. */
export const FAILED_REP = "Rep failed";
