import { z } from "zod";
import type { Output } from "../../core/contrast/outputs";

/** What a gap test may measure. */
export const GAP_TRIALS: ReadonlyArray<{ id: string; name: string; unit: string; output: Output }> =
  [
    { id: "jump", name: "Standing jump height", unit: "cm", output: "height" },
    { id: "throw", name: "Two-hand throw", unit: "m", output: "distance" },
    { id: "sprint", name: "Sprint 20 m", unit: "s", output: "time" },
  ];

const value = z
  .number({ error: "Every trial is a number over 0." })
  .positive("Every trial is a number over 0.")
  .max(100_000);

export const GapDaySchema = z.object({
  athleteId: z.uuid("Choose an athlete: a day is kept for somebody."),
  trial: z.enum(GAP_TRIALS.map((one) => one.id) as [string, ...string[]]),
  heavySet: z.string().trim().min(1, "Say what the heavy set was.").max(120),
  baseline: z.array(value).min(2, "Two baseline trials at least, three are usual.").max(8),
  trials: z
    .array(z.object({ gapMin: z.number().min(0).max(60), value }))
    .min(1, "One trial after a gap at least."),
});

/** Gaps in minutes from a typed line; undefined where it is no list of rising numbers. */
export function gapsFrom(text: string): number[] | undefined {
  const gaps = text
    .trim()
    .split(/[\s;]+/)
    // Nothing written is no zero.
    .map((one) => (one === "" ? Number.NaN : Number(one.replace(",", "."))));
  const right =
    gaps.length > 0 &&
    gaps.length <= 12 &&
    gaps.every((gap, i) => gap >= 0 && gap <= 60 && (i === 0 || gap > (gaps[i - 1] ?? 0)));
  return right ? gaps : undefined;
}
