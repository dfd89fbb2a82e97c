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
  feedKey?: string,
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into house (workshop_id, position, profile, copied_from, feed_key) values (current_workshop(), $1, $2, $3, $4) returning id",
    [position, JSON.stringify(profile), copiedFrom ?? null, feedKey ?? null],
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

/** The key a house is asked under over the network; nothing where it cannot be. */
export async function maybeHouseKey(tx: Tx, id: string): Promise<string | undefined> {
  const { rows } = await tx.query<{ key: string | null }>("select feed_key as key from house where id = $1", [
    id,
  ]);
  return rows[0]?.key ?? undefined;
}
