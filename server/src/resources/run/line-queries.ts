import { randomUUID } from "node:crypto";
import { LINE_FIELDS, type LineFieldKey, type RunLine } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const FIELDS = Object.entries(LINE_FIELDS);
/** A line as it is read: every field under its own name; a number as one that counts, money as text. */
const LINE = [
  "id",
  ...FIELDS.map(([key, f]) => `${f.column}${key === "qty" ? "::float8" : ""} as "${key}"`),
].join(", ");
/** The columns a line is added with, and what they are in the rows that are handed over. */
const LINE_COLUMNS = FIELDS.map(([, f]) => f.column).join(", ");
const LINE_VALUES = FIELDS.map(([, f]) => `x.${f.column}`).join(", ");
const LINE_TYPES = FIELDS.map(([, f]) => `${f.column} ${f.sql}`).join(", ");

interface StoredBomLine extends Omit<RunLine, "origin" | "parent" | "board" | "madeCost"> {
  readonly origin: NonNullable<RunLine["origin"]>;
  readonly parent: string | null;
  readonly board: string | null;
  readonly madeCost: string;
}

export async function manyLines(tx: Tx, revisionId: string): Promise<RunLine[]> {
  const { rows } = await tx.query<StoredBomLine>(
    `select ${LINE} from bom_line where revision_id = $1 order by position, id`,
    [revisionId],
  );
  // what is as a rule is left out: most lines are bought and belong to nothing
  return rows.map(({ origin, parent, board, madeCost, ...l }) => ({
    ...l,
    ...(origin === "bought" ? {} : { origin }),
    ...(parent === null ? {} : { parent }),
    ...(board === null ? {} : { board }),
    ...(Number(madeCost) > 0 ? { madeCost: trim(madeCost) } : {}),
  }));
}

/** Rows that go into one statement. */
const BATCH = 1000;

/**
 * Adds lines to a bill, in their order, from a position on.
 * @returns their ids, in the same order
 */
export async function insertLines(
  tx: Tx,
  revisionId: string,
  position: number,
  lines: readonly Omit<RunLine, "id">[],
): Promise<string[]> {
  const rows = lines.map((l, i) => ({
    id: randomUUID(),
    position: position + i,
    ...Object.fromEntries(FIELDS.map(([key, f]) => [f.column, l[key as LineFieldKey] ?? f.usual])),
  }));
  for (let i = 0; i < rows.length; i += BATCH)
    await tx.query(
      `insert into bom_line (workshop_id, revision_id, id, position, ${LINE_COLUMNS})
       select current_workshop(), $1, x.id, x.position, ${LINE_VALUES}
       from jsonb_to_recordset($2::jsonb) as x (id uuid, position integer, ${LINE_TYPES})`,
      [revisionId, JSON.stringify(rows.slice(i, i + BATCH))],
    );
  return rows.map((r) => r.id);
}

/** The feed's offers for a line were for the part number it had. */
export async function deleteFeedOffersOf(tx: Tx, lineId: string): Promise<void> {
  await tx.query("delete from offer where line_id = $1 and source = 'feed'", [lineId]);
}

/** Typed and pasted offers of a line that becomes one with another; the feed is asked anew. */
export async function moveOffers(tx: Tx, fromLine: string, toLine: string): Promise<void> {
  await tx.query("update offer set line_id = $2 where line_id = $1 and source <> 'feed'", [fromLine, toLine]);
}

/** What a change of a line looks at. */
export interface StoredLine {
  readonly revisionId: string;
  readonly mpn: string;
  readonly version: number;
  readonly refs: readonly string[];
  readonly qty: number;
  readonly board: string | null;
  readonly name: string;
}

/** Where a line belongs, with what it holds and its version. */
export async function oneLine(tx: Tx, id: string): Promise<StoredLine> {
  const { rows } = await tx.query<StoredLine>(
    `select revision_id as "revisionId", mpn, version, refs, qty::float8 as qty, board_id as board, coalesce(refs[1], nullif(value_text, ''), mpn) as name from bom_line where id = $1`,
    [id],
  );
  return one(rows, "line");
}

/** Versions of what belongs to a revision, by id: its lines, sums, variants, boards. */
export async function manyBillVersions(
  tx: Tx,
  revisionId: string,
): Promise<{ id: string; version: number }[]> {
  const { rows } = await tx.query<{ id: string; version: number }>(
    `select id, version from bom_line where revision_id = $1
     union all select id, version from line_sum where revision_id = $1
     union all select id, version from variant where revision_id = $1
     union all select id, version from board where revision_id = $1`,
    [revisionId],
  );
  return rows;
}

export async function deleteLine(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ revisionId: string }>(
    `delete from bom_line where id = $1 returning revision_id as "revisionId"`,
    [id],
  );
  return one(rows, "line").revisionId;
}

/** Where the next line of a bill goes. */
export async function nextPosition(tx: Tx, revisionId: string): Promise<number> {
  const { rows } = await tx.query<{ next: number }>(
    "select coalesce(max(position) + 1, 0) as next from bom_line where revision_id = $1",
    [revisionId],
  );
  return rows[0]!.next;
}

/** Takes the lines of a bill away, or those of one of its boards. */
export async function deleteLinesOf(tx: Tx, revisionId: string, board: string | undefined): Promise<void> {
  await tx.query("delete from bom_line where revision_id = $1 and ($2::uuid is null or board_id = $2)", [
    revisionId,
    board ?? null,
  ]);
}
