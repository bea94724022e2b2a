/** Spread of a day's form round the profile, m/s (one standard deviation). */
export const DAY_SHIFT_SD_MPS = 0.05;
/** Error of one reading, m/s: where an estimate of it begins. */
export const READING_SD_MPS = 0.03;
/** What a rep loses on the one before it at the same load, m/s: mean and spread beforehand. */
export const REP_DROP_MPS = 0.01;
export const REP_DROP_SD_MPS = 0.015;
/** A call changes a load by this share at most. */
export const LARGEST_CHANGE_SHARE = 0.1;
