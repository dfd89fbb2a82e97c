/** Values at and beyond the edges of what a field may hold. */
const LONG = "x".repeat(3_000_000);
const PROBES: Readonly<Record<string, unknown>> = {
  nothing: null,
  empty: "",
  long: LONG,
  less: -1e300,
  half: 0.5,
  huge: 1e300,
  yes: true,
  list: [],
  "list of long": [LONG],
  "list of huge": [1e300],
  "long list": Array.from({ length: 2_000_001 }, () => 0),
  record: {},
  "record of long": { a: LONG },
  "record of huge": { a: 1e300 },
  "long record": Object.fromEntries(Array.from({ length: 200_001 }, (_, i) => [String(i), ""])),
};

/** One function judges many fields: what it says of the probes is asked once. */
const judged = new Map<unknown, Record<string, string>>();

/**
 * A table of fields as it is kept: in place of each function that judges a value, which values it takes and what it says to
 * the others, each sentence once.
 */
export function withBounds(table: unknown): unknown {
  if (typeof table === "function") {
    const known = judged.get(table);
    if (known) return known;
    const judge = table as (v: unknown, path: string) => string | undefined;
    const said = Object.entries(PROBES).map(([name, probe]) => [name, judge(probe, "it")] as const);
    const why = new Set(said.flatMap(([, wrong]) => (wrong === undefined ? [] : [wrong.slice(0, 160)])));
    const taken = said.filter(([, wrong]) => wrong === undefined).map(([name]) => name);
    const kept = { takes: taken.join(", "), ...Object.fromEntries([...why].map((w, i) => [`else ${i}`, w])) };
    judged.set(table, kept);
    return kept;
  }
  if (typeof table !== "object" || table === null || Array.isArray(table)) return table;
  return Object.fromEntries(Object.entries(table).map(([key, v]) => [key, withBounds(v)]));
}
