import { toMicros } from "../../money/money.ts";
import { type ActualTerm, asPlanned, fixedTerm, scaledTerm } from "../actual.ts";
import { type Bought, besideOf, boughtOf, isBesideKnown } from "./paid.ts";
import type { Happened } from "./stage.ts";

const USED = new Set(["parts-used", "parts-made", "parts-shelf"]);

/** Parts as they were used up, at the price of their invoices, and the parcels as they were charged. */
export function sourceActual({ w, planned, record, counts }: Happened): ActualTerm[] {
  const bought = boughtOf({ w, record }, "parts");
  const ratio = new Map(bought.flatMap((b) => b.order.items.map((i) => [i.key, ratioOf(b, i.key)] as const)));
  return planned.children.map((c) => {
    const of = { key: c.key, label: c.label, planned: c.micros as number };
    if (c.key === "parts-used")
      return scaledTerm({ ...of, ...priceOpen(ratio) }, counts, 1, priceOf(w, ratio));
    if (USED.has(c.key)) return scaledTerm(of, counts);
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

/** Paid for planned; nothing where no invoice says. */
function ratioOf({ order, purchase: p }: Bought, item: string): number | undefined {
  const [paid, planned] = [p?.paid[item], order.items.find((i) => i.key === item)!.total];
  return paid === undefined || planned === 0 ? undefined : toMicros(paid) / planned;
}

function priceOpen(ratio: ReadonlyMap<string, number | undefined>): { open?: string } {
  const n = [...ratio.values()].filter((r) => r === undefined).length;
  return n === 0 ? {} : { open: n === 1 ? "the price of one line" : `the prices of ${n} lines` };
}

/** Mean of the lines' paid for planned, weighed by what of each is used. */
function priceOf(
  { doc, needs, basket }: Happened["w"],
  ratio: ReadonlyMap<string, number | undefined>,
): number {
  let [planned, paid] = [0, 0];
  basket.lines.forEach((l, i) => {
    const pieces = l.buys.reduce((n, b) => n + b.qty, 0);
    const share = doc.choices.leftovers === "expense" ? 1 : Math.min(1, needs[i]!.need / Math.max(1, pieces));
    for (const b of l.buys) {
      planned += b.cost * share;
      paid += b.cost * share * (ratio.get(b.offer) ?? 1);
    }
  });
  return planned === 0 ? 1 : paid / planned;
}
