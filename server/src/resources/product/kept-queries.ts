import type { BoardDiff, Corrections } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

/** So many small pictures of a board are kept: every size and look of two themes; the oldest go first. */
const MOST_PICTURES = 40;

/** And so many of a shop. */
const MOST_OF_SHOP = 2000;

/** A small picture as a page painted it, with the board's box in mm. */
export interface KeptPicture {
  readonly box: readonly number[];
  readonly png: Buffer;
}

export async function maybePicture(tx: Tx, boardId: string, key: string): Promise<KeptPicture | undefined> {
  const { rows } = await tx.query<KeptPicture>(
    `select p.box, p.png from board_picture as p join board as b on b.id = p.board_id
     where p.board_id = $1 and p.key = $2 and p.read_of = md5(b.corrections::text)`,
    [boardId, key],
  );
  return rows[0];
}

/** Keeps a picture, unless the board is read otherwise by now; of very many the oldest are left out. */
export async function putPicture(
  tx: Tx,
  boardId: string,
  key: string,
  { box, png }: KeptPicture,
  under: Corrections,
): Promise<void> {
  await tx.query(
    `insert into board_picture (workshop_id, board_id, key, read_of, box, png)
     select current_workshop(), b.id, $2, md5(b.corrections::text), $3, $4
     from board as b where b.id = $1 and b.corrections = $5::jsonb
     on conflict (workshop_id, board_id, key) do update
       set read_of = excluded.read_of, box = excluded.box, png = excluded.png, at = now()`,
    [boardId, key, box, png, JSON.stringify(under)],
  );
  await tx.query(
    `delete from board_picture where board_id = $1 and key in
       (select key from board_picture where board_id = $1 order by at desc, key offset $2)`,
    [boardId, MOST_PICTURES],
  );
  await tx.query(
    `delete from board_picture where (board_id, key) in
       (select board_id, key from board_picture order by at desc, board_id, key offset $1)`,
    [MOST_OF_SHOP],
  );
}

/** What two boards differ in, as far as it was worked out for them as they are read now. */
export async function maybeDifference(
  tx: Tx,
  boardId: string,
  againstId: string,
  readOf: string,
): Promise<BoardDiff | undefined> {
  const { rows } = await tx.query<{ difference: BoardDiff }>(
    "select difference from board_difference where board_id = $1 and against_id = $2 and read_of = $3",
    [boardId, againstId, readOf],
  );
  return rows[0]?.difference;
}

/** Keeps it, unless one of the two is gone by now. */
export async function putDifference(
  tx: Tx,
  boardId: string,
  againstId: string,
  readOf: string,
  difference: BoardDiff,
): Promise<void> {
  await tx.query(
    `insert into board_difference (workshop_id, board_id, against_id, read_of, difference)
     select current_workshop(), n.id, a.id, $3, $4 from board as n, board as a where n.id = $1 and a.id = $2
     on conflict (workshop_id, board_id, against_id) do update set read_of = excluded.read_of, difference = excluded.difference`,
    [boardId, againstId, readOf, JSON.stringify(difference)],
  );
}
