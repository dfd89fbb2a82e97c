import type { MeetBody } from "@kobbin/contract";
import type { MeetRow } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

type Spec = MeetBody["spec"];

/** Connectors of a product and what is put onto them, in the order they were made. */
export async function manyMeetings(tx: Tx, productId: string): Promise<MeetRow[]> {
  const { rows } = await tx.query<{
    id: string;
    board: string | null;
    ref: string;
    other: string;
    spec: Spec;
  }>("select id, board, ref, other, spec from meet_row where product_id = $1 order by position, id", [
    productId,
  ]);
  return rows.map(({ board, spec, ...r }) => ({ ...spec, ...r, ...(board === null ? {} : { board }) }));
}

/** The product a row belongs to, and what it is called. */
export async function oneMeeting(tx: Tx, id: string): Promise<{ productId: string; words: string }> {
  const { rows } = await tx.query<{ productId: string; words: string }>(
    `select product_id as "productId", ref || ' with ' || other as words from meet_row where id = $1`,
    [id],
  );
  return one(rows, "connector");
}

/** Other sides the shop has described, to be taken again: what is described alike several times once, with a product it is of. */
export async function manyOthers(tx: Tx): Promise<{ other: string; product: string; spec: Spec }[]> {
  const { rows } = await tx.query<{ other: string; product: string; spec: Spec }>(
    `select distinct on (m.other, m.spec->'theirs') m.other, p.name as product, m.spec
     from meet_row as m join product as p on p.id = m.product_id
     order by m.other, m.spec->'theirs', p.name`,
  );
  return rows;
}

export async function insertMeeting(tx: Tx, productId: string, b: MeetBody): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into meet_row (workshop_id, product_id, board, ref, other, spec, position)
     values (current_workshop(), $1, $2, $3, $4, $5,
       (select coalesce(max(position) + 1, 0) from meet_row where product_id = $1)) returning id`,
    [productId, b.board ?? null, b.ref, b.other, JSON.stringify(b.spec)],
  );
  return one(rows, "connector").id;
}

export async function updateMeeting(tx: Tx, id: string, b: MeetBody): Promise<void> {
  await tx.query("update meet_row set board = $2, ref = $3, other = $4, spec = $5 where id = $1", [
    id,
    b.board ?? null,
    b.ref,
    b.other,
    JSON.stringify(b.spec),
  ]);
}

export async function deleteMeeting(tx: Tx, id: string): Promise<void> {
  await tx.query("delete from meet_row where id = $1", [id]);
}
