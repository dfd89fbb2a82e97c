import type { CorrectionMemory, KnownBoard, ProductRow } from "@kobbin/contract";
import { AppError, type Corrections, type Placement } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

export async function manyProducts(tx: Tx): Promise<ProductRow[]> {
  const { rows } = await tx.query<{ id: string; name: string; revisions: ProductRow["revisions"] | null }>(
    `select p.id, p.name,
       (select json_agg(json_build_object(
          'id', v.id, 'label', v.label, 'boardId', b.id, 'look', md5(b.corrections::text), 'boards', b.boards, 'createdAt', v.created_at,
          'widthMm', b.measure->'outline'->'widthMm', 'heightMm', b.measure->'outline'->'heightMm',
          'layers', b.measure->'copperLayers',
          'lines', (select count(*) from bom_line as l where l.revision_id = v.id)) order by v.created_at)
        from revision as v
        -- the first of its boards stands for it
        join lateral (select o.id, o.measure, o.corrections, count(*) over ()::integer as boards from board as o
                      where o.revision_id = v.id order by o.position, o.name, o.id limit 1) as b on true
        where v.product_id = p.id) as revisions
     from product as p order by p.created_at`,
  );
  return rows.map((r) => ({ ...r, revisions: r.revisions ?? [] }));
}

/** Single boards of the shop, the newest revision first, by what tells them again on a panel. */
export async function manyKnownBoards(tx: Tx): Promise<KnownBoard[]> {
  const { rows } = await tx.query<KnownBoard>(
    `select p.id as "productId", p.name as product, v.label as revision, b.name as board, b.measure->'pieces'->0 as mark
     from board as b join revision as v on v.id = b.revision_id join product as p on p.id = v.product_id
     where b.measure ? 'pieces' and not b.measure ? 'copies'
     order by v.created_at desc, b.position, b.id`,
  );
  return rows;
}

export async function insertBlob(tx: Tx, sha256: string, bytes: Uint8Array): Promise<void> {
  await tx.query(
    "insert into blob (workshop_id, sha256, bytes) values (current_workshop(), $1, $2) on conflict do nothing",
    [sha256, Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)],
  );
}

export async function insertProduct(tx: Tx, name: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into product (workshop_id, name) values (current_workshop(), $1) returning id",
    [name],
  );
  return rows[0]!.id;
}

export async function insertRevision(tx: Tx, productId: string, label: string): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into revision (workshop_id, product_id, label) values (current_workshop(), $1, $2) returning id",
    [productId, label],
  );
  return rows[0]!.id;
}

export async function insertBoard(
  tx: Tx,
  b: {
    revisionId: string;
    name: string;
    perProduct?: number;
    corrections: Corrections;
    measure: string;
    placements: readonly Placement[];
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into board (workshop_id, revision_id, name, corrections, measure, placements, per_product, position)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, (select coalesce(max(position) + 1, 0) from board where revision_id = $1)) returning id`,
    [
      b.revisionId,
      b.name,
      JSON.stringify(b.corrections),
      b.measure,
      JSON.stringify(b.placements),
      b.perProduct ?? 1,
    ],
  );
  return rows[0]!.id;
}

/** Holds a revision until the transaction ends: its boards are added, named and removed one change after another. */
export async function lockRevision(tx: Tx, id: string): Promise<void> {
  one((await tx.query("select id from revision where id = $1 for update", [id])).rows, "revision");
}

/** Removes a board with its files and lines. */
export async function deleteBoard(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from board where id = $1", [id]);
}

/** Removes the lines of a board; what is on none stays. */
export async function deleteLinesOf(tx: Tx, boardId: string): Promise<void> {
  await tx.query("delete from bom_line where board_id = $1", [boardId]);
}

export async function insertBoardFiles(
  tx: Tx,
  boardId: string,
  files: readonly { readonly position: number; readonly path: string; readonly sha256: string }[],
): Promise<void> {
  await tx.query(
    `insert into board_file (board_id, workshop_id, position, path, sha256)
     select $1, current_workshop(), f.position, f.path, f.sha256 from unnest($2::int[], $3::text[], $4::text[]) as f (position, path, sha256)`,
    [boardId, files.map((f) => f.position), files.map((f) => f.path), files.map((f) => f.sha256)],
  );
}

/**
 * A shop's files have so much room.
 * @throws AppError SHOP_FULL where more bytes would not fit
 */
export async function refuseBeyondQuota(tx: Tx, quotaBytes: number, more: number): Promise<void> {
  // one drop at a time a shop: two at once may not share the last room
  await tx.query("select pg_advisory_xact_lock(hashtextextended('quota ' || current_workshop(), 0))");
  const { rows } = await tx.query<{ used: string }>(
    "select coalesce(sum(octet_length(bytes)), 0) as used from blob where workshop_id = current_workshop()",
  );
  const used = Number(rows[0]!.used);
  if (used + more > quotaBytes)
    throw new AppError(
      "SHOP_FULL",
      `The shop's files take ${Math.ceil(used / 1048576)} of ${Math.floor(quotaBytes / 1048576)} MB; there is no room for ${Math.ceil(more / 1048576)} more.`,
      "Whoever runs Kobbin can give the shop more room (SHOP_QUOTA_MB); what was removed keeps its own, so that it can be brought back.",
    );
}

