import type { ErratumSpot, LessonCheck, LessonPlace, Measure } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** Of which place and which measuring of the board a reading is. */
export const READ_OF = "md5(coalesce(l.looks_at, e.spot)::text || extract(epoch from b.measured_at)::text)";
/** The board an erratum is on: by its name, the revision's first where it names none. */
export const OF_ERRATUM = `b.id = (select o.id from board as o where o.revision_id = b.revision_id
       and (not e.spot ? 'board' or o.name = e.spot->>'board') order by o.position, o.name, o.id limit 1)`;

/** A lesson or an erratum whose places on a board are still to be read. */
export interface Unread {
  readonly of: string;
  readonly boardId: string;
  readonly readOf: string;
  readonly check: LessonCheck | null;
  readonly spot: ErratumSpot | null;
}

/** What of a revision is still to be read: for lessons on its own boards, for errata also on those they were found on. */
export async function manyUnreadLearned(tx: Tx, revisionId: string): Promise<Unread[]> {
  const { rows } = await tx.query<Unread>(
    `select l.id as "of", b.id as "boardId", ${READ_OF} as "readOf", l.looks_at as "check", null as spot
     from revision as v
     join board as b on b.revision_id = v.id
     join lesson as l on l.product_id is null or l.product_id = v.product_id
     left join erratum as e on false
     left join learned_reading as p on p.board_id = b.id and p.of_id = l.id
     where v.id = $1 and l.cleared_on is null and l.looks_at->>'kind' = 'place' and p.read_of is distinct from ${READ_OF}
     union all
     select e.id, b.id, ${READ_OF}, null, e.spot
     from revision as v
     join erratum as e on e.product_id = v.product_id and e.revision_id <> v.id
     join board as b on b.revision_id in (v.id, e.revision_id) and ${OF_ERRATUM}
     left join lesson as l on false
     left join learned_reading as p on p.board_id = b.id and p.of_id = e.id
     where v.id = $1 and (e.spot ? 'at' or e.spot ? 'ref') and p.read_of is distinct from ${READ_OF}`,
    [revisionId],
  );
  return rows;
}

/** What was measured of a board. */
export async function oneMeasure(tx: Tx, boardId: string): Promise<Measure> {
  const { rows } = await tx.query<{ measure: Measure }>("select measure from board where id = $1", [boardId]);
  return one(rows, "board").measure;
}

/** What was read on a revision's boards, by board and by lesson or erratum; what is older than row or board is left out. */
export async function manyLearned(
  tx: Tx,
  revisionId: string,
): Promise<Map<string, Record<string, readonly LessonPlace[]>>> {
  const { rows } = await tx.query<{ boardId: string; of: string; places: LessonPlace[] }>(
    `select b.id as "boardId", p.of_id as "of", p.places
     from learned_reading as p
     join board as b on b.id = p.board_id
     left join lesson as l on l.id = p.of_id
     left join erratum as e on e.id = p.of_id
     where b.revision_id = $1 and p.read_of = ${READ_OF}`,
    [revisionId],
  );
  const out = new Map<string, Record<string, readonly LessonPlace[]>>();
  for (const r of rows) out.set(r.boardId, { ...out.get(r.boardId), [r.of]: r.places });
  return out;
}

/** Keeps what was read; what is gone or changed meanwhile keeps nothing. */
export async function upsertLearned(
  tx: Tx,
  boardId: string,
  read: readonly { readonly of: string; readonly readOf: string; readonly places: readonly LessonPlace[] }[],
): Promise<void> {
  await tx.query(
    `insert into learned_reading (workshop_id, board_id, of_id, read_of, places)
     select current_workshop(), b.id, u.of_id, u.read_of, u.places
     from unnest($2::uuid[], $3::text[], $4::jsonb[]) as u (of_id, read_of, places)
     join board as b on b.id = $1
     left join lesson as l on l.id = u.of_id
     left join erratum as e on e.id = u.of_id
     where u.read_of = ${READ_OF}
     on conflict (workshop_id, board_id, of_id) do update set read_of = excluded.read_of, places = excluded.places`,
    [boardId, read.map((r) => r.of), read.map((r) => r.readOf), read.map((r) => JSON.stringify(r.places))],
  );
}
