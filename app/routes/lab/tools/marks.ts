import type { Mark } from "../../../ui/photo-marks";
import { numbersOf, type ToolProps } from "./tool";

/** Marks on a photo, in the address as x and y in order; a mark that is set in a hurry is added to the one before. */
export function photoMarks({ get, set, asked }: ToolProps["address"], count: number) {
  const read = (text: string) => {
    const flat = numbersOf(text).values;
    return Array.from({ length: count }, (_, i): Mark | undefined => {
      const [x, y] = [flat[2 * i], flat[2 * i + 1]];
      return x === undefined || y === undefined ? undefined : { x, y };
    });
  };
  return {
    marks: read(get("marks")),
    move: (index: number, mark: Mark) => {
      const next = read(asked().get("marks") ?? "");
      next[index] = mark;
      set("marks", next.flatMap((m) => (m ? [m.x, m.y] : [])).join(" "));
    },
    clear: () => set("marks", ""),
  };
}
