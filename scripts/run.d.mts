/** Types of run.mjs, for the tests that are written in TypeScript. */
import type { ChildProcess } from "node:child_process";

export interface RunningServer {
  child: ChildProcess;
  address: Promise<string>;
  ended: Promise<number | null>;
  stop(): Promise<void>;
}
export function startServer(env: NodeJS.ProcessEnv): RunningServer;
export function run(name: string, args: string[], env?: NodeJS.ProcessEnv): number;
export function bin(name: string): string;
