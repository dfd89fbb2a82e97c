import type { RemarkRow, RunRow, RunSummary } from "@kobbin/contract";
import type {
  FabOptions,
  FirstArticle,
  Measure,
  Placement,
  RunAssembly,
  RunChoices,
  RunDocument,
  RunGuest,
  RunQuote,
} from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** A run with its first fork, as stored. */
export interface StoredRun {
  readonly id: string;
  readonly forkId: string;
  readonly name: string;
  readonly state: "open" | "released";
  readonly askedAt: Date | null;
  readonly productId: string;
  readonly product: string;
  readonly revisionId: string;
  readonly revision: string;
  readonly version: number;
  readonly goodBoards: number;
  readonly confidence: number;
  readonly houseId: string | null;
  readonly options: Partial<FabOptions>;
  readonly assembly: Partial<RunAssembly>;
  readonly choices: RunChoices;
  readonly summary: RunSummary | null;
  readonly updatedAt: Date;
}

const COLUMNS = `r.id, f.id as "forkId", r.name, r.state, r.asked_at as "askedAt", p.id as "productId", p.name as product, v.id as "revisionId", v.label as revision,
       f.version, f.good_boards as "goodBoards", f.confidence::float8 as confidence, f.house_id as "houseId", f.options, f.assembly, f.choices, f.updated_at as "updatedAt"`;
const FROM = `from run as r
     join fork as f on f.run_id = r.id and f.name = 'first'
     join revision as v on v.id = r.revision_id
     join product as p on p.id = v.product_id`;

export async function oneRun(tx: Tx, id: string): Promise<StoredRun> {
  const { rows } = await tx.query<StoredRun>(`select ${COLUMNS}, f.summary ${FROM} where r.id = $1`, [id]);
  return one(rows, "run");
}

export async function manyRuns(tx: Tx): Promise<RunRow[]> {
  const { rows } = await tx.query<StoredRun & { isClosed: boolean; built: RunRow["built"] | null }>(
    `select exists (select 1 from closing as c where c.run_id = r.id) as "isClosed",
       (select jsonb_build_object('started', sum(w.started), 'good', sum(w.good), 'scrapped', sum(w.scrapped))
        from work as w where w.run_id = r.id having count(*) > 0) as built,
       ${COLUMNS}, f.summary - 'orders' - 'lessons' - 'tests' as summary ${FROM} order by f.updated_at desc`,
  );
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    productId: r.productId,
    product: r.product,
    revision: r.revision,
    goodBoards: r.goodBoards,
    state: r.state,
    ...(r.isClosed ? { isClosed: true } : {}),
    updatedAt: r.updatedAt.toISOString(),
    ...(r.summary ? { summary: r.summary } : {}),
    ...(r.state === "released" ? { built: r.built ?? { started: 0, good: 0, scrapped: 0 } } : {}),
  }));
}

export async function insertRun(
  tx: Tx,
  run: {
    revisionId: string;
    name: string;
    goodBoards: number;
    houseId: string | null;
    options?: Partial<FabOptions>;
    assembly?: Partial<RunAssembly>;
    choices?: RunChoices;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into run (workshop_id, revision_id, name) values (current_workshop(), $1, $2) returning id",
    [run.revisionId, run.name],
  );
  const id = rows[0]!.id;
  await tx.query(
    "insert into fork (workshop_id, run_id, good_boards, house_id, options, assembly, choices) values (current_workshop(), $1, $2, $3, $4, $5, $6)",
    [
      id,
      run.goodBoards,
      run.houseId,
      JSON.stringify(run.options ?? {}),
      JSON.stringify(run.assembly ?? {}),
      JSON.stringify(run.choices ?? {}),
    ],
  );
  return id;
}

/** How the product of a revision was built last: by its newest run, one of the same revision where there is any. */
export async function maybeLastWork(
  tx: Tx,
  revisionId: string,
): Promise<{ assembly: Partial<RunAssembly>; choices: RunChoices; isSameRevision: boolean } | undefined> {
  const { rows } = await tx.query<{
    assembly: Partial<RunAssembly>;
    choices: RunChoices;
    isSameRevision: boolean;
  }>(
    `select f.assembly, f.choices, r.revision_id = $1 as "isSameRevision"
     from run as r
     join fork as f on f.run_id = r.id and f.name = 'first'
     join revision as v on v.id = r.revision_id
     where v.product_id = (select product_id from revision where id = $1)
     order by r.revision_id = $1 desc, r.created_at desc, r.id
     limit 1`,
    [revisionId],
  );
  return rows[0];
}

