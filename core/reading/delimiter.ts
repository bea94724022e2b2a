/**
 * The mark between the cells of a text: of tab, semicolon, bar and comma the first that its
 * header line holds. A comma comes last, because it is also a decimal mark.
 */
export function delimiterOf(text: string): string {
  const header = text.slice(0, text.search(/[\r\n]|$/));
  return ["\t", ";", "|"].find((mark) => header.includes(mark)) ?? ",";
}
