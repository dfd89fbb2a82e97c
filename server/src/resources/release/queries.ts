import type { Corrections, RunDocument } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Freezes a run: its document, and which package it was released with. */
export async function insertRelease(
  tx: Tx,
  runId: string,
  r: { document: RunDocument; manifest: unknown; sha256: string; createdAt: string },
): Promise<void> {
  await numbered(tx, runId);
  await tx.query(
    `insert into release (workshop_id, run_id, document, manifest, sha256, released_at, product, serial_rule)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7)`,
    [
      runId,
      JSON.stringify(r.document),
      JSON.stringify(r.manifest),
      r.sha256,
      r.createdAt,
      r.document.product,
      r.document.workshop.serialRule ?? "",
    ],
  );
  // its figures are those it was released with from here on: what it orders is listed by them
  await tx.query(
    `insert into figures_due (run_id, workshop_id) values ($1, current_workshop())
     on conflict (run_id) do update set since = clock_timestamp(), tries = 0, parked = null`,
    [runId],
  );
}

/** Of two releases of a shop at once both may want the next number: the later begins anew. */
const ONE_NUMBER = "run_batch_of_workshop";

/** Releases a run under the shop's next number; one that had a number keeps it, and none is ever given again. */
async function numbered(tx: Tx, runId: string): Promise<void> {
  try {
    await tx.query(
      `update run set state = 'released',
         batch = coalesce(batch, 1 + greatest(
           (select coalesce(max(batch), 0) from run),
           (select coalesce(max((became ->> 'batch')::integer), 0) from change_row where tbl = 'run' and became ? 'batch')))
       where id = $1`,
      [runId],
    );
  } catch (error) {
    const { constraint } = error as { constraint?: string };
    if (constraint !== ONE_NUMBER) throw error;
    // as the database says it of two who stood in each other's way: the whole of it is tried again
    throw Object.assign(new Error("two releases took one number"), { code: "40001" });
  }
}

/** What was already done of a released run, in words; nothing where it was only released. */
export async function begunOf(tx: Tx, runId: string): Promise<string[]> {
  const { rows } = await tx.query<{ what: string }>(
    `select what from (
       select 1 as place, 'a purchase is written down' as what where exists (select from purchase where run_id = $1)
       union all select 2, 'an order was taken further' where exists (select from order_step where run_id = $1)
         or exists (select from order_ask where run_id = $1)
       union all select 3, 'something came' where exists (select from receipt where run_id = $1)
       union all select 4, 'bare boards were tried' where exists (select from bare_test where run_id = $1)
       union all select 4, 'bare boards were measured' where exists (select from board_measured where run_id = $1)
       union all select 4, 'something was claimed' where exists (select from claim where run_id = $1)
       union all select 5, 'boards were begun' where exists (select from work where run_id = $1)
         or exists (select from sitting where run_id = $1)
         or exists (select from test_try where run_id = $1)
         or exists (select from defect where run_id = $1)
       union all select 6, 'it is closed' where exists (select from closing where run_id = $1)
     ) as begun
     order by place`,
    [runId],
  );
  return rows.map((r) => r.what);
}

/** Opens a released run again. @returns the hash of the package it was released with */
export async function deleteRelease(tx: Tx, runId: string): Promise<string> {
  await tx.query("update run set state = 'open' where id = $1", [runId]);
  const { rows } = await tx.query<{ sha256: string }>(
    "delete from release where run_id = $1 returning sha256",
    [runId],
  );
  return one(rows, "release").sha256;
}

export async function oneManifest(tx: Tx, runId: string): Promise<unknown> {
  const { rows } = await tx.query<{ manifest: unknown }>(
    "select manifest from release where run_id = $1 order by released_at desc limit 1",
    [runId],
  );
  return one(rows, "package").manifest;
}

/** The package a run was released with. */
export async function onePackage(tx: Tx, runId: string): Promise<Buffer> {
  const { rows } = await tx.query<{ bytes: Buffer }>(
    "select b.bytes from release as r join blob as b on b.workshop_id = r.workshop_id and b.sha256 = r.sha256 where r.run_id = $1 order by r.released_at desc limit 1",
    [runId],
  );
  return one(rows, "package").bytes;
}

/** Of each board of a revision, and then of its guests, how its files are read, and their hashes. */
export async function manyPackedBoards(
  tx: Tx,
  revisionId: string,
  guestIds: readonly string[],
): Promise<{ id: string; name: string; corrections: Corrections; files: unknown }[]> {
  const { rows } = await tx.query<{ id: string; name: string; corrections: Corrections; files: unknown }>(
    `select b.id, b.name, b.corrections,
       (select json_agg(json_build_array(f.path, f.sha256) order by f.position) from board_file as f where f.board_id = b.id) as files
     from board as b where b.revision_id = $1 or b.id = any($2::uuid[])
     order by array_position($2::uuid[], b.id) nulls first, b.position, b.name, b.id`,
    [revisionId, guestIds],
  );
  return rows;
}
