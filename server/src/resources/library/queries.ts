import type { PartRow, PartUse } from "@kobbin/contract";
import {
  type Alternate,
  factsOfLine,
  kindOfLine,
  type LibraryPart,
  lineKey,
  type Mount,
  numberKey,
  PART_FIELDS,
  type PartField,
  type PartFieldKey,
  packageKey,
  type RunLine,
} from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const FIELDS = Object.entries(PART_FIELDS) as readonly (readonly [PartFieldKey, PartField])[];
/** A part as it is read: every field under its own name. */
const PART = [
  "p.id",
  ...FIELDS.map(([key, f]) => `p.${f.column}${f.cast ? `::${f.cast}` : ""} as "${key}"`),
  "p.version",
].join(", ");
const OPTIONAL = new Set<string>(FIELDS.flatMap(([key, f]) => (f.isOptional ? [key] : [])));

type StoredPart = { readonly id: string; readonly version: number } & {
  readonly [K in PartFieldKey]: undefined extends LibraryPart[K] ? LibraryPart[K] | null : LibraryPart[K];
};

/** What a part lacks is left out. */
const toPart = (r: StoredPart): LibraryPart & { version: number } =>
  Object.fromEntries(
    Object.entries(r).filter(([key, value]) => value !== null || !OPTIONAL.has(key)),
  ) as unknown as LibraryPart & { version: number };

/**
 * The parts of the library that hold every word, in the order of their numbers; where none does, those nearest to what
 * was typed. Without words the suspected ones first. Each with how many lines of all bills name it, how many offers are
 * known of it and how many lie on the shelf.
 *
 * Measured with 20,000 parts and 200,000 offers: the bench holds the line.
 */
export async function manyParts(
  tx: Tx,
  text: string,
  limit: number,
): Promise<{ parts: PartRow[]; isNear: boolean }> {
  const words = text
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== "");
  const patterns = words
    .slice(0, 6)
    .map((w) => `%${w.slice(0, 60).replace(/[\\%_]/g, "\\$&")}%`)
    .sort((a, b) => b.length - a.length);
  const hits = patterns.length === 0 ? FIRST : HITS;
  const { rows } = await tx.query<
    StoredPart & { uses: number; offers: number; onShelf: number; isNear: boolean }
  >({
    name: patterns.length === 0 ? "first parts" : "find parts",
    text: `select ${PART}, h.is_near as "isNear",
       (select count(*)::int from bom_line as l where l.mpn_key = p.mpn_key) as uses,
       (select count(*)::int from bom_line as l join offer as o on o.line_id = l.id where l.mpn_key = p.mpn_key and o.part_id is null) as offers,
       (select coalesce(sum(o.qty), 0)::float8 from lot as o where o.mpn_key = p.mpn_key) as "onShelf"
     from (select id, is_near, row_number() over () as place from ${hits}) as h join part as p on p.id = h.id
     order by h.place`,
    values: patterns.length === 0 ? [limit] : [limit, patterns, words.join(" ").slice(0, 120)],
  });
  return {
    parts: rows.map(({ uses, offers, onShelf, isNear: _, ...r }) => ({
      ...toPart(r),
      uses,
      offers,
      onShelf,
    })),
    isNear: rows[0]?.isNear ?? false,
  };
}

/** What the search reads from: the suspected parts first, or what the words find. */
const FIRST = `(
  (select id, false as is_near from part where suspect is not null order by mpn limit $1)
  union all (select id, false from part where suspect is null order by mpn limit $1) limit $1) as first`;
const HITS = "find_parts($2::text[], $3, $1::integer)";

export async function onePart(tx: Tx, id: string): Promise<LibraryPart & { version: number }> {
  const { rows } = await tx.query<StoredPart>(`select ${PART} from part as p where p.id = $1`, [id]);
  return toPart(one(rows, "part"));
}

