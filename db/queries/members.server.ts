import { and, asc, desc, eq, gt, isNull, or, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import {
  athlete,
  invitation,
  type MembershipChange,
  membership,
  membershipChange,
} from "../schema";
import type { TeamTransaction } from "../team.server";

/** Who belongs to a team, how they come in, and what became of it: read and written in the team. */

export function listMembers(tx: TeamTransaction) {
  return tx
    .select({
      id: membership.id,
      userId: membership.userId,
      name: membership.name,
      role: membership.role,
      athleteId: membership.athleteId,
      athleteName: athlete.name,
      createdAt: membership.createdAt,
      suspendedAt: membership.suspendedAt,
    })
    .from(membership)
    .leftJoin(
      athlete,
      and(eq(athlete.teamId, membership.teamId), eq(athlete.id, membership.athleteId)),
    )
    .where(isNull(membership.removedAt))
    .orderBy(asc(membership.name));
}

/** One who belongs to the team, held until the transaction ends. */
export async function lockMember(tx: TeamTransaction, id: string) {
  const [row] = await tx
    .select()
    .from(membership)
    .where(and(eq(membership.id, id), isNull(membership.removedAt)))
    .for("update");
  return row;
}

/** A person's own place in the team, held until the transaction ends. */
export async function lockOwnPlace(tx: TeamTransaction, userId: string) {
  const [row] = await tx
    .select()
    .from(membership)
    .where(eq(membership.userId, userId))
    .for("update");
  return row;
}

export async function addMember(
  tx: TeamTransaction,
  row: Omit<typeof membership.$inferInsert, "teamId" | "id">,
): Promise<void> {
  const { userId: _, ...place } = row;
  await tx
    .insert(membership)
    .values({ teamId: tx.teamId, id: uuidv7(), ...row })
    // Somebody who was here before comes back into their old place.
    .onConflictDoUpdate({
      target: [membership.teamId, membership.userId],
      set: { ...place, suspendedAt: null, removedAt: null },
    });
}

export async function changeMember(
  tx: TeamTransaction,
  id: string,
  change: Partial<
    Pick<
      typeof membership.$inferInsert,
      "role" | "name" | "athleteId" | "suspendedAt" | "removedAt"
    >
  >,
): Promise<void> {
  await tx.update(membership).set(change).where(eq(membership.id, id));
}

/** Invitations that can still be used or that wait for a link, the newest first. */
export function openInvitations(tx: TeamTransaction, at: Date) {
  return tx
    .select()
    .from(invitation)
    .where(
      and(
        isNull(invitation.usedAt),
        isNull(invitation.withdrawnAt),
        or(isNull(invitation.tokenHash), gt(invitation.expiresAt, at)),
      ),
    )
    .orderBy(desc(invitation.enteredAt), asc(invitation.name));
}

export async function keepInvitation(
  tx: TeamTransaction,
  row: Omit<typeof invitation.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(invitation).values({ teamId: tx.teamId, ...row });
}

/** Gives somebody who waits a link, a new one for an older one; undefined where it is over. */
export async function giveLink(
  tx: TeamTransaction,
  id: string,
  link: { tokenHash: string; expiresAt: Date },
) {
  const rows = await tx
    .update(invitation)
    .set(link)
    .where(and(eq(invitation.id, id), isNull(invitation.usedAt), isNull(invitation.withdrawnAt)))
    .returning();
  return rows[0];
}

/** Ends an invitation that was not used; false where there is none. */
export async function withdrawInvitation(tx: TeamTransaction, id: string, at: Date) {
  const rows = await tx
    .update(invitation)
    .set({ withdrawnAt: at })
    .where(and(eq(invitation.id, id), isNull(invitation.usedAt), isNull(invitation.withdrawnAt)))
    .returning();
  return rows[0];
}

/** Ends every open invitation to one athlete's card: the newest link is the one that works. */
export async function withdrawOlder(tx: TeamTransaction, athleteId: string, at: Date) {
  await tx
    .update(invitation)
    .set({ withdrawnAt: at })
    .where(
      and(
        eq(invitation.athleteId, athleteId),
        isNull(invitation.usedAt),
        isNull(invitation.withdrawnAt),
      ),
    );
}

/** Uses an invitation up; undefined where somebody was quicker, or it is over. */
export async function takeInvitation(tx: TeamTransaction, id: string, at: Date) {
  const rows = await tx
    .update(invitation)
    .set({ usedAt: at })
    .where(
      and(
        eq(invitation.id, id),
        isNull(invitation.usedAt),
        isNull(invitation.withdrawnAt),
        gt(invitation.expiresAt, at),
      ),
    )
    .returning();
  return rows[0];
}

export async function noteChange(
  tx: TeamTransaction,
  change: {
    kind: MembershipChange;
    name: string;
    detail?: string;
    athleteId?: string | null;
    by: string;
    at: Date;
  },
): Promise<void> {
  const { by, at, ...rest } = change;
  await tx
    .insert(membershipChange)
    .values({ teamId: tx.teamId, id: uuidv7(), ...rest, enteredBy: by, enteredAt: at });
}

export function membershipChanges(tx: TeamTransaction, most: number) {
  return tx
    .select()
    .from(membershipChange)
    .orderBy(desc(membershipChange.enteredAt), desc(membershipChange.id))
    .limit(most);
}

/** Calls an athlete's sign-in by a new name. */
export async function renameSignIn(
  tx: TeamTransaction,
  athleteId: string,
  name: string,
): Promise<void> {
  await tx.update(membership).set({ name }).where(eq(membership.athleteId, athleteId));
}

/** The athlete's card that a sign-in opens, where one does. */
export async function signInOfAthlete(tx: TeamTransaction, athleteId: string) {
  const [row] = await tx
    .select({ name: membership.name })
    .from(membership)
    .where(and(eq(membership.athleteId, athleteId), sql`${membership.removedAt} IS NULL`));
  return row;
}
