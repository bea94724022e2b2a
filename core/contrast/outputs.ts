/** What is written down of an item, and which way is better. */
export const OUTPUTS = {
  none: { name: "nothing", unit: "", up: true },
  height: { name: "jump height", unit: "cm", up: true },
  distance: { name: "throw", unit: "m", up: true },
  time: { name: "sprint time", unit: "s", up: false },
  speed: { name: "bar speed", unit: "m/s", up: true },
} as const;
export type Output = keyof typeof OUTPUTS;
export const OUTPUT_KINDS = Object.keys(OUTPUTS) as Output[];
