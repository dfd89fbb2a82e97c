import { toMicros } from "../../money/money.ts";
import type { RunRecord } from "../document/record.ts";
import { type ActualTerm, asPlanned, fixedTerm, scaledTerm } from "../ledger/actual.ts";
import type { PartUse } from "../needs/usage.ts";
import { type Bought, besideOf, boughtOf, creditOf, isBesideKnown } from "../stage/paid.ts";
import type { Happened } from "../stage/stage.ts";

/**
 * Parts as they were used up, at the price of their invoices, and the parcels as they were charged. Where what is left over
 * is charged to the run, the invoices are its cost, however many boards were started.
 */
export function sourceActual({ w, planned, record, counts, uses }: Happened): ActualTerm[] {
  const bought = boughtOf({ w, record }, "parts");
  const ratio = new Map(
    bought.flatMap((b) => b.order.items.map((i) => [i.key, ratioOf(b, i.key, record)] as const)),
  );
  return planned.children.map((c) => {
    const of = { key: c.key, label: c.label, planned: c.micros as number };
    if (c.key === "parts-used") {
      const { usage, price } = usedOf(w, ratio, uses);
      const said = { ...of, ...priceOpen(ratio) };
      if (w.doc.choices.leftovers !== "expense") return scaledTerm(said, counts, usage, price);
      const isKnown = [...ratio.values()].some((r) => r !== undefined);
      return fixedTerm(said, isKnown ? of.planned * price : undefined);
    }
    if (c.key === "parts-shelf") return scaledTerm(of, counts, shelfUsage(w, uses));
    if (c.key === "parts-made") return scaledTerm(of, counts);
    if (c.key !== "parts-shipping") return asPlanned(c);
    const open = bought.filter((b) => !isBesideKnown(b)).length;
    if (open === bought.length)
      return fixedTerm({ ...of, ...(open > 0 ? { open: "what the parcels cost" } : {}) }, undefined);
    return fixedTerm(
      { ...of, ...(open > 0 ? { open: `what ${open === 1 ? "one parcel" : `${open} parcels`} cost` } : {}) },
      bought.reduce((n, b) => n + besideOf({ w }, b), 0),
    );
  });
}

/**
 * Paid for planned, what was paid back taken off, of a claim about the whole order each line's share; nothing where no
 * invoice says.
 */
function ratioOf({ order, purchase: p }: Bought, item: string, record: RunRecord): number | undefined {
  const [paid, planned] = [p?.paid[item], order.items.find((i) => i.key === item)!.total];
  if (paid === undefined || planned === 0) return undefined;
  const all = order.items.reduce((n, i) => n + i.total, 0);
  const back = creditOf(record, order.key, item) + (creditOf(record, order.key, "") * planned) / all;
  return (toMicros(paid) - back) / planned;
}

function priceOpen(ratio: ReadonlyMap<string, number | undefined>): { open?: string } {
  const n = [...ratio.values()].filter((r) => r === undefined).length;
  return n === 0 ? {} : { open: n === 1 ? "the price of one line" : `the prices of ${n} lines` };
}

/** Taken for planned; as planned where nobody counted. */
const usageOf = (use: PartUse): number =>
  use.taken === undefined || use.planned === 0 ? 1 : use.taken / use.planned;

/**
 * Means of the lines' taken for planned, and of their paid for planned, weighed by what of each is used, so that
 * planned × usage × price is the sum of the lines.
 */
function usedOf(
  { doc, needs, basket }: Happened["w"],
  ratio: ReadonlyMap<string, number | undefined>,
  uses: readonly PartUse[],
): { usage: number; price: number } {
  let [planned, taken, paid] = [0, 0, 0];
  const isExpense = doc.choices.leftovers === "expense";
  basket.lines.forEach((l, i) => {
    const pieces = l.buys.reduce((n, b) => n + b.qty, 0);
    const share = isExpense ? 1 : Math.min(1, needs[i]!.need / Math.max(1, pieces));
    const usage = isExpense ? 1 : usageOf(uses[i]!);
    for (const b of l.buys) {
      planned += b.cost * share;
      taken += b.cost * share * usage;
      paid += b.cost * share * usage * (ratio.get(b.offer) ?? 1);
    }
  });
  return { usage: planned === 0 ? 1 : taken / planned, price: taken === 0 ? 1 : paid / taken };
}

/** Mean of what was taken for what was planned, weighed by what each lot was to give. */
function shelfUsage({ needs }: Happened["w"], uses: readonly PartUse[]): number {
  let [planned, taken] = [0, 0];
  needs.forEach((n, i) => {
    const cost = n.shelf.reduce((s, t) => s + t.cost, 0);
    planned += cost;
    taken += cost * usageOf(uses[i]!);
  });
  return planned === 0 ? 1 : taken / planned;
}
