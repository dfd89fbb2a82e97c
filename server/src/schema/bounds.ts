import { TOLD_FIRST, tableFact } from "./table-facts.ts";

type Rows = readonly Readonly<Record<string, unknown>>[];

/** What there is too much of in the rows of a shop, in words; nothing where they could have been written down. */
export function tooMany(rowsOf: (table: string) => Rows): string[] {
  const wrong: string[] = [];
  for (const table of TOLD_FIRST) {
    const { bound } = tableFact(table);
    if (!bound) continue;
    const { most, of, via, what } = bound;
    const owner = via && new Map(rowsOf(via.table).map((r) => [r.id, r[of!]]));
    const counts = new Map<unknown, number>();
    for (const row of rowsOf(table)) {
      const whose = owner ? owner.get(row[via!.by]) : of ? row[of] : "";
      counts.set(whose, (counts.get(whose) ?? 0) + 1);
    }
    const n = Math.max(0, ...counts.values());
    if (n > most) wrong.push(`there may be ${most} ${what}, and it holds ${n}`);
  }
  return wrong;
}
