/** Fewest characters of a password: length is what makes one hard to guess. */
export const LEAST_PASSWORD = 10;
