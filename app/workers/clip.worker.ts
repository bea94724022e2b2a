import { expose, transfer } from "comlink";
import {
  ALL_FORMATS,
  BlobSource,
  Input,
  type InputVideoTrack,
  type VideoSample,
  VideoSampleSink,
} from "mediabunny";
import { measureClip } from "../../core/track/clip";
import type { ClipHead, ClipRunResult } from "../../core/track/clip-run";
import type { GreyFrame } from "../../core/track/grey";
import { filmedHzOf } from "../../core/track/retime";
import { radiusOf } from "../../core/track/rim";
import { SteadyCheck } from "../../core/track/steady";
import { RimTracker, type Sighting } from "../../core/track/tracker";
import type { ClipProgress, ClipReading } from "./clip";

/** Pictures are looked at for a moved camera now and then, not each. */
const STEADY_EVERY = 6;
/** Progress is said so often, in pictures. */
const SAY_EVERY = 10;
/** Pictures whose times give the mean rate. */
const RATE_PICTURES = 120;

/** Where phones write the rate at which slow motion was filmed. */
const FILMED_HZ_TAG = "com.android.capture.fps";

let input: Input | undefined;
let track: InputVideoTrack | undefined;
let sink: VideoSampleSink | undefined;
let stopRequested = false;
let tracker: RimTracker | undefined;
let sightings: Sighting[] = [];
let steady: SteadyCheck | undefined;
let cameraPx: number | undefined;
let pictureHeightPx = 0;
/** One picture's bytes, used again for the next. */
let bytes = new Uint8Array(0);
let turned = new Uint8Array(0);

/** The brightness of a decoded picture, the right way up. */
async function greyOf(sample: VideoSample): Promise<GreyFrame> {
  const planar = sample.format === "NV12" || (sample.format?.startsWith("I4") ?? false);
  const size = planar
    ? sample.allocationSize()
    : sample.allocationSize({ format: "RGBA", colorSpace: "srgb" });
  if (bytes.length < size) bytes = new Uint8Array(size);
  const [plane] = planar
    ? await sample.copyTo(bytes)
    : await sample.copyTo(bytes, { format: "RGBA", colorSpace: "srgb" });
  const { width, height } = sample.visibleRect;
  let stridePx = plane?.stride ?? width;
  let grey = bytes.subarray(plane?.offset ?? 0);
  if (!planar) {
    // Rec. 601 in whole numbers.
    for (let y = 0, to = 0; y < height; y++)
      for (let x = 0, from = y * stridePx; x < width; x++, from += 4)
        grey[to++] =
          (77 * (grey[from] as number) +
            150 * (grey[from + 1] as number) +
            29 * (grey[from + 2] as number)) >>
          8;
    stridePx = width;
  }
  if (sample.rotation === 0)
    return { grey, widthPx: width, heightPx: height, stridePx, timeS: sample.timestamp };
  if (turned.length < width * height) turned = new Uint8Array(width * height);
  const across = sample.rotation === 180 ? width : height;
  const down = sample.rotation === 180 ? height : width;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const value = grey[y * stridePx + x] as number;
      if (sample.rotation === 90) turned[x * across + (height - 1 - y)] = value;
      else if (sample.rotation === 270) turned[(width - 1 - x) * across + y] = value;
      else turned[(height - 1 - y) * across + (width - 1 - x)] = value;
    }
  grey = turned;
  return { grey, widthPx: across, heightPx: down, stridePx: across, timeS: sample.timestamp };
}

async function headOf(file: File): Promise<ClipHead> {
  forget();
  input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  try {
    track = (await input.getPrimaryVideoTrack()) ?? undefined;
  } catch {
    return { ok: false, reason: "not-a-clip" };
  }
  if (!track) return { ok: false, reason: "no-pictures" };
  if (!(await track.canDecode())) return { ok: false, reason: "cannot-decode" };
  sink = new VideoSampleSink(track);
  const { averagePacketRate } = await track.computePacketStats(RATE_PICTURES);
  const tags = await input.getMetadataTags().catch(() => undefined);
  return {
    ok: true,
    durationS: await track.computeDuration(),
    widthPx: track.displayWidth,
    heightPx: track.displayHeight,
    rateHz: averagePacketRate,
    filmedHz: filmedHzOf(tags?.raw?.[FILMED_HZ_TAG]),
  };
}

function forget(): void {
  input?.dispose();
  input = undefined;
  track = undefined;
  sink = undefined;
  tracker = undefined;
  sightings = [];
}

