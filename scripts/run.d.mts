/** Types of run.mjs, for the tests that are written in TypeScript. */
import type { ChildProcess } from "node:child_process";

export interface RunningServer {
  child: ChildProcess;
  address: Promise<string>;
  /** Whether the server said that it has no team yet; known once it has an address. */
  isFirstRun(): boolean;
  ended: Promise<number | null>;
  /** Process numbers of `pages`, `floor` and `front`, as they were at the start. */
  pids(): Record<string, number>;
  /** Lets what runs come to its end. */
  stop(): Promise<void>;
  /** Everything ends at once, as in a power cut. */
  kill(): Promise<void>;
}
export function startServer(env: NodeJS.ProcessEnv): RunningServer;
export function run(name: string, args: string[], env?: NodeJS.ProcessEnv): number;
export function bin(name: string): string;
