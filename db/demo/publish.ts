import { seededRandom, seedFromText } from "../../core/numeric/random";
import type { Block } from "../../core/plan/block";
import { blockLoads } from "../../core/plan/block-loads";
import type { Lifter } from "../../core/prescribe/lifter";
import type { LocalDate } from "../../core/units/time";
import { racksWithHang } from "../queries/gear.server";
import { addVersion } from "../queries/plans.server";
import type { TeamTransaction } from "../team.server";
import { uuidFrom } from "./uuid";

/** The first version of a demo plan: what athletes see, and what is put on the floor. */
export async function publishDemo(
  tx: TeamTransaction,
  input: {
    planId: string;
    block: Block;
    athletes: readonly Lifter[];
    roomId: string;
    today: LocalDate;
    at: Date;
    by: string;
  },
): Promise<void> {
  const [rack] = await racksWithHang(tx, input.roomId, input.today);
  if (!rack) throw new Error("The demo's rooms have racks.");
  await addVersion(tx, {
    // Of its own seed: what the demo draws stays as it is.
    id: uuidFrom(seededRandom(seedFromText(input.planId)))(),
    planId: input.planId,
    number: 1,
    seq: 1,
    block: input.block,
    loads: blockLoads({
      block: input.block,
      athletes: input.athletes,
      room: {
        gear: rack.gear,
        hang: rack.hang,
        forLift: {},
        rounding: "nearest",
        metric: "MCV",
        settings: {},
        unit: "kg",
        others: [],
        hand: undefined,
        handOf: {},
      },
    }),
    enteredBy: input.by,
    enteredAt: input.at,
  });
}
