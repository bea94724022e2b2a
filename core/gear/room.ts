import type { LoadingGear, PlateStock } from "../barload/loading-gear";
import type { MatStock, SeatBase } from "../boxsquat/stack";
import {
  type Band,
  bandCurve,
  type Chain,
  type Reading,
  type Resistance,
} from "../resistance/setup";
import { formatMass, type Mass, massKg, plainNumber } from "../units/mass";
import type { LocalDate } from "../units/time";
import type { GearItem } from "./fields";

/** Height of a rack's band pegs where nobody measured them, m. */
export const DEFAULT_PEG_M = 0.05;

/** What one rack is, for loading a bar and for hanging resistance on it. */
export interface RackFacts {
  number: number;
  gear: LoadingGear;
  bolted: boolean;
  /** What holds a band on each side, kg; undefined: nobody said. */
  anchorKg: number | undefined;
  pegM: number;
  hooksCm: number[];
  safetiesCm: number[];
}

/** The racks of a room's items, each with its bar; a rack whose bar is not there is left out. */
export function racksOfItems(items: readonly GearItem[]): RackFacts[] {
  return items
    .filter((one) => one.kind === "rack")
    .flatMap((rack) => {
      const bar = items.find((one) => one.kind === "bar" && one.name === rack.values.bar);
      if (!bar) return [];
      return [
        {
          number: Number(rack.name),
          gear: {
            bar: {
              id: bar.name,
              name: bar.name,
              mass: bar.values.mass as Mass,
              rated: bar.values.rated as Mass,
              sleeveMm: bar.values.sleeve as number,
            },
            collar: bar.values.collar as Mass,
            plates: rack.values.plates as PlateStock[],
          },
          bolted: rack.values.bolted === true,
          anchorKg: rack.values.anchor ? massKg(rack.values.anchor as Mass) : undefined,
          pegM: (rack.values.peg as number | undefined) ?? DEFAULT_PEG_M,
          hooksCm: (rack.values.hooks as number[] | undefined) ?? [],
          safetiesCm: (rack.values.safeties as number[] | undefined) ?? [],
        },
      ];
    })
    .sort((a, b) => a.number - b.number);
}

/** A band of the room on a peg; none where no scale has measured it. */
export function bandOfItem(item: GearItem, pegM: number): Band {
  return {
    kind: "band",
    name: item.name,
    restM: item.values.rest as number,
    readings: (item.values.readings as Reading[] | undefined) ?? [],
    folded: false,
    anchorM: pegM,
  };
}

export function chainOfItem(item: GearItem): Chain {
  return {
    kind: "chain",
    name: item.name,
    densityKgPerM: item.values.density as number,
    lengthM: item.values.length as number,
    touchM: item.values.leader as number,
    folded: false,
  };
}

/** Whether a band may no longer be used on a day. */
export function isRetired(item: GearItem, today: LocalDate): boolean {
  const retire = item.values.retire;
  return typeof retire === "string" && retire <= today;
}

/** What the room can hang on a bar, and what it cannot with the reason. */
export interface ResistanceStock {
  usable: Array<{ what: Resistance["what"]; perSide: number }>;
  left: Array<{ name: string; why: string }>;
}

/** The room's bands and chains for one rack on one day. Each side gets one of a pair. */
export function resistanceStock(
  items: readonly GearItem[],
  pegM: number,
  today: LocalDate,
): ResistanceStock {
  const stock: ResistanceStock = { usable: [], left: [] };
  for (const item of items) {
    if (item.kind === "chain") {
      stock.usable.push({ what: chainOfItem(item), perSide: item.count });
    }
    if (item.kind !== "band") continue;
    const band = bandOfItem(item, pegM);
    if (isRetired(item, today)) {
      stock.left.push({ name: item.name, why: `retired on ${item.values.retire}` });
    } else if (!bandCurve(band).ok) {
      const label = item.values.label
        ? ` The label says ${item.values.label}: no measurement.`
        : "";
      stock.left.push({ name: item.name, why: `not measured with a hanging scale.${label}` });
    } else stock.usable.push({ what: band, perSide: item.count });
  }
  return stock;
}

/** What can be sat on in the room, and the mats. */
export function seatStock(items: readonly GearItem[]): { bases: SeatBase[]; mats: MatStock[] } {
  const bases: SeatBase[] = [];
  const mats: MatStock[] = [];
  for (const item of items) {
    if (item.kind === "box") {
      bases.push({ id: item.name, name: item.name, heightsCm: item.values.heights as number[] });
    }
    if (item.kind === "seat") {
      const limit = item.values.limit as Mass | undefined;
      bases.push({
        id: item.name,
        name: item.name,
        heightsCm: item.values.heights as number[],
        substitute: {
          caution: item.values.caution as string,
          limitKg: limit && massKg(limit),
        },
      });
    }
    if (item.kind === "mat") {
      mats.push({
        id: item.name,
        name: item.name,
        thicknessCm: item.values.thickness as number,
        count: item.count,
      });
    }
  }
  return { bases, mats };
}

export interface RoomProblem {
  /** Which piece; empty for the room as a whole. */
  name: string;
  text: string;
}

/** What a room lacks or contradicts, in words with a way on. */
export function checkRoom(items: readonly GearItem[], today: LocalDate): RoomProblem[] {
  const problems: RoomProblem[] = [];
  const bars = items.filter((one) => one.kind === "bar");
  const racks = items.filter((one) => one.kind === "rack");
  if (bars.length === 0) problems.push({ name: "", text: "No bar yet: loads need one." });
  if (racks.length === 0) problems.push({ name: "", text: "No rack yet: sessions need one." });
  for (const rack of racks) {
    const bar = bars.find((one) => one.name === rack.values.bar);
    if (!bar) {
      problems.push({
        name: rack.name,
        text: `Rack ${rack.name} names the bar ${rack.values.bar}, which is not in this room.`,
      });
    }
    if ((rack.values.plates as PlateStock[]).length === 0) {
      problems.push({
        name: rack.name,
        text: `Rack ${rack.name} has no plates: only the empty bar can be loaded.`,
      });
    }
  }
  for (const item of items) {
    if (item.kind === "band") {
      if (isRetired(item, today)) {
        problems.push({
          name: item.name,
          text: `${item.name} is past its retire date: take it out.`,
        });
      } else if (item.values.readings === undefined) {
        problems.push({
          name: item.name,
          text: `${item.name} has no hanging-scale readings: it is not proposed, and a plan says so.`,
        });
      }
    }
    if (item.kind === "seat" && item.values.limit === undefined) {
      problems.push({
        name: item.name,
        text: `${item.name} has no load limit as a seat: it is offered with an empty bar only.`,
      });
    }
  }
  const twice = items.filter(
    (one, i) => items.findIndex((other) => other.kind === one.kind && other.name === one.name) < i,
  );
  for (const one of twice) {
    problems.push({ name: one.name, text: `${one.name} is written twice. Name them apart.` });
  }
  return problems;
}

/** One line for a rack: its bar and what hangs beside it. */
export function rackLine(rack: RackFacts): string {
  const plates = rack.gear.plates
    .map(
      (one) =>
        `${plainNumber(one.mass.amount, 3)}${one.mass.unit === "lb" ? " lb" : ""} × ${one.pairs}`,
    )
    .join(", ");
  return `${rack.gear.bar.name}, ${formatMass(rack.gear.bar.mass)}; ${plates || "no plates"}`;
}
