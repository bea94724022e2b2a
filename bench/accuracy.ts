/**
 * Accuracy of the velocity core on sets of known truth, by cut-off, rate and noise:
 * `npx tsx bench/accuracy.ts`. The default cut-off is the one with the least total error here;
 * the table is kept in docs/sources.md.
 */
import { seededRandom } from "../core/numeric/random";
import { quantile } from "../core/numeric/statistics";
import { analyseStream } from "../core/velocity/analyse";
import { repForce } from "../core/velocity/force";
import { referenceSet } from "../device/reference-sets";
import { sampleMovement } from "../device/sensor";

const SETS = Number(process.argv[2] ?? 200);
const CUTOFFS = process.argv[3] ? process.argv[3].split(",").map(Number) : [6, 7, 8, 9, 10];

function errors(rateHz: number, noiseM: number, cutoffHz: number) {
  const out = {
    mcv: [] as number[],
    mcvHard: [] as number[],
    pv: [] as number[],
    mpv: [] as number[],
    pause: [] as number[],
    force: [] as number[],
    power: [] as number[],
    wrongCount: 0,
  };
  for (let seed = 1; seed <= SETS; seed++) {
    const set = referenceSet(seed);
    const samples = sampleMovement(
      set.movement,
      { rateHz, noiseM, jitter: 0.1 },
      seededRandom(seed * 7919),
    );
    const { reps } = analyseStream(
      { timesS: samples.map((s) => s.timeS), heightsM: samples.map((s) => s.heightM) },
      { cutoffHz },
    );
    const counted = reps.filter((rep) => rep.outcome === "counted");
    if (counted.length !== set.reps.length || reps.length !== counted.length) {
      out.wrongCount++;
      continue;
    }
    counted.forEach((rep, i) => {
      const truth = set.reps[i];
      if (!truth) return;
      (truth.brakesHard ? out.mcvHard : out.mcv).push(Math.abs(rep.mcvMps - truth.mcvMps));
      out.pv.push(Math.abs(rep.pvMps - truth.pvMps));
      out.mpv.push(Math.abs(rep.mpvMps - truth.mpvMps));
      const measured = repForce(rep, 1);
      if (measured) {
        out.force.push((100 * Math.abs(measured.forceN - truth.forceNPerKg)) / truth.forceNPerKg);
        out.power.push((100 * Math.abs(measured.powerW - truth.powerWPerKg)) / truth.powerWPerKg);
      }
      out.pause.push(Math.abs((rep.pauseS ?? 99) - truth.pauseS));
    });
  }
  return out;
}

console.log(
  "cutoff  rate noise  wrong   MCV95  hard95   PV95   MPV95  pause95  force95%  power95%   total (mean MCV + mean PV)",
);
for (const cutoff of CUTOFFS) {
  let total = 0;
  for (const noise of [0.0003, 0.001]) {
    for (const rate of [25, 50, 100, 200]) {
      const e = errors(rate, noise, cutoff);
      const p = (values: number[]) => (quantile(values, 0.95) ?? Number.NaN).toFixed(4);
      const m = (values: number[]) =>
        values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
      const sum = m([...e.mcv, ...e.mcvHard]) + m(e.pv);
      if (rate >= 50) total += sum;
      console.log(
        `${cutoff.toString().padStart(6)} ${rate.toString().padStart(5)} ${(noise * 1000).toFixed(1)}mm ${e.wrongCount.toString().padStart(6)}  ${p(e.mcv)}  ${p(e.mcvHard)}  ${p(e.pv)}  ${p(e.mpv)}  ${p(e.pause)}  ${p(e.force)}  ${p(e.power)}   ${sum.toFixed(4)} (n ${e.mcv.length + e.mcvHard.length})`,
      );
    }
  }
  console.log(`   total over 50 Hz and up, cut-off ${cutoff}: ${total.toFixed(4)}`);
}
