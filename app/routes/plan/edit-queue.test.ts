import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { BlockEdit } from "../../../core/plan/edits";
import { EditQueue, type SendEdit } from "./edit-queue";

const edit = (words: string): BlockEdit => ({ words, sets: [] });
const taken = (seq: number) => ({ ok: true as const, value: { seq } });

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

/** A server that answers as the test says, remembering what came. */
function server(...answers: Array<Awaited<ReturnType<SendEdit>>>) {
  const came: Array<{ id: string; words: string; base: number }> = [];
  const send: SendEdit = async ({ id, edit: { words } }, base) => {
    came.push({ id, words, base });
    return answers.shift();
  };
  return { came, send };
}

it("sends one after the other, and own edits since a base count as seen", async () => {
  const { came, send } = server(taken(6), taken(7) as never, taken(9));
  const emptied = vi.fn();
  const queue = new EditQueue(send, emptied);
  const answers = [queue.put(edit("a"), 5), queue.put(edit("b"), 5), queue.put(edit("c"), 5)];
  expect(queue.state().edits.map((one) => one.edit.words)).toEqual(["a", "b", "c"]);
  expect(await Promise.all(answers)).toEqual([taken(6), taken(7), taken(9)]);
  expect(came.map((one) => [one.words, one.base])).toEqual([
    ["a", 5],
    ["b", 6],
    ["c", 7],
  ]);
  expect(queue.state().edits.map((one) => one.seq)).toEqual([6, 7, 9]);
  expect(emptied).toHaveBeenCalledTimes(1);
});

it("without an answer sends the same edit again, and says so meanwhile", async () => {
  const { came, send } = server(undefined, undefined, taken(1));
  const queue = new EditQueue(send, () => {});
  const answer = queue.put(edit("a"), 0);
  await vi.advanceTimersByTimeAsync(0);
  expect(queue.state().problem).toContain("could not be reached");
  await vi.advanceTimersByTimeAsync(4100);
  expect(await answer).toEqual(taken(1));
  expect(new Set(came.map((one) => one.id)).size).toBe(1);
  expect(queue.state().problem).toBeUndefined();
});

it("a refused edit shows no more, says why, and holds up none behind it", async () => {
  const refused = { ok: false as const, code: "x", message: "No such day." };
  const { send } = server(refused, taken(1));
  const queue = new EditQueue(send, () => {});
  const [a, b] = [queue.put(edit("a"), 0), queue.put(edit("b"), 0)];
  expect(await a).toEqual(refused);
  expect(queue.state()).toMatchObject({ problem: "No such day." });
  expect(queue.state().edits.map((one) => one.edit.words)).toEqual(["b"]);
  expect(await b).toEqual(taken(1));
  expect(queue.length).toBe(0);
});
