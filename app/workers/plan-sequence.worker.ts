import { expose } from "comlink";
import { planSequence } from "../../core/barload/sequence";

/** The fewest plate moves of a long sequence, off the page's own thread. */
const port = { plan: planSequence };
export type SequencePort = typeof port;
expose(port);
