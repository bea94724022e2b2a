/**
 * Rows as one JSON array, a row a line: `[`, the rows with commas between, `]`. What is written so
 * is read back without holding the whole.
 */
export async function* jsonArray(lines: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let first = true;
  let rest = "";
  yield "[\n";
  for await (const piece of lines) {
    const parts = `${rest}${decoder.decode(piece, { stream: true })}`.split("\n");
    rest = parts.pop() ?? "";
    if (parts.length === 0) continue;
    yield `${first ? "" : ",\n"}${parts.join(",\n")}`;
    first = false;
  }
  yield first ? "]\n" : "\n]\n";
}

/**
 * The rows of such an array in batches, each a JSON array of its own as text: numbers stay as they
 * were written.
 * @param most characters of a batch, beyond its last row
 */
export async function* jsonBatches(
  stream: AsyncIterable<Buffer>,
  most: number,
): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = "";
  let rows: string[] = [];
  let length = 0;
  const take = (line: string) => {
    if (line === "[" || line === "]" || line === "") return;
    const row = line.endsWith(",") ? line.slice(0, -1) : line;
    rows.push(row);
    length += row.length;
  };
  for await (const piece of stream) {
    const lines = `${rest}${decoder.decode(piece, { stream: true })}`.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      take(line);
      if (length >= most) {
        yield `[${rows.join(",")}]`;
        rows = [];
        length = 0;
      }
    }
  }
  take(rest);
  if (rows.length > 0) yield `[${rows.join(",")}]`;
}
