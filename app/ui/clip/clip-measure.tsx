import { useEffect, useRef } from "react";
import { USUAL_SLOWED } from "../../../core/track/retime";
import { wayThatDiffers } from "../../../core/track/way";
import { plainNumber } from "../../../core/units/mass";
import type { LiftStart, MeasuredRep } from "../../../core/velocity/stream";
import { Field, Select } from "../field";
import { Notice } from "../page";
import { ClipPicture } from "./clip-picture";
import { ClipReps } from "./clip-result";
import { formatClipTime } from "./clip-time";
import { noteWords, RESULT_WORDS, wayWords } from "./clip-words";
import { type FilmedBar, plateWords } from "./filmed-bar";
import type { ClipPort } from "./port";
import { type Clip, numberOr, useClip } from "./use-clip";

/** The ways a film may play; its own where the file tells of another. */
function waysToPlay(film: Film, slowed: string): Array<{ value: string; words: string }> {
  const usual = USUAL_SLOWED.map(String);
  return [...usual, ...(slowed === "" || usual.includes(slowed) ? [] : [slowed])].map((value) => ({
    value,
    words:
      value === "1"
        ? "as it was filmed"
        : `${plainNumber(Number(value), 2)} times slower (filmed at ${(film.rateHz * Number(value)).toFixed(0)})`,
  }));
}

interface Keep {
  label: string;
  onKeep: (reps: MeasuredRep[]) => void;
}

/**
 * Bar speed from a film that stays in this browser: chosen, asked for, the plate marked once, a set
 * cut out, run through, and its reps handed on or let go.
 */
export function ClipMeasure({
  port,
  startsAt,
  bar,
  keep,
}: {
  port: ClipPort;
  startsAt: LiftStart;
  /** The bar that is filmed, where the page knows it. */
  bar?: FilmedBar;
  /** What is done with the reps here; nothing where left out. */
  keep?: Keep;
}) {
  const clip = useClip(port, startsAt, bar);
  const chooser = useRef<HTMLInputElement>(null);
  const opened = useRef(false);
  useEffect(() => {
    // Chosen before this part's scripts were there: nobody heard it.
    const early = chooser.current?.files?.[0];
    if (early && !opened.current) void clip.open(early);
    opened.current = true;
  }, [clip.open]);
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid gap-0.5">
          <span className="text-muted">A film of the set, from the side</span>
          <input
            ref={chooser}
            type="file"
            accept="video/*"
            className="field !h-auto py-1"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void clip.open(file);
            }}
          />
        </label>
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={clip.asked}
            onChange={(event) => clip.setAsked(event.target.checked)}
          />
          Everybody in the picture was asked; for minors, their guardian
        </label>
      </div>
      <p className="text-muted">
        The film stays in this browser: no picture is sent or kept. Speeds from it say "video" and
        never stand among a sensor's.
      </p>
      {clip.problem ? <Notice kind="problem" title={clip.problem} /> : null}
      {clip.film ? (
        <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,1fr)_17rem]">
          <FilmStage clip={clip} film={clip.film} />
          <FilmForm clip={clip} film={clip.film} bar={bar} stop={() => port.stop()} />
        </div>
      ) : null}
      <Found clip={clip} bar={bar} keep={keep} />
    </div>
  );
}

type Film = NonNullable<Clip["film"]>;

/** The picture, the way through the film, and the cut. */
function FilmStage({ clip, film }: { clip: Clip; film: Film }) {
  const { at, cut, mark, picture, show, stepS } = clip;
  return (
    <div>
      <ClipPicture
        bitmap={picture?.bitmap}
        widthPx={film.widthPx}
        heightPx={film.heightPx}
        mark={mark}
        onMark={clip.setMark}
        leanDeg={numberOr(clip.how.lean, 0)}
        path={clip.path}
        atS={picture?.timeS ?? at}
        rim={clip.rim}
        line={clip.backLine}
        onPoint={clip.onPoint}
      />
      <label className="mt-2 grid gap-0.5">
        <span className="flex justify-between text-muted">
          <span>Picture at {formatClipTime(picture?.timeS ?? at)}</span>
          <span>
            {film.name} · {formatClipTime(film.durationS)} · {film.rateHz.toFixed(0)} a second
          </span>
        </span>
        <input
          type="range"
          className="range range-sm w-full"
          min={0}
          max={film.durationS}
          step={stepS}
          value={at}
          onChange={(event) => void show(Number(event.target.value))}
        />
      </label>
      <div className="mt-1 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => void show(Math.max(0, at - stepS))}>
          Picture before
        </button>
        <button type="button" className="btn" onClick={() => void show(at + stepS)}>
          Picture after
        </button>
        <button type="button" className="btn" onClick={() => clip.setCut({ ...cut, fromS: at })}>
          Cut from here
        </button>
        <button type="button" className="btn" onClick={() => clip.setCut({ ...cut, toS: at })}>
          Cut to here
        </button>
        <span className="self-center text-muted">
          {formatClipTime(cut.fromS)} to {formatClipTime(cut.toS)}
        </span>
      </div>
    </div>
  );
}

