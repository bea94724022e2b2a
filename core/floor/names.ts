/** Who is meant, as short as can be told apart: "Ada", or "Ada B." where there are two. */
export function callNames(
  people: ReadonlyArray<{ athleteId: string; name: string }>,
): Map<string, string> {
  const byId = new Map(people.map((one) => [one.athleteId, one.name.trim()]));
  const firstOf = (name: string) => name.split(/\s+/)[0] ?? name;
  const withInitial = (name: string) => {
    const last = name.split(/\s+/).slice(1).at(-1);
    return last ? `${firstOf(name)} ${[...last][0] ?? ""}.` : name;
  };
  const counted = (write: (name: string) => string) => {
    const counts = new Map<string, number>();
    for (const name of byId.values()) counts.set(write(name), (counts.get(write(name)) ?? 0) + 1);
    return counts;
  };
  const [firsts, initials] = [counted(firstOf), counted(withInitial)];
  return new Map(
    [...byId].map(([id, name]) => {
      if (firsts.get(firstOf(name)) === 1) return [id, firstOf(name)];
      if (initials.get(withInitial(name)) === 1) return [id, withInitial(name)];
      return [id, name];
    }),
  );
}
