/**
 * `npm run sensor -- --rack 3`: a sensor of one rack as a small process of its own. It plays a
 * stand-in lifter's sets and sends the frames as docs/sensor-protocol.md has them.
 *
 * --url (http://127.0.0.1:3100), --token (as Tablets gives it; without one it asks the demo for one),
 * --reps 3, --pause 6 (s between sets), --rate 100, --gap 0 (s lost in each set), --die-after 0 (s).
 */
import { randomUUID } from "node:crypto";
import { parseArgs } from "node:util";
import { DEMO_PASSWORD } from "../db/demo/people";
import { writeFrameLines } from "../device/frame-lines";
import type { Sample } from "../device/sensor-port";
import { SimulatedSensor } from "../device/simulated-sensor";
import { standInLifter } from "../device/stand-in";

const { values } = parseArgs({
  options: {
    rack: { type: "string" },
    url: { type: "string", default: "http://127.0.0.1:3100" },
    token: { type: "string" },
    reps: { type: "string", default: "3" },
    pause: { type: "string", default: "6" },
    rate: { type: "string", default: "100" },
    gap: { type: "string", default: "0" },
    "die-after": { type: "string", default: "0" },
    lift: { type: "string", default: "bench" },
  },
});
const rack = Number(values.rack);
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A token of the demo's, asked for as its coach would. */
async function demoToken(): Promise<string> {
  const signedIn = await fetch(`${values.url}/sign-in`, {
    method: "POST",
    body: new URLSearchParams({ email: "coach@skerry.example", password: DEMO_PASSWORD, to: "/" }),
    redirect: "manual",
  });
  const cookie = signedIn.headers
    .getSetCookie()
    .map((one) => one.split(";")[0])
    .join("; ");
  const page = await fetch(`${values.url}/tablets`, { headers: { cookie } });
  const text = await page.text();
  const option = [...text.matchAll(/<option value="([0-9a-f-]{36})">[^<]*rack (\d+)</g)].find(
    (one) => Number(one[2]) === rack,
  );
  if (!option) throw new Error(`No rack ${rack} was found at ${values.url}. Give --token.`);
  const answer = await fetch(`${values.url}/tablets`, {
    method: "POST",
    headers: { cookie },
    body: new URLSearchParams({ intent: "sensor", rackId: option[1] ?? "" }),
  });
  const token = /data-testid="sensor-token"[^>]*>([\w-]+)</.exec(await answer.text())?.[1];
  if (!token) throw new Error("No token was given. Is this the demo?");
  return token;
}

/** Frames wait here until they are taken; the oldest of too many are lost, as a live bar's are. */
const MOST_WAITING = 3000;

async function main(): Promise<void> {
  if (!(rack >= 1)) throw new Error("Say at which rack: npm run sensor -- --rack 3");
  const token = values.token ?? (await demoToken());
  const boot = randomUUID();
  const startedMs = performance.now();
  const dieAfterMs = 1000 * Number(values["die-after"]);
  const waiting: Sample[] = [];
  let said = "";
  const say = (words: string) => {
    if (words !== said) console.log(words);
    said = words;
  };
  const send = async () => {
    if (waiting.length === 0) return;
    const frames = waiting.splice(0, 1000);
    try {
      const response = await fetch(`${values.url}/api/sensor?rack=${rack}&boot=${boot}`, {
        method: "POST",
        headers: { authorization: `Bearer ${token}`, "content-type": "application/x-ndjson" },
        body: writeFrameLines(frames),
      });
      const { message } = (await response.json()) as { message?: string };
      say(response.ok ? `Rack ${rack}: sending.` : `Rack ${rack}: ${message ?? response.status}`);
    } catch {
      waiting.unshift(...frames.slice(-MOST_WAITING));
      say(`Rack ${rack}: the server does not answer. It is tried again.`);
    }
  };
  const lifter = standInLifter(values.lift as "bench", 100, `sensor of rack ${rack}`);
  const rateHz = Number(values.rate);
  const ticker = {
    nowMs: () => performance.now(),
    every(ms: number, tick: () => void) {
      const timer = setInterval(tick, ms);
      return () => clearInterval(timer);
    },
  };
  // The sensor's own clock goes on from set to set; between them the bar stands still.
  let heightM = 1;
  const at = () => (performance.now() - startedMs) / 1000;
  const still = setInterval(() => {
    if (!lifting) waiting.push({ timeS: at(), heightM });
  }, 1000 / 20);
  let lifting = false;
  void (async () => {
    for (;;) {
      await send();
      await sleep(100);
    }
  })();
  for (let set = 0; ; set++) {
    lifting = true;
    const from = at();
    const gapAt = 1.2;
    await new Promise<void>((over) => {
      new SimulatedSensor({ lifter, dayShiftMps: 0, rateHz }, ticker).open(
        { loadKg: 50, reps: Number(values.reps), setsBefore: 0, restS: 180, seed: set + rack },
        {
          frames: (frames) => {
            for (const one of frames) {
              heightM = one.heightM;
              const lost = one.timeS > gapAt && one.timeS < gapAt + Number(values.gap);
              if (!lost) waiting.push({ timeS: from + one.timeS, heightM: one.heightM });
            }
          },
          racked: over,
        },
      );
    });
    lifting = false;
    const restMs = 1000 * Number(values.pause);
    if (dieAfterMs > 0 && performance.now() - startedMs > dieAfterMs) {
      clearInterval(still);
      console.log(`Rack ${rack}: the sensor ends.`);
      process.exit(0);
    }
    await sleep(restMs);
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
