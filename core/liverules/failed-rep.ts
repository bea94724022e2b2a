/** The fault that a rep which turned back carries. */
export const FAILED_REP = "Rep failed";
