/** Types of cluster.mjs, for the tests that are written in TypeScript. */
export interface Cluster {
  made: boolean;
  port: number;
  roles: Record<string, string>;
  url(role: string, database: string): string;
  crash(): void;
  start(): void;
  keepUp(say: (sentence: string) => void): () => void;
  stop(): void;
}
export function startCluster(
  folder: string,
  wishedPort: number,
  options?: { kept?: boolean },
): Promise<Cluster>;
export function freePort(wished: number, host?: string): Promise<number>;
