import { randomUUID } from "node:crypto";
import type { Seed } from "./seeds";
import type { World } from "./world";

/** What makes a team and its people: first run, invitations, password links, squads and lists. */
export function teamSeeds(
  w: World,
  pick: <T>(list: readonly T[]) => T,
  form: (fields: Record<string, string | string[]>) => { form: Array<[string, string]> },
): Seed[] {
  const unique = randomUUID().slice(0, 8);
  const token = "x".repeat(43);
  const person = { name: `Thrown ${unique}`, email: `${unique}@thrown.example` };
  const password = "four words in a row";
  const list = `Name\tSquad\tBorn\nThrown ${unique}\tThrown\t2003`;
  const lift = "Back squat, straight bar";
  const earlier = `Date,Athlete,Lift,Reps,Load\n2025-11-02,${w.athleteName},"${lift}",3,80`;
  const earlierForm = { unit: "kg", mapping: "", lifts: "{}", slash: "" };
  const records = `athlete,lift,date,load,unit,kind\n${w.athleteName},"${lift}",2025-11-02,123.5,kg,Competition`;
  const recordsForm = { unit: "kg", kind: "tested", mapping: "", lifts: "{}" };
  const listForm = { squadId: pick(w.squads), roomId: "", mapping: "", choices: "{}" };
  const squad = (intent: string, fields: Record<string, string>, refused?: true): Seed => ({
    route: "/athletes/squads",
    intent,
    body: form({ intent, ...fields }),
    ...(refused ? { refused } : {}),
  });
  const people = (intent: string, fields: Record<string, string>): Seed => ({
    route: "/people",
    intent,
    body: form({ intent, ...fields }),
    // A coach looks after athletes' sign-ins alone, and most have none.
    refused: true,
  });
  const memberId = pick(w.members);
  return [
    squad("make", { name: `Squad ${unique}`, sport: "judo", roomId: pick(w.rooms) }),
    squad("change", {
      squadId: pick(w.squads),
      name: `Squad ${unique}`,
      sport: "",
      roomId: pick(w.rooms),
    }),
    squad("up", { squadId: pick(w.squads) }, true),
    squad("down", { squadId: pick(w.squads) }, true),
    squad("archive", { squadId: pick(w.squads) }, true),
    squad("back", { squadId: pick(w.squads) }),
    squad("competition", { squadId: pick(w.squads), name: "Cup", date: "2026-09-01" }),
    squad("drop-competition", { competitionId: pick(w.competitions) ?? randomUUID() }),
    {
      route: "/athletes/add",
      intent: "check",
      body: form({ intent: "check", text: list, ...listForm }),
      refused: true,
    },
    {
      route: "/athletes/add",
      intent: "keep",
      body: form({ intent: "keep", text: list, ...listForm }),
    },
    {
      route: "/athletes",
      intent: "many",
      body: form({
        intent: "many",
        athleteIds: w.athletes.slice(0, 3).join(","),
        squadId: pick(w.squads),
        alsoIn: pick(w.squads),
        roomId: "keep",
        seasonPhase: "peak",
        goal: "keep",
      }),
    },
    {
      route: "/athletes/testing-day",
      intent: "use",
      body: form({ intent: "use", records: pick(w.records) }),
    },
    {
      route: "/data/earlier",
      intent: "check",
      body: form({ intent: "check", text: earlier, ...earlierForm }),
      refused: true,
    },
    {
      route: "/data/earlier",
      intent: "keep",
      body: form({ intent: "keep", text: earlier, ...earlierForm }),
    },
    {
      route: "/data/records",
      intent: "check",
      body: form({ intent: "check", text: records, ...recordsForm }),
      refused: true,
    },
    {
      route: "/data/records",
      intent: "keep",
      body: form({ intent: "keep", text: records, ...recordsForm }),
    },
    {
      // An owner's, and a file of bytes.
      route: "/account/archive",
      body: form({ name: `Archive ${unique}` }),
      refused: true,
    },
    {
      route: "/library/own-table",
      body: form({
        text: "3x2 50\n3x2 55\n9x3 60",
        name: `Own ${unique}`,
        aim: "speed",
        column: "",
        list: "",
        order: "sets-reps",
      }),
    },
    {
      route: "/library/schools",
      intent: "usual",
      body: form({ intent: "usual", schoolId: pick(w.schools) }),
    },
    {
      route: "/tablets",
      intent: "try",
      body: form({ intent: "try", rackId: pick(w.racks) }),
      refused: true,
    },
    {
      route: "/tablets",
      intent: "end-trying",
      body: form({ intent: "end-trying", rackId: pick(w.racks) }),
      // Where it was taken off before there is none.
      refused: true,
    },
    {
      route: "/first-hour",
      intent: "school",
      body: form({ intent: "school", schoolId: pick(w.schools) }),
    },
    { route: "/first-hour", intent: "aside", body: form({ intent: "aside", step: "room" }) },
    { route: "/first-hour", intent: "take-up", body: form({ intent: "take-up", step: "room" }) },
    { route: "/first-hour", intent: "leave", body: form({ intent: "leave" }) },
    people("invite", { name: person.name, role: "coach", email: "" }),
    people("invite-athlete", { athleteId: pick(w.athletes), email: "" }),
    people("link", { invitationId: randomUUID() }),
    people("withdraw", { invitationId: randomUUID() }),
    people("role", { memberId, role: "assistant" }),
    people("rename", { memberId, name: person.name }),
    people("suspend", { memberId }),
    people("let-in", { memberId }),
    people("reset", { memberId }),
    people("team", { team: "Skerry Coast", zone: "Europe/Oslo", unit: "kg" }),
    {
      route: "/account",
      intent: "password",
      body: form({ intent: "password", current: "not this one", password }),
      refused: true,
    },
    {
      route: "/account",
      intent: "switch",
      body: form({ intent: "switch", teamId: randomUUID() }),
      refused: true,
    },
    {
      route: "/account",
      intent: "team",
      body: form({ intent: "team", team: `Team ${unique}`, zone: "Europe/Oslo", unit: "kg" }),
      refused: true,
    },
    {
      route: "/first-run",
      as: "nobody",
      body: form({
        team: "Thrown",
        zone: "UTC",
        unit: "kg",
        code: "ABCD-EFGH",
        ...person,
        password,
      }),
      refused: true,
    },
    {
      route: "/join/:token",
      as: "nobody",
      params: { token },
      body: form({ as: "new", ...person, password }),
      refused: true,
    },
    {
      route: "/reset/:token",
      as: "nobody",
      params: { token },
      body: form({ password }),
      refused: true,
    },
    { route: "/forgot", as: "nobody", body: form({ email: person.email }), refused: true },
  ];
}
