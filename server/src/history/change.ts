import { createHash } from "node:crypto";
import { AppError, isDecided, isOfRun, isTime, type RunState, shapes } from "@kobbin/core";
import type { Context } from "koa";
import type { Pool, Tx } from "../db/pool.ts";
import { withMoment, withWorkshop } from "../db/tx.ts";
import type { Deps } from "../deps.ts";
import { signed } from "../middleware/session.ts";
import { tableFact } from "../schema/table-facts.ts";
import type { Table } from "../schema/tables.ts";
import { refuseMiscounts } from "./counts.ts";
import { refuseBeyond } from "./limits.ts";
import type { Json } from "./merge.ts";
import type { Row } from "./rows.ts";
import { type ChangedRow, sentenceOf } from "./sentence.ts";

/** Who changes something, from which open page, and under which key a repeated request is known. */
export interface By {
  readonly workshopId: string;
  readonly accountId: string | null;
  readonly person: string;
  readonly page?: string | undefined;
  readonly requestKey?: string | undefined;
  /** What was asked with the key: a key that comes again with something else is refused. */
  readonly requestHash?: Buffer | undefined;
}

/** What a change belongs to; the history of a product, of a run or of the shop lists it there. */
export interface Scope {
  readonly productId?: string | undefined;
  readonly revisionId?: string | undefined;
  readonly runId?: string | undefined;
}

/** The change while it is being made. */
export interface ChangeNow {
  readonly id: string;
  /** Says where it belongs. */
  about(scope: Scope): void;
  /** Says it in other words than the rows would. */
  says(sentence: string): void;
  /** Cannot be taken back: it has left the house. */
  isFinal(): void;
}

/** What came of a change; without an id when nothing was different. */
export interface Done<T> {
  readonly value: T;
  readonly changeId?: string;
}

/** Keys of requests come from elsewhere and may be in capitals. */
const UUID = new RegExp(shapes.UUID, "i");

/**
 * Runs a change in one transaction and records it: who, when, what became of each row, in a sentence; tells every
 * open page and puts runs whose figures are older now on the list.
 *
 * A change that leaves every row as it was is not recorded.
 *
 * @param isOneMoment the work sees the database as it is at its beginning, whatever others change meanwhile
 */
export async function recordChange<T>(
  pool: Pool,
  by: By,
  work: (tx: Tx, change: ChangeNow) => Promise<T>,
  isOneMoment = false,
): Promise<Done<T>> {
  return (isOneMoment ? withMoment : withWorkshop)(pool, by.workshopId, async (tx) => {
    const { rows } = await tx.query<{ id: string }>(
      "insert into change (workshop_id, account_id, person, request_key, page, request_hash) values (current_workshop(), $1, $2, $3, $4, $5) returning id",
      [by.accountId, by.person, by.requestKey ?? null, by.page ?? null, by.requestHash ?? null],
    );
    const id = rows[0]!.id;
    await tx.query("select set_config('app.change', $1, true)", [id]);
    let scope: Scope = {};
    let sentence: string | undefined;
    let isFinal = false;
    const value = await work(tx, {
      id,
      about: (s) => {
        scope = { ...scope, ...s };
      },
      says: (s) => {
        sentence = s;
      },
      isFinal: () => {
        isFinal = true;
      },
    });
    const changed = await manyChangedRows(tx, id);
    if (changed.length === 0) {
      await tx.query("delete from change where id = $1", [id]);
      return { value };
    }
    const whole = await completed(tx, scope);
    // what leaves the house is frozen by itself; its time it has like everything else
    await (isFinal ? refuseOutOfTime(tx, changed, whole.runId) : refuseFrozen(tx, changed, whole));
    await refuseMiscounts(tx, changed, whole.runId);
    await refuseBeyond(tx, changed);
    const says = (sentence ?? sentenceOf(changed, await namesOf(tx, changed))).slice(0, 500);
    await tx.query(
      "update change set sentence = $2, product_id = $3, revision_id = $4, run_id = $5, is_final = $6, result = $7 where id = $1",
      [
        id,
        says,
        whole.productId ?? null,
        whole.revisionId ?? null,
        whole.runId ?? null,
        isFinal,
        value === undefined ? null : JSON.stringify(value),
      ],
    );
    await listDue(tx, changed, whole);
    await tell(tx, {
      kind: "change",
      workshop: by.workshopId,
      change: id,
      person: by.person,
      ...(by.page ? { page: by.page } : {}),
      ...whole,
      says: says.slice(0, 300),
    });
    return { value, changeId: id };
  });
}

