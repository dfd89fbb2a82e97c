import type { MistakesOfYear } from "@kobbin/contract";
import { bagCode, type FactorRow, weighed } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

/** So many are told where none of them stands out; where some do, no more than twice as many. */
const TOLD = 6;

/** What the faults of runs closed since a day have in common; a lot that is kept no more says nothing anyone could look at. */
export async function commonSince(tx: Tx, since: string): Promise<MistakesOfYear["common"]> {
  const { runs, closed } = await countClosed(tx, since);
  const found = weighed(await manyFactors(tx, since));
  const bags = await bagsOf(
    tx,
    found.flatMap((f) => (f.kind === "lot" ? [f.name] : [])),
  );
  const named = found.flatMap((f) => {
    const name = f.kind === "lot" ? bags.get(f.name) : f.name;
    return name === undefined ? [] : [{ ...f, name }];
  });
  const out = named.filter((f) => f.standsOut);
  return {
    runs,
    closed,
    factors: out.length > 0 ? out.slice(0, 2 * TOLD) : named.slice(0, TOLD),
  };
}

/** Closed runs since a day, and those of which it is kept how their faults fall. */
async function countClosed(
  tx: Tx,
  since: string,
): Promise<{ readonly runs: number; readonly closed: number }> {
  const { rows } = await tx.query<{ runs: number; closed: number }>(
    `select count(*) filter (where factors <> '[]')::integer as runs, count(*)::integer as closed
     from closing where closed_on >= $1`,
    [since],
  );
  return one(rows, "shop");
}

/** How the faults of all of them fall, as it was worked out when each was closed: a row for each value. */
async function manyFactors(tx: Tx, since: string): Promise<FactorRow[]> {
  const { rows } = await tx.query<Omit<FactorRow, "among"> & { among: string | null }>(
    `select f.kind, f.name, f.among, sum(f.seen)::integer as seen, sum(f.weight)::float8 as weight
     from closing as c, jsonb_to_recordset(c.factors) as f(kind text, name text, among text, seen integer, weight float8)
     where c.closed_on >= $1
     group by f.kind, f.name, f.among order by f.kind, f.name, f.among`,
    [since],
  );
  return rows.map(({ among, ...r }) => (among === null ? r : { ...r, among }));
}

async function bagsOf(tx: Tx, lots: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const { rows } = await tx.query<{ id: string; number: number }>(
    "select id, number from lot where id = any($1::uuid[])",
    [lots],
  );
  return new Map(rows.map((r) => [r.id, bagCode(r.number)]));
}
