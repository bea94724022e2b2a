import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { mean, standardDeviation } from "../numeric/statistics";
import { studentQuantile } from "../numeric/student-t";
import { TRIAL_LEVEL, trialNeeds, tTestPower } from "./power";

const { powers } = JSON.parse(
  readFileSync(new URL("../numeric/fixtures/statistics.json", import.meta.url), "utf8"),
) as { powers: Array<[n: number, delta: number, power: number]> };

describe("athletes and weeks for a trial", () => {
  it("has R's power of a t test", () => {
    // R's own leaves out the far side's chance.
    for (const [n, delta, power] of powers)
      expect(tTestPower(n, delta), `${n}, ${delta}`).toBeCloseTo(power, 3);
  });

  it("needs fewer athletes with more weeks, days, or a larger difference", () => {
    const asked = { effectMps: 0.03, weeks: 9, sessionsAWeek: 1, sets: 9 };
    const of = (over: Partial<typeof asked>) => {
      const needs = trialNeeds({ ...asked, ...over });
      return needs.ok ? (needs.athletesEach ?? Number.NaN) : Number.NaN;
    };
    expect(of({ weeks: 18 })).toBeLessThan(of({}));
    expect(of({ sessionsAWeek: 2 })).toBeLessThan(of({}));
    expect(of({ effectMps: 0.06 })).toBeLessThan(of({}));
    expect(trialNeeds({ ...asked, effectMps: 0 })).toEqual({ ok: false, reason: "not-finite" });
    expect(trialNeeds({ ...asked, weeks: 1 })).toEqual({ ok: false, reason: "too-short" });
    const tiny = trialNeeds({ ...asked, effectMps: 0.0001 });
    expect(tiny.ok && tiny.athletesEach).toBeUndefined();
  });

  it("meets its stated power within five points in 500 simulated trials", () => {
    const random = seededRandom(92);
    for (const asked of [
      { effectMps: 0.03, weeks: 9, sessionsAWeek: 1, sets: 9 },
      { effectMps: 0.04, weeks: 12, sessionsAWeek: 2, sets: 6 },
      { effectMps: 0.05, weeks: 6, sessionsAWeek: 1, sets: 3 },
    ]) {
      const needs = trialNeeds(asked);
      if (!needs.ok || needs.athletesEach === undefined) throw new Error("needs a number");
      const n = needs.athletesEach;
      const days = asked.weeks * asked.sessionsAWeek;
      // Day by day, set by set: each athlete's least-squares slope a wave.
      const slope = (effect: number) => {
        const true_ = effect + 0.03 * random.normal();
        const xs = Array.from({ length: days }, (_, i) => i / asked.sessionsAWeek / 3);
        const centre = (xs[0] as number) / 2 + (xs.at(-1) as number) / 2;
        let [sxy, sxx] = [0, 0];
        for (const x of xs) {
          let day = 0;
          for (let s = 0; s < asked.sets; s++) day += (0.03 * random.normal()) / asked.sets;
          const y = true_ * x + 0.05 * random.normal() + day;
          sxy += (x - centre) * y;
          sxx += (x - centre) ** 2;
        }
        return sxy / sxx;
      };
      let found = 0;
      for (let trial = 0; trial < 500; trial++) {
        const a = Array.from({ length: n }, () => slope(asked.effectMps));
        const b = Array.from({ length: n }, () => slope(0));
        const [sa, sb] = [standardDeviation(a) as number, standardDeviation(b) as number];
        const t = ((mean(a) as number) - (mean(b) as number)) / Math.sqrt((sa ** 2 + sb ** 2) / n);
        if (Math.abs(t) > studentQuantile(1 - TRIAL_LEVEL / 2, 2 * n - 2)) found++;
      }
      expect(Math.abs(found / 500 - needs.power), JSON.stringify(asked)).toBeLessThan(0.05);
    }
  });
});
