/** From slow and heavy to fast and light; `none` for work that is not judged by speed. */
export const SPEED_CLASSES = [
  "absolute-strength",
  "strength-speed",
  "speed-strength",
  "absolute-speed",
  "none",
] as const;
export type SpeedClass = (typeof SPEED_CLASSES)[number];

export const SPEED_CLASS_NAMES: Record<SpeedClass, string> = {
  "absolute-strength": "Absolute strength",
  "strength-speed": "Strength-speed",
  "speed-strength": "Speed-strength",
  "absolute-speed": "Absolute speed",
  none: "Not by speed",
};
