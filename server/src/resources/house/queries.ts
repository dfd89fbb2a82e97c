import type { House } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

type Row = { id: string; profile: Omit<House, "id"> };
const toHouse = (r: Row): House => ({ ...r.profile, id: r.id });

export async function manyHouses(tx: Tx): Promise<House[]> {
  const { rows } = await tx.query<Row>("select id, profile from house order by position, id");
  return rows.map(toHouse);
}

export async function oneHouse(tx: Tx, id: string): Promise<House> {
  const { rows } = await tx.query<Row>("select id, profile from house where id = $1", [id]);
  return toHouse(one(rows, "house"));
}

export async function insertHouse(
  tx: Tx,
  position: number,
  profile: Omit<House, "id">,
  copiedFrom?: string,
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into house (workshop_id, position, profile, copied_from) values (current_workshop(), $1, $2, $3) returning id",
    [position, JSON.stringify(profile), copiedFrom ?? null],
  );
  return rows[0]!.id;
}

export async function updateHouse(tx: Tx, id: string, profile: Omit<House, "id">): Promise<void> {
  const { rows } = await tx.query("update house set profile = $2 where id = $1 returning id", [
    id,
    JSON.stringify(profile),
  ]);
  one(rows, "house");
}
