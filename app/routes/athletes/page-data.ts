import type { readAthlete } from "../../workflows/athletes/read-athlete.server";
import type { readReads } from "../../workflows/athletes/save-limits.server";

type Ok<T> = Extract<T, { ok: true }> extends { value: infer V } ? V : never;

/** What the athlete's page is made of. */
export type AthletePage = Ok<Awaited<ReturnType<typeof readAthlete>>> & {
  mayEdit: boolean;
  /** For the owner: who has read the reasons of limits. */
  reads: Ok<Awaited<ReturnType<typeof readReads>>> | undefined;
};
export type LiftOnPage = AthletePage["lifts"][number];
