import type { PlaceReading } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

/** A place that is meant to be something and has not been read since its row or its board changed. */
export interface UnreadPlace {
  readonly fitId: string;
  readonly boardId: string;
  /** Of which row and measuring it will be. */
  readonly readOf: string;
  /** As in the files, mm. */
  readonly at: readonly [number, number];
  readonly diameterMm: number;
}

/** Of which row and which measuring of the board a reading is. */
const READ_OF = "md5(f.spec::text || extract(epoch from b.measured_at)::text)";
/** The board a row is about: by its name, the revision's first where it names none. */
const BOARD_OF = `b.id = (select o.id from board as o where o.revision_id = b.revision_id
       and (f.board is null or o.name = f.board) order by o.position, o.name, o.id limit 1)`;

/** Places of a revision's boards that are still to be read; without a closed outline a place has no corner to be told from. */
export async function manyUnreadPlaces(tx: Tx, revisionId: string): Promise<UnreadPlace[]> {
  const { rows } = await tx.query<Omit<UnreadPlace, "at"> & { x: number; y: number }>(
    `select f.id as "fitId", b.id as "boardId", ${READ_OF} as "readOf",
       (b.measure#>>'{extentMm,0}')::float8 + (f.spec#>>'{at,0}')::float8 as x,
       (b.measure#>>'{extentMm,1}')::float8 + (f.spec#>>'{at,1}')::float8 as y,
       (f.spec->>'diameterMm')::float8 as "diameterMm"
     from board as b
     join revision as v on v.id = b.revision_id
     join fit_row as f on f.product_id = v.product_id
     left join place_reading as p on p.board_id = b.id and p.fit_id = f.id
     where b.revision_id = $1 and f.spec->>'kind' = 'intended' and ${BOARD_OF}
       and b.measure#>>'{outline,widthMm}' is not null
       and p.read_of is distinct from ${READ_OF}`,
    [revisionId],
  );
  return rows.map(({ x, y, ...r }) => ({ ...r, at: [x, y] }));
}

/** What was read at places of a revision's boards, by board and row; what is older than row or board is left out. */
export async function manyPlaces(
  tx: Tx,
  revisionId: string,
): Promise<Map<string, Record<string, PlaceReading>>> {
  const { rows } = await tx.query<{ boardId: string; fitId: string; reading: PlaceReading }>(
    `select b.id as "boardId", f.id as "fitId", p.reading
     from place_reading as p
     join board as b on b.id = p.board_id
     join fit_row as f on f.id = p.fit_id
     where b.revision_id = $1 and p.read_of = ${READ_OF}`,
    [revisionId],
  );
  const out = new Map<string, Record<string, PlaceReading>>();
  for (const r of rows) out.set(r.boardId, { ...out.get(r.boardId), [r.fitId]: r.reading });
  return out;
}

/** Keeps what was read; a row or a board that is gone meanwhile keeps nothing. */
export async function upsertPlaces(
  tx: Tx,
  boardId: string,
  places: readonly { readonly fitId: string; readonly readOf: string; readonly reading: PlaceReading }[],
): Promise<void> {
  await tx.query(
    `insert into place_reading (workshop_id, board_id, fit_id, read_of, reading)
     select current_workshop(), $1, f.id, u.read_of, u.reading
     from unnest($2::uuid[], $3::text[], $4::jsonb[]) as u (fit_id, read_of, reading)
     join fit_row as f on f.id = u.fit_id
     join board as b on b.id = $1
     -- who began before row or board changed may end after who began behind it
     where u.read_of = ${READ_OF}
     on conflict (workshop_id, board_id, fit_id) do update set read_of = excluded.read_of, reading = excluded.reading`,
    [
      boardId,
      places.map((p) => p.fitId),
      places.map((p) => p.readOf),
      places.map((p) => JSON.stringify(p.reading)),
    ],
  );
}

/** Open runs of a revision. */
export async function manyOpenRuns(tx: Tx, revisionId: string): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    "select id from run where revision_id = $1 and state = 'open'",
    [revisionId],
  );
  return rows.map((r) => r.id);
}

/** Revisions of a product, or of the whole shop, that have an open run. */
export async function manyOpenRevisions(tx: Tx, productId: string | undefined): Promise<string[]> {
  const { rows } = await tx.query<{ id: string }>(
    `select v.id from revision as v where ($1::uuid is null or v.product_id = $1)
       and exists (select 1 from run as r where r.revision_id = v.id and r.state = 'open')
     order by v.created_at desc`,
    [productId ?? null],
  );
  return rows.map((r) => r.id);
}
