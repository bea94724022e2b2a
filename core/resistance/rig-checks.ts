import { formatKg, type MassUnit } from "../units/mass";
import {
  BAND_WORDS,
  type BarHeights,
  bandCurve,
  bandKgAt,
  type Resistance,
  type ResistanceCurve,
  resistanceCurve,
} from "./setup";

/** Of the anchor's weight: pull above half is warned of, above the whole refused. */
export const ANCHOR_WARN_SHARE = 0.5;
/** Upper-body lifts: more resistance than this slows what it is meant to speed up. */
export const UPPER_BODY_SHARE = 0.25;

export interface ResistanceCheck {
  level: "refused" | "warning" | "note";
  code:
    | "anchor-lifts"
    | "anchor-light"
    | "anchor-unknown"
    | "slack"
    | "chain-off-floor-bottom"
    | "chain-off-floor-lockout"
    | "upper-body"
    | "anchor-under-least"
    | "anchor-least-unset"
    | "stepping-out"
    | "stepping-out-unset"
    | "both-kinds"
    | "extrapolated"
    | "heights-estimated"
    | "not-measured"
    | "retired";
  text: string;
}

export interface CheckInput {
  /** In which the sentences are written. */
  unit: MassUnit;
  pieces: readonly Resistance[];
  heights: BarHeights;
  curve: ResistanceCurve;
  barKg: number;
  upperBody: boolean;
  /** Weight that holds the bands on each side, kg; Infinity for a bolted rack's rated point. */
  anchorKg: number | undefined;
  /** A bolted rack takes bands on its rated attachment; undefined: nobody said. */
  bolted?: boolean | undefined;
  /** The coach's least weight for the anchor of an unbolted rack, kg; unset: said, not judged. */
  leastAnchorKg?: number | undefined;
  /** Largest pull that may be stepped out of ordinary hooks against, kg; unset: not judged. */
  steppingOutKg: number | undefined;
  walkout: boolean;
  experienced: boolean;
  retired: readonly string[];
}

/** A limit that somebody can have set, kg. */
const ifLimit = (kg: number | undefined) =>
  kg !== undefined && kg >= 0 && kg < 10_000 ? kg : undefined;

