import type { PlateStock } from "../barload/loading-gear";
import type { Reading } from "../resistance/setup";
import type { LengthUnit } from "../units/length";
import type { Mass } from "../units/mass";
import type { LocalDate } from "../units/time";

/** What stands in a room, by kind. */
export const GEAR_KINDS = [
  "bar",
  "rack",
  "store",
  "band",
  "chain",
  "box",
  "mat",
  "seat",
  "block",
  "weight",
  "jump",
  "station",
  "sensor",
] as const;
export type GearKind = (typeof GEAR_KINDS)[number];

/** Places beside the racks where something is done. */
export const PLACE_KINDS = ["wall", "strip", "lane", "corner", "open floor"] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];
export const isPlaceKind = (text: string): text is PlaceKind =>
  PLACE_KINDS.some((kind) => kind === text);

/** How one fact about a piece of gear is written, and what it may be. */
export type FieldSpec = {
  name: string;
  label: string;
  optional?: boolean;
  /** What a new form starts with. */
  start?: string;
  hint?: string;
} & (
  | { type: "text"; least?: number }
  | { type: "mass" }
  | { type: "number"; low: number; high: number; unit: string }
  | { type: "length"; low: number; high: number; unit: LengthUnit }
  /** Several lengths, ascending. */
  | { type: "lengths"; low: number; high: number; unit: LengthUnit }
  | { type: "plates" }
  | { type: "readings" }
  | { type: "date" }
  | { type: "yes" }
  | { type: "choice"; choices: readonly string[] }
);

export interface KindSpec {
  one: string;
  many: string;
  /** Label of the number of pieces; a kind that is always one has none. */
  count?: string;
  fields: readonly FieldSpec[];
  /** Shown where the piece is used. */
  caution?: string;
}

/** Longest band, chain or leader that is measured in metres, m. */
export const LONGEST_GEAR_M = 4;

const SPECS = {
  bar: {
    one: "bar",
    many: "Bars",
    fields: [
      {
        name: "shape",
        label: "Kind",
        type: "choice",
        choices: ["straight", "safety", "cambered", "trap", "thick", "other"],
        start: "straight",
      },
      { name: "mass", label: "Weighs", type: "mass", start: "20 kg" },
      { name: "rated", label: "Holds at most", type: "mass", start: "300 kg" },
      { name: "collar", label: "One collar", type: "mass", start: "0 kg" },
      {
        name: "sleeve",
        label: "Sleeve",
        type: "length",
        low: 50,
        high: 600,
        unit: "mm",
        start: "415",
      },
    ],
  },
  rack: {
    one: "rack",
    many: "Racks",
    caution: "Safeties just below the bar's lowest point; a band's anchor bolted or weighted.",
    fields: [
      { name: "bar", label: "Bar", type: "text", least: 1 },
      {
        name: "plates",
        label: "Plates, pairs",
        type: "plates",
        hint: "25x2 20x2 10 45lb x2: mass, then how many pairs; 25x2/450 says 450 mm across",
        start: "25x2 20x2 15 10x2 5x2 2.5x2 1.25",
      },
      { name: "bolted", label: "Bolted down", type: "yes" },
      {
        name: "anchor",
        label: "Anchor holds, a side",
        type: "mass",
        optional: true,
        hint: "rated point of a bolted rack, or the weight on it",
      },
      {
        name: "peg",
        label: "Band pegs at",
        type: "length",
        low: 0,
        high: 0.6,
        unit: "m",
        optional: true,
      },
      {
        name: "hooks",
        label: "Hooks at",
        type: "lengths",
        low: 20,
        high: 220,
        unit: "cm",
        optional: true,
      },
      {
        name: "safeties",
        label: "Safeties at",
        type: "lengths",
        low: 10,
        high: 180,
        unit: "cm",
        optional: true,
      },
    ],
  },
  store: {
    one: "tree of shared plates",
    many: "Shared plates",
    fields: [
      {
        name: "plates",
        label: "Plates, pairs",
        type: "plates",
        hint: "as at a rack; pairs that are hung on a rack come from here, and go back",
        start: "2.5x2 1.25x2",
      },
    ],
  },
  band: {
    one: "band",
    many: "Bands",
    count: "Pairs",
    caution: "Inspect before use; never let go under tension; away with it when nicked.",
    fields: [
      {
        name: "rest",
        label: "Slack under",
        type: "length",
        low: 0.1,
        high: LONGEST_GEAR_M,
        unit: "m",
      },
      {
        name: "readings",
        label: "Hanging scale: length and pull",
        type: "readings",
        optional: true,
        hint: "0.7 4, 1.0 13, 1.3 20: metres, kilograms",
      },
      {
        name: "label",
        label: "Shop's label",
        type: "text",
        optional: true,
        hint: "a range, no measurement",
      },
      { name: "retire", label: "Retire by", type: "date", optional: true },
    ],
  },
  chain: {
    one: "chain",
    many: "Chains",
    count: "Pairs",
    fields: [
      {
        name: "density",
        label: "Density",
        type: "number",
        low: 0.2,
        high: 25,
        unit: "kg/m",
      },
      {
        name: "length",
        label: "Length",
        type: "length",
        low: 0.2,
        high: LONGEST_GEAR_M,
        unit: "m",
      },
      {
        name: "leader",
        label: "Leader",
        type: "length",
        low: 0,
        high: 2,
        unit: "m",
        start: "0.2",
        hint: "the bar's height when all the chain lies",
      },
    ],
  },
  box: {
    one: "box",
    many: "Boxes",
    count: "How many",
    fields: [
      {
        name: "heights",
        label: "Pin heights",
        type: "lengths",
        low: 10,
        high: 90,
        unit: "cm",
        start: "30 35 40 45",
      },
    ],
  },
  mat: {
    one: "mat",
    many: "Mats",
    count: "How many",
    fields: [
      { name: "thickness", label: "Thickness", type: "length", low: 0.3, high: 15, unit: "cm" },
    ],
  },
  seat: {
    one: "bench or stand-in",
    many: "Benches and stand-ins",
    count: "How many",
    fields: [
      { name: "heights", label: "Height", type: "lengths", low: 10, high: 90, unit: "cm" },
      {
        name: "limit",
        label: "Holds as a seat",
        type: "mass",
        optional: true,
        hint: "bar on the back; above it a plan is refused",
      },
      {
        name: "caution",
        label: "Caution",
        type: "text",
        least: 5,
        start: "Tips when sat on near an end: stand it across.",
      },
    ],
  },
  block: {
    one: "pulling block",
    many: "Pulling blocks",
    count: "Pairs",
    fields: [
      {
        name: "height",
        label: "Bar's centre on them",
        type: "length",
        low: 5,
        high: 120,
        unit: "cm",
      },
    ],
  },
  weight: {
    one: "hand weight",
    many: "Dumbbells and kettlebells",
    count: "How many",
    caution: "A dumbbell marks depth only: touch it, never sit on it.",
    fields: [
      {
        name: "what",
        label: "What",
        type: "choice",
        choices: ["dumbbell", "kettlebell"],
        start: "dumbbell",
      },
      { name: "mass", label: "Weighs", type: "mass", start: "20 kg" },
      {
        name: "height",
        label: "Stands high",
        type: "length",
        low: 5,
        high: 90,
        unit: "cm",
        optional: true,
        hint: "as a light depth marker; measured, not guessed",
      },
      {
        name: "limit",
        label: "Marks depth up to",
        type: "mass",
        optional: true,
        hint: "bar on the back; above it a plan is refused",
      },
    ],
  },
  jump: {
    one: "jump or throw piece",
    many: "Jumps and throws",
    count: "How many",
    caution: "Clear floor all round before a jump or a throw.",
    fields: [
      {
        name: "what",
        label: "What",
        type: "choice",
        choices: ["jump box", "hurdle", "throwing ball", "vest", "sled", "trap bar", "other"],
        start: "jump box",
      },
      { name: "mass", label: "Weighs", type: "mass", optional: true },
      {
        name: "height",
        label: "Height",
        type: "length",
        low: 1,
        high: 160,
        unit: "cm",
        optional: true,
      },
    ],
  },
  station: {
    one: "place",
    many: "Places",
    caution: "A wall or strip is closed to others while it is thrown at or run on.",
    fields: [
      {
        name: "type",
        label: "Is a",
        type: "choice",
        choices: PLACE_KINDS,
        start: "corner",
      },
    ],
  },
  sensor: {
    one: "sensor",
    many: "Sensors",
    fields: [
      {
        name: "by",
        label: "Measures by",
        type: "choice",
        choices: ["cord", "camera", "simulated"],
        start: "simulated",
      },
      {
        name: "rate",
        label: "Rate",
        type: "number",
        low: 10,
        high: 1000,
        unit: "Hz",
        start: "100",
      },
      {
        name: "rack",
        label: "At rack",
        type: "number",
        low: 1,
        high: 60,
        unit: "",
        optional: true,
      },
    ],
  },
} as const satisfies Record<GearKind, KindSpec>;