/** As above for a request: the answer carries the change's number, so that the page can take it back. */
export async function changeOf<T>(
  ctx: Context,
  deps: Deps,
  work: (tx: Tx, change: ChangeNow) => Promise<T>,
  isOneMoment = false,
): Promise<T> {
  const done = await recordChange(deps.pool, byOf(ctx), work, isOneMoment);
  if (done.changeId) ctx.set("X-Change", done.changeId);
  return done.value;
}

/** Who is asking. */
export function byOf(ctx: Context): By {
  const { workshopId, accountId, person } = signed(ctx);
  const [page, key] = [ctx.get("X-Page"), ctx.get("X-Request-Key")];
  return {
    workshopId,
    accountId,
    person,
    ...(UUID.test(page) ? { page } : {}),
    ...(UUID.test(key) ? { requestKey: key, requestHash: requestHash(ctx, accountId) } : {}),
  };
}

/** What a request asks: who, which route, which body; of an upload its length, since its bytes are still on the way. */
export function requestHash(ctx: Context, accountId: string): Buffer {
  const body = (ctx.request as { rawBody?: string; body?: unknown }).rawBody;
  const what = body ?? `upload of ${ctx.get("Content-Length")}`;
  return createHash("sha256").update(`${accountId} ${ctx.method} ${ctx.path}\n${what}`).digest();
}

/** A word to every open page, given when the transaction is through. */
export async function tell(
  tx: Pick<Tx, "query">,
  event: { readonly kind: string; readonly workshop: string; readonly [key: string]: Json | undefined },
): Promise<void> {
  await tx.query("select pg_notify('kobbin', $1)", [JSON.stringify(event)]);
}

/** The rows a change touched, in order. */
export async function manyChangedRows(tx: Tx, changeId: string): Promise<ChangedRow[]> {
  const { rows } = await tx.query<ChangedRow>(
    `select tbl as "table", key, op, name, was, became from change_row where change_id = $1 order by id`,
    [changeId],
  );
  return rows;
}

/** What is decided of one run; the rest is of the bill all runs of a revision have. */
const OF_RUN_ALONE: readonly Table[] = ["run", "fork", "quotation"];

/**
 * What was decided is frozen at the release: of a released run nothing of it may be written, and of a bill none of whose
 * runs is open any more. What happens to a run goes on. Routes and undo come through here alike.
 *
 * @throws AppError NOT_ALLOWED
 */
async function refuseFrozen(tx: Tx, changed: readonly ChangedRow[], scope: Scope): Promise<void> {
  await refuseOutOfTime(tx, changed, scope.runId);
  const decided = changed.filter((r) => isDecided(r.table));
  if (decided.length === 0) return;
  const { rows } = await tx.query<{ ofRun: boolean; ofBill: boolean }>(
    `select coalesce((select state = 'released' from run where id = $1), false) as "ofRun",
            coalesce((select bool_and(state = 'released') from run where revision_id = $2), false) as "ofBill"`,
    [scope.runId ?? null, scope.revisionId ?? null],
  );
  const { ofRun, ofBill: isBillFrozen } = rows[0]!;
  // the last open run may go; the bill it had stays as it was ordered
  const ofBill = isBillFrozen && decided.some((r) => !OF_RUN_ALONE.includes(r.table));
  if (ofRun || ofBill)
    throw new AppError(
      "NOT_ALLOWED",
      ofRun
        ? "The run is released; what was ordered stays as it is."
        : "Every run of this revision is released; its bill stays as it was ordered.",
      "Start a new run to change something.",
    );
}

/** What happens to a run has its time too: nothing arrives before the release, and nothing is built once it is closed. */
async function refuseOutOfTime(
  tx: Tx,
  changed: readonly ChangedRow[],
  runId: string | undefined,
): Promise<void> {
  const tables = new Set(changed.map((r) => r.table).filter((t) => isOfRun(t) && !isDecided(t)));
  // what closes a run or opens it again is of the time before
  if (!runId || tables.size === 0 || tables.has("closing")) return;
  const state = await stateOfRun(tx, runId);
  if (!state || [...tables].every((t) => isOfRun(t) && isTime(t, state))) return;
  throw state === "closed"
    ? new AppError(
        "NOT_ALLOWED",
        "The run is closed; its figures are counted.",
        "Take the closing back in the history to write something more.",
      )
    : new AppError("NOT_ALLOWED", "The run is not released yet.", "Release it first.");
}

