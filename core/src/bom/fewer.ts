import { lettersOf } from "./refs.ts";
import { type BillLine, packageKey, ratingsOf } from "./same.ts";
import { readValue } from "./value.ts";

/** A value the bill has a few times only, beside one near it that it has more often. */
export interface NearValue {
  /** The line with few pieces. */
  readonly few: string;
  /** The line whose part it could take. */
  readonly many: string;
  /** Value of the many less that of the few, as a share of the few. */
  readonly share: number;
}

/** How many different things a bill asks for. */
export interface BillSpread {
  /** Lines that are placed. */
  readonly parts: number;
  /** Different values by letters of the reference, the most first: R 12, C 5. */
  readonly values: readonly { readonly letters: string; readonly count: number }[];
  /** Different packages on the board. */
  readonly packages: number;
}

/** A line of so many pieces on a board is a candidate to take its neighbour's value. */
const FEW = 2;
/** Values further apart are no neighbours: about two steps of the E12 series. */
const NEAR = 0.35;

export function spreadOf(lines: readonly BillLine[]): BillSpread {
  const placed = lines.filter((l) => !l.dnp && l.refs.length > 0);
  const values = new Map<string, Set<number>>();
  for (const l of placed) {
    const { value } = readValue(l.valueText, l.refs[0]);
    if (!value) continue;
    const letters = lettersOf(l.refs[0]!);
    values.set(letters, (values.get(letters) ?? new Set()).add(value.si));
  }
  return {
    parts: placed.length,
    values: [...values]
      .map(([letters, set]) => ({ letters, count: set.size }))
      .sort((a, b) => b.count - a.count),
    packages: new Set(placed.map((l) => packageKey(l.package))).size,
  };
}

/**
 * Values that could give way to a neighbour: a line of one or two pieces, and the nearest value of the same kind,
 * package and mounting that more pieces have. Whether the circuit bears it is the person's to say: a divider, a filter or
 * a crystal's capacitors may not. Ratings that are stated and differ part them.
 *
 * @returns the nearest first; crystals and what has no value are left out
 */
export function nearValues(lines: readonly BillLine[]): NearValue[] {
  const read = lines.flatMap((l) => {
    if (l.dnp || l.refs.length === 0 || l.package === "") return [];
    const { value } = readValue(l.valueText, l.refs[0]);
    if (!value || value.si <= 0 || value.unit === "hertz") return [];
    const key = `${lettersOf(l.refs[0]!)} ${packageKey(l.package)} ${l.mount}`;
    return [{ l, si: value.si, key }];
  });
  const out: NearValue[] = [];
  for (const a of read) {
    if (a.l.refs.length > FEW) continue;
    const fits = read
      .filter(
        (b) => b.key === a.key && b.si !== a.si && b.l.refs.length > a.l.refs.length && isAlike(a.l, b.l),
      )
      .map((b) => ({ few: a.l.id, many: b.l.id, share: b.si / a.si - 1 }))
      .filter((x) => Math.abs(x.share) <= NEAR)
      .sort((x, y) => Math.abs(x.share) - Math.abs(y.share));
    if (fits[0]) out.push(fits[0]);
  }
  return out.sort((x, y) => Math.abs(x.share) - Math.abs(y.share));
}

function isAlike(a: BillLine, b: BillLine): boolean {
  const [x, y] = [ratingsOf(a), ratingsOf(b)];
  return (["tolerance", "voltage", "power", "dielectric"] as const).every(
    (k) => x[k] === undefined || y[k] === undefined || x[k] === y[k],
  );
}
