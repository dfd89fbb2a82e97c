import type { PhotoBody } from "@kobbin/contract";
import type { RunPhoto } from "@kobbin/core";
import type { PlainPhoto } from "@kobbin/formats";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Photos of a run, the oldest first. */
export async function manyPhotos(tx: Tx, runId: string): Promise<RunPhoto[]> {
  type Stored = Pick<RunPhoto, "id" | "widthPx" | "heightPx" | "on" | "note" | "person">;
  type Of = {
    order: string | null;
    item: string | null;
    spot: string | null;
    unit: number | null;
    defect: string | null;
  };
  const { rows } = await tx.query<Stored & Of>(
    `select id, order_key as "order", item, spot, unit, defect_id as defect, width_px as "widthPx", height_px as "heightPx",
            on_day as "on", note, person
     from photo where run_id = $1 order by photo.at, id`,
    [runId],
  );
  return rows.map(({ order, item, spot, unit, defect, ...p }) => ({
    ...p,
    ...(order === null || item === null ? {} : { order, item }),
    ...(spot === null ? {} : { spot }),
    ...(unit === null ? {} : { unit }),
    ...(defect === null ? {} : { defect }),
  }));
}

export async function insertPhoto(
  tx: Tx,
  runId: string,
  p: Pick<PhotoBody, "order" | "item" | "spot" | "unit" | "defect" | "on" | "note"> &
    Pick<PlainPhoto, "widthPx" | "heightPx"> & { readonly sha256: string; readonly person: string },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into photo (workshop_id, run_id, order_key, item, unit, defect_id, sha256, width_px, height_px, on_day, note, person, spot)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) returning id`,
    [
      runId,
      p.order ?? null,
      p.item ?? null,
      p.unit ?? null,
      p.defect ?? null,
      p.sha256,
      p.widthPx,
      p.heightPx,
      p.on,
      p.note,
      p.person,
      p.spot ?? null,
    ],
  );
  return one(rows, "photo").id;
}

/** What a photo shows is said otherwise. */
export async function updatePhoto(tx: Tx, id: string, note: string): Promise<{ runId: string }> {
  const { rows } = await tx.query<{ runId: string }>(
    `update photo set note = $2 where id = $1 returning run_id as "runId"`,
    [id, note],
  );
  return one(rows, "photo");
}

export async function deletePhoto(tx: Tx, id: string): Promise<{ runId: string; unit: number | null }> {
  const { rows } = await tx.query<{ runId: string; unit: number | null }>(
    `delete from photo where id = $1 returning run_id as "runId", unit`,
    [id],
  );
  return one(rows, "photo");
}

/** The bytes of a photo, and their hash. */
export async function onePhotoFile(tx: Tx, id: string): Promise<{ sha256: string; bytes: Buffer }> {
  const { rows } = await tx.query<{ sha256: string; bytes: Buffer }>(
    `select p.sha256, b.bytes from photo as p
     join blob as b on b.workshop_id = p.workshop_id and b.sha256 = p.sha256 where p.id = $1`,
    [id],
  );
  return one(rows, "photo");
}

/** On which board of a run a fault is. @throws AppError NOT_FOUND where the run has no such fault */
export async function unitOfDefect(tx: Tx, runId: string, id: string): Promise<number> {
  const { rows } = await tx.query<{ unit: number }>("select unit from defect where id = $1 and run_id = $2", [
    id,
    runId,
  ]);
  return one(rows, "fault").unit;
}
