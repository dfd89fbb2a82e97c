import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { ident } from "../../schema/ident.ts";
import { DESCRIPTORS, type Table } from "../../schema/tables.ts";
import { manyMembers } from "./queries.ts";

/** What stands in the place of a name that is forgotten. */
export const FORMER = "somebody who left";
/** Who writes things down and is no person. */
const NO_PERSON: readonly string[] = ["Kobbin", FORMER];

/** Names that stand in the shop's history and are no member's any more. */
export async function manyLeft(tx: Tx): Promise<string[]> {
  const { rows } = await tx.query<{ person: string }>(
    `select distinct c.person from change as c
     where not exists (select from member as m join account as a on a.id = m.account_id
       where m.workshop_id = current_workshop() and a.email = c.person)
       and c.person <> all ($1::text[]) order by c.person limit 200`,
    [NO_PERSON],
  );
  return rows.map((r) => r.person);
}

/** Recorded tables that say who wrote a row. */
const signedTables = (): Table[] =>
  (Object.keys(DESCRIPTORS) as Table[]).filter((t) => "person" in DESCRIPTORS[t].columns);

/**
 * Takes the name of somebody who left out of everything that was built, counted, decided and changed: it stays as done by
 * {@link FORMER}. What was frozen at a release, the record of who came in, and backups made before keep it.
 *
 * @throws AppError NOT_ALLOWED for a member, NOT_FOUND for a name that stands nowhere
 */
export async function forgetPerson(tx: Tx, person: string): Promise<void> {
  const members = await manyMembers(tx, "");
  if (members.some((m) => m.person === person))
    throw new AppError(
      "NOT_ALLOWED",
      `${person} is a member of the shop.`,
      "Take them out of the shop first.",
    );
  if (NO_PERSON.includes(person))
    throw new AppError("NOT_FOUND", "That is nobody's name.", "Reload the page; it shows who left.");
  // what is wiped is not recorded: the record would keep it
  await tx.query("select set_config('app.change', 'off', true)");
  let found = 0;
  for (const table of signedTables()) {
    const { rowCount } = await tx.query(`update ${ident(table)} set person = $2 where person = $1`, [
      person,
      FORMER,
    ]);
    found += rowCount ?? 0;
  }
  // questions to suppliers and houses, and the calendar's address, are in no record of changes
  await tx.query("update feed_ask set person = $2 where person = $1", [person, FORMER]);
  await tx.query("update house_ask set person = $2 where person = $1", [person, FORMER]);
  await tx.query("update order_ask set person = $2 where person = $1", [person, FORMER]);
  await tx.query("update calendar_address set person = $2 where person = $1", [person, FORMER]);
  await tx.query("update invitation set used_by = null where used_by = $1", [person]);
  const { rowCount } = await tx.query("update change set person = $2 where person = $1", [person, FORMER]);
  found += rowCount ?? 0;
  if (found === 0)
    throw new AppError("NOT_FOUND", "That name stands nowhere.", "Reload the page; it shows who left.");
  await tx.query(
    "update part set suspect = jsonb_set(suspect, '{by}', to_jsonb($2::text)) where suspect ->> 'by' = $1",
    [person, FORMER],
  );
  await tx.query(
    "update lesson set looks_at = jsonb_set(looks_at, '{person}', to_jsonb($2::text)) where looks_at ->> 'person' = $1",
    [person, FORMER],
  );
  await tx.query(
    `update closing set factors = (
       select jsonb_agg(case when f ->> 'kind' = 'person' and f ->> 'name' = $1
         then jsonb_set(f, '{name}', to_jsonb($2::text)) else f end order by n)
       from jsonb_array_elements(factors) with ordinality as x(f, n))
     where factors @> jsonb_build_array(jsonb_build_object('kind', 'person', 'name', $1::text))`,
    [person, FORMER],
  );
  // wherever the name stands whole in what was recorded, in a column or within one
  await tx.query(
    `update change_row set
       was = replace(was::text, to_jsonb($1::text)::text, to_jsonb($2::text)::text)::jsonb,
       became = replace(became::text, to_jsonb($1::text)::text, to_jsonb($2::text)::text)::jsonb
     where strpos(was::text, to_jsonb($1::text)::text) > 0 or strpos(became::text, to_jsonb($1::text)::text) > 0`,
    [person, FORMER],
  );
}
