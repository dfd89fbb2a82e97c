import Router from "@koa/router";
import { type HistoryAnswer, type HistoryRow, undoBody } from "@kobbin/contract";
import { AppError, type MemberRole, mayTakeBack, type RunState, shapes } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { undoChange } from "../../history/undo.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";

const PAGE = 60;

/** What was changed, by whom; taking it back and bringing it again. */
export function historyRoutes(deps: Deps): Router {
  const { pool } = deps;
  const router = new Router();
  router.get("/api/history", async (ctx) => {
    const { workshopId, accountId, role } = signed(ctx);
    const q = (name: string) => (typeof ctx.query[name] === "string" ? (ctx.query[name] as string) : "");
    const before = /^\d{1,18}$/.test(q("before")) ? q("before") : null;
    const uuid = (name: string) => (shapes.UUID.test(q(name)) ? q(name) : null);
    ctx.body = await readWorkshop(pool, workshopId, (tx) =>
      manyChanges(tx, accountId, role, { run: uuid("run"), product: uuid("product"), before }),
    );
  });
  router.post("/api/changes/:id/undo", async (ctx) => {
    const { force } = bodyOf(ctx, undoBody);
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await undoChange(tx, change, ctx.params.id!, force, signed(ctx).role);
      return { id: change.id };
    });
  });
  // the last thing this person did here, or the last they took back
  for (const [verb, what] of [
    ["undo", "nothing of yours left to take back here"],
    ["redo", "nothing to bring again here"],
  ] as const)
    router.post(`/api/runs/:id/${verb}`, async (ctx) => {
      const { accountId, role } = signed(ctx);
      ctx.body = await changeOf(ctx, deps, async (tx, change) => {
        const id = await maybeLastOwn(tx, ctx.params.id!, accountId, verb);
        if (!id)
          throw new AppError("NOT_FOUND", `There is ${what}.`, "The history lists everything that was done.");
        await undoChange(tx, change, id, false, role);
        const { rows } = await tx.query<{ sentence: string }>("select sentence from change where id = $1", [
          id,
        ]);
        return { id: change.id, says: rows[0]?.sentence ?? "" };
      });
    });
  return router;
}

/** The newest change of a person that concerns a run or its bill and can be taken back (or brought again). */
async function maybeLastOwn(
  tx: Tx,
  runId: string,
  accountId: string,
  verb: "undo" | "redo",
): Promise<string | undefined> {
  const { rows } = await tx.query<{ id: string }>(
    `select c.id from change as c
     where (c.run_id = $1 or (c.run_id is null and c.revision_id = (select revision_id from run where id = $1)))
       and c.account_id = $2 and c.undone_by is null and not c.is_final
       -- a key does not take away the ground one stands on; the history does
       and not exists (select 1 from change_row as r where r.change_id = c.id and r.op = 'insert' and r.tbl in ('run', 'revision', 'product'))
       and case when $3 then c.undoes is null
           else exists (select 1 from change as o where o.id = c.undoes and o.undoes is null and o.undone_by = c.id) end
     order by c.id desc limit 1`,
    [runId, accountId, verb === "undo"],
  );
  return rows[0]?.id;
}

async function manyChanges(
  tx: Tx,
  accountId: string,
  role: MemberRole,
  of: { run: string | null; product: string | null; before: string | null },
): Promise<HistoryAnswer> {
  const { rows } = await tx.query<{
    id: string;
    at: Date;
    person: string;
    accountId: string | null;
    sentence: string;
    productId: string | null;
    runId: string | null;
    undoes: string | null;
    undoneBy: string | null;
    isFinal: boolean;
    tables: string[] | null;
    runState: RunState | null;
    product: string | null;
    revision: string | null;
    run: string | null;
  }>(
    `select c.id, c.at, c.person, c.account_id as "accountId", c.sentence, c.product_id as "productId", c.run_id as "runId",
            c.undoes, c.undone_by as "undoneBy", c.is_final as "isFinal",
            (select array_agg(distinct w.tbl) from change_row as w where w.change_id = c.id) as tables,
            case when exists (select from closing as x where x.run_id = r.id) then 'closed' else r.state end as "runState",
            p.name as product, v.label as revision, r.name as run
     from change as c
     left join product as p on p.id = c.product_id
     left join revision as v on v.id = c.revision_id
     left join run as r on r.id = c.run_id
     where ($1::uuid is null or c.run_id = $1 or (c.run_id is null and c.revision_id = (select revision_id from run where id = $1)))
       and ($2::uuid is null or c.product_id = $2)
       and ($3::bigint is null or c.id < $3)
     order by c.id desc limit ${PAGE + 1}`,
    [of.run, of.product, of.before],
  );
  const changes = rows.slice(0, PAGE).map(
    (r): HistoryRow => ({
      id: r.id,
      at: r.at.toISOString(),
      person: r.person,
      sentence: r.sentence,
      ...(r.productId ? { productId: r.productId } : {}),
      ...(r.runId ? { runId: r.runId } : {}),
      about:
        [r.product && `${r.product}${r.revision ? ` ${r.revision}` : ""}`, r.run]
          .filter(Boolean)
          .join(", ") || "the shop",
      state: r.undoneBy
        ? "taken back"
        : r.undoes
          ? "takes back"
          : r.isFinal || !mayTakeBack(r.tables ?? [], r.runState ?? undefined, role)
            ? "final"
            : "stands",
      ...(r.undoneBy ? { undoneBy: r.undoneBy } : {}),
      isMine: r.accountId === accountId,
    }),
  );
  return { changes, ...(rows.length > PAGE ? { before: changes.at(-1)!.id } : {}) };
}
