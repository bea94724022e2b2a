import type { LocalDate } from "../units/time";

/**
 * Why somebody does not train a squad's day alone, in words; undefined where they may. The age is
 * counted by calendar years, as everywhere in the application.
 * @param fromAge years
 */
export function aloneRefusal(input: {
  birthYear: number | undefined;
  today: LocalDate;
  fromAge: number;
}): string | undefined {
  const { birthYear, today, fromAge } = input;
  if (fromAge <= 0) return undefined;
  if (birthYear === undefined)
    return `Your year of birth is not written down, and who is under ${fromAge} trains with a coach. Ask your coach to enter it.`;
  return Number(today.slice(0, 4)) - birthYear < fromAge
    ? `Who is under ${fromAge} trains with a coach. Ask yours to start the day with you.`
    : undefined;
}
