import type { AuditRow, PeopleAnswer, Role, SessionRow } from "@kobbin/contract";
import type { Pool, Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Writes down who came in, who was refused, what was released. */
export async function insertAudit(
  db: Pool | Tx,
  a: { workshopId: string | null; person: string; what: string; address: string },
): Promise<void> {
  await db.query("insert into audit (workshop_id, person, what, address) values ($1, $2, $3, $4)", [
    a.workshopId,
    a.person.slice(0, 200),
    a.what,
    a.address,
  ]);
}

export async function manyAudit(tx: Tx): Promise<AuditRow[]> {
  const { rows } = await tx.query<{ id: string; at: Date; person: string; what: string }>(
    "select id, at, person, what from audit order by id desc limit 100",
  );
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}

/** Shops an account belongs to. */
export async function manyShopsOf(db: Pool | Tx, accountId: string): Promise<{ id: string; role: Role }[]> {
  const { rows } = await db.query<{ id: string; role: Role }>(
    "select workshop_id as id, role from member where account_id = $1 order by created_at, workshop_id",
    [accountId],
  );
  return rows;
}

export async function manyMembers(tx: Tx, me: string): Promise<PeopleAnswer["members"]> {
  const { rows } = await tx.query<{ id: string; person: string; role: Role }>(
    `select a.id, a.email as person, m.role from member as m join account as a on a.id = m.account_id
     where m.workshop_id = current_workshop() order by m.created_at, a.email`,
  );
  return rows.map((r) => ({ ...r, isMe: r.id === me }));
}

/** Members with the owner's rights; the last one cannot go. Locked, so that two cannot leave at once. */
export async function countOwners(tx: Tx): Promise<number> {
  const { rows } = await tx.query(
    "select 1 from member where workshop_id = current_workshop() and role = 'owner' for update",
  );
  return rows.length;
}

export async function updateMember(tx: Tx, accountId: string, role: Role): Promise<void> {
  const { rows } = await tx.query(
    "update member set role = $2 where workshop_id = current_workshop() and account_id = $1 returning 1",
    [accountId, role],
  );
  one(rows, "member");
}

/** Takes a member out, with every session in this shop. */
export async function deleteMember(tx: Tx, accountId: string): Promise<void> {
  const { rows } = await tx.query(
    "delete from member where workshop_id = current_workshop() and account_id = $1 returning 1",
    [accountId],
  );
  one(rows, "member");
  await tx.query("delete from session where workshop_id = current_workshop() and account_id = $1", [
    accountId,
  ]);
}

export async function manyInvitations(tx: Tx): Promise<PeopleAnswer["invitations"]> {
  const { rows } = await tx.query<{ id: string; role: Role; note: string; expiresAt: Date }>(
    `select id, role, note, expires_at as "expiresAt" from invitation where used_at is null and expires_at > now() order by created_at`,
  );
  return rows.map((r) => ({ ...r, expiresAt: r.expiresAt.toISOString() }));
}

export async function insertInvitation(
  tx: Tx,
  i: { tokenHash: Buffer; role: Role; note: string; accountId: string },
): Promise<{ id: string; expiresAt: Date }> {
  const { rows } = await tx.query<{ id: string; expiresAt: Date }>(
    `insert into invitation (token_hash, workshop_id, role, note, created_by, expires_at)
     values ($1, current_workshop(), $2, $3, $4, now() + interval '7 days') returning id, expires_at as "expiresAt"`,
    [i.tokenHash, i.role, i.note, i.accountId],
  );
  return rows[0]!;
}

/** An invitation by the hash of its secret, before anybody is signed in. */
export async function maybeInvited(
  db: Pool | Tx,
  tokenHash: Buffer,
): Promise<{ id: string; workshopId: string; shop: string; role: Role; isOpen: boolean } | undefined> {
  const { rows } = await db.query<{
    id: string;
    workshopId: string;
    shop: string;
    role: Role;
    isOpen: boolean;
  }>(`select id, workshop_id as "workshopId", shop, role, is_open as "isOpen" from invited($1)`, [tokenHash]);
  return rows[0];
}

/** Uses an invitation once; false when somebody was quicker. */
export async function spendInvitation(tx: Tx, id: string, person: string): Promise<boolean> {
  const { rowCount } = await tx.query(
    "update invitation set used_at = now(), used_by = $2 where id = $1 and used_at is null and expires_at > now()",
    [id, person],
  );
  return rowCount === 1;
}

export async function manySessions(db: Pool, accountId: string, tokenHash: Buffer): Promise<SessionRow[]> {
  const { rows } = await db.query<{
    id: string;
    agent: string;
    createdAt: Date;
    seenAt: Date;
    isThis: boolean;
  }>(
    `select id, agent, created_at as "createdAt", seen_at as "seenAt", token_hash = $2 as "isThis" from session
     where account_id = $1 and expires_at > now() order by seen_at desc`,
    [accountId, tokenHash],
  );
  return rows.map((r) => ({ ...r, createdAt: r.createdAt.toISOString(), seenAt: r.seenAt.toISOString() }));
}

export async function deleteInvitation(tx: Tx, id: string): Promise<void> {
  one((await tx.query("delete from invitation where id = $1 returning 1", [id])).rows, "invitation");
}

/** An account by what its person signs in with, with the hash of its password. */
export async function maybeAccount(
  db: Pool | Tx,
  email: string,
): Promise<{ id: string; hash: string | null } | undefined> {
  const { rows } = await db.query<{ id: string; hash: string | null }>(
    `select id, password_hash as "hash" from account where email = $1`,
    [email],
  );
  return rows[0];
}

export async function insertAccount(tx: Tx, email: string, passwordHash: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into account (email, password_hash) values ($1, $2) returning id",
    [email, passwordHash],
  );
  return one(rows, "account").id;
}

/** Makes an account a member of a shop, if it is none yet. */
export async function insertMember(tx: Tx, workshopId: string, accountId: string, role: Role): Promise<void> {
  await tx.query(
    "insert into member (workshop_id, account_id, role) values ($1, $2, $3) on conflict do nothing",
    [workshopId, accountId, role],
  );
}

export async function maybePasswordHash(db: Pool | Tx, accountId: string): Promise<string | null> {
  const { rows } = await db.query<{ hash: string | null }>(
    `select password_hash as "hash" from account where id = $1`,
    [accountId],
  );
  return rows[0]?.hash ?? null;
}

/** Sets a password; whoever is in with the old one is out, but for the session that did it. */
export async function updatePassword(
  tx: Tx,
  accountId: string,
  passwordHash: string,
  tokenHash: Buffer,
): Promise<void> {
  await tx.query("update account set password_hash = $2 where id = $1", [accountId, passwordHash]);
  await tx.query("delete from session where account_id = $1 and token_hash <> $2", [accountId, tokenHash]);
}

export async function deleteSession(db: Pool, id: string, accountId: string): Promise<void> {
  const { rows } = await db.query("delete from session where id = $1 and account_id = $2 returning 1", [
    id,
    accountId,
  ]);
  one(rows, "session");
}

/** Puts a session into another shop of its person. */
export async function updateSessionShop(db: Pool | Tx, tokenHash: Buffer, shopId: string): Promise<void> {
  await db.query("update session set workshop_id = $2 where token_hash = $1", [tokenHash, shopId]);
}

/** Works for a shop somebody is about to join, from here to the end of the transaction. */
export async function enterShop(tx: Tx, workshopId: string): Promise<void> {
  await tx.query("select set_config('app.workshop', $1, true)", [workshopId]);
}
