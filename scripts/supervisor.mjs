/**
 * Keeps the server up. Starts its three processes — `pages`, `floor` (the log and the live
 * streams) and `front` (the port) — and starts each again by itself when it ends, after growing
 * waits, with a line in the log. Gives up where a process cannot be started at all: at the first
 * start at once, with its sentence; later after MOST_FAILED_STARTS in a row.
 *
 * Node's own modules only, and nothing that a request can reach: what this process does not do
 * cannot end it. Prints `listening ADDRESS` when everything is up.
 */
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { setPriority } from "node:os";

const SCRIPTS = {
  pages: "scripts/server.mjs",
  floor: "scripts/server.mjs",
  front: "scripts/front.mjs",
};
const FIRST_WAIT_MS = 100;
const LONGEST_WAIT_MS = 10_000;
/** A process that has run for this long was well: its next wait is the first again. */
const WELL_AFTER_MS = 30_000;
const MOST_FAILED_STARTS = 10;
/** A process that does not answer in this time after its start is ended and counts as failed. */
const START_MS = 60_000;
/** After being told to stop, each has this long. */
const STOP_MS = 10_000;

/** A line in the log's own shape, beside those of the processes. */
function note(level, msg, more = {}) {
  if (process.env.LOG_LEVEL === "silent") return;
  console.error(JSON.stringify({ level, time: Date.now(), process: "supervisor", ...more, msg }));
}

/**
 * Pages are drawn after a rep is written: on a small machine a rep does not wait for a print. A
 * step of five, a third of the others' share: at ten, five busy processes of another make left a
 * page a fiftieth of the machine, and it came after twenty seconds.
 */
const PAGES_NICE = 5;

function yieldTo(child, name) {
  if (name !== "pages" || child.pid === undefined) return;
  try {
    setPriority(child.pid, PAGES_NICE);
  } catch {
    // A system that does not allow it draws pages at the usual priority.
  }
}

/**
 * @param options `env` for the processes; `listening(address)` when all are up; `firstRun()` before
 *   that, where there is no team yet; `changed()` when a process came up; `refused(sentence)` where the first start fails, or after too many failed ones
 */
export function supervise({ env, listening, changed, refused, firstRun = () => {} }) {
  // One clock for all of them, also for one that is started again.
  const clockStartedMs = String(Date.now());
  const key = randomBytes(24).toString("base64url");
  const workers = {};
  const ports = {};
  /** How often each was started again without having been well in between. */
  const restarts = {};
  let told = false;
  let stopping = false;
  /** Once the port is known, a front that is started again takes the same. */
  let port;

  const tellFront = () => {
    const front = workers.front?.child;
    if (front?.connected) front.send({ ports: { ...ports } });
  };

  function up() {
    if (ports.pages === undefined || ports.floor === undefined) return;
    if (!workers.front) start("front", 0);
    else tellFront();
  }

  function start(name, failedStarts) {
    const child = spawn(process.execPath, ["--enable-source-maps", SCRIPTS[name]], {
      env: {
        ...process.env,
        ...env,
        CLOCK_STARTED_MS: clockStartedMs,
        FRONT_KEY: key,
        SPREZZA_PROCESS: name,
        ...(told ? { STARTED_AGAIN: "1" } : {}),
        ...(port === undefined ? {} : { PORT: String(port), PORT_OR_NEXT: "0" }),
      },
      stdio: ["ignore", "inherit", "inherit", "ipc"],
    });
    yieldTo(child, name);
    const worker = { child, startedAt: Date.now(), up: false };
    workers[name] = worker;
    let sentence;
    const late = setTimeout(() => child.kill("SIGKILL"), START_MS);
    child.on("error", (error) => note(50, `${name} could not be started: ${error.message}`));
    child.on("message", (message) => {
      if (message.refused !== undefined) sentence = message.refused;
      if (message.firstRun && !told) firstRun();
      if (message.listening === undefined) return;
      clearTimeout(late);
      worker.up = true;
      if (name === "front") {
        port = message.port;
        tellFront();
        if (!told) {
          told = true;
          listening(message.listening);
        }
      } else {
        ports[name] = message.listening;
        up();
      }
      changed();
    });
    child.on("exit", (code, signal) => {
      clearTimeout(late);
      worker.ended = true;
      if (name !== "front") {
        ports[name] = undefined;
        tellFront();
      }
      if (stopping) return;
      const failed = worker.up ? 0 : failedStarts + 1;
      if ((!told && sentence !== undefined) || failed >= MOST_FAILED_STARTS) {
        const words = sentence ?? `The process "${name}" ended ${failed} times while starting.`;
        note(60, words, { name });
        void stop().then(() => refused(words));
        return;
      }
      const lived = Date.now() - worker.startedAt;
      const before = worker.up && lived > WELL_AFTER_MS ? 0 : (restarts[name] ?? 0);
      restarts[name] = before + 1;
      const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** before);
      note(50, `${name} ended by ${signal ?? `code ${code}`}; it is started again in ${wait} ms`, {
        name,
        afterMs: lived,
        ...(sentence === undefined ? {} : { said: sentence }),
      });
      setTimeout(() => {
        if (!stopping) start(name, failed);
      }, wait);
    });
  }

  async function stop() {
    if (stopping) return;
    stopping = true;
    const running = Object.values(workers).filter((one) => !one.ended);
    const ended = running.map((one) => new Promise((resolve) => one.child.once("exit", resolve)));
    // The front first: it lets what runs come to its end, and takes nothing new.
    for (const one of running) one.child.kill("SIGTERM");
    const late = setTimeout(() => {
      for (const one of running) if (!one.ended) one.child.kill("SIGKILL");
    }, STOP_MS);
    await Promise.all(ended);
    clearTimeout(late);
  }

  start("pages", 0);
  start("floor", 0);
  return {
    stop,
    pids: () =>
      Object.fromEntries(Object.entries(workers).map(([name, one]) => [name, one.child.pid])),
  };
}
