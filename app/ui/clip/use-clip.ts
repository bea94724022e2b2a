import { useEffect, useRef, useState } from "react";
import { backAngle, backDrift } from "../../../core/track/back-angle";
import { type ClipResult, MOST_CUT_S } from "../../../core/track/clip";
import type { ClipHead } from "../../../core/track/clip-run";
import { heightAt, upLeaning } from "../../../core/track/heights";
import type { WhichRing } from "../../../core/track/mark";
import { slowedOf } from "../../../core/track/retime";
import type { PlateMark, Rim } from "../../../core/track/rim";
import { readDecimal } from "../../../core/units/decimal";
import type { LiftStart } from "../../../core/velocity/stream";
import type { PathPoint } from "./clip-picture";
import { formatClipTime } from "./clip-time";
import { HEAD_WORDS, LOST_WORDS, RUN_WORDS } from "./clip-words";
import { type FilmedBar, plateAcrossCm } from "./filmed-bar";
import type { ClipPort } from "./port";

interface Place {
  xPx: number;
  yPx: number;
}
type Film = Extract<ClipHead, { ok: true }> & { name: string };

/** At this rate and under a film may have been filmed faster than it plays: it is asked. */
const ASKED_UP_TO_HZ = 62;

export const numberOr = (text: string, other: number) => {
  const read = readDecimal(text);
  return read.ok ? read.value : other;
};

/** How the film is read: the plate's size, the plumb line, its speed, the lift. */
export interface ClipHow {
  plate: string;
  lean: string;
  /** How many times slower it plays than it was filmed; empty until it is said. */
  slowed: string;
  start: LiftStart;
}

const upOf = (how: ClipHow) => upLeaning(numberOr(how.lean, 0));

