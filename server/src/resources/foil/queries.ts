import type { FoilBody, NewFoilBody } from "@kobbin/contract";
import type { Foil } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** The foils of a product, the newest first. */
export async function manyFoils(tx: Tx, productId: string): Promise<Foil[]> {
  const { rows } = await tx.query<Omit<Foil, "cleanedOn"> & { cleanedOn: string | null }>(
    `select id, name, board, foil_mm as "foilMm", form, openings, without, price, currency, made_on as "madeOn",
       cleaned_on as "cleanedOn", prints, place, state, note
     from foil where product_id = $1 order by made_on desc, id`,
    [productId],
  );
  return rows.map(({ cleanedOn, ...f }) => ({ ...f, ...(cleanedOn === null ? {} : { cleanedOn }) }));
}

/** The product a foil belongs to, and what it is called. */
export async function oneFoil(tx: Tx, id: string): Promise<{ productId: string; name: string }> {
  const { rows } = await tx.query<{ productId: string; name: string }>(
    `select product_id as "productId", name from foil where id = $1`,
    [id],
  );
  return one(rows, "foil");
}

export async function insertFoil(tx: Tx, productId: string, f: NewFoilBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into foil (workshop_id, product_id, name, board, foil_mm, form, openings, without, price, currency, made_on, place, note)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) returning id`,
    [
      productId,
      f.name,
      f.board,
      f.foilMm,
      f.form,
      JSON.stringify(f.openings),
      JSON.stringify(f.without),
      f.price,
      f.currency,
      f.madeOn,
      f.place,
      f.note,
    ],
  );
  return one(rows, "foil").id;
}

/** What became of a foil; what is not said stays. */
export async function updateFoil(tx: Tx, id: string, f: FoilBody): Promise<void> {
  await tx.query(
    `update foil set
       name = coalesce($2, name),
       prints = coalesce($3, prints),
       cleaned_on = case when $4 then $5::date else cleaned_on end,
       place = coalesce($6, place),
       state = coalesce($7, state),
       note = coalesce($8, note)
     where id = $1`,
    [
      id,
      f.name ?? null,
      f.prints ?? null,
      f.cleanedOn !== undefined,
      f.cleanedOn ?? null,
      f.place ?? null,
      f.state ?? null,
      f.note ?? null,
    ],
  );
}

export async function deleteFoil(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from foil where id = $1", [id]);
}
