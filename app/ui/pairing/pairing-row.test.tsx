import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Complex, ComplexItem } from "../../../core/contrast/complex";
import type { ItemNumber } from "../../../core/contrast/item-load";
import { foldRun, type RunSettings, type RunTap } from "../../../core/contrast/run";
import { RUN_DEFAULTS } from "../../../core/contrast/run-settings";
import type { ClockMark } from "../../../core/units/clock";
import { WorkingProvider } from "../working";
import { PairingRow } from "./pairing-row";
import { PairingTile } from "./pairing-tile";

const item = (over: Partial<ComplexItem>): ComplexItem => ({
  id: over.name ?? "",
  name: "Item",
  kind: "lift",
  pattern: "olympic-pull",
  reps: 2,
  load: { by: "percent", percent: 60 },
  of: "deadlift",
  gapS: 20,
  output: "none",
  sides: false,
  ...over,
});
const COMPLEX: Complex = {
  name: "Pull and turn",
  aim: "complex",
  school: "",
  purpose: "",
  items: [
    item({ name: "Pull", seek: true }),
    item({
      name: "Turn",
      kind: "throw",
      pattern: "throw",
      reps: 3,
      load: { by: "fixed", kg: 4 },
      output: "distance",
      sides: true,
    }),
  ],
  rounds: 3,
  restS: 120,
  patternReason: "",
  direction: "hold",
  weekStep: 0,
  beforeMain: true,
};
const NUMBERS: ItemNumber[] = [
  { words: "100 kg", kg: 100, side: "25 · 15", steps: [97.5, 100, 102.5, 105] },
  { words: "4 kg", kg: 4 },
];

const markAt = (atS: number): ClockMark => ({
  deviceId: "a",
  bootId: "b",
  monoMs: 1000 * atS,
  atMs: 1000 * atS,
});

let n = 0;
const tap = (kind: "start" | "done", round: number, at: number, atS: number): RunTap => ({
  id: `t${n++}`,
  kind,
  round,
  item: at,
  mark: markAt(atS),
});
const threw = (round: number, value: number, side: "left" | "right"): RunTap => ({
  id: `t${n++}`,
  kind: "output",
  round,
  item: 1,
  value,
  side,
  mark: markAt(0),
});
/** A round from a second on: pull for 6 s, 20 s, turn for 10 s. */
const round = (number: number, fromS: number): RunTap[] => [
  tap("start", number, 0, fromS),
  tap("done", number, 0, fromS + 6),
  tap("start", number, 1, fromS + 26),
  tap("done", number, 1, fromS + 36),
];