export async function updateSummary(tx: Tx, runId: string, summary: RunSummary): Promise<void> {
  await tx.query("update fork set summary = $2 where run_id = $1 and name = 'first'", [
    runId,
    JSON.stringify(summary),
  ]);
}

/** Of a run that could not be counted: what was held against it before is not known to be so any more. */
export async function forgetLessons(tx: Tx, runId: string): Promise<void> {
  await tx.query("update fork set summary = summary - 'lessons' where run_id = $1 and name = 'first'", [
    runId,
  ]);
}

export async function manyBoards(
  tx: Tx,
  revisionId: string,
): Promise<{ id: string; name: string; perProduct: number; measure: Measure; placements: Placement[] }[]> {
  const { rows } = await tx.query<{
    id: string;
    name: string;
    perProduct: number;
    measure: Measure;
    placements: Placement[];
  }>(
    `select id, name, per_product as "perProduct", measure, placements from board where revision_id = $1 order by position, name, id`,
    [revisionId],
  );
  return rows;
}

/** Boards of other products that share a run's sheets, in the order they are named: those that are there, and no board of its own. */
export async function manyGuests(tx: Tx, ids: readonly string[], revisionId: string): Promise<RunGuest[]> {
  if (ids.length === 0) return [];
  const { rows } = await tx.query<
    Omit<RunGuest, "parts"> & { placements: Placement[]; packages: Record<string, string> | null }
  >(
    `select b.id, b.name, p.name as product, v.label as revision, b.measure, b.placements,
       (select json_object_agg(r.ref, l.package) from bom_line as l cross join lateral unnest(l.refs) as r (ref)
        where l.revision_id = b.revision_id and not l.dnp and coalesce(l.board_id, b.id) = b.id) as packages
     from board as b join revision as v on v.id = b.revision_id join product as p on p.id = v.product_id
     where b.id = any($1::uuid[]) and b.revision_id <> $2 order by array_position($1::uuid[], b.id)`,
    [ids, revisionId],
  );
  return rows.map(({ placements, packages, ...g }) => ({
    ...g,
    // what the bill does not fit does not stand there
    parts: placements.flatMap((p) =>
      packages && p.ref in packages ? [{ ...p, package: packages[p.ref] ?? "" }] : [],
    ),
  }));
}

/** Boards of a revision by name, without their measures. */
export async function manyBoardNames(tx: Tx, revisionId: string): Promise<{ id: string; name: string }[]> {
  const { rows } = await tx.query<{ id: string; name: string }>(
    "select id, name from board where revision_id = $1 order by position, name, id",
    [revisionId],
  );
  return rows;
}

export async function manyQuotes(tx: Tx, runId: string): Promise<(RunQuote & { id: string })[]> {
  const { rows } = await tx.query<{
    id: string;
    house: string;
    kind: "fab" | "assembly";
    total: string;
    currency: string;
    days: number;
    capturedOn: string;
    validUntil: string | null;
    basis: RunQuote["basis"] | null;
    question: string;
    answer: string;
  }>(
    `select id, house_id as house, kind, total, currency, days, captured_on as "capturedOn", valid_until as "validUntil", basis, question, answer
     from quotation where run_id = $1 order by house_id, kind`,
    [runId],
  );
  return rows.map(({ validUntil, basis, total, question, answer, ...r }) => ({
    ...r,
    total: trim(total),
    ...(validUntil === null ? {} : { validUntil }),
    ...(basis ? { basis } : {}),
    ...(question === "" ? {} : { question }),
    ...(answer === "" ? {} : { answer }),
  }));
}

