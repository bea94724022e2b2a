import { useEffect, useRef, useState } from "react";
import { backAngle, backDrift } from "../../../core/track/back-angle";
import type { ClipResult } from "../../../core/track/clip";
import { MOST_CUT_S } from "../../../core/track/clip";
import type { ClipHead } from "../../../core/track/clip-run";
import { PLATE_DIAMETER_M } from "../../../core/track/heights";
import type { PlateMark, Rim, WhichRing } from "../../../core/track/rim";
import { readDecimal } from "../../../core/units/decimal";
import type { LiftStart, MeasuredRep } from "../../../core/velocity/stream";
import { Field, Select } from "../field";
import { Notice } from "../page";
import { ClipPicture, type PathPoint } from "./clip-picture";
import { ClipReps } from "./clip-result";
import { formatClipTime } from "./clip-time";
import { HEAD_WORDS, LOST_WORDS, noteWords, RESULT_WORDS, RUN_WORDS } from "./clip-words";
import type { ClipPort } from "./port";

interface Place {
  xPx: number;
  yPx: number;
}
type Film = Extract<ClipHead, { ok: true }> & { name: string };

/** At this rate and under a film may have been filmed faster than it plays: it is asked. */
const ASKED_UP_TO_HZ = 62;
const SLOWED = [
  ["1", "as it plays"],
  ["2", "2 times slower"],
  ["4", "4 times slower"],
  ["8", "8 times slower"],
] as const;

const numberOr = (text: string, other: number) => {
  const read = readDecimal(text);
  return read.ok ? read.value : other;
};

/**
 * Bar speed from a film that stays in this browser: chosen, asked for, the plate marked once, a set
 * cut out, run through, and its reps handed on or let go.
 */
