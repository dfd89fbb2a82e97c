import { randomBytes } from "node:crypto";
import Router from "@koa/router";
import {
  chooseShopBody,
  forgetBody,
  invitationBody,
  joinBody,
  memberBody,
  type PeopleAnswer,
  passwordBody,
} from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { hash } from "@node-rs/argon2";
import { one, readWorkshop, withTransaction, withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { tell } from "../../history/change.ts";
import { client, networkOf } from "../../middleware/client.ts";
import { COOKIE, countTries, hashToken, limitTries, openSession, signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { forgetPerson, manyLeft } from "./forget-queries.ts";
import { checkNewPassword, checkPassword } from "./password.ts";
import {
  countOwners,
  deleteInvitation,
  deleteMember,
  deleteSession,
  enterShop,
  insertAccount,
  insertAudit,
  insertInvitation,
  insertMember,
  manyAudit,
  manyInvitations,
  manyMembers,
  manySessions,
  manyShopsOf,
  maybeAccount,
  maybeInvited,
  maybePasswordHash,
  spendInvitation,
  updateMember,
  updatePassword,
  updateSessionShop,
} from "./queries.ts";

/** Members, invitations, sessions, passwords, the record of who came in. */
export function peopleRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.patch("/api/people/:id", async (ctx) => {
    const { role } = bodyOf(ctx, memberBody);
    await withWorkshop(pool, signed(ctx).workshopId, async (tx) => {
      const members = await manyMembers(tx, "");
      const member = one(
        members.filter((m) => m.id === ctx.params.id),
        "member",
      );
      if (member.role === "owner" && role !== "owner") await keepOneOwner(tx);
      await updateMember(tx, member.id, role);
      await insertAudit(tx, {
        workshopId: signed(ctx).workshopId,
        person: signed(ctx).person,
        what: `made ${member.person} ${role}`,
        address: client(ctx).address,
      });
    });
    ctx.status = 204;
  });
  router.delete("/api/people/:id", async (ctx) => {
    const { workshopId, person } = signed(ctx);
    await withWorkshop(pool, workshopId, async (tx) => {
      const member = one(
        (await manyMembers(tx, "")).filter((m) => m.id === ctx.params.id),
        "member",
      );
      if (member.role === "owner") await keepOneOwner(tx);
      await deleteMember(tx, member.id);
      await tell(tx, { kind: "left", workshop: workshopId, account: member.id });
      await insertAudit(tx, {
        workshopId,
        person,
        what: `took ${member.person} out of the shop`,
        address: client(ctx).address,
      });
    });
    ctx.status = 204;
  });

  forgetRoute(router, deps);
  router.post("/api/invitations", async (ctx) => {
    const { role, note } = bodyOf(ctx, invitationBody);
    const { workshopId, accountId, person } = signed(ctx);
    const token = randomBytes(24).toString("base64url");
    const made = await withWorkshop(pool, workshopId, async (tx) => {
      await insertAudit(tx, {
        workshopId,
        person,
        what: `invited a member as ${role}`,
        address: client(ctx).address,
      });
      return insertInvitation(tx, { tokenHash: hashToken(token), role, note, accountId });
    });
    ctx.status = 201;
    // the secret is shown once; only its hash is kept
    ctx.body = { id: made.id, token, expiresAt: made.expiresAt.toISOString() };
  });
  router.delete("/api/invitations/:id", async (ctx) => {
    await withWorkshop(pool, signed(ctx).workshopId, (tx) => deleteInvitation(tx, ctx.params.id!));
    ctx.status = 204;
  });
  router.get("/api/invited/:token", async (ctx) => {
    await limitTries(pool, `invited ${networkOf(client(ctx).address)}`, 60);
    const { shop, role } = await openInvitation(ctx.params.token!);
    ctx.body = { shop, role };
  });
  router.post("/api/invited/:token", async (ctx) => {
    const { email, password } = bodyOf(ctx, joinBody);
    // a join checks a password too: it is counted like a sign-in
    await countTries(pool, [`join ${networkOf(client(ctx).address)}`, 20], [`sign-in as ${email}`, 60]);
    const invitation = await openInvitation(ctx.params.token!);
    const known = await maybeAccount(pool, email);
    if (known) await checkPassword(known.hash, password);
    else if (password.length < 10)
      throw new AppError("OUT_OF_RANGE", "A password has at least 10 characters.", "Choose a longer one.");
    if (!known) checkNewPassword(password, [email, invitation.shop]);
    const fresh = known ? undefined : await hash(password);
    const accountId = await withTransaction(pool, async (tx) => {
      await enterShop(tx, invitation.workshopId);
      if (!(await spendInvitation(tx, invitation.id, email))) throw spent();
      const id = known?.id ?? (await insertAccount(tx, email, fresh!));
      await insertMember(tx, invitation.workshopId, id, invitation.role);
      await insertAudit(tx, {
        workshopId: invitation.workshopId,
        person: email,
        what: `joined as ${invitation.role}`,
        address: client(ctx).address,
      });
      return id;
    });
    await openSession(pool, ctx, accountId, invitation.workshopId);
    ctx.status = 204;
  });

  router.post("/api/session/password", async (ctx) => {
    const { old, fresh } = bodyOf(ctx, passwordBody);
    const { accountId, workshopId, person } = signed(ctx);
    await limitTries(pool, `password ${accountId}`, 10);
    await checkPassword(await maybePasswordHash(pool, accountId), old);
    checkNewPassword(fresh, [person]);
    const passwordHash = await hash(fresh);
    await withWorkshop(pool, workshopId, async (tx) => {
      await updatePassword(tx, accountId, passwordHash, hashToken(ctx.cookies.get(COOKIE)!));
      await insertAudit(tx, {
        workshopId,
        person,
        what: "changed the password",
        address: client(ctx).address,
      });
    });
    ctx.status = 204;
  });
  router.get("/api/sessions", async (ctx) => {
    ctx.body = await manySessions(pool, signed(ctx).accountId, hashToken(ctx.cookies.get(COOKIE)!));
  });
  router.delete("/api/sessions/:id", async (ctx) => {
    await deleteSession(pool, ctx.params.id!, signed(ctx).accountId);
    ctx.status = 204;
  });
  router.post("/api/session/shop", async (ctx) => {
    const { shopId } = bodyOf(ctx, chooseShopBody);
    const { accountId } = signed(ctx);
    one(
      (await manyShopsOf(pool, accountId)).filter((s) => s.id === shopId),
      "shop of yours",
    );
    await updateSessionShop(pool, hashToken(ctx.cookies.get(COOKIE)!), shopId);
    ctx.status = 204;
  });
  router.get("/api/audit", async (ctx) => {
    ctx.body = await readWorkshop(pool, signed(ctx).workshopId, manyAudit);
  });

  async function openInvitation(token: string) {
    const found = await maybeInvited(pool, hashToken(token));
    if (!found?.isOpen) throw spent();
    return found;
  }
  return router;
}

const spent = () =>
  new AppError(
    "NOT_FOUND",
    "This invitation is not open: it was used, taken back, or is older than seven days.",
    "Ask an owner of the shop for a new link.",
  );

async function keepOneOwner(tx: Parameters<typeof countOwners>[0]): Promise<void> {
  if ((await countOwners(tx)) <= 1)
    throw new AppError(
      "NOT_ALLOWED",
      "The shop would have no owner left.",
      "Make somebody else an owner first.",
    );
}

/** Who belongs to the shop, and who left; a name that is taken out of what its person did. */
function forgetRoute(router: Router, { pool }: Deps): void {
  router.get("/api/people", async (ctx) => {
    const { workshopId, accountId } = signed(ctx);
    const answer: PeopleAnswer = await readWorkshop(pool, workshopId, async (tx) => ({
      members: await manyMembers(tx, accountId),
      invitations: await manyInvitations(tx),
      left: await manyLeft(tx),
    }));
    ctx.body = answer;
  });
  router.post("/api/people/forget", async (ctx) => {
    const b = bodyOf(ctx, forgetBody);
    const { workshopId, person } = signed(ctx);
    await withWorkshop(pool, workshopId, async (tx) => {
      await forgetPerson(tx, b.person);
      await insertAudit(tx, {
        workshopId,
        person,
        what: "took the name of somebody who left out of what was built and changed",
        address: client(ctx).address,
      });
    });
    ctx.status = 204;
  });
}
