import type { House } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

type Row = { id: string; profile: Omit<House, "id"> };
const toHouse = (r: Row): House => ({ ...r.profile, id: r.id });

export async function manyHouses(tx: Tx): Promise<House[]> {
  const { rows } = await tx.query<Row>("select id, profile from house order by position, id");
  return rows.map(toHouse);
}

/** Houses and suppliers that are made up: those that came with the shop to try it with. */
export async function manyMadeUp(tx: Tx): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    `select id from house where is_made_up
     union all select id from supplier where feed_key is not null`,
  );
  return rows.map((r) => r.id);
}

/** Takes the made-up houses and suppliers away, with the offers and answers that came of them. */
export async function deleteMadeUp(tx: Tx): Promise<{ houses: number; suppliers: number }> {
  const houses = await tx.query("delete from house where is_made_up");
  const suppliers = await tx.query("delete from supplier where feed_key is not null");
  return { houses: houses.rowCount ?? 0, suppliers: suppliers.rowCount ?? 0 };
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
  { feedKey, isMadeUp = false }: { readonly feedKey?: string | undefined; readonly isMadeUp?: boolean } = {},
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    "insert into house (workshop_id, position, profile, copied_from, feed_key, is_made_up) values (current_workshop(), $1, $2, $3, $4, $5) returning id",
    [position, JSON.stringify(profile), copiedFrom ?? null, feedKey ?? null, isMadeUp],
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
