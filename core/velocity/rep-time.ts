import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";

export interface RepTime {
  /** From the bottom to the top, s: range over mean velocity. */
  upS: number;
  /** One rep with its lowering and its pause, s. */
  repS: number;
  /** All reps of the set, s. */
  setS: number;
  working: Working;
}

/**
 * How long a rep lasts: range of motion ÷ mean concentric velocity. A lift is lost when time runs
 * out, so the slowest speed that still goes up gives the longest strain.
 * @param rangeM 0.05 to 2.5 m
 * @param meanMps mean concentric velocity, over 0
 * @returns undefined for a range or a speed that is none
 */
export function repTime(input: {
  rangeM: number;
  meanMps: number;
  lowerS: number;
  pauseS: number;
  reps: number;
}): RepTime | undefined {
  const { rangeM, meanMps, lowerS, pauseS, reps } = input;
  if (!(rangeM >= 0.05 && rangeM <= 2.5 && meanMps > 0 && lowerS >= 0 && pauseS >= 0)) return;
  if (!Number.isInteger(reps) || reps < 1) return;
  const upS = rangeM / meanMps;
  const repS = upS + lowerS + pauseS;
  const setS = reps * repS;
  if (!Number.isFinite(setS)) return;
  const seconds = (s: number) => `${plainNumber(s, 2)} s`;
  return {
    upS,
    repS,
    setS,
    working: {
      title: "Rep time",
      lines: [
        {
          label: "Range ÷ mean speed",
          value: `${plainNumber(rangeM, 3)} ÷ ${plainNumber(meanMps, 3)} = ${seconds(upS)}`,
          emphasis: "answer",
        },
        { label: "Lowering and pause", value: `${seconds(lowerS)} + ${seconds(pauseS)}` },
        { label: "One rep", value: seconds(repS) },
        { label: `${reps} reps`, value: seconds(setS) },
      ],
      sources: ["Mean velocity is displacement over time, so time is range over mean velocity"],
      changes: ["Another range, another speed."],
    },
  };
}
