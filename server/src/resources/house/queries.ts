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

export async function versionOfHouse(tx: Tx, id: string): Promise<number> {
  const { rows } = await tx.query<{ version: number }>("select version from house where id = $1", [id]);
  return one(rows, "house").version;
}

/** Versions of all houses, by id. */
export async function manyHouseVersions(tx: Tx): Promise<{ id: string; version: number }[]> {
  return (await tx.query<{ id: string; version: number }>("select id, version from house")).rows;
}
