import { formatKg, formatMass, type MassUnit, plainNumber } from "../units/mass";
import { formatPercent } from "../units/percent";
import type { Working, WorkingLine } from "../units/working";
import { say, type Text, written } from "../units/written";
import { type BarLoading, describeSide, type LoadRefusal } from "./load";

/** A percentage of less than this is of nothing. */
const LEAST_BASE_KG = 0.1;

/** The lines that the margin shows for a loading. */
export function loadingWorking(loading: BarLoading, baseKg?: number): WorkingLine[] {
  const percent =
    baseKg === undefined || !(baseKg >= LEAST_BASE_KG)
      ? ""
      : ` · ${formatPercent((100 * loading.totalKg) / baseKg)}`;
  const lines: WorkingLine[] = [
    { label: "Asked", value: written(loading.askedKg) },
    {
      label: loading.mode === "down" ? "Next below here" : "Nearest here",
      value: say`${written(loading.totalKg)}${percent}`,
      emphasis: "answer",
      detail: neighbours(loading),
    },
    {
      label: "Bar and a side",
      value: `${plainNumber(loading.bar.mass.amount, 3)} + ${describeSide(loading.side.plates)}`,
      detail: `${loading.bar.name}, ${formatMass(loading.bar.mass)}`,
    },
  ];
  return lines;
}

function neighbours(loading: BarLoading): Text {
  const below = loading.below === undefined ? "nothing lighter" : written(loading.below);
  const above = loading.above === undefined ? "nothing heavier" : written(loading.above);
  return say`neighbours ${below} and ${above}`;
}

/** A refusal in a coach's words, with a way on. */
export function describeRefusal(refusal: LoadRefusal, unit: MassUnit): string {
  const asked = formatKg(refusal.askedKg, unit);
  switch (refusal.reason) {
    case "not-a-load":
      return "A load is a number over 0.";
    case "under-lightest":
      return `${asked} is not loadable: the lightest possible is ${formatKg(refusal.lightestKg, unit)} (${refusal.barName}, empty). Use a lighter bar, or another exercise.`;
    case "over-rating":
      return `${refusal.barName} holds ${formatKg(refusal.ratedKg, unit)} at most. ${asked} asked. Use a heavier bar, or lower the working max.`;
    case "over-plates":
      return `This room's plates reach ${formatKg(refusal.heaviestKg, unit)} on ${refusal.barName}. ${asked} asked. Add plates to the room, or lower the load.`;
  }
}

/** A load on one bar, with what it is of a max where there is one. */
export const barWorking = (
  title: string,
  loading: BarLoading,
  maxKg: number | undefined,
): Working => ({
  title,
  lines: loadingWorking(loading, maxKg),
  sources: ["This rack's bar, collars and plates, counted in whole grains"],
});

/** How a load was asked for, and what came nearest to it on one bar. */
export const onBarWorking = (asked: Working, loading: BarLoading): Working => ({
  ...asked,
  lines: [...asked.lines, { label: "Nearest on this bar", value: written(loading.totalKg) }],
});