/** Who mounts parts of some numbers, where the library says it. */
export async function mountsByNumber(tx: Tx, numbers: readonly string[]): Promise<Map<string, Mount>> {
  const keys = [...new Set(numbers.filter((n) => n !== "").map(numberKey))];
  if (keys.length === 0) return new Map();
  const { rows } = await tx.query<{ key: string; mount: Mount }>(
    "select mpn_key as key, mount from part where mpn_key = any($1::text[]) and mount is not null",
    [keys],
  );
  return new Map(rows.map((r) => [r.key, r.mount]));
}

/** A part as it comes into the library. */
export interface NewPart {
  readonly mpn: string;
  readonly maker?: string | undefined;
  readonly description?: string | undefined;
  readonly kind?: string | undefined;
  readonly package?: string | undefined;
  readonly params?: Readonly<Record<string, string>> | undefined;
}

/**
 * Takes parts into the library; a number it has already stays as it is.
 * @returns the id of each, in order, and the numbers that are new
 */
export async function insertParts(
  tx: Tx,
  parts: readonly NewPart[],
): Promise<{ ids: string[]; fresh: string[] }> {
  const rows = parts.map((p) => ({
    mpn: p.mpn,
    maker: p.maker ?? "",
    description: p.description ?? "",
    kind: p.kind ?? "other",
    package: p.package ?? "",
    params: p.params ?? {},
  }));
  // the database says which numbers are one: it keeps the key they are compared by
  const { rows: made } = await tx.query<{ mpn: string }>(
    `insert into part (workshop_id, mpn, maker, description, kind, package, params)
     select distinct on (number_key(x.mpn)) current_workshop(), x.mpn, x.maker, x.description, x.kind, x.package, x.params
     from jsonb_to_recordset($1::jsonb) as x (mpn text, maker text, description text, kind text, package text, params jsonb)
     on conflict (workshop_id, mpn_key) do nothing
     returning mpn`,
    [JSON.stringify(rows)],
  );
  const { rows: all } = await tx.query<{ id: string }>(
    `select p.id from unnest($1::text[]) with ordinality as w (mpn, n)
     join part as p on p.workshop_id = current_workshop() and p.mpn_key = number_key(w.mpn) order by w.n`,
    [parts.map((p) => p.mpn)],
  );
  return { ids: all.map((r) => r.id), fresh: made.map((r) => r.mpn) };
}

export async function deletePart(tx: Tx, id: string): Promise<void> {
  one((await tx.query<{ id: string }>("delete from part where id = $1 returning id", [id])).rows, "part");
}

/** Numbers of all bills the library does not know yet, with what the bills say of them. */
export async function manyUnknownNumbers(
  tx: Tx,
): Promise<
  (Pick<RunLine, "refs" | "valueText" | "package" | "mpn" | "maker" | "description"> & { uses: number })[]
> {
  const { rows } = await tx.query<
    Pick<RunLine, "refs" | "valueText" | "package" | "mpn" | "maker" | "description"> & { uses: number }
  >(
    `select distinct on (l.mpn_key) l.refs[1:1] as refs, l.value_text as "valueText", l.package, l.mpn, l.maker, l.description,
       count(*) over (partition by l.mpn_key)::int as uses
     from bom_line as l
     where l.mpn <> '' and not exists (select 1 from part as p where p.mpn_key = l.mpn_key)
     order by l.mpn_key, length(l.maker) + length(l.description) + length(l.package) desc`,
  );
  return rows;
}

/** Where a number is used: product, revision, references, and the runs that would buy it. */
export async function manyUses(tx: Tx, mpn: string): Promise<PartUse[]> {
  const { rows } = await tx.query<PartUse>(
    `select p.name as product, v.label as revision, v.id as "revisionId", l.refs, l.value_text as "valueText", l.qty::float8 as qty, l.dnp,
       coalesce((select json_agg(json_build_object('id', r.id, 'name', r.name, 'state', r.state) order by r.created_at)
         from run as r where r.revision_id = v.id), '[]') as runs
     from bom_line as l
     join revision as v on v.id = l.revision_id
     join product as p on p.id = v.product_id
     where l.mpn_key = $1
     order by p.name, v.label, l.position`,
    [numberKey(mpn)],
  );
  return rows;
}

