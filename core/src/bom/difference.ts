import { numberKey } from "./number.ts";
import { compareRefs } from "./refs.ts";
import { packageKey } from "./same.ts";

/** What is looked at of a line. */
export interface DifferLine {
  readonly refs: readonly string[];
  readonly qty: number;
  readonly valueText: string;
  readonly package: string;
  readonly mpn: string;
  readonly dnp: boolean;
  /** What its board is called in both bills, where the product has several. */
  readonly board?: string;
}

/** References that had one part and have another, or are there in one bill only. */
export interface Difference {
  readonly kind: "added" | "removed" | "changed" | "counted";
  readonly refs: readonly string[];
  readonly was?: string;
  readonly now?: string;
  /** Pieces a product, for what has no references. */
  readonly qtyWas?: number;
  readonly qtyNow?: number;
}

/** Pieces on the shelf that nothing asks for any more. */
export interface Useless {
  readonly mpn: string;
  readonly qty: number;
  /** What they cost, in whatever the lots are given in. */
  readonly value: number;
}

/** Two bills against each other. */
export interface BillDifference {
  readonly differences: readonly Difference[];
  /** Pieces a product by number: was, now; only where they differ. */
  readonly numbers: readonly { readonly mpn: string; readonly was: number; readonly now: number }[];
  readonly unchanged: number;
}

/** What a line's part is called, and the key under which it is the same part. */
const identity = (l: DifferLine) => ({
  key:
    l.mpn !== ""
      ? `number ${numberKey(l.mpn)}`
      : `${l.valueText.toUpperCase().replace(/\s+/g, " ")}|${packageKey(l.package)}`,
  words: [l.mpn || l.valueText, l.mpn ? "" : l.package].filter((t) => t !== "").join(" "),
});

/**
 * What differs between two bills, reference by reference, alike changes together.
 *
 * A reference that is not placed counts as not there. Lines without references are matched by what they are. Order and
 * spelling of numbers and packages make no difference.
 */
export function billDifference(was: readonly DifferLine[], now: readonly DifferLine[]): BillDifference {
  const byRef = (lines: readonly DifferLine[]) =>
    new Map(
      lines
        .filter((l) => !l.dnp)
        .flatMap((l) =>
          l.refs.map((r) => [r.toUpperCase() + (l.board ? ` of ${l.board}` : ""), identity(l)] as const),
        ),
    );
  const [before, after] = [byRef(was), byRef(now)];
  const groups = new Map<string, { kind: Difference["kind"]; refs: string[]; was?: string; now?: string }>();
  let unchanged = 0;
  for (const ref of new Set([...before.keys(), ...after.keys()])) {
    const [a, b] = [before.get(ref), after.get(ref)];
    if (a && b && a.key === b.key) {
      unchanged++;
      continue;
    }
    const key = `${a?.key ?? ""}→${b?.key ?? ""}`;
    const group = groups.get(key) ?? {
      kind: a && b ? ("changed" as const) : a ? ("removed" as const) : ("added" as const),
      refs: [],
      ...(a ? { was: a.words } : {}),
      ...(b ? { now: b.words } : {}),
    };
    group.refs.push(ref);
    groups.set(key, group);
  }
  const loose = (lines: readonly DifferLine[]) => {
    const out = new Map<string, { words: string; qty: number }>();
    for (const l of lines) {
      if (l.dnp || l.refs.length > 0) continue;
      const { key, words } = identity(l);
      out.set(key, { words, qty: (out.get(key)?.qty ?? 0) + l.qty });
    }
    return out;
  };
  const [x, y] = [loose(was), loose(now)];
  const counted: Difference[] = [];
  for (const key of new Set([...x.keys(), ...y.keys()])) {
    const [a, b] = [x.get(key), y.get(key)];
    if (a && b && a.qty === b.qty) {
      unchanged++;
      continue;
    }
    counted.push({
      kind: a && b ? "counted" : a ? "removed" : "added",
      refs: [],
      ...(a ? { was: a.words, qtyWas: a.qty } : {}),
      ...(b ? { now: b.words, qtyNow: b.qty } : {}),
    });
  }
  const order = { changed: 0, added: 1, removed: 2, counted: 3 };
  const differences = [
    ...[...groups.values()].map((g) => ({ ...g, refs: g.refs.sort(compareRefs) })),
    ...counted,
  ].sort((a, b) => order[a.kind] - order[b.kind] || compareRefs(a.refs[0] ?? "", b.refs[0] ?? ""));
  return { differences, numbers: numbersOf(was, now), unchanged };
}

function numbersOf(was: readonly DifferLine[], now: readonly DifferLine[]): BillDifference["numbers"] {
  const out = new Map<string, { mpn: string; was: number; now: number }>();
  for (const [lines, side] of [
    [was, "was"],
    [now, "now"],
  ] as const)
    for (const l of lines) {
      if (l.dnp || l.mpn === "") continue;
      const key = numberKey(l.mpn);
      const row = out.get(key) ?? { mpn: l.mpn, was: 0, now: 0 };
      row[side] += l.qty;
      out.set(key, row);
    }
  return [...out.values()].filter((r) => r.was !== r.now);
}

/**
 * What lies on the shelf of numbers a new bill no longer asks for, and no other bill does.
 *
 * @param lots pieces with what each cost
 * @param isUsedElsewhere whether a bill other than the old one names the number
 */
export function uselessStock(
  d: BillDifference,
  lots: readonly { readonly mpn: string; readonly qty: number; readonly unitCost: number }[],
  isUsedElsewhere: (mpn: string) => boolean,
): Useless[] {
  return d.numbers
    .filter((n) => n.now === 0 && !isUsedElsewhere(n.mpn))
    .flatMap((n) => {
      const own = lots.filter((l) => numberKey(l.mpn) === numberKey(n.mpn) && l.qty > 0);
      const qty = own.reduce((s, l) => s + l.qty, 0);
      return qty === 0 ? [] : [{ mpn: n.mpn, qty, value: own.reduce((s, l) => s + l.qty * l.unitCost, 0) }];
    })
    .sort((a, b) => b.value - a.value);
}
