import type { PlanBody, RevisionPlan } from "@kobbin/contract";
import type { Tx } from "../../db/pool.ts";

/** What was decided of the next revision of each product. */
export async function manyPlans(tx: Tx): Promise<RevisionPlan[]> {
  const { rows } = await tx.query<RevisionPlan>(
    `select product_id as "productId", is_needed as "isNeeded", because, begins, on_day::text as "on", person
     from revision_plan order by product_id`,
  );
  return rows;
}

/** Decides of a product's next revision; what was decided before is put right. */
export async function upsertPlan(tx: Tx, productId: string, b: PlanBody, person: string): Promise<void> {
  await tx.query(
    `insert into revision_plan (workshop_id, product_id, is_needed, because, begins, on_day, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6)
     on conflict (workshop_id, product_id) do update set is_needed = excluded.is_needed, because = excluded.because,
       begins = excluded.begins, on_day = excluded.on_day, person = excluded.person`,
    [productId, b.isNeeded, b.because, b.begins, b.on, person],
  );
}

export async function deletePlan(tx: Tx, productId: string): Promise<void> {
  await tx.query("delete from revision_plan where product_id = $1", [productId]);
}
