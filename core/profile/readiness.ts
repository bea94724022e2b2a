import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, type Text, written } from "../units/written";
import {
  type ReadinessInput,
  type ReadinessRefusal,
  type TodaysForm,
  todaysForm,
} from "./todays-form";

/** Today's form with its working. */
export type Readiness =
  | (Omit<Extract<TodaysForm, { ok: true }>, "profileMps"> & { working: Working })
  | Extract<TodaysForm, { ok: false }>;

export const READINESS_WORDS: Record<ReadinessRefusal, string> = {
  "too-few-loads": "A profile of two loads has no error of its own: test a third load first.",
  "nothing-today": "No speed of today yet.",
  "slope-unclear": "These reps do not tell how speed falls with load: no load follows from them.",
  "not-finite": "A load or a speed is not a number over 0.",
  "too-large": "More reps than a day and a profile have.",
};

/** Today's form from a profile and the warm-up, see `todaysForm`, with how it was worked out. */
export function readiness(input: ReadinessInput): Readiness {
  const found = todaysForm(input);
  if (!found.ok) return found;
  const { profileMps: _, ...answer } = found;
  return { ...answer, working: workingOf(input, found) };
}

function workingOf(input: ReadinessInput, found: Extract<TodaysForm, { ok: true }>): Working {
  const { profileMps: line, shift, targetLoad, oneRepMax, profileLoadKg, readingSdMps } = found;
  const byLoad = new Map<number, number[]>();
  for (const { loadKg, velocityMps } of input.today)
    byLoad.set(loadKg, [...(byLoad.get(loadKg) ?? []), velocityMps]);
  const between = (low: number, high: number, show: (value: number) => Text) =>
    say`90 % between ${show(low)} and ${show(high)}`;
  const kg = (value: number) => written(value, 1);
  return {
    title: "Today's form",
    lines: [
      ...[...byLoad].map(([loadKg, speeds]) => ({
        label: say`Reps at ${written(loadKg)}`,
        value: `${speeds.map((speed) => formatVelocity(speed)).join(" · ")} m/s`,
        detail: `line ${formatVelocity(line(loadKg))}`,
      })),
      {
        label: "Shift today",
        value: `${shift.estimate >= 0 ? "+" : "−"}${Math.abs(shift.estimate).toFixed(3)} m/s`,
        detail: between(shift.low, shift.high, (value) => value.toFixed(3)),
      },
      { label: "Error of one reading", value: `${readingSdMps.toFixed(3)} m/s` },
      ...(oneRepMax
        ? [
            {
              label: "1RM today",
              value: kg(oneRepMax.estimate),
              detail: between(oneRepMax.low, oneRepMax.high, kg),
            },
          ]
        : []),
      {
        label: `Load for ${formatVelocity(input.targetMps)} m/s`,
        value: kg(targetLoad.estimate),
        detail: say`${between(targetLoad.low, targetLoad.high, kg)}; profile ${kg(profileLoadKg)}`,
        emphasis: "answer",
      },
    ],
    sources: [
      "Normal update over every counted rep, each set against the ones before it; spreads in docs/sources.md",
    ],
    changes: ["Another warm-up rep, a newer profile."],
  };
}
