import type { LoadingGear } from "../barload/loading-gear";
import type { MatStock, SeatBase } from "../boxsquat/stack";
import type { HangStock } from "../resistance/rig";
import { type Band, bandCurve, type Chain, type Resistance } from "../resistance/setup";
import { formatMass, massKg, plainNumber } from "../units/mass";
import type { LocalDate } from "../units/time";
import { type GearItem, type ItemOf, ofKind } from "./kinds";

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
  const bars = ofKind(items, "bar");
  return ofKind(items, "rack")
    .flatMap((rack) => {
      const bar = bars.find((one) => one.name === rack.values.bar);
      if (!bar) return [];
      const { mass, rated, sleeve, collar } = bar.values;
      const { plates, bolted, anchor, peg, hooks, safeties } = rack.values;
      return [
        {
          number: Number(rack.name),
          gear: {
            bar: { id: bar.name, name: bar.name, mass, rated, sleeveMm: sleeve },
            collar,
            plates,
          },
          bolted,
          anchorKg: anchor && massKg(anchor),
          pegM: peg ?? DEFAULT_PEG_M,
          hooksCm: hooks ?? [],
          safetiesCm: safeties ?? [],
        },
      ];
    })
    .sort((a, b) => a.number - b.number);
}

export function bandOfItem(item: ItemOf<"band">, pegM: number): Band {
  return {
    kind: "band",
    name: item.name,
    restM: item.values.rest,
    readings: item.values.readings ?? [],
    folded: false,
    anchorM: pegM,
  };
}

export function chainOfItem(item: ItemOf<"chain">): Chain {
  return {
    kind: "chain",
    name: item.name,
    densityKgPerM: item.values.density,
    lengthM: item.values.length,
    touchM: item.values.leader,
    folded: false,
  };
}

/** Whether a band may no longer be used on a day. */
export function isRetired(item: ItemOf<"band">, today: LocalDate): boolean {
  const { retire } = item.values;
  return retire !== undefined && retire <= today;
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

/** What holds a rack's bands, and where. */
export type RackHold = Pick<RackFacts, "bolted" | "anchorKg" | "pegM">;

/**
 * What one rack can hang on its bar on a day. A bolted rack whose point nobody rated holds what
 * bands pull; one that is not bolted holds what its anchor weighs.
 */
export function hangStock(items: readonly GearItem[], hold: RackHold, today: LocalDate): HangStock {
  return {
    pieces: resistanceStock(items, hold.pegM, today).usable,
    anchorKg: hold.anchorKg ?? (hold.bolted ? Number.POSITIVE_INFINITY : undefined),
  };
}

/** What can be sat on in the room, and the mats. */
export function seatStock(items: readonly GearItem[]): { bases: SeatBase[]; mats: MatStock[] } {
  const bases: SeatBase[] = [];
  const mats: MatStock[] = [];
  for (const item of items) {
    if (item.kind === "box") {
      bases.push({ id: item.name, name: item.name, heightsCm: item.values.heights });
    }
    if (item.kind === "seat") {
      const limit = item.values.limit;
      bases.push({
        id: item.name,
        name: item.name,
        heightsCm: item.values.heights,
        substitute: {
          caution: item.values.caution,
          limitKg: limit && massKg(limit),
        },
      });
    }
    if (item.kind === "weight" && item.values.height !== undefined) {
      const limit = item.values.limit;
      bases.push({
        id: item.name,
        name: item.name,
        heightsCm: [item.values.height],
        substitute: {
          caution: "A depth marker only: touch it lightly, never sit on it.",
          limitKg: limit && massKg(limit),
        },
      });
    }
    if (item.kind === "mat") {
      mats.push({
        id: item.name,
        name: item.name,
        thicknessCm: item.values.thickness,
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
  const bars = ofKind(items, "bar");
  const racks = ofKind(items, "rack");
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
    if (rack.values.plates.length === 0) {
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
