import { and, asc, eq, gt, isNull, lte, or, sql } from "drizzle-orm";
import type { Database } from "../connection.server";
import { devicePairing, rack, rackDevice, room } from "../schema";
import type { TeamTransaction } from "../team.server";

/** A tablet by its token. Runs as the sign-in role. */
export async function rackByToken(signIn: Database, tokenHash: string) {
  const [row] = await signIn
    .select()
    .from(rackDevice)
    .where(and(eq(rackDevice.tokenHash, tokenHash), eq(rackDevice.kind, "tablet")));
  if (!row) return undefined;
  return {
    deviceId: row.id,
    teamId: row.teamId,
    roomId: row.roomId,
    rackId: row.rackId,
    name: row.name,
    revokedAt: row.revokedAt ?? undefined,
  };
}

/** A sensor by its token, with the number of its rack; undefined once it was taken off. As sign-in. */
export async function sensorByToken(signIn: Database, tokenHash: string) {
  const [row] = await signIn
    .select({
      id: rackDevice.id,
      teamId: rackDevice.teamId,
      rackId: rackDevice.rackId,
      name: rackDevice.name,
    })
    .from(rackDevice)
    .where(
      and(
        eq(rackDevice.tokenHash, tokenHash),
        eq(rackDevice.kind, "sensor"),
        isNull(rackDevice.revokedAt),
      ),
    );
  return row;
}

/** Lets a sensor send for a rack; one that did before is taken off. */
export async function keepSensor(
  tx: TeamTransaction,
  device: Omit<typeof rackDevice.$inferInsert, "teamId" | "kind"> & { pairedAt: Date },
): Promise<void> {
  await tx
    .update(rackDevice)
    .set({ revokedAt: device.pairedAt })
    .where(
      and(
        eq(rackDevice.rackId, device.rackId),
        eq(rackDevice.kind, "sensor"),
        isNull(rackDevice.revokedAt),
      ),
    );
  await tx.insert(rackDevice).values({ teamId: tx.teamId, kind: "sensor", ...device });
}

/** Takes one try off an open pairing and gives it back for checking; undefined when there is
 * none, it is too late, or the tries are used up. Runs as the sign-in role. */
export async function tryPairing(signIn: Database, handle: string, at: Date) {
  const [row] = await signIn
    .update(devicePairing)
    .set({ triesLeft: sql`${devicePairing.triesLeft} - 1` })
    .where(
      and(
        eq(devicePairing.handle, handle),
        gt(devicePairing.triesLeft, 0),
        gt(devicePairing.expiresAt, at),
      ),
    )
    .returning();
  return row;
}

/** Opens a pairing; false where its handle is another's, of whatever team. */
export async function openPairing(
  tx: TeamTransaction,
  row: Omit<typeof devicePairing.$inferInsert, "teamId">,
  at: Date,
): Promise<boolean> {
  // One open pairing a rack: an older code stops working. What is over gives its handle back.
  await tx
    .delete(devicePairing)
    .where(or(eq(devicePairing.rackId, row.rackId), lte(devicePairing.expiresAt, at)));
  const opened = await tx
    .insert(devicePairing)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoNothing({ target: devicePairing.handle })
    .returning({ id: devicePairing.id });
  return opened.length > 0;
}

/** Uses the pairing up and keeps the tablet; false when somebody was quicker. */
export async function keepTablet(
  tx: TeamTransaction,
  pairingId: string,
  device: Omit<typeof rackDevice.$inferInsert, "teamId">,
): Promise<boolean> {
  const used = await tx.delete(devicePairing).where(eq(devicePairing.id, pairingId)).returning();
  if (used.length === 0) return false;
  await tx.insert(rackDevice).values({ teamId: tx.teamId, ...device });
  return true;
}

export async function revokeTablet(tx: TeamTransaction, id: string, at: Date): Promise<boolean> {
  const rows = await tx
    .update(rackDevice)
    .set({ revokedAt: at })
    .where(and(eq(rackDevice.id, id), sql`${rackDevice.revokedAt} IS NULL`))
    .returning();
  return rows.length > 0;
}

export interface TabletRow {
  id: string;
  kind: "tablet" | "sensor";
  name: string;
  roomName: string;
  rackNumber: number;
  /** Of its room. */
  zone: string;
  pairedAt: Date;
  revokedAt: Date | null;
}

export function listTablets(tx: TeamTransaction): Promise<TabletRow[]> {
  return tx
    .select({
      id: rackDevice.id,
      kind: rackDevice.kind,
      name: rackDevice.name,
      roomName: room.name,
      zone: room.zone,
      rackNumber: rack.number,
      pairedAt: rackDevice.pairedAt,
      revokedAt: rackDevice.revokedAt,
    })
    .from(rackDevice)
    .innerJoin(room, and(eq(room.teamId, rackDevice.teamId), eq(room.id, rackDevice.roomId)))
    .innerJoin(rack, and(eq(rack.teamId, rackDevice.teamId), eq(rack.id, rackDevice.rackId)))
    .orderBy(asc(room.name), asc(rack.number));
}
