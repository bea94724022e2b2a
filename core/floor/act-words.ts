import type { Complex } from "../contrast/complex";
import { endedWords } from "../liverules/rep";
import { formatKg, type MassUnit } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { EntryBody } from "./entries";

/** An act's name as short as a button: "rep 2, 0.60", "end of the set". */
export function actName(body: EntryBody): string {
  switch (body.kind) {
    case "rep": {
      const velocity = body.mcvMps ?? body.mpvMps ?? body.pvMps;
      if (body.outcome === "failed") return `rep ${body.rep}, failed`;
      return velocity === undefined
        ? `rep ${body.rep}`
        : `rep ${body.rep}, ${formatVelocity(velocity)}`;
    }
    case "set-done":
      return "end of the set";
    case "fault":
      return "the fault";
    case "call":
      return "the decision";
    case "set-load":
      return "the load";
    case "later":
      return "letting others before";
    case "skip":
      return "leaving the set out";
    case "bounce":
      return `the bounce of rep ${body.rep}`;
    case "rehearsed":
      return "the rehearsal";
    case "work":
      return body.side ? `the ${body.side} side` : "the set";
    case "move":
      return "the change of station";
    case "off":
      return "taking off";
    case "note":
      return "the note";
    case "pause":
      return body.on ? "the pause" : "going on";
    case "pain":
      return "the pain";
    case "pain-over":
      return "the word on a pain";
    default:
      return "the last act";
  }
}

const hasSpeed = (rep: Extract<EntryBody, { kind: "rep" }>) =>
  rep.outcome === "counted" && (rep.mcvMps ?? rep.mpvMps ?? rep.pvMps) !== undefined;

/** What an entry did, in a few words: "rep 2, 0.60 m/s", "the end of the set". */
export function actWords(
  body: EntryBody,
  of: { complex?: Complex | undefined; unit?: MassUnit | undefined } = {},
): string {
  const load = (kg: number) => formatKg(kg, of.unit ?? "kg", 1);
  switch (body.kind) {
    case "rep":
      return hasSpeed(body) ? `${actName(body)} m/s` : actName(body);
    case "set-done":
      return `the end of the set (${endedWords(body.endedBy)}, ${load(body.loadKg)})`;
    case "set-load":
      return `the load of ${load(body.loadKg)}`;
    case "work":
      return `${actName(body)} (${body.reps}${body.loadKg === undefined ? "" : ` at ${load(body.loadKg)}`})`;
    case "pain":
    case "pain-over":
    case "later":
    case "skip":
    case "bounce":
    case "rehearsed":
    case "move":
    case "off":
    case "note":
    case "pause":
      return actName(body);
    case "fault":
      return `the fault "${body.fault}"`;
    case "call":
      return "the decision on the call";
    case "void":
      return "what was taken back";
    case "admit":
      return "the word on late entries";
    default:
      return itemWords(body, of.complex, load);
  }
}

function itemWords(
  body: Extract<EntryBody, { round: number }>,
  complex: Complex | undefined,
  load: (kg: number) => string,
) {
  const at = `${complex?.items[body.item]?.name ?? `item ${body.item + 1}`}, round ${body.round}`;
  switch (body.kind) {
    case "item-start":
      return `the start of ${at}`;
    case "item-done":
      return `the end of ${at}`;
    case "item-output":
      return `${body.value} of ${at}${body.side ? `, ${body.side}` : ""}`;
    case "item-baseline":
      return `the baseline ${body.value}`;
    case "item-sides":
      return `the sides of ${at}`;
    case "item-load":
      return `${load(body.kg)} from ${at}`;
    case "pairing-stop":
      return "the stop";
  }
}
