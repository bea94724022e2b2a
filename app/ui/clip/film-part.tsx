import { lazy } from "react";
import type { LiftStart, MeasuredRep } from "../../../core/velocity/stream";
import type { FilmedBar } from "./filmed-bar";
import type { ClipPort } from "./port";

interface FilmPart {
  startsAt: LiftStart;
  /** The bar that is filmed, where the page knows it. */
  bar?: FilmedBar;
  /** What is done with the reps here; nothing where left out. */
  keep?: { label: string; onKeep: (reps: MeasuredRep[]) => void };
}

/** A film's part of a page: it comes when somebody opens it, with the worker that reads films. */
export const filmPart = (load: () => Promise<ClipPort>) =>
  lazy(async () => {
    const [{ ClipMeasure }, port] = await Promise.all([import("./clip-measure"), load()]);
    return { default: (of: FilmPart) => <ClipMeasure port={port} {...of} /> };
  });
