/** Types of authority.mjs, for the tests that are written in TypeScript. */
export const SERVER_DAYS: number;
export const AUTHORITY_DAYS: number;
export interface KeyAndCertificate {
  key: string;
  certificate: string;
}
export function makeAuthority(names: readonly string[], at: Date): Promise<KeyAndCertificate>;
export function issueServer(
  authority: KeyAndCertificate,
  names: readonly string[],
  at: Date,
): Promise<KeyAndCertificate>;