/** What a room can hold, by kind: its words, and the facts that are asked of a piece. */
export const GEAR: Record<GearKind, KindSpec> = SPECS;

type ValueOf<Field> = Field extends { type: "choice"; choices: ReadonlyArray<infer Choice> }
  ? Choice
  : Field extends { type: "mass" }
    ? Mass
    : Field extends { type: "number" | "length" }
      ? number
      : Field extends { type: "lengths" }
        ? number[]
        : Field extends { type: "plates" }
          ? PlateStock[]
          : Field extends { type: "readings" }
            ? Reading[]
            : Field extends { type: "date" }
              ? LocalDate
              : Field extends { type: "yes" }
                ? boolean
                : string;

type FieldOf<Kind extends GearKind> = (typeof SPECS)[Kind]["fields"][number];
type AskedOf<Kind extends GearKind> = Exclude<FieldOf<Kind>, { optional: true }>;
type OptionalOf<Kind extends GearKind> = Extract<FieldOf<Kind>, { optional: true }>;

/** The facts of a piece of one kind, as its fields say. */
export type ValuesOf<Kind extends GearKind> = {
  [Field in AskedOf<Kind> as Field["name"]]: ValueOf<Field>;
} & { [Field in OptionalOf<Kind> as Field["name"]]?: ValueOf<Field> | undefined };

/** A piece of gear, as a room holds it. */
export type GearItem = {
  [Kind in GearKind]: {
    kind: Kind;
    /** A rack's name is its number. */
    name: string;
    count: number;
    values: ValuesOf<Kind>;
  };
}[GearKind];

export type ItemOf<Kind extends GearKind> = Extract<GearItem, { kind: Kind }>;

/** The pieces of one kind. */
export const ofKind = <Kind extends GearKind, Item extends GearItem>(
  items: readonly Item[],
  kind: Kind,
): Array<Extract<Item, { kind: Kind }>> =>
  items.filter((one): one is Extract<Item, { kind: Kind }> => one.kind === kind);

/** A heavy dumbbell marks depth with a light bar only, and is no seat: it has no kind here. */
export const isGearKind = (text: string): text is GearKind =>
  (GEAR_KINDS as readonly string[]).includes(text);
