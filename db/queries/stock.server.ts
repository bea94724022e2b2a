import { sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import type { GearItem } from "../../core/gear/kinds";
import type { MassUnit } from "../../core/units/mass";
import { invariant } from "../invariant";
import { STARTER_ROOM_NAME, starterRoom } from "../library/starter-room";
import { SHIPPED_VARIANTS } from "../library/variants";
import { liftVariant, team } from "../schema";
import type { TeamTransaction } from "../team.server";
import { ensureComplexes } from "./contrast.server";
import { saveItem, saveRoom } from "./gear.server";
import { copyLibrary } from "./library.server";
import { copyPlanLibrary } from "./plan-library.server";

interface Entered {
  enteredBy: string;
  enteredAt: Date;
}

/** Writes pieces into a new room: bars first, so that racks find theirs. */
export async function fillRoom(
  tx: TeamTransaction,
  roomId: string,
  items: readonly GearItem[],
  entered: Entered,
): Promise<void> {
  const bars = new Map<string, string>();
  for (const kind of ["bar", "rack", undefined]) {
    for (const item of items) {
      if (kind ? item.kind !== kind : item.kind === "bar" || item.kind === "rack") continue;
      const id = uuidv7();
      if (item.kind === "bar") bars.set(item.name, id);
      await saveItem(tx, {
        id,
        roomId,
        item,
        ...(item.kind === "rack" ? { barId: bars.get(String(item.values.bar)) as string } : {}),
        ...entered,
      });
    }
  }
}

/**
 * Waits until nobody else does this, whatever the team or process; held until the transaction
 * ends. Whoever holds it may ask the sign-in's database, never the other way round: so nobody
 * waits in a circle for connections.
 */
export async function waitTurn(tx: TeamTransaction, what: string): Promise<void> {
  await tx.execute(sql`SELECT pg_advisory_xact_lock(hashtextextended(${what}, 0))`);
}

async function copyVariants(tx: TeamTransaction): Promise<void> {
  const ids = new Map(SHIPPED_VARIANTS.map((one) => [one.name, uuidv7()]));
  const idOf = (name: string) => {
    const id = ids.get(name);
    invariant(id, `a shipped variant's base is shipped: ${name}`);
    return id;
  };
  for (const { baseOf, ...variant } of SHIPPED_VARIANTS) {
    await tx.insert(liftVariant).values({
      teamId: tx.teamId,
      id: idOf(variant.name),
      ...variant,
      ...(baseOf === undefined ? {} : { baseId: idOf(baseOf) }),
    });
  }
}

/**
 * Makes a team with everything that ships: exercises, tests, lift variants, recipes, complexes,
 * schools, and one room drawn up to be corrected. The transaction's team is the new one.
 */
export async function makeTeam(
  tx: TeamTransaction,
  input: { name: string; zone: string; unit: MassUnit } & Entered,
): Promise<void> {
  const { name, zone, unit, enteredBy, enteredAt } = input;
  const entered = { enteredBy, enteredAt };
  await tx.insert(team).values({ id: tx.teamId, name, zone, unit });
  await copyLibrary(tx, uuidv7);
  await copyPlanLibrary(tx, entered);
  await ensureComplexes(tx);
  await copyVariants(tx);
  const roomId = uuidv7();
  await saveRoom(tx, { id: roomId, name: STARTER_ROOM_NAME, zone });
  await fillRoom(tx, roomId, starterRoom(unit), entered);
}
