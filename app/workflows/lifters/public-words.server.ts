import { AGE_GROUP_WORDS } from "../../../core/maxes/limits";

/** Ages are for owner and coaches: others learn that a coach decides. */
export function publicWords(because: string): string {
  return because === AGE_GROUP_WORDS ? "Ask a coach first." : because;
}
