import { numberKey } from "./number.ts";
import { lettersOf } from "./refs.ts";
import { type BillLine, packageKey, ratingsOf, sameParts } from "./same.ts";
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
  /** Different parts that are placed, over all boards: by number, else by value and package. */
  readonly parts: number;
  /** Different values by letters of the reference, the most first: R 12, C 5. */
  readonly values: readonly { readonly letters: string; readonly count: number }[];
  /** Different packages. */
  readonly packages: number;
}

/** A value of so many pieces is a candidate to give way to its neighbour. */
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
  const numbers = new Set(placed.map((l) => numberKey(l.mpn)).filter((n) => n !== ""));
  const unnumbered = placed.filter((l) => l.mpn.trim() === "").map((l) => ({ ...l, mount: "", board: "" }));
  const alike = sameParts(unnumbered).reduce((n, s) => n + s.others.length, 0);
  return {
    parts: numbers.size + unnumbered.length - alike,
    values: [...values]
      .map(([letters, set]) => ({ letters, count: set.size }))
      .sort((a, b) => b.count - a.count),
    packages: new Set(placed.map((l) => packageKey(l.package))).size,
  };
}

/**
 * Values that could give way to a neighbour: one that one or two pieces in all have, and the nearest value of the same kind,
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
  // the same value on another board or in another line is no other part
  const pieces = new Map<string, number>();
  for (const { l, si, key } of read)
    pieces.set(`${key} ${si}`, (pieces.get(`${key} ${si}`) ?? 0) + l.refs.length);
  const piecesOf = (x: { key: string; si: number }) => pieces.get(`${x.key} ${x.si}`)!;
  const out: NearValue[] = [];
  for (const a of read) {
    if (piecesOf(a) > FEW) continue;
    const fits = read
      .filter((b) => b.key === a.key && b.si !== a.si && piecesOf(b) > piecesOf(a) && isAlike(a.l, b.l))
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
