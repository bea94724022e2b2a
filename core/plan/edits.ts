import type { Recipe } from "../recipe/recipe";
import { addDays, daysBetween, type LocalDate } from "../units/time";
import { formatVelocity } from "../units/velocity";
import {
  type Block,
  type BlockFloor,
  type BlockMark,
  type BlockPairing,
  type BlockRest,
  overrideKey,
  pairingsOf,
  slotsOf,
} from "./block";

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json | undefined };

/** Sets the value at one place of a block; without a value the place is emptied. */
export interface PlaceSet {
  path: string[];
  value?: Json | undefined;
}

/** One edit as a coach thinks of it: its words, and all places it sets at once. */
export interface BlockEdit {
  words: string;
  sets: PlaceSet[];
}

export type EditProblem = { ok: false; reason: "no-place"; path: string[] };

type Node = { [key: string]: unknown };
const isNode = (value: unknown): value is Node =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** What stands at a place; undefined where nothing does. */
export function at(block: Block, path: readonly string[]): Json | undefined {
  let here: unknown = block;
  for (const step of path) {
    if (!isNode(here)) return undefined;
    here = here[step];
  }
  return here as Json | undefined;
}

function put(node: Node, path: readonly string[], value: unknown): Node | undefined {
  const [step, ...rest] = path;
  if (step === undefined) return undefined;
  const next = { ...node };
  if (rest.length === 0) {
    if (value === undefined) delete next[step];
    else next[step] = value;
    return next;
  }
  const child = node[step];
  if (!isNode(child)) return undefined;
  const changed = put(child, rest, value);
  if (!changed) return undefined;
  next[step] = changed;
  return next;
}

/**
 * The block with an edit made; the old one is untouched. All of its places are set or none.
 * @returns the new block, or the place whose parent is not there (any more)
 */
export function applyEdit(
  block: Block,
  edit: Pick<BlockEdit, "sets">,
): { ok: true; block: Block } | EditProblem {
  let now: Node = block as unknown as Node;
  for (const { path, value } of edit.sets) {
    const next = put(now, path, value);
    if (!next) return { ok: false, reason: "no-place", path };
    now = next;
  }
  return { ok: true, block: now as unknown as Block };
}

/** The edit that brings back what an edit replaces; made on the block before it. */
export function inverseOf(block: Block, edit: BlockEdit): BlockEdit {
  const sets: PlaceSet[] = [];
  let now = block;
  for (const set of edit.sets) {
    const old = at(now, set.path);
    sets.unshift(old === undefined ? { path: set.path } : { path: set.path, value: old });
    const next = applyEdit(now, { sets: [set] });
    if (next.ok) now = next.block;
  }
  return { words: `Taken back: ${edit.words}`, sets };
}

const startsWith = (path: readonly string[], head: readonly string[]) =>
  head.length <= path.length && head.every((step, i) => path[i] === step);

/** Whether two edits are about the same place: one's path lies within the other's. */
export function aboutSamePlace(a: Pick<BlockEdit, "sets">, b: Pick<BlockEdit, "sets">): boolean {
  return a.sets.some((one) =>
    b.sets.some((two) => startsWith(one.path, two.path) || startsWith(two.path, one.path)),
  );
}

/** A slot's recipe, in place of the one it has. */
export const recipeTo = (slotId: string, recipe: Recipe): BlockEdit => ({
  words: `Recipe changed: ${recipe.name}`,
  sets: [{ path: ["slots", slotId, "recipe"], value: JSON.parse(JSON.stringify(recipe)) }],
});

interface OwnSet {
  athleteId: string;
  slotId: string;
  setKey: string;
}

/** A coach's own load for one set of one athlete. Whose it is, the server says. */
export const ownLoad = (at: OwnSet, loadKg: number): BlockEdit => ({
  words: "Own load set",
  sets: [
    {
      path: ["overrides", overrideKey(at.athleteId, at.slotId, at.setKey)],
      value: { loadKg, by: "" },
    },
  ],
});

interface OwnRun {
  athleteId: string;
  slotId: string;
  /** Keys of its sets. */
  keys: readonly string[];
}

const eachSet = ({ athleteId, slotId, keys }: OwnRun, value: () => Json | undefined): PlaceSet[] =>
  keys.map((key) => ({ path: ["overrides", overrideKey(athleteId, slotId, key)], value: value() }));
const setWords = ({ keys }: OwnRun) => `${keys.length} ${keys.length === 1 ? "set" : "sets"}`;