/** How the film is read, and the run through it. */
function FilmForm({
  clip,
  film,
  bar,
  stop,
}: {
  clip: Clip;
  film: Film;
  bar: FilmedBar | undefined;
  stop: () => Promise<void>;
}) {
  const { how, mark } = clip;
  return (
    <form
      aria-label="The film"
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void clip.run(false);
      }}
    >
      {clip.backOf === undefined ? null : (
        <p role="status" className="font-semibold">
          Rep {clip.backOf + 1}: press the hip, then the shoulder in the picture.
        </p>
      )}
      <p>
        At the cut's beginning: pull the circle onto the plate, its edge onto the rim; a press
        elsewhere brings it there.
      </p>
      <div className="grid grid-cols-3 items-end gap-2">
        {(
          [
            ["Across", "xPx"],
            ["Down", "yPx"],
            ["Radius", "radiusPx"],
          ] as const
        ).map(([label, name]) => (
          <Field
            key={name}
            label={`${label}, px`}
            type="number"
            step={1}
            value={Math.round(mark[name])}
            onChange={(event) => clip.setMark({ ...mark, [name]: Number(event.target.value) })}
          />
        ))}
      </div>
      <Field
        label="Plate across, cm"
        inputMode="decimal"
        value={how.plate}
        hint={plateWords(bar)}
        onChange={(event) => clip.change({ plate: event.target.value })}
      />
      <Field
        label="Plumb line leans, degrees"
        type="number"
        step={0.5}
        value={how.lean}
        hint="along the rack's upright; right is positive"
        onChange={(event) => clip.change({ lean: event.target.value })}
      />
      <Select
        label="The film plays"
        value={how.slowed}
        hint={
          film.filmedHz === undefined
            ? undefined
            : `its file says: filmed at ${film.filmedHz.toFixed(0)} a second`
        }
        onChange={(event) => clip.change({ slowed: event.target.value })}
      >
        <option value="">choose</option>
        {waysToPlay(film, how.slowed).map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Select>
      <Select
        label="The lift begins"
        value={how.start}
        onChange={(event) =>
          clip.change({ start: event.target.value === "bottom" ? "bottom" : "top" })
        }
      >
        <option value="top">at the top (squat, bench)</option>
        <option value="bottom">at the bottom (pull)</option>
      </Select>
      {clip.share === undefined ? (
        <>
          <button type="submit" className="btn btn-primary">
            Measure the cut
          </button>
          {clip.said.length > 0 || clip.result ? (
            <button type="button" className="btn" onClick={() => void clip.run(true)}>
              Go on from this picture
            </button>
          ) : null}
        </>
      ) : (
        <>
          <progress
            className="progress w-full"
            value={clip.share}
            max={1}
            aria-label="Run through"
          />
          <button type="button" className="btn" onClick={() => void stop()}>
            Stop
          </button>
        </>
      )}
    </form>
  );
}

/** What the run gave: what is said of it, the reps, and what is done with them. */
function Found({
  clip,
  bar,
  keep,
}: {
  clip: Clip;
  bar: FilmedBar | undefined;
  keep: Keep | undefined;
}) {
  const { drift, how, otherRing, reps, result, said } = clip;
  const other = wayThatDiffers(reps, bar?.way, numberOr(how.plate, Number.NaN) / 100);
  return (
    <div role="status">
      {said.map((words) => (
        <Notice key={words} kind="warning" title={words} />
      ))}
      {result && !result.ok ? <Notice kind="problem" title={RESULT_WORDS[result.reason]} /> : null}
      {otherRing !== undefined && result?.ok ? (
        <Notice
          kind="warning"
          title={`A ring ${(100 * (otherRing - 1)).toFixed(0)} % larger stands out too: speeds hang on which is the plate's edge.`}
        >
          <p>
            The dashed line shows the one that was taken. If it is not the edge, put the circle on
            the edge:
          </p>
          <button
            type="button"
            className="btn mt-1"
            onClick={() => void clip.run(false, "nearest")}
          >
            Measure with the ring nearest my circle
          </button>
        </Notice>
      ) : null}
      {other && result?.ok ? <Notice kind="warning" title={wayWords(other)} /> : null}
      {result?.ok ? (
        <section aria-label="From video" className="grid gap-2">
          <h2 className="text-lg font-semibold">
            {reps.filter((one) => one.rep.outcome === "counted").length} reps, from video
          </h2>
          {reps.length === 0 ? <p>No rep in this stretch.</p> : null}
          {reps.length > 0 ? (
            <ClipReps
              reps={reps}
              seatM={clip.seatM}
              onShow={clip.showReal}
              backs={clip.angles}
              onBack={clip.askBack}
            />
          ) : null}
          {drift === undefined ? null : (
            <p>
              The back leans {Math.abs(drift).toFixed(0)}° {drift < 0 ? "less" : "more"} in the last
              rep marked than in the first: a mark to look at, no verdict.
            </p>
          )}
          <ul className="list-disc pl-5 text-muted">
            {result.notes.map((note) => (
              <li key={JSON.stringify(note)}>{noteWords(note)}</li>
            ))}
          </ul>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn" onClick={clip.markSeat}>
              Seated in this picture
            </button>
            {keep && reps.length > 0 ? (
              <button
                type="button"
                className="btn btn-primary"
                disabled={clip.kept}
                onClick={() => {
                  clip.setKept(true);
                  keep.onKeep(reps.map((one) => one.rep));
                }}
              >
                {clip.kept ? "Taken over" : keep.label}
              </button>
            ) : null}
          </div>
        </section>
      ) : null}
    </div>
  );
}
