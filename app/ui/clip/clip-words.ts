import type { ClipNote, ClipResult } from "../../../core/track/clip";
import type { ClipHead, ClipRunResult } from "../../../core/track/clip-run";
import type { wayThatDiffers } from "../../../core/track/way";
import { formatClipTime } from "./clip-time";

type HeadReason = Extract<ClipHead, { ok: false }>["reason"];
type RunReason = Extract<ClipRunResult, { ok: false }>["reason"];
type ResultReason = Extract<ClipResult, { ok: false }>["reason"];

export const HEAD_WORDS: Record<HeadReason, string> = {
  "not-a-clip": "This file is no film that can be read. Choose an MP4, MOV, WebM or MKV.",
  "no-pictures": "The file holds no pictures, only sound. Choose the film itself.",
  "cannot-decode":
    "This browser cannot read the way these pictures are packed. Film as H.264 (the phone's most compatible setting) or open it in another browser.",
};

export const RUN_WORDS: Record<RunReason, string> = {
  "mark-too-small": "The plate is too small in the picture. Film nearer, or larger.",
  "mark-outside": "The mark lies outside the picture. Put it on the plate.",
  "no-rim":
    "No rim stands out under the mark. Put the circle on the plate's edge, choose a picture in which nothing hides it, or film against a calmer background.",
  "no-frame": "There is no picture at this time. Move the beginning of the cut.",
  "cannot-decode": "A picture could not be read here. Cut this stretch out and measure the rest.",
};

export const RESULT_WORDS: Record<ResultReason, string> = {
  "too-few": "Too few pictures show the plate. Cut a longer stretch, or mark it again.",
  "bad-size": "Give the plate's size, and how the clip plays, as numbers.",
  "no-motion": "The plate hardly moves in this stretch: there is no rep in it.",
  "too-slow-rate": "Under 20 pictures a second show no rep. Film at 60.",
  "camera-moved":
    "The camera moved by more than 3 cm while it filmed: heights from it are worth nothing. Stand the phone on something and film again.",
};

export function noteWords(note: ClipNote): string {
  switch (note.kind) {
    case "hidden":
      return `From ${formatClipTime(note.fromS)} to ${formatClipTime(note.toS)} the plate was out of sight: a rep then is not measured.`;
    case "unclear-rim":
      return `Only ${(100 * note.share).toFixed(0)} % of the plate's edge stands out: see that the dashed line lies on it. Against a calmer or lighter background speeds are surer.`;
    case "leans":
      return `The bar's path leans ${Math.abs(note.degrees).toFixed(0)}° against the plumb line. Turn the line along the rack's upright if the phone stood askew.`;
    case "camera-moved":
      return `The picture moved by about ${(100 * note.byM).toFixed(1)} cm while it was filmed: read the speeds with care.`;
    case "camera-unknown":
      return "Whether the camera stood still cannot be told: the background has too little in it.";
    case "few-pictures":
      return `${note.rateHz.toFixed(0)} pictures a second: coarser than 60. Good for slow reps, wide for fast ones.`;
  }
}

/** How far a film's way of the bar is from the lifter's own, and which plate would fit. */
export function wayWords(found: NonNullable<ReturnType<typeof wayThatDiffers>>): string {
  const cm = (m: number) => `${(100 * m).toFixed(0)} cm`;
  const { filmedM, own, plateM } = found;
  return `The bar goes ${cm(filmedM)} in this film; this lifter's own way is ${cm(own.m)}${own.measured ? "" : " by stature"}. A plate ${cm(plateM)} across would fit it: see that the size, the circle and the cut are right, for every speed is wrong by the same share.`;
}

export const LOST_WORDS = {
  "left-picture": "the plate left the picture",
  hidden: "the plate went out of sight",
} as const;