function row(
  entries: RunTap[],
  atS: number,
  over: { closed?: boolean; numbers?: ItemNumber[]; settings?: RunSettings } = {},
): { text: string; html: string } {
  const settings = over.settings ?? RUN_DEFAULTS;
  const html = renderToStaticMarkup(
    <WorkingProvider>
      <ul>
        <PairingRow
          name="Ann"
          line={{
            kind: "pairing",
            athlete: {
              athleteId: "ann",
              name: "Ann",
              unit: "kg",
              simpler: false,
              loads: over.numbers ?? NUMBERS,
            },
            callName: "Ann",
            off: false,
            turn: undefined,
            stationId: "wall",
            complex: COMPLEX,
            run: foldRun(COMPLEX, entries, settings).run,
            conflicts: [],
          }}
          last={entries.length > 0 ? "the last tap" : undefined}
          now={markAt(atS)}
          tap={() => {}}
          undo={() => {}}
          settings={settings}
          closed={over.closed ?? false}
        />
      </ul>
    </WorkingProvider>,
  );
  return {
    html,
    text: html
      .replace(/<[^>]+>/g, " ")
      .replace(/\s+/g, " ")
      .replace(/&#x27;/g, "'"),
  };
}

describe("a row of a running pairing", () => {
  it("before the first start: what comes, on what, and the baseline to write down", () => {
    const { text, html } = row([], 0);
    expect(text).toContain("round 1 of 3");
    expect(text).toContain("Pull × 2, 100 kg");
    expect(text).toContain("side 25 · 15");
    expect(html).toContain('aria-label="Start: Ann"');
    expect(html).toContain("Ann: throw, m, baseline");
    expect(html).not.toContain('aria-label="Undo: Ann"');
  });

  it("offers the loads next to it that can be built, and none beyond the last", () => {
    expect(row([], 0).html).toContain('aria-label="Lighter: Ann, Pull, 97.5 kg"');
    expect(row([], 0).html).toContain('aria-label="Heavier: Ann, Pull, 102.5 kg"');
    const heaviest = [{ ...NUMBERS[0], kg: 105, words: "105 kg" } as ItemNumber];
    const { html } = row([], 0, { numbers: heaviest });
    expect(html).toMatch(/aria-label="Heavier: Ann, Pull" disabled=""/);
  });

  it("at work: the seconds so far and one button", () => {
    const { text, html } = row([tap("start", 1, 0, 10)], 13);
    expect(text).toContain("0:03");
    expect(html).toContain('aria-label="Done: Ann"');
    expect(html).not.toContain('aria-label="Start: Ann"');
    expect(html).not.toContain("Heavier: Ann");
  });

  it("resting: counts down, warns, says early, and then says by how much it is over", () => {
    const entries = [tap("start", 1, 0, 0), tap("done", 1, 0, 6)];
    expect(row(entries, 10).text).toContain("0:16");
    expect(row(entries, 10).text).toContain("Start early");
    expect(row(entries, 10).text).not.toContain("get ready");
    expect(row(entries, 17).text).toContain("get ready");
    // Four fifths of 20 s are gone after 16.
    expect(row(entries, 22).text).not.toContain("Start early");
    expect(row(entries, 31).text).toContain("+0:05");
    const strict = { ...RUN_DEFAULTS, earlyUnderPercent: 95 };
    expect(row(entries, 22, { settings: strict }).text).toContain("Start early");
  });

  it("says which side was done, and takes each side's measure by itself", () => {
    const { html, text } = row(round(1, 0), 40);
    expect(text).toContain("Turn, round 1:");
    for (const side of ["both sides", "left only", "right only"]) expect(text).toContain(side);
    expect(html).toMatch(/aria-pressed="true"[^>]*>both sides/);
    expect(html).toContain("Ann: throw, m, round 1, left");
    expect(html).toContain("Ann: throw, m, round 1, right");
    const left: RunTap = {
      id: "l",
      kind: "sides",
      round: 1,
      item: 1,
      left: 3,
      right: 0,
      mark: markAt(0),
    };
    expect(row([...round(1, 0), left], 40).html).toMatch(/aria-pressed="true"[^>]*>left only/);
  });

  it("raises the load that is looked for while the throw goes further", () => {
    const one = [...round(1, 0), threw(1, 8, "left")];
    expect(row(one, 40).text).toContain("Take 102.5 kg");
    expect(row(one, 40).text).toContain("one round so far");
    const set: RunTap = {
      id: "s",
      kind: "load",
      round: 2,
      item: 0,
      kg: 102.5,
      mark: markAt(0),
    };
    const two = [...one, set, ...round(2, 156), threw(2, 8.5, "left")];
    expect(row(two, 200).text).toContain("Take 105 kg");
    expect(row(two, 200).text).toContain("output rose");
    const less = [...one, set, ...round(2, 156), threw(2, 8.1, "left")];
    expect(row(less, 200).text).toContain("found: 100 kg");
    expect(row(less, 200).text).toContain("Take 100 kg");
  });

  it("asks for the coach's load where there is no number", () => {
    const { html, text } = row([], 0, { numbers: [{ words: "no max: coach's load" }] });
    expect(text).toContain("no max: coach's load");
    expect(html).toContain("Ann: load of Pull, kg");
  });

  it("proposes the end by the side that lost, by the team's own number", () => {
    const entries = [
      ...round(1, 0),
      threw(1, 10, "right"),
      ...round(2, 156),
      threw(2, 9.2, "right"),
    ];
    expect(row(entries, 200).text).not.toContain("enough done");
    const strict = row(entries, 200, { settings: { ...RUN_DEFAULTS, endAtLossPercent: 8 } });
    expect(strict.text).toContain("Turn, right, is 8 % under round 1: enough done.");
    expect(strict.text).toContain("End it for Ann");
    expect(row(entries, 200).text).toContain("Turn, right · 10 · 9.2 fading ▼");
  });

  it("when it is over: rests taken of those planned, and nothing more to tap", () => {
    const entries = [...round(1, 0), ...round(2, 156), ...round(3, 250)];
    const { text, html } = row(entries, 300);
    expect(text).toContain("all rounds done");
    // Gaps 20 s thrice, rests 120 s and 58 s of 120.
    expect(text).toContain("rested 3:58 of 5:00 · 1 of 5 started early");
    expect(html).not.toContain('aria-label="Start: Ann"');
    const closed = row(entries.slice(0, 1), 300, { closed: true });
    expect(closed.html).not.toContain("<button");
  });
});

describe("a pairing of many", () => {
  it("has a tile each with its name, its work, its load and one tap; the rest is behind the name", () => {
    const html = renderToStaticMarkup(
      <WorkingProvider>
        <ul>
          {Array.from({ length: 16 }, (_, i) => (
            <PairingTile
              key={NAMES[i]}
              name={NAMES[i] ?? ""}
              line={{
                kind: "pairing",
                athlete: {
                  athleteId: NAMES[i] ?? "",
                  name: NAMES[i] ?? "",
                  unit: "kg",
                  simpler: false,
                  loads: NUMBERS,
                },
                callName: "",
                off: false,
                turn: undefined,
                stationId: "wall",
                complex: COMPLEX,
                run: foldRun(COMPLEX, i === 0 ? [tap("start", 1, 0, 0)] : [], RUN_DEFAULTS).run,
                conflicts: [],
              }}
              last={undefined}
              now={markAt(5)}
              tap={() => {}}
              undo={() => {}}
              settings={RUN_DEFAULTS}
              closed={false}
              opened={i === 1}
              open={() => {}}
            />
          ))}
        </ul>
      </WorkingProvider>,
    );
    expect(html.match(/<li /g)).toHaveLength(16);
    expect(html).toContain('aria-label="Done: Athlete 1"');
    for (const name of NAMES.slice(1)) expect(html).toContain(`aria-label="Start: ${name}"`);
    expect(html.match(/<b>Pull<\/b> × 2, 100 kg/g)).toHaveLength(16);
    expect(html.match(/aria-expanded="true"/g)).toHaveLength(1);
    expect(html).not.toContain("baseline");
  });
});

const NAMES = Array.from({ length: 16 }, (_, i) => `Athlete ${i + 1}`);