/** A coach's own load for some sets of one athlete, as one edit. */
export const ownRun = (at: OwnRun, loadKg: number): BlockEdit => ({
  words: `Own load set for ${setWords(at)}`,
  sets: eachSet(at, () => ({ loadKg, by: "" })),
});

/** The recipe's loads again. */
export const noOwnRun = (at: OwnRun): BlockEdit => ({
  words: `Own load taken off ${setWords(at)}`,
  sets: eachSet(at, () => undefined),
});

/** The recipe's load again. */
export const noOwnLoad = (at: OwnSet): BlockEdit => ({
  words: "Own load taken off",
  sets: [{ path: ["overrides", overrideKey(at.athleteId, at.slotId, at.setKey)] }],
});

/** More rest for one athlete in one slot; a block without any gets the place for them first. */
export const ownRest = (
  block: Block,
  at: { athleteId: string; slotId: string },
  rest: BlockRest,
): BlockEdit => ({
  words: `${rest.addS} s more rest for one athlete`,
  sets: [
    ...(block.rests ? [] : [{ path: ["rests"], value: {} }]),
    { path: ["rests", `${at.athleteId}/${at.slotId}`], value: { ...rest } },
  ],
});

/** A floor of one athlete's own in one slot; a block without any gets the place for them first. */
export const ownFloor = (
  block: Block,
  at: { athleteId: string; slotId: string },
  floor: BlockFloor,
): BlockEdit => ({
  words: `A floor of ${formatVelocity(floor.floorMps)} m/s for one athlete`,
  sets: [
    ...(block.floors ? [] : [{ path: ["floors"], value: {} }]),
    { path: ["floors", `${at.athleteId}/${at.slotId}`], value: { ...floor } },
  ],
});

/** The slot's own rest, or floor, again for one athlete. */
export const noOwn = (
  place: "rests" | "floors",
  at: { athleteId: string; slotId: string },
): BlockEdit => ({
  words: place === "rests" ? "The slot's rest again" : "The slot's floor again",
  sets: [{ path: [place, `${at.athleteId}/${at.slotId}`] }],
});

/** A check that stays as it is, with the coach's reason. Whose it is, the server says. */
export const answerCheck = (
  check: { key: string; code: string; athletes?: string[] },
  reason: string,
): BlockEdit => ({
  words: `Check answered: ${check.code}`,
  sets: [
    {
      path: ["answered", check.key],
      value: {
        reason,
        by: "",
        ...(check.athletes === undefined ? {} : { athletes: check.athletes }),
      },
    },
  ],
});

/** Moves the whole block by days. */
export function shiftBlock(block: Block, days: number): BlockEdit {
  const startDate = addDays(block.startDate, days);
  // An absence is a matter of the calendar: it stays where it is.
  return {
    words: `Start moved from ${block.startDate} to ${startDate}`,
    sets: [{ path: ["startDate"], value: startDate }],
  };
}

export const startTo = (block: Block, startDate: LocalDate): BlockEdit =>
  shiftBlock(block, daysBetween(block.startDate, startDate));

/** Puts a week of its own before a week: no slot's cycle goes on in it, all later ones move. */
export function insertWeek(block: Block, id: string, mark: BlockMark): BlockEdit {
  return {
    words: `Week ${mark.week} put in: ${mark.words || mark.kind}`,
    sets: [
      { path: ["weeks"], value: block.weeks + 1 },
      ...Object.entries(block.marks)
        .filter(([, other]) => other.week >= mark.week)
        .map(([other, { week }]) => ({ path: ["marks", other, "week"], value: week + 1 })),
      ...Object.entries(block.slots)
        .filter(([, slot]) => slot.fromWeek >= mark.week)
        .map(([slot, { fromWeek }]) => ({
          path: ["slots", slot, "fromWeek"],
          value: fromWeek + 1,
        })),
      ...Object.entries(block.pairings ?? {})
        .filter(([, pairing]) => pairing.fromWeek >= mark.week)
        .map(([pairing, { fromWeek }]) => ({
          path: ["pairings", pairing, "fromWeek"],
          value: fromWeek + 1,
        })),
      { path: ["marks", id], value: { ...mark } },
    ],
  };
}

