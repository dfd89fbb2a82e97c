import type { ImageLoad } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** What was loaded into a run's boards, the oldest first. */
export async function manyLoads(tx: Tx, runId: string): Promise<ImageLoad[]> {
  type Optional = { sha256: string | null; wipedOn: string | null; socket: number | null };
  const { rows } = await tx.query<Omit<ImageLoad, keyof Optional> & Optional>(
    `select id, unit, image, name, version_text as version, place as "at", sha256, is_right as "isRight", said, given,
            wiped_on as "wipedOn", socket, on_day as "on", person
     from image_load where run_id = $1 order by image_load.at, id`,
    [runId],
  );
  return rows.map(({ sha256, wipedOn, socket, ...r }) => ({
    ...r,
    ...(sha256 === null ? {} : { sha256 }),
    ...(wipedOn === null ? {} : { wipedOn }),
    ...(socket === null ? {} : { socket }),
  }));
}

export async function insertLoad(
  tx: Tx,
  runId: string,
  l: Omit<ImageLoad, "id" | "sha256" | "socket" | "wipedOn"> & {
    readonly sha256?: string | undefined;
    readonly socket?: number | undefined;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into image_load (workshop_id, run_id, unit, image, name, version_text, place, sha256, is_right, said, given, socket, on_day, person)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) returning id`,
    [
      runId,
      l.unit,
      l.image,
      l.name,
      l.version,
      l.at,
      l.sha256 ?? null,
      l.isRight,
      l.said,
      JSON.stringify(l.given),
      l.socket ?? null,
      l.on,
      l.person,
    ],
  );
  return one(rows, "loaded image").id;
}

/** What of a board's image is told of it. */
interface Told {
  readonly runId: string;
  readonly unit: number;
  readonly name: string;
}

/** The day on which a board was wiped of what stays with the shop; none where it was not after all. */
export async function updateWiped(tx: Tx, id: string, on: string | null): Promise<Told> {
  const { rows } = await tx.query<Told>(
    `update image_load set wiped_on = $2 where id = $1 returning run_id as "runId", unit, name`,
    [id, on],
  );
  return one(rows, "loaded image");
}

export async function deleteLoad(tx: Tx, id: string): Promise<Told> {
  const { rows } = await tx.query<Told>(
    `delete from image_load where id = $1 returning run_id as "runId", unit, name`,
    [id],
  );
  return one(rows, "loaded image");
}
