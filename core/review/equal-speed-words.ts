import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { signedMps } from "./equal-load";
import type { EqualSpeed } from "./equal-speed";
import { CALL_CHANCE, trendVerdict, WAVE_RISE_MPS } from "./speed-trend";

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** How a speed at equal load came about, from an athlete's own days alone. */
export function equalSpeedWorking(speed: Extract<EqualSpeed, { ok: true }>): Working {
  const last = speed.days.at(-1);
  const verdict = trendVerdict(speed.chanceRises);
  return {
    title: say`Speed at ${written(speed.loadKg, 1)}`,
    lines: [
      {
        label: speed.filmed ? "Days with filmed sets" : "Days with measured sets",
        value: String(speed.days.length),
        detail: "each set carried to the mean load along the own line, and to a fresh athlete",
      },
      { label: "Last day", value: `${formatVelocity(last?.speedMps ?? 0)} m/s` },
      {
        label: "Days differ by",
        value: `${formatVelocity(speed.daySdMps)} m/s`,
        detail: "from day to day, while nothing changes",
      },
      {
        label: "Change in a wave of three weeks",
        value: `${signedMps(speed.perWave.estimate)} m/s`,
        detail: `90 % ${signedMps(speed.perWave.low)} to ${signedMps(speed.perWave.high)}`,
      },
      {
        label: "Chance that it rises",
        value: percent(speed.chanceRises),
        detail: `${verdict === "unclear" ? "not settled" : verdict}: called from ${percent(CALL_CHANCE)}`,
        emphasis: "answer",
      },
      ...(verdict === "unclear" && speed.sessionsMore !== undefined && speed.sessionsMore > 0
        ? [
            {
              label: "To settle it",
              value: `about ${speed.sessionsMore} days more`,
              detail: `for a true rise of ${WAVE_RISE_MPS} m/s a wave`,
            },
          ]
        : []),
    ],
    sources: ["Own days alone, shrunk towards no change; docs/sources.md, speed at equal load"],
    changes: ["More days; in Review the squad's mean stands beside it and moves the chance."],
  };
}
