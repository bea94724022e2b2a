/** Types of tls.mjs, for the tests that are written in TypeScript. */
export function tlsFiles(
  home: string,
): Record<"authorityKey" | "authority" | "names" | "key" | "certificate", string>;
export function fingerprint(pem: string): string;
export function readTls(
  settings: { TLS_KEY?: string; TLS_CERT?: string },
  at?: Date,
): { key?: string; cert?: string; warning?: string; refused?: string } | undefined;
