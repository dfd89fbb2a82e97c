import type { RightBody, RightChangeBody } from "@kobbin/contract";
import type { Right } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** What on a product may be somebody's, in the order it was written down. */
export async function manyRights(tx: Tx, productId: string): Promise<Right[]> {
  const { rows } = await tx.query<Right>(
    `select id, kind, what, place, owner, state, evidence, facts
     from right_row where product_id = $1 order by position, id`,
    [productId],
  );
  return rows;
}

/** The product it is on, and what it is. */
export async function oneRight(tx: Tx, id: string): Promise<{ productId: string; what: string }> {
  const { rows } = await tx.query<{ productId: string; what: string }>(
    `select product_id as "productId", what from right_row where id = $1`,
    [id],
  );
  return one(rows, "mark or borrowed thing");
}

export async function insertRight(tx: Tx, productId: string, r: RightBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into right_row (workshop_id, product_id, kind, what, place, owner, state, evidence, facts, position)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8,
       (select coalesce(max(position) + 1, 0) from right_row where product_id = $1)) returning id`,
    [productId, r.kind, r.what, r.place, r.owner, r.state, r.evidence, JSON.stringify(r.facts)],
  );
  return one(rows, "mark or borrowed thing").id;
}

/** What is said anew of it; what is not said stays. */
export async function updateRight(tx: Tx, id: string, r: RightChangeBody): Promise<void> {
  await tx.query(
    `update right_row set
       what = coalesce($2, what),
       place = coalesce($3, place),
       owner = coalesce($4, owner),
       state = coalesce($5, state),
       evidence = coalesce($6, evidence),
       facts = coalesce($7, facts)
     where id = $1`,
    [
      id,
      r.what ?? null,
      r.place ?? null,
      r.owner ?? null,
      r.state ?? null,
      r.evidence ?? null,
      r.facts ? JSON.stringify(r.facts) : null,
    ],
  );
}

export async function deleteRight(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from right_row where id = $1", [id]);
}