/** What stands against a set-up, worst first; the sentence says what is possible. */
export function checkResistance(input: CheckInput): ResistanceCheck[] {
  const { pieces, heights, curve } = input;
  // A weight that is none was not stated; infinite is a bolted rack's point.
  const anchorKg = input.anchorKg !== undefined && input.anchorKg >= 0 ? input.anchorKg : undefined;
  const leastAnchorKg = ifLimit(input.leastAnchorKg);
  const steppingOutKg = ifLimit(input.steppingOutKg);
  const found: ResistanceCheck[] = [];
  const say = (level: ResistanceCheck["level"], code: ResistanceCheck["code"], text: string) =>
    found.push({ level, code, text });
  const bands = pieces.filter((piece) => piece.what.kind === "band");
  const chains = pieces.filter((piece) => piece.what.kind === "chain");
  const pull = resistanceCurve(bands, heights);
  if (!pull.ok) {
    // A pull that is not known is not a small one.
    const words =
      pull.reason === "no-range" || pull.reason === "too-large"
        ? "Measure the bar's bottom and lockout heights."
        : BAND_WORDS[pull.reason];
    say("refused", "not-measured", `What the bands pull is not known. ${words}`);
    return found;
  }
  const sidePullKg = pull.curve.lockoutKg / 2;
  const kg = (value: number) => formatKg(value, input.unit, 1);

  if (bands.length > 0) {
    if (anchorKg === undefined) {
      say(
        "refused",
        "anchor-unknown",
        `The bands pull ${kg(sidePullKg)} up on each side, and no anchor weight is stated. Weigh the anchor, or use a bolted rack's rated point.`,
      );
    } else if (sidePullKg > anchorKg) {
      say(
        "refused",
        "anchor-lifts",
        `The bands pull ${kg(sidePullKg)} up on each side; the anchor weighs ${kg(anchorKg)}. It would lift. Use a bolted rack's rated point, or bands of at most ${kg(anchorKg * ANCHOR_WARN_SHARE)}.`,
      );
    } else if (sidePullKg > ANCHOR_WARN_SHARE * anchorKg) {
      say(
        "warning",
        "anchor-light",
        `The bands pull ${kg(sidePullKg)} on an anchor of ${kg(anchorKg)}: over half of it. Weigh it down.`,
      );
    }
    if (input.bolted === false && anchorKg !== undefined) {
      if (leastAnchorKg === undefined) {
        say(
          "note",
          "anchor-least-unset",
          "This rack is not bolted, and your least anchor weight is not set: not judged.",
        );
      } else if (anchorKg < leastAnchorKg) {
        say(
          "refused",
          "anchor-under-least",
          `This rack is not bolted and its anchor weighs ${kg(anchorKg)}: under your least of ${kg(leastAnchorKg)}. Weigh it down or use a bolted rack.`,
        );
      }
    }
  }
  for (const { what } of bands) {
    if (what.kind !== "band") continue;
    const own = bandCurve(what);
    if (own.ok && bandKgAt(what, own.curve, heights.bottomM) <= 0) {
      say(
        "warning",
        "slack",
        `${what.name} is slack at the bottom: it will snap tight on the way up. Anchor it lower, or take a shorter one.`,
      );
    }
  }
  for (const { what } of chains) {
    if (what.kind !== "chain") continue;
    const reach = what.touchM + (what.folded ? what.lengthM / 2 : what.lengthM);
    if (reach <= heights.bottomM) {
      say(
        "warning",
        "chain-off-floor-bottom",
        `${what.name} hangs free at the bottom: it swings and never unloads. Lengthen the leader.`,
      );
    } else if (reach <= heights.lockoutM) {
      say(
        "warning",
        "chain-off-floor-lockout",
        `${what.name} leaves the floor before lockout. Some of it should stay down.`,
      );
    }
  }
  const share = curve.lockoutKg / (curve.lockoutKg + input.barKg);
  if (input.upperBody && share > UPPER_BODY_SHARE) {
    say(
      "warning",
      "upper-body",
      `${Math.round(100 * share)} % of the lockout load is resistance: over 25 % slows an upper-body lift that it is meant to speed up.`,
    );
  }
  if (input.walkout && steppingOutKg !== undefined && curve.bottomKg > steppingOutKg) {
    say(
      "warning",
      "stepping-out",
      `Stepping out of ordinary hooks against ${kg(curve.bottomKg)}: over your limit of ${kg(steppingOutKg)}. Use hooks that swing away, or less.`,
    );
  }
  if (input.walkout && steppingOutKg === undefined && curve.bottomKg > 0) {
    say(
      "note",
      "stepping-out-unset",
      `Stepping out against ${kg(curve.bottomKg)}: your limit for it is not set, so it is not judged.`,
    );
  }
  if (bands.length > 0 && chains.length > 0 && !input.experienced) {
    say(
      "warning",
      "both-kinds",
      "Bands and chains together are for the experienced. Take one of them.",
    );
  }
  for (const name of input.retired)
    say("refused", "retired", `${name} is past its retire date. Take another band.`);
  if (curve.extrapolated)
    say(
      "note",
      "extrapolated",
      "A length outside the hanging-scale readings is used: measure there too.",
    );
  if (!heights.measured)
    say(
      "note",
      "heights-estimated",
      "Bar heights are estimated from stature: measure them at the bottom and at lockout.",
    );
  const order = { refused: 0, warning: 1, note: 2 };
  return found.sort((a, b) => order[a.level] - order[b.level]);
}

export interface Proposal {
  pieces: Resistance[];
  lockoutKg: number;
  /** Of the whole lockout load. */
  share: number;
}

/** Kinds of pieces that are combined: four to the power of them. */
const MOST_KINDS = 7;

/**
 * The set-ups that a room can build for a wanted share at lockout, nearest first; of equal ones
 * the fewest pieces. Bands and chains are not mixed.
 * @param stock each piece and how many a side the room has
 */
export function proposeSetups(input: {
  stock: ReadonlyArray<{ what: Resistance["what"]; perSide: number }>;
  heights: Pick<BarHeights, "bottomM" | "lockoutM">;
  barKg: number;
  wantedShare: number;
  most?: number;
}): Proposal[] {
  const { heights, barKg, wantedShare } = input;
  if (!(barKg > 0) || !Number.isFinite(barKg + wantedShare)) return [];
  const found: Proposal[] = [];
  for (const kind of ["band", "chain"] as const) {
    const own = input.stock.filter((one) => one.what.kind === kind).slice(0, MOST_KINDS);
    const walk = (i: number, pieces: Resistance[]) => {
      const next = own[i];
      if (!next) {
        const curve = pieces.length > 0 ? resistanceCurve(pieces, heights) : undefined;
        if (curve?.ok && curve.curve.lockoutKg > 0) {
          const { lockoutKg } = curve.curve;
          const share = lockoutKg / (lockoutKg + barKg);
          if (share > 0 && share <= 1) found.push({ pieces, lockoutKg, share });
        }
        return;
      }
      for (let n = 0; n <= Math.min(3, next.perSide); n++) {
        walk(i + 1, n === 0 ? pieces : [...pieces, { what: next.what, perSide: n }]);
      }
    };
    walk(0, []);
  }
  const count = (one: Proposal) => one.pieces.reduce((sum, piece) => sum + piece.perSide, 0);
  return found
    .sort(
      (a, b) =>
        Math.abs(a.share - wantedShare) - Math.abs(b.share - wantedShare) || count(a) - count(b),
    )
    .slice(0, input.most ?? 5);
}
