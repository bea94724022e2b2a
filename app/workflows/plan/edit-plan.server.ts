import { loadBar } from "../../../core/barload/load";
import { describeRefusal } from "../../../core/barload/loading-words";
import { barFits, noBarWords } from "../../../core/gear/bars";
import { slotWeek } from "../../../core/plan/block";
import { aboutSamePlace, type BlockEdit, type Json, type PlaceSet } from "../../../core/plan/edits";
import { racksOf, roomById } from "../../../db/queries/gear.server";
import { lockPlan, newestEdits, planById, setPlanRoom } from "../../../db/queries/plans.server";
import type { TeamTransaction } from "../../../db/team.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, type Failure, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { type EditOutcome, editWithin, NO_PLAN, userOf } from "../lifters/plan-edit.server";
import { readerUnit } from "../lifters/reader-unit.server";

/**
 * Makes an edit that was drawn up on edit number `base`. Edits made meanwhile stay; only one that
 * is about the same place stops this one, and nothing is lost: both stand in the list.
 */
export function editPlan(
  principal: Principal,
  input: {
    planId: string;
    base: number;
    edit: BlockEdit;
    /** Where the sender may send it again: an edit that is there already is not made twice. */
    id?: string;
  },
): Promise<EditOutcome> {
  return inTeamOnce(principal, async (tx) => {
    const edit = await signed(tx, principal, input.planId, input.edit);
    return "code" in edit ? edit : editWithin(tx, principal, { ...input, edit });
  });
}

/** Places of a block whose entries say whose they are. */
const SIGNED = ["overrides", "answered", "rests", "floors"];

/**
 * The edit as this person may make it: an own load or an answer is theirs, whatever the sender
 * wrote, and an own load passes the same checks of bar and room as any other.
 */
async function signed(
  tx: TeamTransaction,
  principal: Principal,
  planId: string,
  edit: BlockEdit,
): Promise<BlockEdit | Failure> {
  const sets: PlaceSet[] = [];
  for (const set of edit.sets) {
    const [place = "", key, ...within] = set.path;
    if (!SIGNED.includes(place) || set.value === undefined) {
      sets.push(set);
      continue;
    }
    // Whole entries only: one that is set in parts could be somebody else's.
    if (key === undefined || within.length > 0 || !isEntry(set.value)) {
      return failed("not-an-entry", "An own load or an answer is set as a whole. Load the page.");
    }
    const value: Entry = { ...set.value, by: principal.name };
    const refused =
      place === "overrides"
        ? await ownLoadRefused(tx, principal, planId, key, value.loadKg)
        : undefined;
    if (refused) return refused;
    sets.push({ path: set.path, value });
  }
  return { ...edit, sets };
}

type Entry = { [key: string]: Json | undefined };

const isEntry = (value: Json): value is Entry =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Why a coach's own load cannot stand; undefined where it can. */
async function ownLoadRefused(
  tx: TeamTransaction,
  principal: Principal,
  planId: string,
  key: string,
  loadKg: Json | undefined,
): Promise<Failure | undefined> {
  const row = await planById(tx, planId);
  const [, slotId = "", ...rest] = key.split("/");
  const slot = row?.plan.block.slots[slotId];
  if (!row || !slot) return NO_PLAN;
  const { block } = row.plan;
  const there = Array.from({ length: block.weeks }, (_, i) => i + 1).some((week) =>
    slotWeek(block, slot, week)?.sets.some((set) => set.key === rest.join("/")),
  );
  if (!there) return failed("no-set", "The recipe has no such set any more. Load the page again.");
  if (slot.work.kind !== "lift" || typeof loadKg !== "number") return undefined;
  const { variantId } = slot.work;
  const asked = row.variants.find((one) => one.id === variantId)?.bar ?? "";
  const racks = await racksOf(tx, row.plan.roomId);
  const rack = racks.find((one) => barFits(asked, one.bar));
  if (!rack) {
    return racks.length > 0
      ? failed("no-bar", noBarWords(asked, row.roomName))
      : failed("no-rack", `${row.roomName} has no rack with a bar yet.`);
  }
  const loading = loadBar(rack.gear, loadKg, row.plan.rounding);
  return loading.ok
    ? undefined
    : failed("not-loadable", describeRefusal(loading, await readerUnit(tx, principal)));
}

/** Edits that count: an undo takes its edit away, a redo brings it back. */
function editsInForce(edits: Awaited<ReturnType<typeof newestEdits>>) {
  const undone = new Set<string>();
  const redoable: typeof edits = [];
  const own: typeof edits = [];
  const isOwn = new Set(edits.filter((one) => one.undoes === null).map((one) => one.id));
  // Newest first: an undo is met before what it undoes.
  for (const one of edits) {
    if (one.undoes !== null) {
      if (!undone.has(one.id)) {
        undone.add(one.undoes);
        // What takes back an edit can be brought back; what brings back is done.
        if (isOwn.has(one.undoes)) redoable.push(one);
      }
    } else own.push(one);
  }
  return { undone, own, redoable };
}

const UNDO_DEPTH = 200;

/** Takes back this person's last edit that still stands, unless somebody built on its place. */
export function undoEdit(principal: Principal, planId: string): Promise<EditOutcome> {
  return inTeam(principal, async (tx) => {
    if (!(await lockPlan(tx, planId))) return NO_PLAN;
    const edits = await newestEdits(tx, planId, UNDO_DEPTH);
    const { undone, own } = editsInForce(edits);
    const last = own.find((one) => one.userId === userOf(principal) && !undone.has(one.id));
    if (!last) return failed("nothing", "You have nothing to take back in this plan.");
    const later = edits.find(
      (one) =>
        one.seq > last.seq &&
        one.undoes === null &&
        !undone.has(one.id) &&
        one.userId !== last.userId &&
        aboutSamePlace(one.edit, last.edit),
    );
    if (later) {
      return failed(
        "built-on",
        `${later.enteredBy} changed the same place after you ("${later.edit.words}"): nothing was taken back.`,
      );
    }
    return editWithin(tx, principal, {
      planId,
      base: undefined,
      edit: last.inverse,
      undoes: last.id,
    });
  });
}

/** Brings back what this person took back last, where nothing was edited by them since. */
export function redoEdit(principal: Principal, planId: string): Promise<EditOutcome> {
  return inTeam(principal, async (tx) => {
    if (!(await lockPlan(tx, planId))) return NO_PLAN;
    const edits = await newestEdits(tx, planId, UNDO_DEPTH);
    const { redoable } = editsInForce(edits);
    const me = userOf(principal);
    const last = redoable.find((one) => one.userId === me);
    const newer = edits.find((one) => one.userId === me && one.undoes === null);
    if (!last || (newer && newer.seq > last.seq)) {
      return failed("nothing", "You have nothing to bring back in this plan.");
    }
    return editWithin(tx, principal, {
      planId,
      base: undefined,
      edit: { ...last.inverse, words: `Brought back: ${words(last.edit.words)}` },
      undoes: last.id,
    });
  });
}

const words = (text: string) => text.replace(/^(Taken back|Brought back): /, "");

/** Where the plan is done and how it rounds. */
export function movePlan(
  principal: Principal,
  input: { planId: string; roomId: string; rounding: "nearest" | "down" },
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const room = await roomById(tx, input.roomId);
    if (!room) return failed("no-room", "This room is not there any more.");
    await setPlanRoom(tx, input.planId, { roomId: input.roomId, rounding: input.rounding });
    return done(null);
  });
}