/**
 * What of the library a bill's lines ask for: their own numbers, what was decided to stand in for them, and for lines
 * without a number all parts of their class and package.
 */
export async function manyPartsFor(
  tx: Tx,
  lines: readonly RunLine[],
  runId: string | undefined,
): Promise<{ library: LibraryPart[]; alternates: Alternate[] }> {
  const keys = [...new Set(lines.flatMap((l) => lineKey(l) ?? []))];
  const numbers = [...new Set(lines.filter((l) => l.mpn !== "").map((l) => numberKey(l.mpn)))];
  const rules = lines.filter((l) => l.mpn === "" && lineKey(l) !== undefined);
  const { rows: decided } = await tx.query<{
    original: string;
    part: string;
    state: Alternate["state"];
    runs: string[] | null;
    because: string;
    by: string;
    at: string;
  }>(
    `select original, part_id as part, state, runs, because, person as by, at from alternate where original = any($1::text[]) order by at, id`,
    [keys],
  );
  const { rows } = await tx.query<StoredPart>(
    `select ${PART} from part as p
     where p.mpn_key = any($1::text[]) or p.id = any($2::uuid[]) or p.kind = any($3::text[])
     order by p.mpn`,
    [numbers, decided.map((d) => d.part), [...new Set(rules.map(kindOfLine))]],
  );
  const packages = new Set(rules.map((l) => `${kindOfLine(l)} ${packageKey(factsOfLine(l).package)}`));
  const named = new Set(numbers);
  const chosen = new Set(decided.map((d) => d.part));
  const library = rows
    .filter(
      (p) =>
        named.has(numberKey(p.mpn)) || chosen.has(p.id) || packages.has(`${p.kind} ${packageKey(p.package)}`),
    )
    .map((p) => {
      const { version: _, ...part } = toPart(p);
      return part;
    });
  const alternates = decided.map(({ runs, ...d }): Alternate => {
    const holds = d.state !== "approved" || runs === null || (runId !== undefined && runs.includes(runId));
    return {
      ...d,
      state: holds ? d.state : "proposed",
      ...(holds ? {} : { isElsewhere: true }),
      ...(d.state === "approved" && runs === null ? { isForAllRuns: true } : {}),
    };
  });
  return { library, alternates };
}

export async function upsertAlternate(
  tx: Tx,
  a: {
    original: string;
    partId: string;
    state: Alternate["state"];
    runs: readonly string[] | null;
    because: string;
    person: string;
    at: string;
  },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into alternate (workshop_id, original, part_id, state, runs, because, person, at)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7)
     on conflict on constraint alternate_key do update
       set state = excluded.state, runs = excluded.runs, because = excluded.because, person = excluded.person, at = excluded.at
     returning id`,
    [a.original, a.partId, a.state, a.runs, a.because, a.person, a.at],
  );
  return one(rows, "alternate").id;
}

/** The runs an alternate is approved for: null is all of them, undefined that nobody approved it. */
export async function runsOfAlternate(
  tx: Tx,
  original: string,
  partId: string,
): Promise<readonly string[] | null | undefined> {
  const { rows } = await tx.query<{ runs: string[] | null }>(
    "select runs from alternate where original = $1 and part_id = $2 and state = 'approved' for update",
    [original, partId],
  );
  return rows[0]?.runs;
}

/** What a bill says of a number, as a part of the library begins with it. */
export function partFromLine(line: Parameters<typeof factsOfLine>[0]) {
  const f = factsOfLine(line);
  return {
    mpn: line.mpn,
    maker: line.maker,
    description: line.description || line.valueText,
    kind: f.kind,
    package: line.package,
    params: f.params,
  };
}
