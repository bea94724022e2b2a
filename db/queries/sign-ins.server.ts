import { and, eq, gt, isNull, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import type { Database } from "../connection.server";
import { invitation, membership, team } from "../schema";
import { account, installation, passwordReset, session, user } from "../schema/auth";

/** People and their passwords, whatever their team. Everything here runs as the sign-in role. */

/** Addresses are kept in small letters: two spellings are one person. */
export const plainEmail = (email: string) => email.trim().toLowerCase();

export async function userByEmail(signIn: Database, email: string) {
  const [row] = await signIn
    .select({ id: user.id, name: user.name, email: user.email })
    .from(user)
    .where(eq(user.email, plainEmail(email)));
  return row;
}

export async function emailsOf(signIn: Database, userIds: readonly string[]) {
  if (userIds.length === 0) return new Map<string, string>();
  const rows = await signIn
    .select({ id: user.id, email: user.email })
    .from(user)
    .where(
      sql`${user.id} = ANY(${sql.param(`{${userIds.map((id) => `"${id}"`).join(",")}}`)}::text[])`,
    );
  return new Map(rows.map((row) => [row.id, row.email]));
}

/**
 * A new person with a password. Somebody of this address who never came to belong to a team (a
 * start that was broken off) makes room.
 * @returns false where the address is somebody's already
 */
export async function addUser(
  signIn: Database,
  person: { id: string; name: string; email: string; passwordHash: string },
): Promise<boolean> {
  const email = plainEmail(person.email);
  return signIn.transaction(async (tx) => {
    await tx
      .delete(user)
      .where(
        and(
          eq(user.email, email),
          sql`NOT EXISTS (SELECT 1 FROM ${membership} WHERE ${membership.userId} = ${user.id})`,
        ),
      );
    const made = await tx
      .insert(user)
      .values({ id: person.id, name: person.name, email })
      .onConflictDoNothing()
      .returning({ id: user.id });
    if (made.length === 0) return false;
    await tx.insert(account).values({
      id: uuidv7(),
      accountId: person.id,
      providerId: "credential",
      userId: person.id,
      password: person.passwordHash,
    });
    return true;
  });
}

/** Whether anybody belongs to any team: until then the first page makes one. */
export async function anyTeam(signIn: Database): Promise<boolean> {
  const [row] = await signIn.select({ id: membership.id }).from(membership).limit(1);
  return row !== undefined;
}

export async function installationKind(signIn: Database) {
  const [row] = await signIn.select().from(installation);
  return row?.kind;
}

/** Says once what this database is for. */
export async function claimInstallation(signIn: Database, kind: "demo" | "own", at: Date) {
  await signIn.insert(installation).values({ kind, madeAt: at }).onConflictDoNothing();
}

/** An invitation by its secret's hash, with its team's name; used ones too, for their sentence. */
export async function invitationByHash(signIn: Database, tokenHash: string) {
  const [row] = await signIn
    .select({
      id: invitation.id,
      teamId: invitation.teamId,
      teamName: team.name,
      name: invitation.name,
      role: invitation.role,
      athleteId: invitation.athleteId,
      email: invitation.email,
      expiresAt: invitation.expiresAt,
      usedAt: invitation.usedAt,
      withdrawnAt: invitation.withdrawnAt,
      by: invitation.enteredBy,
    })
    .from(invitation)
    .innerJoin(team, eq(team.id, invitation.teamId))
    .where(eq(invitation.tokenHash, tokenHash));
  return row;
}

/** Keeps a link that sets a new password; an older one of the same person ends. */
export async function keepReset(
  signIn: Database,
  row: typeof passwordReset.$inferInsert,
): Promise<void> {
  await signIn.transaction(async (tx) => {
    await tx
      .delete(passwordReset)
      .where(and(eq(passwordReset.userId, row.userId), isNull(passwordReset.usedAt)));
    await tx.insert(passwordReset).values(row);
  });
}

/** A link that can still be used, by its secret's hash. */
export async function resetByHash(signIn: Database, tokenHash: string, at: Date) {
  const [row] = await signIn
    .select({
      id: passwordReset.id,
      userId: passwordReset.userId,
      by: passwordReset.by,
      teamId: passwordReset.teamId,
      givenBy: passwordReset.givenBy,
      name: user.name,
      email: user.email,
    })
    .from(passwordReset)
    .innerJoin(user, eq(user.id, passwordReset.userId))
    .where(
      and(
        eq(passwordReset.tokenHash, tokenHash),
        isNull(passwordReset.usedAt),
        gt(passwordReset.expiresAt, at),
      ),
    );
  return row;
}

/**
 * Sets a password by a link, uses it up, and ends every session of that person.
 * @returns false where somebody was quicker
 */
export async function setPasswordBy(
  signIn: Database,
  reset: { id: string; userId: string },
  passwordHash: string,
  at: Date,
): Promise<boolean> {
  return signIn.transaction(async (tx) => {
    const used = await tx
      .update(passwordReset)
      .set({ usedAt: at })
      .where(and(eq(passwordReset.id, reset.id), isNull(passwordReset.usedAt)))
      .returning({ id: passwordReset.id });
    if (used.length === 0) return false;
    const set = await tx
      .update(account)
      .set({ password: passwordHash, updatedAt: at })
      .where(and(eq(account.userId, reset.userId), eq(account.providerId, "credential")))
      .returning({ id: account.id });
    if (set.length === 0) {
      await tx.insert(account).values({
        id: uuidv7(),
        accountId: reset.userId,
        providerId: "credential",
        userId: reset.userId,
        password: passwordHash,
      });
    }
    await tx.delete(session).where(eq(session.userId, reset.userId));
    return true;
  });
}