export async function upsertQuote(
  tx: Tx,
  runId: string,
  q: {
    houseId: string;
    kind: string;
    total: string;
    currency: string;
    days: number;
    capturedOn: string;
    validUntil?: string | undefined;
    basis?: unknown;
    question?: string | undefined;
  },
): Promise<void> {
  await tx.query(
    `insert into quotation (workshop_id, run_id, house_id, kind, total, currency, days, captured_on, valid_until, basis, question)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     on conflict on constraint quotation_key do update set total = excluded.total, currency = excluded.currency, days = excluded.days, captured_on = excluded.captured_on, valid_until = excluded.valid_until, basis = excluded.basis, question = excluded.question, answer = ''`,
    [
      runId,
      q.houseId,
      q.kind,
      q.total,
      q.currency,
      q.days,
      q.capturedOn,
      q.validUntil ?? null,
      q.basis ? JSON.stringify(q.basis) : null,
      q.question ?? "",
    ],
  );
}

/** What the shop answers to a house's question. @returns whether there was one */
export async function answerQuote(tx: Tx, runId: string, houseId: string, answer: string): Promise<boolean> {
  const { rowCount } = await tx.query(
    "update quotation set answer = $3 where run_id = $1 and house_id = $2 and kind = 'fab' and question <> ''",
    [runId, houseId, answer],
  );
  return rowCount === 1;
}

/** Remarks of a run, oldest first. */
export async function manyRemarks(tx: Tx, runId: string): Promise<RemarkRow[]> {
  const { rows } = await tx.query<{
    id: string;
    stage: string;
    lineId: string | null;
    text: string;
    person: string;
    at: Date;
  }>(
    `select id, stage, line_id as "lineId", text, person, at from remark where run_id = $1 order by at, id`,
    [runId],
  );
  return rows.map(({ lineId, at, ...r }) => ({ ...r, at: at.toISOString(), ...(lineId ? { lineId } : {}) }));
}

export async function insertRemark(
  tx: Tx,
  runId: string,
  r: { stage: string; lineId?: string | undefined; text: string; person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into remark (workshop_id, run_id, stage, line_id, text, person) values (current_workshop(), $1, $2, $3, $4, $5) returning id",
    [runId, r.stage, r.lineId ?? null, r.text, r.person],
  );
  return rows[0]!.id;
}

/** Sees to it that there is such a revision. @throws AppError NOT_FOUND */
export async function requireRevision(tx: Tx, id: string): Promise<void> {
  one((await tx.query("select id from revision where id = $1", [id])).rows, "revision");
}

export async function updateRunName(tx: Tx, id: string, name: string): Promise<void> {
  await tx.query("update run set name = $2 where id = $1", [id, name]);
}

/** A run that was released stays. */
export async function deleteOpenRun(tx: Tx, id: string): Promise<void> {
  const { rows } = await tx.query("delete from run where id = $1 and state = 'open' returning id", [id]);
  one(rows, "open run");
}

export async function deleteQuote(tx: Tx, runId: string, houseId: string, kind: string): Promise<void> {
  await tx.query("delete from quotation where run_id = $1 and house_id = $2 and kind = $3", [
    runId,
    houseId,
    kind,
  ]);
}

/** Takes a remark away. @returns whose it was, and of which run */
export async function deleteRemark(tx: Tx, id: string): Promise<{ runId: string; person: string }> {
  const { rows } = await tx.query<{ runId: string; person: string }>(
    `delete from remark where id = $1 returning run_id as "runId", person`,
    [id],
  );
  return one(rows, "remark");
}

/** What a run was released with; nothing where it was not. */
export async function maybeRelease(
  tx: Tx,
  runId: string,
): Promise<{ document: RunDocument; sha256: string; releasedAt: Date } | undefined> {
  const { rows } = await tx.query<{ document: RunDocument; sha256: string; releasedAt: Date }>(
    `select document, sha256, released_at as "releasedAt" from release where run_id = $1 order by released_at desc limit 1`,
    [runId],
  );
  return rows[0];
}

/** What came of the run that is built first; undefined where it is not there any more. */
export async function maybeFirstArticle(tx: Tx, runId: string): Promise<FirstArticle | undefined> {
  const { rows } = await tx.query<FirstArticle>(
    `select r.name, case when c.id is not null then 'closed' else r.state end as state,
       coalesce(sum(w.good), 0)::integer as good, coalesce(sum(w.scrapped), 0)::integer as scrapped
     from run as r
     left join closing as c on c.run_id = r.id
     left join work as w on w.run_id = r.id
     where r.id = $1
     group by r.id, c.id`,
    [runId],
  );
  return rows[0];
}
