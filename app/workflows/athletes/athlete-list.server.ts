import { uuidv7 } from "uuidv7";
import {
  type AthleteFacts,
  type AthleteLine,
  type AthleteList,
  readAthleteList,
} from "../../../core/maxes/athlete-rows";
import { plainName } from "../../../core/reading/names";
import { addAthletes, addBodyMasses, updateAthletes } from "../../../db/queries/person.server";
import { addBatch } from "../../../db/queries/profiles.server";
import {
  alsoTrain,
  everySquad,
  insertSquad,
  listAthletes,
  listEverybody,
  readTeam,
} from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { AthleteListInput, ManyInput } from "../../forms/athlete-list";
import { rowsOf } from "../../forms/delimited";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** What the page that adds athletes starts from. */
export function startList(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const { squads, rooms } = await readPlaces(tx);
    return {
      squads: squads.map(({ id, name }) => ({ id, name })),
      rooms: rooms.map(({ id, name }) => ({ id, name })),
      athletes: (await listAthletes(tx)).length,
    };
  });
}

async function read(tx: TeamTransaction, input: AthleteListInput) {
  const places = await readPlaces(tx);
  const squads = await everySquad(tx);
  const everybody = await listEverybody(tx);
  const squadName = (id: string | null) => squads.find((one) => one.id === id)?.name ?? "";
  const list = readAthleteList(rowsOf(input.text), {
    today: places.today,
    unit: (await readTeam(tx))?.unit ?? "kg",
    athletes: everybody
      .filter((one) => one.erasedAt === null)
      .map((one) => ({
        id: one.id,
        name: one.name,
        squad: squadName(one.squadId),
        archived: one.archivedAt !== null,
      })),
    squads: places.squads.map((one) => one.name),
    rooms: places.rooms.map((one) => one.name),
    choices: input.choices ?? {},
    mapping: input.mapping,
  });
  return { list: forPlaces(list, input, places), places, everybody };
}

/** Who has neither a squad nor a room has no place to train: said on the line. */
function forPlaces(
  list: AthleteList,
  input: AthleteListInput,
  places: { rooms: Array<{ id: string }> },
): AthleteList {
  const placed = input.squadId !== "" || input.roomId !== "" || places.rooms.length === 1;
  if (placed) return list;
  return {
    ...list,
    lines: list.lines.map((one) =>
      one.fate.kind === "add" && !one.facts.squad && !one.facts.room
        ? {
            ...one,
            problems: [
              ...one.problems,
              "No squad and no room: choose above where lines without a squad train.",
            ],
          }
        : one,
    ),
  };
}

/** Lines that a page shows: the faulty first, then as they come. */
const LINES_SHOWN = 300;

export interface CheckedList {
  header: string[] | undefined;
  mapping: AthleteList["mapping"];
  /** As many columns as the widest line has, the first cells of each for the choice of its role. */
  samples: string[][];
  problems: string[];
  newSquads: string[];
  lines: AthleteLine[];
  total: number;
  bad: number;
  ask: number;
  add: number;
  update: number;
}

/** Reads a pasted list against the team and keeps nothing. */
export function checkList(principal: Principal, input: AthleteListInput): Promise<CheckedList> {
  return inTeam(principal, async (tx) => {
    const { list } = await read(tx, input);
    const rows = rowsOf(input.text).filter((cells) => cells.some((cell) => cell.trim() !== ""));
    const width = Math.min(30, Math.max(0, ...rows.slice(0, 50).map((cells) => cells.length)));
    const body = rows.slice(list.header ? 1 : 0, 4);
    const wrong = (one: AthleteLine) => one.problems.length > 0 || one.fate.kind === "ask";
    const lines = [...list.lines.filter(wrong), ...list.lines.filter((one) => !wrong(one))];
    const count = (kind: AthleteLine["fate"]["kind"]) =>
      list.lines.filter((one) => one.problems.length === 0 && one.fate.kind === kind).length;
    return {
      header: list.header,
      mapping: list.mapping,
      samples: Array.from({ length: width }, (_, i) => body.map((cells) => cells[i] ?? "")),
      problems: list.problems,
      newSquads: list.newSquads,
      lines: lines.slice(0, LINES_SHOWN),
      total: list.lines.length,
      bad: list.lines.filter((one) => one.problems.length > 0).length,
      ask: count("ask"),
      add: count("add"),
      update: count("update"),
    };
  });
}

