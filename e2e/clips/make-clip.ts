/**
 * Makes the clips that the browser tests measure: drawn by core/track/fixtures/render.ts, whose truth
 * is known, and packed by Debian's ffmpeg. `npx tsx e2e/clips/make-clip.ts` writes them anew beside
 * this file, with what a perfect reading of each would say.
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import path from "node:path";
import { PLAIN_SCENE, Renderer } from "../../core/track/fixtures/render";
import { SHAPE_FAMILIES } from "../../device/shapes/families";

const here = path.dirname(new URL(import.meta.url).pathname);
const set = SHAPE_FAMILIES.boxes?.(4);
if (!set) throw new Error("No box squats among the shapes.");
const { movement } = set;
let [low, high] = [9, -9];
for (let t = 0; t < movement.durationS; t += 0.02) {
  low = Math.min(low, movement.heightAt(t));
  high = Math.max(high, movement.heightAt(t));
}
const lift = 1 - (low + high) / 2;
const scene = {
  ...PLAIN_SCENE,
  widthPx: 480,
  heightPx: 640,
  viewM: 2,
  distanceM: 3,
  yawDeg: 6,
  pitchDeg: 3,
  noise: 2,
  seed: 4,
};
const renderer = new Renderer(scene, {
  heightAt: (t) => movement.heightAt(t) + lift,
  acrossAt: (t) => 0.02 * Math.sin(1.1 * t),
  turnAt: (t) => 0.4 * Math.sin(0.6 * t),
});

function write(name: string, arguments_: readonly string[], frames: Buffer): void {
  const made = spawnSync(
    "ffmpeg",
    [
      ...["-y", "-loglevel", "error", "-f", "rawvideo", "-pix_fmt", "gray"],
      ...["-s", `${scene.widthPx}x${scene.heightPx}`, "-r", String(scene.fps), "-i", "-"],
      ...arguments_,
      path.join(here, name),
    ],
    { input: frames, maxBuffer: 1 << 30 },
  );
  if (made.status !== 0) throw new Error(String(made.stderr));
}

const count = Math.floor(movement.durationS * scene.fps);
const frames = Buffer.concat(
  Array.from({ length: count }, (_, i) => Buffer.from(renderer.frame(i / scene.fps).grey)),
);
const h264 = ["-c:v", "libx264", "-pix_fmt", "yuv420p", "-crf", "27", "-preset", "slow"];
write("box-squat-60.mp4", [...h264, "-movflags", "+faststart"], frames);
// The same pictures as slow motion, as a phone writes it: four times slower, with the rate in a tag.
const slowed = spawnSync("ffmpeg", [
  ...["-y", "-loglevel", "error", "-itsscale", "4", "-i", path.join(here, "box-squat-60.mp4")],
  ...["-c", "copy", "-movflags", "use_metadata_tags+faststart"],
  ...["-metadata", "com.android.capture.fps=60", path.join(here, "box-squat-slow.mp4")],
]);
if (slowed.status !== 0) throw new Error(String(slowed.stderr));
const still = frames.subarray(0, 90 * scene.widthPx * scene.heightPx);
write("without-motion.webm", ["-c:v", "libvpx-vp9", "-crf", "40", "-b:v", "0"], still);

writeFileSync(
  path.join(here, "truth.json"),
  `${JSON.stringify(
    {
      mark: renderer.markAt(0),
      reps: set.reps.map(({ outcome, mcvMps, rangeM, pauseS, startS }) => ({
        outcome,
        mcvMps,
        rangeM,
        pauseS,
        startS,
      })),
    },
    undefined,
    2,
  )}\n`,
);