/** Where a run is in its life; nothing where there is none. */
export async function stateOfRun(tx: Tx, runId: string): Promise<RunState | undefined> {
  const { rows } = await tx.query<{ state: RunState }>(
    `select case when exists (select from closing as c where c.run_id = r.id) then 'closed' else r.state end as state
     from run as r where r.id = $1`,
    [runId],
  );
  return rows[0]?.state;
}

async function completed(tx: Tx, scope: Scope): Promise<Scope & Row> {
  const { rows } = await tx.query<{ productId: string; revisionId: string }>(
    `select v.product_id as "productId", v.id as "revisionId" from revision as v
     where v.id = $1 or v.id = (select revision_id from run where id = $2)`,
    [scope.revisionId ?? null, scope.runId ?? null],
  );
  const found = { ...rows[0], ...scope };
  return Object.fromEntries(Object.entries(found).filter(([, v]) => v !== undefined)) as Scope & Row;
}

/** Names of what ids in the changed values stand for. */
async function namesOf(tx: Tx, rows: readonly ChangedRow[]): Promise<Map<string, string>> {
  const ids = new Set<string>();
  const walk = (v: Json | undefined): void => {
    if (typeof v === "string") {
      if (UUID.test(v)) ids.add(v);
    } else if (Array.isArray(v)) v.forEach(walk);
    else if (v && typeof v === "object")
      for (const [k, x] of Object.entries(v)) {
        walk(k);
        walk(x);
      }
  };
  for (const r of rows)
    if (r.op === "update" && r.table !== "board") {
      walk(r.was ?? undefined);
      walk(r.became ?? undefined);
    }
  if (ids.size === 0) return new Map();
  const { rows: named } = await tx.query<{ id: string; name: string }>(
    `select id::text, profile ->> 'name' as name from house where id = any($1::uuid[])
     union all select id::text, name from board where id = any($1::uuid[])
     union all select id::text, name from supplier where id = any($1::uuid[])
     union all select id::text, name from variant where id = any($1::uuid[])
     union all select id::text, mpn from part where id = any($1::uuid[])
     union all select id::text, coalesce(refs[1], nullif(value_text, ''), mpn) from bom_line where id = any($1::uuid[])`,
    [[...ids]],
  );
  return new Map(named.map((r) => [r.id, r.name]));
}

/** Whether a figure may stand on what changed in a row. */
function movesFigures({ table, op, became }: ChangedRow): boolean {
  const { besides } = tableFact(table);
  return !besides || op !== "update" || Object.keys(became ?? {}).some((c) => !besides.includes(c));
}

async function listDue(tx: Tx, rows: readonly ChangedRow[], scope: Scope): Promise<void> {
  const of = new Set(rows.filter(movesFigures).map((r) => tableFact(r.table).figures));
  if ([...of].every((f) => f === "none")) return;
  const isShared = of.has("shop");
  if (!isShared && !scope.revisionId && !scope.runId) return;
  await tx.query(
    `insert into figures_due (run_id, workshop_id)
     select r.id, r.workshop_id from run as r
     where r.state = 'open' and ($1 or (r.revision_id = $2 and ($3 or r.id = $4)))
     on conflict (run_id) do update set since = clock_timestamp(), tries = 0, parked = null`,
    [isShared, scope.revisionId ?? null, of.has("bill") || !scope.runId, scope.runId ?? null],
  );
}

/** A request that was answered before, by its key: its stored answer, else undefined. */
export async function maybeReplay(
  pool: Pool,
  workshopId: string,
  key: string,
): Promise<{ id: string; result: Json; hash: Buffer | null } | undefined> {
  if (!UUID.test(key)) return undefined;
  return withWorkshop(
    pool,
    workshopId,
    async (tx) =>
      (
        await tx.query<{ id: string; result: Json; hash: Buffer | null }>(
          "select id, result, request_hash as hash from change where request_key = $1",
          [key],
        )
      ).rows[0],
  );
}