/** A picture taken into the run. */
function take(follower: RimTracker, frame: GreyFrame, count: number): void {
  const step = follower.push(frame);
  if (step.kind === "seen") sightings.push(step.at);
  if (count % STEADY_EVERY !== 0) return;
  const shift = steady?.look(frame);
  if (shift) cameraPx = Math.max(cameraPx ?? 0, shift.px);
}

/** Begins at the mark; what an earlier stretch found before it stays where it goes on. */
function begin(
  frame: GreyFrame,
  cut: Parameters<ClipReading["follow"]>[0],
): ReturnType<typeof RimTracker.begin> {
  const begun = RimTracker.begin(frame, cut.mark, cut.ring);
  if (!begun.ok) return begun;
  const earlier = cut.goOn ? sightings.filter((one) => one.timeS < frame.timeS) : [];
  // Sizes are against the rim that was marked: earlier ones against the new mark's from now on.
  const by = tracker ? radiusOf(tracker.rim) / begun.tracker.radiusPx : 1;
  sightings = earlier.map((one) => ({ ...one, scale: one.scale * by }));
  tracker = begun.tracker;
  sightings.push(tracker.marked);
  pictureHeightPx = frame.heightPx;
  if (!cut.goOn || !steady) {
    cameraPx = undefined;
    steady = new SteadyCheck(frame, cut.mark);
  }
  return begun;
}

async function followCut(
  cut: Parameters<ClipReading["follow"]>[0],
  progress: ClipProgress,
): Promise<ClipRunResult> {
  if (!sink) return { ok: false, reason: "cannot-decode" };
  stopRequested = false;
  let follower: RimTracker | undefined;
  let otherRing: number | undefined;
  let pictures = 0;
  let untilS = cut.fromS;
  try {
    // A picture is meant by the time that it shows: the one that stands at the cut's beginning.
    const first = await sink.getSample(cut.fromS);
    const from = first?.timestamp ?? cut.fromS;
    first?.close();
    for await (const sample of sink.samples(from, cut.toS)) {
      const frame = await greyOf(sample);
      sample.close();
      untilS = frame.timeS;
      pictures++;
      if (follower) take(follower, frame, pictures);
      else {
        const begun = begin(frame, cut);
        if (!begun.ok) return { ok: false, reason: begun.reason, timeS: untilS };
        follower = begun.tracker;
        otherRing = begun.otherRing;
      }
      if (pictures % SAY_EVERY === 0)
        void progress((untilS - cut.fromS) / Math.max(1e-6, cut.toS - cut.fromS));
      if (stopRequested || follower.lost) break;
    }
  } catch (cause) {
    console.warn("A picture could not be decoded.", cause);
    if (!follower) return { ok: false, reason: "cannot-decode", timeS: untilS };
  }
  if (!follower) return { ok: false, reason: "no-frame" };
  return {
    ok: true,
    rim: follower.rim,
    otherRing,
    untilS,
    lost: follower.lost,
    stopped: stopRequested,
  };
}

/** What runs through the film now; another film or run waits until it has stopped. */
let running: Promise<unknown> = Promise.resolve();
function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
  stopRequested = true;
  const next = running.then(work);
  running = next.catch(() => undefined);
  return next;
}

const reading: ClipReading = {
  open: (file) => oneAtATime(() => headOf(file)),
  async picture(timeS) {
    const sample = await sink?.getSample(Math.max(0, timeS));
    if (!sample) return undefined;
    const canvas = new OffscreenCanvas(sample.displayWidth, sample.displayHeight);
    const context = canvas.getContext("2d");
    if (!context) return undefined;
    sample.draw(context, 0, 0);
    const shownS = sample.timestamp;
    sample.close();
    const bitmap = canvas.transferToImageBitmap();
    return transfer({ bitmap, timeS: shownS }, [bitmap]);
  },
  follow: (cut, progress) => oneAtATime(() => followCut(cut, progress)),
  async measure(of) {
    if (!tracker) return { ok: false, reason: "too-few" };
    return measureClip({
      ...of,
      rim: tracker.rim,
      onRim: tracker.onRim,
      sightings,
      cameraPx,
      pictureHeightPx,
    });
  },
  async path() {
    return sightings.map(({ timeS, xPx, yPx }) => ({ timeS, xPx, yPx }));
  },
  stop() {
    stopRequested = true;
  },
};

expose(reading);