export function ClipMeasure({
  port,
  startsAt,
  keep,
}: {
  port: ClipPort;
  startsAt: LiftStart;
  /** What is done with the reps here; nothing where left out. */
  keep?: { label: string; onKeep: (reps: MeasuredRep[]) => void };
}) {
  const [film, setFilm] = useState<Film>();
  const [asked, setAsked] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [picture, setPicture] = useState<{ bitmap: ImageBitmap; timeS: number }>();
  const [at, setAt] = useState(0);
  const [cut, setCut] = useState({ fromS: 0, toS: 0 });
  const [mark, setMark] = useState<PlateMark>({ xPx: 0, yPx: 0, radiusPx: 50 });
  const [lean, setLean] = useState("0");
  const [plate, setPlate] = useState(String(100 * PLATE_DIAMETER_M));
  const [slowed, setSlowed] = useState("");
  const [start, setStart] = useState<LiftStart>(startsAt);
  const [share, setShare] = useState<number>();
  const [said, setSaid] = useState<string[]>([]);
  const [path, setPath] = useState<PathPoint[]>([]);
  const [otherRing, setOtherRing] = useState<number>();
  const [rim, setRim] = useState<Rim>();
  const [result, setResult] = useState<ClipResult>();
  const [seatM, setSeat] = useState<number>();
  const [backs, setBacks] = useState<ReadonlyMap<number, readonly Place[]>>(new Map());
  const [backOf, setBackOf] = useState<number>();
  const shown = useRef(0);
  useEffect(() => () => port.close(), [port]);

  const show = async (timeS: number) => {
    const wanted = ++shown.current;
    setAt(timeS);
    const next = await port.picture(timeS);
    // A later slide of the hand has passed this one.
    if (wanted === shown.current && next) setPicture(next);
  };
  const open = async (file: File) => {
    setProblem(undefined);
    setResult(undefined);
    setPath([]);
    setRim(undefined);
    setOtherRing(undefined);
    setSaid([]);
    setSeat(undefined);
    const head = await port.open(file);
    if (!head.ok) {
      setFilm(undefined);
      return setProblem(HEAD_WORDS[head.reason]);
    }
    setFilm({ ...head, name: file.name });
    setSlowed(head.rateHz > ASKED_UP_TO_HZ ? "1" : "");
    setCut({ fromS: 0, toS: Math.min(head.durationS, MOST_CUT_S) });
    setMark({
      xPx: head.widthPx / 2,
      yPx: head.heightPx / 2,
      radiusPx: Math.min(head.widthPx, head.heightPx) / 7,
    });
    await show(0);
  };
  const measure = async (
    changed: { lean?: string; plate?: string; slowed?: string; start?: LiftStart } = {},
  ) => {
    const radians = (numberOr(changed.lean ?? lean, 0) * Math.PI) / 180;
    const found = await port.measure({
      plateDiameterM: numberOr(changed.plate ?? plate, Number.NaN) / 100,
      up: { x: Math.sin(radians), y: -Math.cos(radians) },
      slowedBy: Number(changed.slowed ?? slowed),
      settings: { start: changed.start ?? start },
    });
    setResult(found);
    setBacks(new Map());
    setBackOf(undefined);
    setPath(await port.path());
  };
  const run = async (goOn: boolean, ring: WhichRing = "outermost") => {
    if (!asked) return setProblem("Ask who is in the picture first, and tick that you have.");
    if (slowed === "")
      return setProblem(
        "Say whether the film plays as fast as it was filmed: a speed hangs on it.",
      );
    if (!(cut.toS > cut.fromS)) return setProblem("The cut's end lies before its beginning.");
    if (cut.toS - cut.fromS > MOST_CUT_S)
      return setProblem(`Cut out a set: ${MOST_CUT_S / 60} minutes at most at once.`);
    setProblem(undefined);
    setShare(0);
    const ran = await port.follow(
      { ...cut, fromS: goOn ? at : cut.fromS, mark, ring, goOn },
      (done) => setShare(done),
    );
    setShare(undefined);
    setRim(ran.ok ? ran.rim : undefined);
    setOtherRing(ran.ok ? ran.otherRing : undefined);
    if (!ran.ok) {
      setResult(undefined);
      if (ran.timeS !== undefined) await show(ran.timeS);
      return setProblem(RUN_WORDS[ran.reason]);
    }
    setSaid([
      ...(ran.lost
        ? [
            `At ${formatClipTime(ran.untilS)} ${LOST_WORDS[ran.lost]}: nothing after it is measured. Mark it again where it is seen, and go on from there.`,
          ]
        : []),
      ...(ran.stopped ? [`Stopped at ${formatClipTime(ran.untilS)}.`] : []),
    ]);
    if (ran.lost) await show(ran.untilS);
    await measure();
  };

  const reps = result?.ok ? result.speeds.reps : [];
  const stepS = film ? 1 / Math.max(1, film.rateHz) : 0.02;
  const radians = (numberOr(lean, 0) * Math.PI) / 180;
  const angles = reps.map((_, i) => {
    const [hip, shoulder] = backs.get(i) ?? [];
    const up = { x: Math.sin(radians), y: -Math.cos(radians) };
    return hip && shoulder ? backAngle({ hip, shoulder, up }) : undefined;
  });
  const drift = backDrift(angles);
  const markBack = (rep: number, at: Place) => {
    const before = backs.get(rep) ?? [];
    const points = before.length === 1 ? [...before, at] : [at];
    setBacks(new Map(backs).set(rep, points));
    if (points.length === 2) setBackOf(undefined);
  };
  const heightHere = () => {
    if (!result?.ok) return undefined;
    const index = result.heights.timesS.findIndex((s) => s >= at / Number(slowed || 1) - 1e-6);
    return result.heights.heightsM[index];
  };

  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid gap-0.5">
          <span className="text-muted">A film of the set, from the side</span>
          <input
            type="file"
            accept="video/*"
            className="field !h-auto py-1"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void open(file);
            }}
          />
        </label>
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={asked}
            onChange={(event) => setAsked(event.target.checked)}
          />
          Everybody in the picture was asked; for minors, their guardian
        </label>
      </div>
      <p className="text-muted">
        The film stays in this browser: no picture is sent or kept. Speeds from it say "video" and
        never stand among a sensor's.
      </p>
      {problem ? <Notice kind="problem" title={problem} /> : null}
      {film ? (
        <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,1fr)_17rem]">
          <div>
            <ClipPicture
              bitmap={picture?.bitmap}
              widthPx={film.widthPx}
              heightPx={film.heightPx}
              mark={mark}
              onMark={setMark}
              leanDeg={numberOr(lean, 0)}
              path={path}
              atS={picture?.timeS ?? at}
              rim={rim}
              line={backOf === undefined ? [] : (backs.get(backOf) ?? [])}
              onPoint={backOf === undefined ? undefined : (place) => markBack(backOf, place)}
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
              <button
                type="button"
                className="btn"
                onClick={() => void show(Math.max(0, at - stepS))}
              >
                Picture before
              </button>
              <button type="button" className="btn" onClick={() => void show(at + stepS)}>
                Picture after
              </button>
              <button type="button" className="btn" onClick={() => setCut({ ...cut, fromS: at })}>
                Cut from here
              </button>
              <button type="button" className="btn" onClick={() => setCut({ ...cut, toS: at })}>
                Cut to here
              </button>
              <span className="self-center text-muted">
                {formatClipTime(cut.fromS)} to {formatClipTime(cut.toS)}
              </span>
            </div>
          </div>
          <form
            aria-label="The film"
            className="grid gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              void run(false);
            }}
          >
            {backOf === undefined ? null : (
              <p role="status" className="font-semibold">
                Rep {backOf + 1}: press the hip, then the shoulder in the picture.
              </p>
            )}
            <p>
              At the cut's beginning: pull the circle onto the plate, its edge onto the rim; a press
              elsewhere brings it there.
            </p>
            <div className="grid grid-cols-3 gap-2">
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
                  onChange={(event) => setMark({ ...mark, [name]: Number(event.target.value) })}
                />
              ))}
            </div>
            <Field
              label="Plate across, cm"
              inputMode="decimal"
              value={plate}
              onChange={(event) => {
                setPlate(event.target.value);
                if (result) void measure({ plate: event.target.value });
              }}
            />
            <Field
              label="Plumb line leans, degrees"
              type="number"
              step={0.5}
              value={lean}
              hint="along the rack's upright; right is positive"
              onChange={(event) => {
                setLean(event.target.value);
                if (result) void measure({ lean: event.target.value });
              }}
            />
            <Select
              label="The film plays"
              value={slowed}
              onChange={(event) => {
                setSlowed(event.target.value);
                if (result && event.target.value) void measure({ slowed: event.target.value });
              }}
            >
              <option value="">choose</option>
              {SLOWED.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                  {value === "1" ? "" : ` (filmed at ${(film.rateHz * Number(value)).toFixed(0)})`}
                </option>
              ))}
            </Select>
            <Select
              label="The lift begins"
              value={start}
              onChange={(event) => {
                const next = event.target.value === "bottom" ? "bottom" : "top";
                setStart(next);
                if (result) void measure({ start: next });
              }}
            >
              <option value="top">at the top (squat, bench)</option>
              <option value="bottom">at the bottom (pull)</option>
            </Select>
            {share === undefined ? (
              <>
                <button type="submit" className="btn btn-primary">
                  Measure the cut
                </button>
                {said.length > 0 ? (
                  <button type="button" className="btn" onClick={() => void run(true)}>
                    Go on from this picture
                  </button>
                ) : null}
              </>
            ) : (
              <>
                <progress
                  className="progress w-full"
                  value={share}
                  max={1}
                  aria-label="Run through"
                />
                <button type="button" className="btn" onClick={() => void port.stop()}>
                  Stop
                </button>
              </>
            )}
          </form>
        </div>
      ) : null}
      <div role="status">
        {said.map((words) => (
          <Notice key={words} kind="warning" title={words} />
        ))}
        {result && !result.ok ? (
          <Notice kind="problem" title={RESULT_WORDS[result.reason]} />
        ) : null}
        {otherRing !== undefined && result?.ok ? (
          <Notice
            kind="warning"
            title={`A ring ${(100 * (otherRing - 1)).toFixed(0)} % larger stands out too: speeds hang on which is the plate's edge.`}
          >
            <p>
              The dashed line shows the one that was taken. If it is not the edge, put the circle on
              the edge:
            </p>
            <button type="button" className="btn mt-1" onClick={() => void run(false, "nearest")}>
              Measure with the ring nearest my circle
            </button>
          </Notice>
        ) : null}
        {result?.ok ? (
          <section aria-label="From video" className="grid gap-2">
            <h2 className="text-lg font-semibold">
              {reps.filter((one) => one.rep.outcome === "counted").length} reps, from video
            </h2>
            {reps.length === 0 ? <p>No rep in this stretch.</p> : null}
            {reps.length > 0 ? (
              <ClipReps
                reps={reps}
                seatM={seatM}
                onShow={(realS) => void show(realS * Number(slowed || 1))}
                backs={angles}
                onBack={(i) => {
                  const rep = reps[i]?.rep;
                  if (!rep) return;
                  setBacks(new Map(backs).set(i, []));
                  setBackOf(i);
                  void show((rep.startS - (rep.pauseS ?? 0)) * Number(slowed || 1));
                }}
              />
            ) : null}
            {drift === undefined ? null : (
              <p>
                The back leans {Math.abs(drift).toFixed(0)}° {drift < 0 ? "less" : "more"} in the
                last rep marked than in the first: a mark to look at, no verdict.
              </p>
            )}
            <ul className="list-disc pl-5 text-muted">
              {result.notes.map((note) => (
                <li key={JSON.stringify(note)}>{noteWords(note)}</li>
              ))}
            </ul>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn" onClick={() => setSeat(heightHere())}>
                Seated in this picture
              </button>
              {keep && reps.length > 0 ? (
                <button
                  type="button"
                  className="btn btn-primary"
                  onClick={() => keep.onKeep(reps.map((one) => one.rep))}
                >
                  {keep.label}
                </button>
              ) : null}
            </div>
          </section>
        ) : null}
      </div>
    </div>
  );
}
