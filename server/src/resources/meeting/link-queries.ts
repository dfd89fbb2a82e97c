import type { LinkBody } from "@kobbin/contract";
import type { LinkRow } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Links of a product, in the order they were described. */
export async function manyLinks(tx: Tx, productId: string): Promise<LinkRow[]> {
  const { rows } = await tx.query<{ id: string; board: string | null; ref: string; spec: LinkBody["spec"] }>(
    "select id, board, ref, spec from link_row where product_id = $1 order by position, id",
    [productId],
  );
  return rows.map(({ board, spec, ...r }) => ({ ...spec, ...r, ...(board === null ? {} : { board }) }));
}

export async function oneLink(tx: Tx, id: string): Promise<{ productId: string; ref: string }> {
  const { rows } = await tx.query<{ productId: string; ref: string }>(
    `select product_id as "productId", ref from link_row where id = $1`,
    [id],
  );
  return one(rows, "link");
}

export async function insertLink(tx: Tx, productId: string, b: LinkBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into link_row (workshop_id, product_id, board, ref, spec, position)
     values (current_workshop(), $1, $2, $3, $4,
       (select coalesce(max(position) + 1, 0) from link_row where product_id = $1)) returning id`,
    [productId, b.board ?? null, b.ref, JSON.stringify(b.spec)],
  );
  return one(rows, "link").id;
}

export async function updateLink(tx: Tx, id: string, b: LinkBody): Promise<void> {
  await tx.query("update link_row set board = $2, ref = $3, spec = $4 where id = $1", [
    id,
    b.board ?? null,
    b.ref,
    JSON.stringify(b.spec),
  ]);
}

export async function deleteLink(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from link_row where id = $1", [id]);
}
