import { Suspense, useState } from "react";
import { readDecimal } from "../../../core/units/decimal";
import { formatVelocity } from "../../../core/units/velocity";
import type { LiftStart, MeasuredRep } from "../../../core/velocity/stream";
import { FRAME_RATES, speedOfFrames, VIDEO_WORDS } from "../../../core/velocity/video";
import { filmPart } from "../../ui/clip/film-part";
import type { FilmedBar } from "../../ui/clip/filmed-bar";
import { Sheet } from "./sheet";

const BIG = "btn min-h-[64px] text-[18px]";
const FIELD = "field !h-16 !text-[26px]";
/** This tablet films at the same rate every day. */
const RATE_KEY = "sprezza.film-rate";

const keptRate = (): number => {
  const kept = typeof window === "undefined" ? null : localStorage.getItem(RATE_KEY);
  return FRAME_RATES.find((rate) => rate === Number(kept)) ?? FRAME_RATES[0];
};

/** Comes when it is asked for; a station is light without it. */
const Measure = filmPart(async () => (await import("../../workers/clip")).clip);

/** A rep's speed from frames that somebody counted in a phone's film; the film stays on the phone. */
export function FilmFrames({
  repsLeft,
  onClose,
  enter,
  startsAt,
  bar,
  onFilm,
}: {
  repsLeft: number;
  onClose: () => void;
  enter: (mps: number) => void;
  /** Where the lift begins: how reps are told apart in a film. */
  startsAt: LiftStart;
  bar: FilmedBar;
  /** The reps that the film itself gave. */
  onFilm: (reps: readonly MeasuredRep[]) => void;
}) {
  const [whole, setWhole] = useState(false);
  const [rate, setRate] = useState(keptRate);
  const [frames, setFrames] = useState("");
  const [travel, setTravel] = useState(bar.way ? (100 * bar.way.m).toFixed(0) : "");
  const [problem, setProblem] = useState<string>();
  const number = (text: string) => {
    const read = readDecimal(text);
    return read.ok ? read.value : Number.NaN;
  };
  const found = speedOfFrames({
    frames: number(frames),
    framesPerS: rate,
    travelM: number(travel) / 100,
  });
  if (whole)
    return (
      <Sheet title="The film itself" onClose={onClose} wide>
        <Suspense fallback={<p className="text-muted">The film's part is being opened.</p>}>
          <Measure
            startsAt={startsAt}
            bar={bar}
            keep={{ label: "Enter these reps as this set", onKeep: onFilm }}
          />
        </Suspense>
      </Sheet>
    );
  return (
    <Sheet title="Frames of a film" onClose={onClose}>
      <button type="button" className={`${BIG} mt-2 w-full`} onClick={() => setWhole(true)}>
        Measure the film itself, on this screen
      </button>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!found.ok) return setProblem(VIDEO_WORDS[found.reason]);
          setProblem(undefined);
          setFrames("");
          enter(found.mps);
        }}
      >
        <fieldset className="mt-2 flex flex-wrap gap-2">
          <legend className="text-muted">Frames a second</legend>
          {FRAME_RATES.map((one) => (
            <button
              key={one}
              type="button"
              className={`${BIG} ${one === rate ? "btn-primary" : ""}`}
              aria-pressed={one === rate}
              onClick={() => {
                setRate(one);
                localStorage.setItem(RATE_KEY, String(one));
              }}
            >
              {one}
            </button>
          ))}
        </fieldset>
        <label className="mt-2 block">
          <span className="text-muted">Way of the bar, cm</span>
          <input
            className={FIELD}
            value={travel}
            inputMode="decimal"
            onChange={(event) => setTravel(event.target.value)}
          />
        </label>
        <label className="mt-2 block">
          <span className="text-muted">
            Frames from the first in which it rises to the one in which it stands; {repsLeft} reps
            left
          </span>
          <input
            // biome-ignore lint/a11y/noAutofocus: opened to type into
            autoFocus
            className={FIELD}
            value={frames}
            inputMode="numeric"
            onChange={(event) => setFrames(event.target.value)}
            aria-invalid={problem ? true : undefined}
          />
        </label>
        <p className="min-h-8 text-[20px]" role="status">
          {found.ok
            ? `${formatVelocity(found.mps)} m/s, ± ${formatVelocity(found.errorMps)} for a frame: coarser than a sensor`
            : ""}
        </p>
        {problem ? <p className="text-accent">{problem}</p> : null}
        <button type="submit" className="btn btn-primary mt-3 min-h-[64px] w-full text-[20px]">
          Enter this rep
        </button>
      </form>
    </Sheet>
  );
}