export interface KeptList {
  added: number;
  updated: number;
  squads: number;
  /** Lines that were left, as they were pasted, with the header: to be mended. */
  left: string;
  leftLines: number;
}

/**
 * Keeps a list in one transaction: all of it, or where that was asked for the lines without a
 * fault, with the others given back.
 */
export function keepList(
  principal: Principal,
  input: AthleteListInput,
): Promise<Outcome<KeptList>> {
  return inTeamOnce(principal, async (tx) => {
    const { list, places, everybody } = await read(tx, input);
    if (list.problems[0]) return failed("list", list.problems[0]);
    const isGood = (one: AthleteLine) => one.problems.length === 0 && one.fate.kind !== "ask";
    const good = list.lines.filter(isGood);
    if (input.intent === "keep" && good.length < list.lines.length)
      return failed("faults", "Nothing was kept: some lines still have a fault or a question.");
    if (good.length === 0) return failed("faults", "Nothing was kept: no line is without a fault.");

    if (input.squadId !== "" && !places.squads.some((one) => one.id === input.squadId))
      return failed("no-squad", "This squad is not in your team any more. Load the page again.");
    if (input.roomId !== "" && !places.rooms.some((one) => one.id === input.roomId))
      return failed("no-room", "This room is not in your team any more. Load the page again.");
    const squadIds = new Map(places.squads.map((one) => [plainName(one.name), one.id]));
    const room = places.rooms.find((one) => one.id === input.roomId) ?? places.rooms[0];
    if (!room) return failed("no-room", "There is no room yet. Draw one up under Gear first.");
    const wanted = new Set(good.flatMap((one) => one.facts.squad ?? []).map(plainName));
    const made = list.newSquads.filter((name) => wanted.has(plainName(name)));
    for (const [i, name] of made.entries()) {
      const id = uuidv7();
      squadIds.set(plainName(name), id);
      const position = places.squads.length + i;
      await insertSquad(tx, { id, name, sport: "", roomId: room.id, position });
    }
    const entered = { enteredBy: principal.name, enteredAt: now() };
    const facts = (one: AthleteFacts) => ({
      ...(one.squad === undefined ? {} : { squadId: squadIds.get(plainName(one.squad)) ?? null }),
      ...(one.room === undefined
        ? {}
        : { roomId: places.rooms.find((two) => two.name === one.room)?.id ?? null }),
      ...(one.sport === undefined ? {} : { sport: one.sport }),
      ...(one.birthYear === undefined ? {} : { birthYear: one.birthYear }),
      ...(one.trainingSince === undefined ? {} : { trainingSince: one.trainingSince }),
      ...(one.goal === undefined ? {} : { goal: one.goal }),
      ...(one.seasonPhase === undefined ? {} : { seasonPhase: one.seasonPhase }),
      ...(one.unit === undefined ? {} : { unit: one.unit }),
      ...(one.statureCm === undefined ? {} : { statureCm: one.statureCm }),
    });
    const usual = {
      squadId: input.squadId === "" ? null : input.squadId,
      roomId: input.squadId === "" ? room.id : null,
    };
    const added = good.filter((one) => one.fate.kind === "add");
    const ids = new Map<AthleteLine, string>();
    for (const one of added) ids.set(one, uuidv7());
    await addAthletes(
      tx,
      added.map((one) => ({
        id: ids.get(one) as string,
        name: one.name,
        ...usual,
        // A squad of the line's own gives the room.
        ...(one.facts.squad === undefined ? {} : { roomId: null }),
        ...facts(one.facts),
      })),
    );
    const updated = good.flatMap((one) =>
      one.fate.kind === "update" ? [{ one, id: one.fate.athleteId }] : [],
    );
    for (const { one, id } of updated) ids.set(one, id);
    const archived = new Set(everybody.filter((one) => one.archivedAt).map((one) => one.id));
    await updateAthletes(
      tx,
      updated.map(({ one, id }) => ({
        id,
        facts: { ...facts(one.facts), ...(archived.has(id) ? { archivedAt: null } : {}) },
      })),
    );
    await addBodyMasses(
      tx,
      good.flatMap((one) => {
        const athleteId = ids.get(one);
        const mass = one.facts.bodyMass;
        return mass && athleteId
          ? [{ id: uuidv7(), athleteId, date: places.today, mass, ...entered }]
          : [];
      }),
    );
    await addBatch(tx, {
      id: uuidv7(),
      kind: "athletes",
      fileName: input.fileName || "pasted list",
      tests: good.length,
      reps: 0,
      ...entered,
    });
    const left = list.lines.filter((one) => !isGood(one));
    return done({
      added: added.length,
      updated: updated.length,
      squads: made.length,
      left: linesOf(input.text, list.header !== undefined, left),
      leftLines: left.length,
    });
  });
}