/** What was dropped for a board, byte for byte. */
export async function manyBoardFiles(
  tx: Tx,
  boardId: string,
): Promise<{ path: string; sha256: string; bytes: Uint8Array }[]> {
  const { rows } = await tx.query<{ path: string; sha256: string; bytes: Buffer }>(
    "select f.path, f.sha256, b.bytes from board_file as f join blob as b on b.workshop_id = f.workshop_id and b.sha256 = f.sha256 where f.board_id = $1 order by f.position",
    [boardId],
  );
  one(rows, "board");
  return rows.map((r) => ({ path: r.path, sha256: r.sha256, bytes: new Uint8Array(r.bytes) }));
}

export async function oneBoard(
  tx: Tx,
  id: string,
): Promise<{ id: string; revisionId: string; name: string; corrections: Corrections; version: number }> {
  const { rows } = await tx.query<{
    id: string;
    revisionId: string;
    name: string;
    corrections: Corrections;
    version: number;
  }>(`select id, revision_id as "revisionId", name, corrections, version from board where id = $1`, [id]);
  return one(rows, "board");
}

/** As above, locked until the transaction ends. */
export async function lockBoard(tx: Tx, id: string): Promise<{ corrections: Corrections }> {
  const { rows } = await tx.query<{ corrections: Corrections }>(
    "select corrections from board where id = $1 for update",
    [id],
  );
  return one(rows, "board");
}

export async function updateBoard(
  tx: Tx,
  id: string,
  b: { corrections: Corrections; measure: string; placements: readonly Placement[] },
): Promise<void> {
  await tx.query(
    "update board set corrections = $2, measure = $3, placements = $4, measured_at = now() where id = $1",
    [id, JSON.stringify(b.corrections), b.measure, JSON.stringify(b.placements)],
  );
}

export async function readMemory(tx: Tx): Promise<CorrectionMemory> {
  const { rows } = await tx.query<{ kind: "role" | "column"; pattern: string; value: never }>(
    "select kind, pattern, value from correction",
  );
  const of = (kind: string) =>
    Object.fromEntries(rows.filter((r) => r.kind === kind).map((r) => [r.pattern, r.value]));
  return { roles: of("role"), columns: of("column") };
}

export async function upsertMemory(
  tx: Tx,
  rows: readonly { readonly kind: "role" | "column"; readonly pattern: string; readonly value: unknown }[],
): Promise<void> {
  // of several files of one pattern the last one speaks
  const unique = [...new Map(rows.map((r) => [`${r.kind} ${r.pattern}`, r])).values()];
  if (unique.length === 0) return;
  await tx.query(
    `insert into correction (workshop_id, kind, pattern, value)
     select current_workshop(), x.kind, x.pattern, x.value from jsonb_to_recordset($1::jsonb) as x (kind text, pattern text, value jsonb)
     on conflict (workshop_id, kind, pattern) do update set value = excluded.value, updated_at = now()`,
    [JSON.stringify(unique)],
  );
}

export async function maybeProductName(tx: Tx, id: string): Promise<string | undefined> {
  const { rows } = await tx.query<{ name: string }>("select name from product where id = $1", [id]);
  return rows[0]?.name;
}

export async function oneRevision(
  tx: Tx,
  id: string,
): Promise<{ id: string; label: string; productId: string; product: string }> {
  const { rows } = await tx.query<{ id: string; label: string; productId: string; product: string }>(
    `select v.id, v.label, p.id as "productId", p.name as product from revision as v join product as p on p.id = v.product_id where v.id = $1`,
    [id],
  );
  return one(rows, "revision");
}
