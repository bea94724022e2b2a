import { type BoxSlot, offsetWords } from "../boxsquat/slot";
import { CONTACTS, PURPOSES, styleById } from "../boxsquat/styles";
import type { Recipe, WaveWeek } from "../recipe/recipe";
import { plainNumber } from "../units/mass";

/**
 * Whether bands or chains hang on in a week: where weeks of the recipe name their method, in those
 * that say so; else in every week of work. A deload goes without.
 */
export function hangsIn(recipe: Recipe, week: Pick<WaveWeek, "kind" | "method">): boolean {
  if (!((recipe.resistancePercent ?? 0) > 0) || week.kind !== "work") return false;
  const named = recipe.weeks.some((one) => one.method?.resisted);
  return named ? week.method?.resisted === true : true;
}

const seconds = (s: number) => `${plainNumber(s, 1)} s`;

/**
 * How a week's sets are done, a line each: its method, pause and tempo, contact and stop on the
 * box, sides and rounds. The same words stand on plan, card, paper and rack.
 *
 * @param stopS smallest stop that the team asks where the slot sets none
 */
export function methodWords(
  recipe: Recipe,
  week: Pick<WaveWeek, "kind" | "method">,
  box: BoxSlot | undefined,
  stopS?: number | undefined,
): string[] {
  const lines: string[] = [];
  // A deload is done plainly: without pauses and resistance.
  const method = week.kind === "deload" ? undefined : week.method;
  if (method) {
    const pause = method.pauseS === undefined ? "" : `, ${seconds(method.pauseS)} at the bottom`;
    lines.push(`${capital(method.name)}${pause}`);
  }
  const { tempo } = recipe;
  if (tempo && week.kind !== "deload") {
    const parts = [
      tempo.downS === undefined ? "" : `${seconds(tempo.downS)} down`,
      tempo.pauseS === undefined ? "" : `${seconds(tempo.pauseS)} at the bottom`,
    ].filter(Boolean);
    if (parts.length > 0) lines.push(`Tempo: ${parts.join(", ")}`);
  }
  if (box) {
    const asked = styleById(box.styleId)?.stops ? (box.smallestStopS ?? stopS) : undefined;
    const stop = asked === undefined ? "" : `, stop ${seconds(asked)} or longer`;
    lines.push(`${capital(CONTACTS[box.contact])}${stop}`);
    const off = offsetWords(box.offsetCm);
    if (off) lines.push(`Box ${off}: ${PURPOSES[box.purpose]}`);
  }
  if (recipe.sides === "left-right") lines.push("Left and right");
  if (recipe.timed) {
    lines.push(
      `A start every ${seconds(recipe.timed.everyS)} for ${plainNumber(recipe.timed.minutes)} min`,
    );
  }
  return lines;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