/** A film on its way from a file to reps, and what is marked on it. */
export function useClip(port: ClipPort, startsAt: LiftStart, bar: FilmedBar | undefined) {
  const [film, setFilm] = useState<Film>();
  const [asked, setAsked] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [picture, setPicture] = useState<{ bitmap: ImageBitmap; timeS: number }>();
  const [at, setAt] = useState(0);
  const [cut, setCut] = useState({ fromS: 0, toS: 0 });
  const [mark, setMark] = useState<PlateMark>({ xPx: 0, yPx: 0, radiusPx: 50 });
  const [how, setHow] = useState<ClipHow>({
    plate: String(plateAcrossCm(bar)),
    lean: "0",
    slowed: "",
    start: startsAt,
  });
  const [share, setShare] = useState<number>();
  const [said, setSaid] = useState<string[]>([]);
  const [path, setPath] = useState<PathPoint[]>([]);
  const [otherRing, setOtherRing] = useState<number>();
  const [rim, setRim] = useState<Rim>();
  const [result, setResult] = useState<ClipResult>();
  const [seatM, setSeat] = useState<number>();
  const [backs, setBacks] = useState<ReadonlyMap<number, readonly Place[]>>(new Map());
  const [backOf, setBackOf] = useState<number>();
  const [kept, setKept] = useState(false);
  const shown = useRef(0);
  const bitmap = useRef<ImageBitmap>(undefined);
  /** The film that is open now: what an earlier one's run still says is nobody's. */
  const films = useRef(0);
  const hows = useRef(how);
  hows.current = how;
  useEffect(() => () => port.close(), [port]);

  const show = async (timeS: number) => {
    const wanted = ++shown.current;
    setAt(timeS);
    const next = await port.picture(timeS);
    if (!next) return;
    // A later slide of the hand has passed this one.
    if (wanted !== shown.current) return next.bitmap.close();
    bitmap.current?.close();
    bitmap.current = next.bitmap;
    setPicture(next);
  };
  const clear = () => {
    setResult(undefined);
    setBacks(new Map());
    setBackOf(undefined);
    setSeat(undefined);
    setKept(false);
  };
  const open = async (file: File) => {
    const mine = ++films.current;
    setProblem(undefined);
    clear();
    setPath([]);
    setRim(undefined);
    setOtherRing(undefined);
    setSaid([]);
    setShare(undefined);
    const head = await port.open(file);
    if (mine !== films.current) return;
    if (!head.ok) {
      setFilm(undefined);
      return setProblem(HEAD_WORDS[head.reason]);
    }
    setFilm({ ...head, name: file.name });
    const said = head.filmedHz && slowedOf(head.filmedHz, head.rateHz);
    setHow({
      ...hows.current,
      slowed: said ? String(said) : head.rateHz > ASKED_UP_TO_HZ ? "1" : "",
    });
    setCut({ fromS: 0, toS: Math.min(head.durationS, MOST_CUT_S) });
    setMark({
      xPx: head.widthPx / 2,
      yPx: head.heightPx / 2,
      radiusPx: Math.min(head.widthPx, head.heightPx) / 7,
    });
    await show(0);
  };
  const measure = async (by: ClipHow) => {
    const mine = films.current;
    const found = await port.measure({
      plateDiameterM: numberOr(by.plate, Number.NaN) / 100,
      up: upOf(by),
      slowedBy: Number(by.slowed),
      settings: { start: by.start },
    });
    const way = await port.path();
    if (mine !== films.current) return;
    // Heights are others now: a seat, a back and what was kept were of those before.
    clear();
    setResult(found);
    setPath(way);
  };
  const run = async (goOn: boolean, ring: WhichRing = "outermost") => {
    if (!asked) return setProblem("Ask who is in the picture first, and tick that you have.");
    if (how.slowed === "")
      return setProblem(
        "Say whether the film plays as fast as it was filmed: a speed hangs on it.",
      );
    if (!(cut.toS > cut.fromS)) return setProblem("The cut's end lies before its beginning.");
    if (cut.toS - cut.fromS > MOST_CUT_S)
      return setProblem(`Cut out a set: ${MOST_CUT_S / 60} minutes at most at once.`);
    const mine = films.current;
    setProblem(undefined);
    setShare(0);
    const ran = await port.follow(
      { ...cut, fromS: goOn ? at : cut.fromS, mark, ring, goOn },
      (done) => mine === films.current && setShare(done),
    );
    if (mine !== films.current) return;
    setShare(undefined);
    setRim(ran.ok ? ran.rim : undefined);
    setOtherRing(ran.ok ? ran.otherRing : undefined);
    if (!ran.ok) {
      clear();
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
    // As it is said by now, not as it was when the run began.
    await measure(hows.current);
  };

  const reps = result?.ok ? result.speeds.reps : [];
  const stepS = film ? 1 / Math.max(1, film.rateHz) : 0.02;
  const angles = reps.map((_, i) => {
    const [hip, shoulder] = backs.get(i) ?? [];
    return hip && shoulder ? backAngle({ hip, shoulder, up: upOf(how) }) : undefined;
  });
  const drift = backDrift(angles);
  const slower = Number(how.slowed || 1);
  const markBack = (rep: number, at: Place) => {
    const before = backs.get(rep) ?? [];
    const points = before.length === 1 ? [...before, at] : [at];
    setBacks(new Map(backs).set(rep, points));
    if (points.length === 2) setBackOf(undefined);
  };
  return {
    film,
    asked,
    setAsked,
    problem,
    picture,
    at,
    show,
    stepS,
    cut,
    setCut,
    mark,
    setMark,
    how,
    /** What is changed is read anew where there is something to read. */
    change(part: Partial<ClipHow>) {
      const next = { ...how, ...part };
      setHow(next);
      // A run that is under way measures by what is said when it ends.
      if (!result || share !== undefined) return;
      if (next.slowed === "") clear();
      else void measure(next);
    },
    open,
    run,
    share,
    said,
    path,
    rim,
    otherRing,
    result,
    reps,
    seatM,
    markSeat: () => setSeat(result?.ok ? heightAt(result.heights, at / slower) : undefined),
    kept,
    setKept,
    /** A rep's moment in the film's own time. */
    showReal: (realS: number) => void show(realS * slower),
    angles,
    drift,
    backOf,
    backLine: backOf === undefined ? [] : (backs.get(backOf) ?? []),
    onPoint: backOf === undefined ? undefined : (place: Place) => markBack(backOf, place),
    askBack(i: number) {
      const rep = reps[i]?.rep;
      if (!rep) return;
      setBacks(new Map(backs).set(i, []));
      setBackOf(i);
      void show((rep.startS - (rep.pauseS ?? 0)) * slower);
    },
  };
}

export type Clip = ReturnType<typeof useClip>;
