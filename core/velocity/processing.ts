import { PROCESSING_VERSION } from "./stream";

/** How a version of the processing is written; typed and imported speeds carry other words. */
const VERSIONS = "velocity-";

/**
 * Whether a speed was measured, or a floor, target or threshold was set, under an older
 * processing: such speeds differ by up to 0.1 m/s and are never mixed with today's. What is
 * older raises nothing until somebody confirms it, or it is measured again.
 *
 * @param processing as stored; undefined or other words mean that no processing was in it
 */
export function isOlder(processing: string | null | undefined): boolean {
  return !!processing?.startsWith(VERSIONS) && processing !== PROCESSING_VERSION;
}
