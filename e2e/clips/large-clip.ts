/** A film of 1,080 lines at 60 pictures a second for bench/clip-speed.mjs; says where its plate stands. */
import { spawn } from "node:child_process";
import { once } from "node:events";
import { PLAIN_SCENE, Renderer } from "../../core/track/fixtures/render";

const [file = "film.mp4"] = process.argv.slice(2);
const durationS = 20;
const scene = { ...PLAIN_SCENE, widthPx: 1920, heightPx: 1080, viewM: 2, noise: 2, yawDeg: 5 };
const renderer = new Renderer(scene, {
  heightAt: (t) => 1 + (t < 1 ? 0.25 : 0.25 * Math.cos(2 * (t - 1))),
});
const ffmpeg = spawn(
  "ffmpeg",
  [
    ..."-y -loglevel error -f rawvideo -pix_fmt gray -s 1920x1080 -r 60 -i -".split(" "),
    ..."-c:v libx264 -pix_fmt yuv420p -crf 24 -preset veryfast".split(" "),
    file,
  ],
  { stdio: ["pipe", "inherit", "inherit"] },
);
for (let i = 0; i < durationS * scene.fps; i++)
  if (!ffmpeg.stdin.write(renderer.frame(i / scene.fps).grey)) await once(ffmpeg.stdin, "drain");
ffmpeg.stdin.end();
await once(ffmpeg, "close");
console.log(JSON.stringify({ ...renderer.markAt(0), durationS }));
