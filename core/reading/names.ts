/** A name as it is matched: without regard to case, marks and double blanks. */
export function plainName(name: string): string {
  return name.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase().replace(/\s+/g, " ").trim();
}
