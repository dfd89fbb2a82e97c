import type { HistoryAnswer, HistoryRow } from "@kobbin/contract";
import { type MemberRole, mayTakeBack, type RunState } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

const PAGE = 60;

/** What a change was said to be. */
export async function sentenceOf(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ sentence: string }>("select sentence from change where id = $1", [id]);
  return rows[0]?.sentence ?? "";
}

/** The newest change of a person that concerns a run or its bill and can be taken back (or brought again). */
export async function maybeLastOwn(
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

/** A page of changes, the newest first, of a run, a product or the shop. */
export async function manyChanges(
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