/** Takes a marked week out again, later ones move back. */
export function removeWeek(block: Block, id: string): BlockEdit | undefined {
  const mark = block.marks[id];
  if (!mark || block.weeks <= 1) return undefined;
  return {
    words: `Week ${mark.week} taken out`,
    sets: [
      { path: ["weeks"], value: block.weeks - 1 },
      ...Object.entries(block.marks)
        .filter(([other, { week }]) => other !== id && week > mark.week)
        .map(([other, { week }]) => ({ path: ["marks", other, "week"], value: week - 1 })),
      ...Object.entries(block.slots)
        .filter(([, slot]) => slot.fromWeek > mark.week)
        .map(([slot, { fromWeek }]) => ({
          path: ["slots", slot, "fromWeek"],
          value: fromWeek - 1,
        })),
      ...Object.entries(block.pairings ?? {})
        .filter(([, pairing]) => pairing.fromWeek > mark.week)
        .map(([pairing, { fromWeek }]) => ({
          path: ["pairings", pairing, "fromWeek"],
          value: fromWeek - 1,
        })),
      { path: ["marks", id] },
    ],
  };
}

/** Moves a slot one place up or down among its section's; nothing at the edge. */
export function moveSlot(block: Block, slotId: string, by: -1 | 1): BlockEdit | undefined {
  const slot = block.slots[slotId];
  if (!slot) return undefined;
  const row = slotsOf(block, slot.dayId).filter((one) => one.section === slot.section);
  const from = row.findIndex((one) => one.id === slotId);
  if (row[from + by] === undefined) return undefined;
  const order = row.map((one) => one.id);
  order.splice(from, 1);
  order.splice(from + by, 0, slotId);
  return orderSlots(order, by < 0 ? "earlier" : "later");
}

/** Puts slots of one section in an order. */
export function orderSlots(slotIds: readonly string[], words: string): BlockEdit {
  return {
    words: `Order changed: ${words}`,
    sets: slotIds.map((id, i) => ({ path: ["slots", id, "order"], value: i + 1 })),
  };
}

/** A slot goes with what hangs on it; its overrides are kept aside in the edit's inverse. */
export function removeSlot(block: Block, slotId: string): BlockEdit {
  return {
    words: `Slot taken out: ${block.slots[slotId]?.recipe.name ?? ""}`,
    sets: [
      ...Object.keys(block.overrides)
        .filter((key) => key.split("/")[1] === slotId)
        .map((key) => ({ path: ["overrides", key] })),
      ...(["rests", "floors"] as const).flatMap((place) =>
        Object.keys(block[place] ?? {})
          .filter((key) => key.split("/")[1] === slotId)
          .map((key) => ({ path: [place, key] })),
      ),
      { path: ["slots", slotId] },
    ],
  };
}

/** A day goes with its slots. */
export function removeDay(block: Block, dayId: string): BlockEdit {
  return {
    words: `Day taken out: ${block.days[dayId]?.name ?? ""}`,
    sets: [
      ...Object.entries(block.slots)
        .filter(([, slot]) => slot.dayId === dayId)
        .flatMap(([id]) => removeSlot(block, id).sets),
      ...pairingsOf(block, dayId).map(({ id }) => ({ path: ["pairings", id] })),
      { path: ["days", dayId] },
    ],
  };
}

/** Puts a complex on a day; a block without any gets the place for them first. */
export function putPairing(
  block: Block,
  id: string,
  pairing: BlockPairing,
  name: string,
): BlockEdit {
  return {
    words: `Pairing put on: ${name}`,
    sets: [
      ...(block.pairings ? [] : [{ path: ["pairings"], value: {} }]),
      { path: ["pairings", id], value: { ...pairing } },
    ],
  };
}

/** The same block from another day, its athletes' own loads and absences left out. */
export function copyBlock(block: Block, name: string, startDate: LocalDate): Block {
  return {
    ...block,
    name,
    startDate,
    overrides: {},
    rests: {},
    floors: {},
    away: {},
    answered: {},
  };
}

/**
 * A block of one athlete's own: the same from now, with their own loads; the squad's block leaves
 * them out by the edit that comes with it.
 */
export function splitOff(
  block: Block,
  athleteId: string,
  name: string,
): { own: Block; edit: BlockEdit } {
  const own = <T>(entries: Record<string, T>): Record<string, T> =>
    Object.fromEntries(Object.entries(entries).filter(([key]) => key.startsWith(`${athleteId}/`)));
  return {
    own: {
      ...block,
      name,
      overrides: own(block.overrides),
      rests: own(block.rests ?? {}),
      floors: own(block.floors ?? {}),
      away: {},
      apart: {},
    },
    edit: {
      words: "An athlete split off",
      sets: [{ path: ["apart", athleteId], value: true }],
    },
  };
}
