import type { FitBody } from "@kobbin/contract";
import type { FitRow } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** The fit sheet of a product, in the order its rows were made. */
export async function manyFits(tx: Tx, productId: string): Promise<FitRow[]> {
  const { rows } = await tx.query<
    Omit<FitRow, "board" | "playMm"> & { board: string | null; playMm: number | null }
  >(
    `select id, label, board, spec, play_mm as "playMm" from fit_row where product_id = $1 order by position, id`,
    [productId],
  );
  return rows.map(({ board, playMm, ...r }) => ({
    ...r,
    ...(board === null ? {} : { board }),
    ...(playMm === null ? {} : { playMm }),
  }));
}

/** The product a row belongs to, and what it is called. */
export async function oneFit(tx: Tx, id: string): Promise<{ productId: string; label: string }> {
  const { rows } = await tx.query<{ productId: string; label: string }>(
    `select product_id as "productId", label from fit_row where id = $1`,
    [id],
  );
  return one(rows, "row of the fit sheet");
}

export async function oneProductName(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ name: string }>("select name from product where id = $1", [id]);
  return one(rows, "product").name;
}

export async function insertFit(tx: Tx, productId: string, f: FitBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into fit_row (workshop_id, product_id, label, board, spec, play_mm, position)
     values (current_workshop(), $1, $2, $3, $4, $5,
       (select coalesce(max(position) + 1, 0) from fit_row where product_id = $1)) returning id`,
    [productId, f.label, f.board ?? null, JSON.stringify(f.spec), f.playMm ?? null],
  );
  return one(rows, "row of the fit sheet").id;
}

export async function updateFit(tx: Tx, id: string, f: FitBody): Promise<void> {
  await tx.query("update fit_row set label = $2, board = $3, spec = $4, play_mm = $5 where id = $1", [
    id,
    f.label,
    f.board ?? null,
    JSON.stringify(f.spec),
    f.playMm ?? null,
  ]);
}

export async function deleteFit(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from fit_row where id = $1", [id]);
}
