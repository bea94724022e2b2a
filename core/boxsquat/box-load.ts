import type { LearntRatio } from "../maxes/variants";
import { usual } from "../settings/usual";
import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";
import { written } from "../units/written";

/** Without the rebound about this much of the free squat (coaching practice, no study), %. */
export const FREE_SHARE_PERCENT = {
  least: usual("boxFreeLeastPercent"),
  most: usual("boxFreeMostPercent"),
} as const;

export type BoxBase = "working-max" | "working-weight";
export const BOX_BASE_NAMES: Record<BoxBase, string> = {
  "working-max": "free squat working max",
  "working-weight": "free squat working weight",
};

const MOST_BASE_KG = 1000;
const MOST_RATIO = 3;
const isMass = (kg: number) => kg > 0 && kg <= MOST_BASE_KG;
const isRatio = (ratio: number) => ratio > 0 && ratio <= MOST_RATIO;

export interface BoxLoad {
  ok: true;
  leastKg: number;
  mostKg: number;
  /** Of the athlete's own records, where there are any: it stands alone. */
  own: boolean;
  working: Working;
}

/**
 * Box squat load from the free squat: the practice's 60–70 % of the chosen base, or the
 * athlete's own ratio of this style once their records give one. The coach confirms either.
 */
export function boxLoad(input: {
  baseKg: number;
  base: BoxBase;
  styleName: string;
  learnt: LearntRatio | undefined;
  /** The practice's share of the free squat, %. */
  share?: { least: number; most: number };
}): BoxLoad | { ok: false; reason: "not-a-load" } {
  const { baseKg, learnt } = input;
  const share = input.share ?? FREE_SHARE_PERCENT;
  const least = learnt?.ratio ?? share.least / 100;
  const most = learnt?.ratio ?? share.most / 100;
  if (!isMass(baseKg) || !isRatio(least) || !isRatio(most)) {
    return { ok: false, reason: "not-a-load" };
  }
  const kg = (ratio: number) => written(baseKg * ratio, 1);
  return {
    ok: true,
    leastKg: baseKg * least,
    mostKg: baseKg * most,
    own: learnt !== undefined,
    working: {
      title: `Box squat from the free squat, ${input.styleName}`,
      lines: [
        { label: `Base: ${BOX_BASE_NAMES[input.base]}`, value: written(baseKg, 1) },
        learnt
          ? {
              label: "Own ratio, box to free",
              value: plainNumber(learnt.ratio, 3),
              detail: `median of ${learnt.n} ${learnt.n === 1 ? "pair" : "pairs"} of own records`,
            }
          : {
              label: "Share without the rebound",
              value: `${share.least} to ${share.most} %`,
              detail: "coaching practice, no study; own records take its place",
            },
        {
          label: "On the box",
          value: learnt ? kg(least) : `${kg(least)} to ${kg(most)}`,
          emphasis: "answer",
        },
      ],
      sources: ["Coaching practice: docs/sources.md, box squat"],
      changes: ["Another base, or a record on the box within four weeks of one without."],
    },
  };
}
