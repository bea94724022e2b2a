import { describe, expect, it } from "vitest";
import { Keeping } from "./keeping";

/** A store whose writes end when they are told to. */
function slowStore() {
  const writes: Array<{ id: string; done: () => void; fail: () => void }> = [];
  const kept: string[] = [];
  const keep = ({ id }: { id: string }) =>
    new Promise<void>((resolve, reject) => {
      writes.push({
        id,
        done: () => {
          kept.push(id);
          resolve();
        },
        fail: () => reject(new Error("The store is full.")),
      });
    });
  return { writes, kept, keep };
}

describe("an entry on its way into the store", () => {
  it("is not kept before the store has it", async () => {
    const store = slowStore();
    const keeping = new Keeping(store.keep);
    const put = keeping.put({ id: "a" });
    expect(keeping.notKept).toEqual(["a"]);
    store.writes[0]?.done();
    expect(await put).toBe(true);
    expect(keeping.notKept).toEqual([]);
    expect(store.kept).toEqual(["a"]);
  });

  it("that the store refuses stays, is counted, and is tried again", async () => {
    const store = slowStore();
    const keeping = new Keeping(store.keep);
    const put = keeping.put({ id: "a" });
    store.writes[0]?.fail();
    expect(await put).toBe(false);
    expect([keeping.failed, keeping.notKept]).toEqual([1, ["a"]]);
    const again = keeping.again();
    expect(keeping.notKept).toEqual(["a"]);
    store.writes[1]?.done();
    expect(await again).toBe(true);
    expect([keeping.failed, keeping.notKept]).toEqual([0, []]);
  });

  it("is not written twice at once", async () => {
    const store = slowStore();
    const keeping = new Keeping(store.keep);
    const first = keeping.put({ id: "a" });
    store.writes[0]?.fail();
    await first;
    void keeping.again();
    await keeping.again();
    expect(store.writes).toHaveLength(2);
  });
});
