import type { readAthlete } from "../../workflows/athletes/read-athlete.server";

type Ok<T> = Extract<T, { ok: true }> extends { value: infer V } ? V : never;

/** What the athlete's page is made of. */
export type AthletePage = Ok<Awaited<ReturnType<typeof readAthlete>>> & { mayEdit: boolean };
export type LiftOnPage = AthletePage["lifts"][number];
