import { describe, expect, it } from "vitest";
import type { LogEntry } from "./entries";
import { SLOT, TestDevice, testSession } from "./fixtures/session";
import { FloorFold } from "./state";
import { lastAct, lastUndone } from "./undo";

const shown = (athleteId: string, set = 1) => ({
  slotId: SLOT,
  athleteId,
  setKey: `w1.a.${set}`,
});

function floor() {
  const fold = new FloorFold(testSession());
  const rack = new TestDevice("rack");
  const put = (...entries: LogEntry[]) => {
    fold.add(entries);
    return entries;
  };
  const void_ = (id: string) => put(rack.entry({ kind: "void" }, [id]))[0] as LogEntry;
  return { fold, rack, put, void_ };
}

describe("undo", () => {
  it("takes back the last act of the set on the screen first, then the last of all", () => {
    const { fold, rack, put, void_ } = floor();
    const [mine] = put(rack.rep("ann", 1, 1, 0.8));
    const [later] = put(rack.rep("bo", 1, 1, 0.7));
    const first = lastAct(fold, "rack", shown("ann"));
    expect(first?.of.id).toBe(mine?.id);
    void_(first?.voids ?? "");
    expect(lastAct(fold, "rack", shown("ann"))?.of.id).toBe(later?.id);
  });

  it("takes back nothing that another device did", () => {
    const { fold, put } = floor();
    put(new TestDevice("floor").rep("ann", 1, 1, 0.8));
    expect(lastAct(fold, "rack", shown("ann"))).toBeUndefined();
  });

  it("of a correction gives back what was corrected", () => {
    const { fold, rack, put, void_ } = floor();
    const [wrong] = put(rack.rep("ann", 1, 1, 0.4));
    const [right] = put(
      rack.entry({ ...wrong?.body, mcvMps: 0.8 } as LogEntry["body"], [wrong?.id ?? ""]),
    );
    expect(lastAct(fold, "rack", shown("ann"))?.of.id).toBe(right?.id);
    void_(right?.id ?? "");
    expect(lastAct(fold, "rack", shown("ann"))?.of.id).toBe(wrong?.id);
  });
});

describe("redo", () => {
  it("does again what was taken back last, step by step", () => {
    const { fold, rack, put, void_ } = floor();
    const entries = put(rack.rep("ann", 1, 1, 0.8), rack.rep("ann", 1, 2, 0.6));
    const before = fold.state().racks;
    for (let i = 0; i < 2; i++) void_(lastAct(fold, "rack", shown("ann"))?.voids ?? "");
    const again = lastUndone(fold, "rack", shown("ann"));
    expect(again?.of.id).toBe(entries[0]?.id);
    void_(again?.voids ?? "");
    const last = lastUndone(fold, "rack", shown("ann"));
    expect(last?.of.id).toBe(entries[1]?.id);
    void_(last?.voids ?? "");
    expect(fold.state().racks).toEqual(before);
    expect(lastUndone(fold, "rack", shown("ann"))).toBeUndefined();
  });

  it("is over once something else was done in the set", () => {
    const { fold, rack, put, void_ } = floor();
    put(rack.rep("ann", 1, 1, 0.8));
    void_(lastAct(fold, "rack", shown("ann"))?.voids ?? "");
    put(rack.rep("ann", 1, 1, 0.82));
    expect(lastUndone(fold, "rack", shown("ann"))).toBeUndefined();
    expect(lastUndone(fold, "rack", shown("bo"))).toBeUndefined();
  });
});
