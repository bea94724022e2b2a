import fc from "fast-check";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { LoadedBar } from "./loaded-bar";
import { SpeedStrip, spread, stripWords } from "./speed-strip";

const target = { lowMps: 0.78, highMps: 0.92 };
const reps = [0.84, 0.86, 0.7].map((velocityMps, i) => ({ number: i + 1, velocityMps }));

describe("speed strip", () => {
  it("says in words what the picture shows", () => {
    expect(stripWords(reps, target)).toBe("Reps 0.84, 0.86, 0.70 m/s; wanted 0.78 to 0.92.");
    expect(stripWords([], undefined)).toBe("No reps yet; wanted speed not set.");
  });

  it("draws a tick a rep, the range, the loss line and the floor when it is large", () => {
    const html = renderToStaticMarkup(
      <SpeedStrip
        reps={reps}
        target={target}
        lossLineMps={0.73}
        floorMps={0.5}
        height={150}
        label="set"
      />,
    );
    expect(html).toContain("wanted 0.78 to 0.92");
    expect(html).toContain("loss line");
    expect(html).toContain("floor");
    expect(html.match(/<rect/g)).toHaveLength(4);
    expect(html).toContain('aria-label="set"');
  });

  it("keeps words out of it at 24 px, and draws nothing it was not given", () => {
    const html = renderToStaticMarkup(
      <SpeedStrip reps={reps} target={undefined} height={24} width={120} label="set" />,
    );
    expect(html).not.toContain("<text");
    expect(html.match(/M[\d.]+ \d+v/g)).toHaveLength(3);
    expect(html).not.toContain("NaN");
    const empty = renderToStaticMarkup(
      <SpeedStrip reps={[]} target={undefined} height={150} label="" />,
    );
    expect(empty).not.toContain("NaN");
  });

  it("never puts two numbers over one another, and keeps their order", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 100, max: 500 }), { minLength: 1, maxLength: 5 }),
        (xs) => {
          const ticks = xs.map((x, i) => ({ number: i + 1, x }));
          const places = spread(ticks);
          const sorted = [...ticks].sort((a, b) => a.x - b.x || a.number - b.number);
          for (let i = 1; i < sorted.length; i++) {
            const here = places.get(sorted[i]?.number ?? 0) ?? 0;
            const before = places.get(sorted[i - 1]?.number ?? 0) ?? 0;
            expect(here - before).toBeGreaterThan(11);
          }
        },
      ),
    );
  });
});

describe("loaded bar", () => {
  it("writes every plate's number and says the side in words", () => {
    const side = [25, 10, 2.5, 1.25].map((amount) => ({ amount, unit: "kg" as const }));
    const html = renderToStaticMarkup(<LoadedBar side={side} added={2} />);
    expect(html).toContain('aria-label="Each side, inside out: 25 · 10 · 2.5 · 1.25."');
    expect(html.match(/fill-primary/g)).toHaveLength(2);
    for (const text of [">25<", ">10<", ">2.5<", ">1.25<"]) expect(html).toContain(text);
  });

  it("says an empty bar is one", () => {
    expect(renderToStaticMarkup(<LoadedBar side={[]} added={0} />)).toContain("Empty bar.");
  });
});