/** The lines that were not taken, as they were pasted, under the same header. */
function linesOf(text: string, header: boolean, lines: readonly AthleteLine[]): string {
  if (lines.length === 0) return "";
  const written = text.replace(/^\uFEFF/, "").split(/\r\n?|\n/);
  const first = written.findIndex((line) => line.trim() !== "");
  const wanted = lines.map((one) => written[one.line - 1] ?? "");
  return [...(header ? [written[first] ?? ""] : []), ...wanted].join("\n");
}

/** The same change for many athletes, in one transaction. */
export function changeMany(
  principal: Principal,
  input: ManyInput,
): Promise<Outcome<{ changed: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const places = await readPlaces(tx);
    const people = (await listAthletes(tx)).filter((one) => input.athleteIds.includes(one.id));
    if (people.length < input.athleteIds.length)
      return failed("gone", "Somebody who was marked is not on the list any more. Load it again.");
    const { squadId, roomId, seasonPhase, goal, alsoIn } = input;
    if (
      (squadId !== "keep" &&
        squadId !== "alone" &&
        !places.squads.some((one) => one.id === squadId)) ||
      (alsoIn !== "keep" && !places.squads.some((one) => one.id === alsoIn))
    )
      return failed("no-squad", "This squad is not in your team any more.");
    if (roomId !== "keep" && roomId !== "squad" && !places.rooms.some((one) => one.id === roomId))
      return failed("no-room", "This room is not in your team any more.");
    const changes = people.map((person) => {
      const nextSquad = squadId === "keep" ? person.squadId : squadId === "alone" ? null : squadId;
      const nextRoom = roomId === "keep" ? person.roomId : roomId === "squad" ? null : roomId;
      // Who trains alone keeps the room that the squad gave.
      const room = nextRoom ?? (nextSquad === null ? (places.roomOf(person)?.id ?? null) : null);
      return {
        id: person.id,
        facts: {
          squadId: nextSquad,
          roomId: room,
          ...(seasonPhase === "keep"
            ? {}
            : { seasonPhase: seasonPhase === "none" ? null : seasonPhase }),
          ...(goal === "keep" ? {} : { goal: goal === "none" ? null : goal }),
        },
        alsoIn: alsoIn === "keep" || alsoIn === nextSquad ? undefined : alsoIn,
      };
    });
    if (changes.some((one) => one.facts.squadId === null && one.facts.roomId === null))
      return failed("no-room", "Who trains alone needs a room of their own: choose one too.");
    await updateAthletes(tx, changes);
    await alsoTrain(
      tx,
      changes.flatMap((one) => (one.alsoIn ? [{ athleteId: one.id, squadId: one.alsoIn }] : [])),
    );
    return done({ changed: people.length });
  });
}
