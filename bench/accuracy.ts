/**
 * Accuracy of the velocity core on bar paths of known truth, by family, rate and noise:
 * `npx tsx bench/accuracy.ts [sets] [known|held-out|all] [cut-offs] [rates] [noise mm]`. The tables are kept in
 * docs/sources.md.
 */
import { seededRandom } from "../core/numeric/random";
import { analyseStream } from "../core/velocity/analyse";
import { repForce } from "../core/velocity/force";
import { ROCK_M } from "../core/velocity/measure";
import { STREAM_DEFAULTS } from "../core/velocity/stream";
import { sampleMovement } from "../device/sensor";
import { SHAPE_FAMILIES, type ShapeFamily } from "../device/shapes/families";
import { HELD_OUT_FAMILIES } from "../device/shapes/held-out";

const [setsText = "60", which = "known", cutoffsText, ratesText, noisesText] =
  process.argv.slice(2);
const SETS = Number(setsText);
const numbers = (text: string | undefined, usual: number[]) =>
  text === undefined || text === "-" ? usual : text.split(",").map(Number);
const CUTOFFS = numbers(cutoffsText, [STREAM_DEFAULTS.cutoffHz]);
const RATES = numbers(ratesText, [25, 50, 100, 200, 1000]);
const NOISES_MM = numbers(noisesText, [0.3, 1, 2]);
const LOST_SHARE = 0.01;

const families: Record<string, ShapeFamily> =
  which === "known"
    ? SHAPE_FAMILIES
    : which === "held-out"
      ? HELD_OUT_FAMILIES
      : which === "all"
        ? { ...SHAPE_FAMILIES, ...HELD_OUT_FAMILIES }
        : Object.fromEntries(
            Object.entries({ ...SHAPE_FAMILIES, ...HELD_OUT_FAMILIES }).filter(([name]) =>
              which.split(",").includes(name),
            ),
          );

class Errors {
  readonly lists: Record<string, number[]> = {};
  wrong: number[] = [];
  rocks = 0;
  rocksHit = 0;
  rocksFalse = 0;
  reps = 0;

  add(name: string, error: number): void {
    const list = this.lists[name] ?? [];
    list.push(error);
    this.lists[name] = list;
  }

  p95(name: string): string {
    const list = (this.lists[name] ?? []).map(Math.abs).sort((a, b) => a - b);
    if (list.length === 0) return "  –  ";
    return (list[Math.floor(0.95 * (list.length - 1))] as number).toFixed(3);
  }

  mean(name: string): number {
    const list = this.lists[name] ?? [];
    return list.reduce((sum, one) => sum + Math.abs(one), 0) / Math.max(1, list.length);
  }

  bias(name: string): string {
    const list = this.lists[name] ?? [];
    return (list.reduce((sum, one) => sum + one, 0) / Math.max(1, list.length)).toFixed(3);
  }
}

const kept = new Map<ShapeFamily, ReturnType<ShapeFamily>[]>();

function run(family: ShapeFamily, rateHz: number, noiseM: number, cutoffHz: number): Errors {
  const errors = new Errors();
  const sets = kept.get(family) ?? Array.from({ length: SETS }, (_, i) => family(i + 1));
  kept.set(family, sets);
  sets.forEach((set, i) => {
    const samples = sampleMovement(
      set.movement,
      { rateHz, noiseM, jitter: 0.1, lostShare: LOST_SHARE },
      seededRandom((i + 1) * 7919 + rateHz),
    );
    const { reps } = analyseStream(
      { timesS: samples.map((s) => s.timeS), heightsM: samples.map((s) => s.heightM) },
      { cutoffHz, start: set.start },
    );
    const outcomes = (list: ReadonlyArray<{ outcome: string }>) =>
      list.map((rep) => rep.outcome).join();
    if (outcomes(reps) !== outcomes(set.reps)) {
      errors.wrong.push(i + 1);
      return;
    }
    reps.forEach((rep, k) => {
      const truth = set.reps[k];
      if (!truth) return;
      errors.reps++;
      const expected = truth.rocksM.filter((rise) => rise >= ROCK_M).length;
      errors.rocks += expected;
      errors.rocksHit += Math.min(expected, rep.rocks.length);
      errors.rocksFalse += Math.max(0, rep.rocks.length - expected);
      if (truth.outcome !== "counted") return;
      errors.add(truth.brakesHard ? "hard" : "mcv", rep.mcvMps - truth.mcvMps);
      errors.add("pv", rep.pvMps - truth.pvMps);
      errors.add("mpv", rep.mpvMps - truth.mpvMps);
      if (rep.pauseS !== undefined && truth.pauseS !== undefined) {
        errors.add("pause", rep.pauseS - truth.pauseS);
      }
      if (rep.eccentricS !== undefined && truth.eccentricS !== undefined) {
        errors.add("ecc", rep.eccentricS - truth.eccentricS);
      }
      if (rep.contactMps !== undefined && truth.contactMps !== undefined) {
        errors.add("contact", rep.contactMps - truth.contactMps);
      }
      const force = repForce(rep, 1);
      if (force) {
        errors.add("force", force.forceN / truth.forceNPerKg - 1);
        errors.add("power", force.powerW / truth.powerWPerKg - 1);
      }
      errors.add("start", rep.startS - truth.startS);
      errors.add("end", rep.endS - truth.endS);
    });
  });
  return errors;
}

for (const cutoffHz of CUTOFFS) {
  let total = 0;
  for (const noise of NOISES_MM) {
    console.log(
      `\ncut-off ${cutoffHz} Hz, noise ${noise} mm; 95th percentiles\n${"family".padEnd(12)} rate  wrong   MCV  hard    PV   MPV  pause   ecc contact force power | start end (bias) | rocks hit false`,
    );
    for (const [name, family] of Object.entries(families)) {
      for (const rate of RATES) {
        const e = run(family, rate, noise / 1000, cutoffHz);
        if (rate >= 50) total += e.mean("mcv") + e.mean("hard") + e.mean("pv");
        console.log(
          `${name.padEnd(12)} ${String(rate).padStart(4)} ${String(e.wrong.length).padStart(5)}  ${["mcv", "hard", "pv", "mpv", "pause", "ecc", "contact", "force", "power"].map((one) => e.p95(one)).join(" ")} | ${e.p95("start")} ${e.p95("end")} (${e.bias("start")} ${e.bias("end")}) | ${e.rocks} ${e.rocksHit} ${e.rocksFalse}${e.wrong.length > 0 ? `  sets ${e.wrong.slice(0, 6).join(" ")}` : ""}`,
        );
      }
    }
  }
  console.log(`total of mean errors from 50 Hz on, cut-off ${cutoffHz}: ${total.toFixed(4)}`);
}
