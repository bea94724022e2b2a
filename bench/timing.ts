import { median } from "../core/numeric/statistics";

const ROUNDS = 7;

const WARM_UP_MS = 100;

/** Median of several rounds, ms, after some that are not counted: the engine compiles what is hot. */
export function timed(work: () => void): number {
  const warm = performance.now() + WARM_UP_MS;
  do work();
  while (performance.now() < warm);
  const times: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const startedAt = performance.now();
    work();
    times.push(performance.now() - startedAt);
  }
  return median(times) ?? 0;
}

/** Where results go, so that no work is left out as unused. */
export const sink = { value: 0 };

/** A fixed piece of work on the same machine, ms. */
export const baseline = timed(() => {
  for (let i = 0; i < 5e6; i++) sink.value = (sink.value + i * 31) % 1000003;
});

export const line = (name: string, ms: number, more = "") =>
  console.log(
    `${name.padEnd(58)} ${ms.toFixed(2).padStart(9)} ms  ${(ms / baseline).toFixed(2).padStart(8)} × baseline  ${more}`,
  );
