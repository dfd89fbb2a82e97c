import { fitOptions } from "../../fab/fit-options.ts";
import { boardKey } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { BareKept, BoardMeasured, RunPhoto } from "../document/record.ts";
import { measurePoints } from "../stage/calliper-points.ts";

/** Kinds of sizes that a house is known by: what it holds of one says nothing of another. */
export const SIZE_KINDS = {
  thickness: "thickness",
  outline: "outline",
  slot: "slots",
  plated: "plated holes",
  unplated: "unplated holes",
} as const;
export type SizeKind = keyof typeof SIZE_KINDS;

/** A size as it was read on the boards of a lot that were measured. */
export interface LotSize {
  readonly key: string;
  readonly kind: SizeKind;
  readonly what: string;
  /** As ordered, and what the order allowed more or less. */
  readonly mm: number;
  readonly tolMm: number;
  readonly values: readonly number[];
}

/** A lot of bare boards that came for another run. */
export interface LotBefore {
  readonly run: string;
  readonly runName: string;
  readonly product: string;
  readonly revision: string;
  readonly board: string;
  /** Kinds of boards the product had then. */
  readonly boards: number;
  /** Whether it is the same product. */
  readonly isSame: boolean;
  readonly item: string;
  readonly house?: { readonly id: string; readonly name: string };
  /** ISO date of the first delivery. */
  readonly on: string;
  readonly came: number;
  readonly apart: number;
  readonly measured: number;
  readonly sizes: readonly LotSize[];
  readonly kept: readonly BareKept[];
  /** Photos of it at agreed spots. */
  readonly photos: readonly (RunPhoto & { readonly spot: string })[];
}

/** Whether a lot is of a board of this run: of the same product its only one, or the one of that name. */
export const isOfBoard = (
  lot: Pick<LotBefore, "isSame" | "board" | "boards">,
  doc: Pick<RunDocument, "boards">,
  index: number,
): boolean =>
  lot.isSame && (lot.board === doc.boards[index]!.name || (lot.boards === 1 && doc.boards.length === 1));

/** What of a run's document says what was ordered of its boards. */
export type MadeOf = Pick<RunDocument, "boards" | "house" | "options" | "fits">;

/** Sizes of a lot as far as they were read: what was ordered by the document of its run, what was read by the record. */
export function lotSizes(doc: MadeOf, measured: readonly BoardMeasured[], index: number): LotSize[] {
  const item = boardKey(doc, index);
  const mine = measured.filter((b) => b.item === item);
  if (mine.length === 0) return [];
  const thickness = doc.house ? fitOptions(doc.house, doc.options).thickness : doc.options.thickness;
  return measurePoints(doc, doc.boards[index]!, thickness).flatMap((p): LotSize[] => {
    const values = mine.flatMap((b) => b.readings[p.key] ?? []);
    if (values.length === 0) return [];
    return [{ key: p.key, kind: kindOf(p), what: p.what, mm: p.mm, tolMm: p.tolMm, values }];
  });
}

const kindOf = (p: { readonly key: string; readonly what: string }): SizeKind =>
  p.key === "thickness"
    ? "thickness"
    : p.key === "width" || p.key === "height"
      ? "outline"
      : p.key.startsWith("slot")
        ? "slot"
        : p.what.startsWith("plated")
          ? "plated"
          : "unplated";

/** How the sizes of one kind came from one house, over its lots. */
export interface HouseTrend {
  readonly house: string;
  readonly kind: SizeKind;
  readonly lots: number;
  readonly readings: number;
  /** Mean of the lots' means, mm over (or under) what was ordered; and as a share of what the order allows. */
  readonly offMm: number;
  readonly offShare: number;
  /** Readings beyond what the order allowed. */
  readonly outside: number;
  /** Said where chance does not make it in nineteen of twenty: of {@link LEAST_LOTS} lots and more. */
  readonly tends?: "over" | "under";
}

/** Fewer lots say nothing of a house. */
export const LEAST_LOTS = 3;

/** Student's t, two-sided 95 %, for 2 to 10 degrees of freedom (a standard table, recalled); beyond, the last: it claims less. */
const T95 = [4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228];

/**
 * What lots of a house tell of how it makes sizes of a kind. Lots are counted, not readings: boards of one lot come from one
 * drilling and one press, and are no news of each other. A tendency is said where the mean of the lots' means, each a share of
 * what its order allowed, is beyond t · s / √n.
 *
 * @param lots with their house and sizes; those without a house or readings say nothing
 * @returns by house in the order they come, then by kind
 */
export function houseTrends(
  lots: readonly { readonly house?: { readonly id: string }; readonly sizes: readonly LotSize[] }[],
): HouseTrend[] {
  const byHouse = new Map<
    string,
    Map<SizeKind, { mm: number; share: number; n: number; outside: number }[]>
  >();
  for (const { house, sizes } of lots) {
    if (!house) continue;
    for (const kind of Object.keys(SIZE_KINDS) as SizeKind[]) {
      const read = sizes
        .filter((s) => s.kind === kind && s.tolMm > 0)
        .flatMap((s) => s.values.map((v) => ({ off: v - s.mm, tol: s.tolMm })));
      if (read.length === 0) continue;
      const of = byHouse.get(house.id) ?? new Map();
      byHouse.set(house.id, of);
      of.set(kind, [
        ...(of.get(kind) ?? []),
        {
          mm: mean(read.map((x) => x.off)),
          share: mean(read.map((x) => x.off / x.tol)),
          n: read.length,
          outside: read.filter((x) => Math.abs(x.off) > x.tol + 1e-9).length,
        },
      ]);
    }
  }
  return [...byHouse].flatMap(([house, kinds]) =>
    [...kinds].map(([kind, list]): HouseTrend => {
      const shares = list.map((l) => l.share);
      const tends = tendency(shares);
      return {
        house,
        kind,
        lots: list.length,
        readings: list.reduce((n, l) => n + l.n, 0),
        offMm: mean(list.map((l) => l.mm)),
        offShare: mean(shares),
        outside: list.reduce((n, l) => n + l.outside, 0),
        ...(tends ? { tends } : {}),
      };
    }),
  );
}

/** Less than this share of what an order allows is nobody's concern, whatever is sure of it. */
export const LEAST_SHARE = 0.1;

function tendency(shares: readonly number[]): "over" | "under" | undefined {
  const n = shares.length;
  if (n < LEAST_LOTS) return undefined;
  const m = mean(shares);
  const s = Math.sqrt(shares.reduce((sum, v) => sum + (v - m) ** 2, 0) / (n - 1));
  const t = T95[Math.min(n - 3, T95.length - 1)]!;
  if (Math.abs(m) < LEAST_SHARE || Math.abs(m) <= (t * s) / Math.sqrt(n)) return undefined;
  return m > 0 ? "over" : "under";
}

const mean = (list: readonly number[]): number => list.reduce((n, v) => n + v, 0) / list.length;
