import { expect, it } from "vitest";
import { DeviceClock, MOST_DRIFT_MS } from "./clock";

/** A tablet: time goes by, it sleeps (its monotonic clock stands still), somebody sets its clock. */
function tablet(wrongMs = 0) {
  const startedMs = Date.parse("2026-03-10T16:00:00Z");
  let trueMs = 0;
  let monoMs = 0;
  let setMs = wrongMs;
  let boots = 0;
  const source = { wallMs: () => startedMs + trueMs + setMs, monoMs: () => monoMs };
  const clock = new DeviceClock(source, () => `boot-${++boots}`, "tablet");
  return {
    clock,
    server: () => startedMs + trueMs,
    pass(ms: number) {
      trueMs += ms;
      monoMs += ms;
    },
    sleep(ms: number) {
      trueMs += ms;
    },
    setClock(ms: number) {
      setMs += ms;
    },
    mono: () => monoMs,
  };
}

it("knows the server's clock once it has heard it, however wrong its own goes", () => {
  const own = tablet(-90_000_000);
  own.pass(1000);
  own.clock.learn(own.server(), own.mono(), own.mono());
  own.pass(60_000);
  expect(own.clock.nowMs()).toBe(own.server());
});

it("the answer that took the shortest says most", () => {
  const own = tablet();
  own.clock.learn(own.server() + 400, own.mono(), own.mono() + 2000);
  own.clock.learn(own.server() + 5, own.mono(), own.mono() + 10);
  own.clock.learn(own.server() + 900, own.mono(), own.mono() + 4000);
  expect(own.clock.nowMs()).toBe(own.server());
});

it("a clock that creeps is the same boot; one that runs away begins a new one", () => {
  const own = tablet();
  const first = own.clock.bootId;
  own.setClock(MOST_DRIFT_MS);
  expect(own.clock.bootId).toBe(first);
  own.setClock(1);
  expect(own.clock.bootId).not.toBe(first);
  expect(own.clock.reading().bootId).toBe(own.clock.bootId);
});

it("after a sleep it is a new boot, and the time slept has passed", () => {
  const own = tablet();
  own.clock.learn(own.server(), own.mono(), own.mono());
  const before = own.clock.bootId;
  own.sleep(600_000);
  expect(own.clock.nowMs()).toBe(own.server());
  expect(own.clock.bootId).not.toBe(before);
});

it("a clock set back is a new boot, and no time has passed", () => {
  const own = tablet();
  own.clock.learn(own.server(), own.mono(), own.mono());
  own.setClock(-3_600_000);
  expect(own.clock.nowMs()).toBe(own.server());
});

it("a clock set ahead counts as a sleep until the server is heard again", () => {
  const own = tablet();
  own.clock.learn(own.server(), own.mono(), own.mono());
  own.setClock(90_000_000);
  expect(own.clock.nowMs()).toBe(own.server() + 90_000_000);
  own.clock.learn(own.server(), own.mono(), own.mono() + 40);
  expect(Math.abs(own.clock.nowMs() - own.server())).toBeLessThanOrEqual(20);
});
