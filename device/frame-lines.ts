import type { Sample } from "./sensor-port";

/** Lines in one message of a sensor at the most: ten seconds of 100 Hz, one of 1,000. */
export const MOST_FRAMES = 1000;

/** What came of a message: its frames in order, and how many lines were none. */
export interface FrameLines {
  frames: Sample[];
  bad: number;
}

const isFrame = (value: unknown): value is { t: number; h: number } => {
  if (typeof value !== "object" || value === null) return false;
  const { t, h } = value as Record<string, unknown>;
  return (
    typeof t === "number" &&
    typeof h === "number" &&
    Number.isFinite(t) &&
    Number.isFinite(h) &&
    Math.abs(t) <= 1e9 &&
    Math.abs(h) <= 100
  );
};

/**
 * Reads NDJSON of a sensor, a frame a line: `{"t":12.34,"h":0.815}`, t in s on the sensor's own clock
 * and h the bar's height in m. What is no such line is left out and counted; over `MOST_FRAMES` the
 * rest is, too.
 */
export function readFrameLines(text: string): FrameLines {
  const frames: Sample[] = [];
  let bad = 0;
  for (const line of text.split("\n")) {
    if (line.trim() === "") continue;
    if (frames.length >= MOST_FRAMES) {
      bad++;
      continue;
    }
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      value = undefined;
    }
    if (isFrame(value)) frames.push({ timeS: value.t, heightM: value.h });
    else bad++;
  }
  return { frames, bad };
}

export const writeFrameLines = (frames: readonly Sample[]): string =>
  frames
    .map(({ timeS, heightM }) => JSON.stringify({ t: round(timeS, 6), h: round(heightM, 6) }))
    .join("\n");

const round = (value: number, digits: number) => Math.round(value * 10 ** digits) / 10 ** digits;

/** Frames as they go from process to process: ms·10 and mm·100 as whole numbers, small and exact enough. */
export type PackedFrames = ReadonlyArray<readonly [number, number]>;

export const packFrames = (frames: readonly Sample[]): PackedFrames =>
  frames.map(({ timeS, heightM }) => [Math.round(timeS * 1e4), Math.round(heightM * 1e5)]);
export const unpackFrames = (packed: PackedFrames): Sample[] =>
  packed.map(([t, h]) => ({ timeS: t / 1e4, heightM: h / 1e5 }));
