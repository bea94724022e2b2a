import { createWriteStream, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, test } from "@playwright/test";
import { seededRandom } from "../core/numeric/random";
import { simulateSet } from "../device/lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "../device/sensor";
import { stateFile } from "./people";

/** A stream of 200 MB: read in the browser with progress, stopped on asking, and read whole. */
test.use({ storageState: stateFile("coach") });

const FILE = path.join(tmpdir(), "sprezza-long-stream.csv");
const BYTES = 200e6;
test.afterAll(() => rmSync(FILE, { force: true }));

/** Sets of three squats over and over at 1000 Hz; returns how many. */
async function writeStream(): Promise<number> {
  const out = createWriteStream(FILE);
  const write = (text: string) =>
    new Promise<void>((resolve) => {
      if (out.write(text)) resolve();
      else out.once("drain", resolve);
    });
  await write("t_s,position_m\n");
  let at = 0;
  let written = 0;
  let sets = 0;
  while (written < BYTES) {
    const set = simulateSet(
      {
        v0Mps: 1.5,
        l0Kg: 200,
        repFade: 0.03,
        setFade: 0.01,
        fullRestS: 150,
        spreadMps: 0.01,
        rangeM: 0.55,
        topM: 1.4,
        loweringMps: 0.7,
        pauseS: 0,
        sticking: 0.2,
      },
      { loadKg: 100, reps: 3, setsBefore: 0, restS: 180, dayShiftMps: 0, seed: sets + 1 },
    );
    const samples = sampleMovement(
      set.movement,
      { ...SENSOR_DEFAULTS, rateHz: 1000 },
      seededRandom(sets + 1),
    );
    let text = "";
    for (const { timeS, heightM } of samples) {
      text += `${(at + timeS).toFixed(5)},${heightM.toFixed(6)}\n`;
    }
    at += (samples.at(-1)?.timeS ?? 0) + 15;
    written += text.length;
    sets++;
    await write(text);
  }
  await new Promise((resolve) => out.end(resolve));
  return sets;
}

test("two hundred megabytes of stream", async ({ page }) => {
  const sets = await writeStream();
  console.log(`${(statSync(FILE).size / 1e6).toFixed(0)} MB, ${sets} sets`);
  await page.goto("/data");
  await page.getByLabel("What the file holds").selectOption({ index: 1 });
  await page.getByLabel("File (CSV or text)").setInputFiles(FILE);
  await page.getByRole("button", { name: "Find the reps" }).click();
  await page.getByRole("button", { name: "Stop reading" }).click();
  await expect(page.getByText("Stopped. Nothing was imported.")).toBeVisible();

  const startedAt = Date.now();
  await page.getByRole("button", { name: "Find the reps" }).click();
  // The page answers while the file is read.
  let slowest = 0;
  while (await page.getByRole("button", { name: "Stop reading" }).isVisible()) {
    const asked = Date.now();
    await page.evaluate(() => new Promise(requestAnimationFrame));
    slowest = Math.max(slowest, Date.now() - asked);
    await page.waitForTimeout(250);
  }
  console.log(
    `read in ${((Date.now() - startedAt) / 1000).toFixed(0)} s, a frame at most ${slowest} ms`,
  );
  await expect(page.getByText(new RegExp(`${sets} sets, ${3 * sets} reps`))).toBeVisible();
  expect(slowest).toBeLessThan(2000);
});
