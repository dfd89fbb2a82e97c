import type { MistakesOfYear } from "@kobbin/contract";
import { bagCode, type FactorRow, weighed } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";

/** So many are told where none of them stands out; where some do, no more than twice as many. */
const TOLD = 6;

/** What the faults of runs closed since a day have in common; a lot that is kept no more says nothing anyone could look at. */
export async function commonSince(tx: Tx, since: string): Promise<MistakesOfYear["common"]> {
  const closed = await manyFactors(tx, since);
  const kept = closed.filter((rows) => rows.length > 0);
  const found = weighed(kept.flat());
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
    runs: kept.length,
    closed: closed.length,
    factors: out.length > 0 ? out.slice(0, 2 * TOLD) : named.slice(0, TOLD),
  };
}

/** How the faults of each closed run fall, as it was worked out when it was closed. */
async function manyFactors(tx: Tx, since: string): Promise<(readonly FactorRow[])[]> {
  const { rows } = await tx.query<{ factors: readonly FactorRow[] }>(
    "select factors from closing where closed_on >= $1 order by closed_on, id",
    [since],
  );
  return rows.map((r) => r.factors);
}

async function bagsOf(tx: Tx, lots: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const { rows } = await tx.query<{ id: string; number: number }>(
    "select id, number from lot where id = any($1::uuid[])",
    [lots],
  );
  return new Map(rows.map((r) => [r.id, bagCode(r.number)]));
}
