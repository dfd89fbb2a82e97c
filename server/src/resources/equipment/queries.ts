import type { EquipmentBody, NewEquipmentBody } from "@kobbin/contract";
import type { Equipment } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Machines and tools of the shop, in the order they were written down. */
export async function manyEquipment(tx: Tx): Promise<Equipment[]> {
  const { rows } = await tx.query<Omit<Equipment, "lastsHours"> & { lastsHours: number | null }>(
    `select id, kind, name, facts, can, cannot, hours, lasts_hours as "lastsHours", state
     from equipment order by position, id`,
  );
  return rows.map(({ lastsHours, ...e }) => ({ ...e, ...(lastsHours === null ? {} : { lastsHours }) }));
}

/** What a machine is called, and under which name it is asked over the network; null where it is not. */
export async function oneAsked(tx: Tx, id: string): Promise<{ name: string; asked: string | null }> {
  const { rows } = await tx.query<{ name: string; asked: string | null }>(
    "select name, facts ->> 'asked' as asked from equipment where id = $1 and kind = 'meter' and state = 'ready'",
    [id],
  );
  return one(rows, "meter");
}

export async function oneEquipmentName(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ name: string }>("select name from equipment where id = $1", [id]);
  return one(rows, "machine").name;
}

export async function insertEquipment(tx: Tx, e: NewEquipmentBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into equipment (workshop_id, kind, name, facts, can, cannot, hours, lasts_hours, state, position)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8,
       (select coalesce(max(position) + 1, 0) from equipment)) returning id`,
    [e.kind, e.name, JSON.stringify(e.facts), e.can, e.cannot, e.hours, e.lastsHours ?? null, e.state],
  );
  return one(rows, "machine").id;
}

/** What is said anew of a machine; what is not said stays. */
export async function updateEquipment(tx: Tx, id: string, e: EquipmentBody): Promise<void> {
  await tx.query(
    `update equipment set
       name = coalesce($2, name),
       facts = coalesce($3, facts),
       can = coalesce($4, can),
       cannot = coalesce($5, cannot),
       hours = coalesce($6, hours),
       lasts_hours = case when $7 then $8::double precision else lasts_hours end,
       state = coalesce($9, state)
     where id = $1`,
    [
      id,
      e.name ?? null,
      e.facts ? JSON.stringify(e.facts) : null,
      e.can ?? null,
      e.cannot ?? null,
      e.hours ?? null,
      e.lastsHours !== undefined,
      e.lastsHours ?? null,
      e.state ?? null,
    ],
  );
}

export async function deleteEquipment(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from equipment where id = $1", [id]);
}
