import { microsToText } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import { withVariant } from "../document/bill/structure.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunPurchase, RunRecord } from "../document/record.ts";
import { invoicesOf } from "../orders/invoice.ts";
import type { PlannedOrder } from "./planned-orders.ts";

/** One line of a purchase order (domain.md 9.1). */
export interface PurchaseLine {
  readonly n: number;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly package: string;
  readonly qty: number;
  /** Decimal text in the order's currency, up to six places. */
  readonly unitPrice: string;
  /** As it will be invoiced, decimal text. */
  readonly total: string;
  /** Charged once for the line beside its pieces; left out where there is none. */
  readonly fee?: string;
  readonly packaging: string;
  readonly restriction: string;
}

/** A purchase order as paper: to whom, from whom, what at which price. */
export interface PurchaseOrder {
  /** Year, the shop's release, and which of its orders; the run's name where it has none yet. */
  readonly number: string;
  readonly supplier: string;
  readonly buyer: string;
  /** Where parcels go, in lines; empty where the shop has not said. */
  readonly address: readonly string[];
  readonly product: string;
  readonly run: string;
  readonly currency: string;
  readonly orderedOn?: string;
  readonly promisedOn?: string;
  readonly lines: readonly PurchaseLine[];
  /** Sum of the lines, as rounded there. */
  readonly subtotal: string;
}

/**
 * A supplier's purchase order, from what was released: lines as they will be invoiced, their sum, and a number of the shop's
 * own series (domain.md 9.1). Freight and tax are the supplier's to say.
 *
 * @returns nothing of an order that buys no parts
 * @param orders all of the run, in their order: the number says which of them it is
 */
export function purchaseOrder(
  doc: RunDocument,
  basket: Basket,
  o: PlannedOrder,
  orders: readonly PlannedOrder[],
  { series, purchases }: Pick<RunRecord, "series" | "purchases">,
): PurchaseOrder | undefined {
  const invoice = invoicesOf(doc, basket).find((i) => i.supplier === o.party && i.currency === o.currency);
  if (o.kind !== "parts" || !invoice) return undefined;
  const p: RunPurchase | undefined = purchases.find((x) => x.order === o.key);
  const lines = new Map(withVariant(doc).lines.map((l) => [l.id, l]));
  const parts = new Map((doc.library ?? []).map((x) => [x.id, x]));
  const numbers = new Map(o.items.map((x) => [x.key, x.mpn]));
  const place = orders.findIndex((x) => x.key === o.key) + 1;
  return {
    number: series ? `${series.year}-${series.batch}-${place}` : `${doc.name}, ${place}`,
    supplier: o.name,
    buyer: doc.workshop.name,
    address: (doc.workshop.address ?? "")
      .split("\n")
      .map((l) => l.trim())
      .filter((l) => l !== ""),
    product: `${doc.product} ${doc.revision}`,
    run: doc.name,
    currency: o.currency,
    ...(p?.orderedOn ? { orderedOn: p.orderedOn } : {}),
    ...(p?.promisedOn ? { promisedOn: p.promisedOn } : {}),
    lines: invoice.lines.map(({ line: id, offer, buy, unitPrice, fee, total }, i): PurchaseLine => {
      const line = lines.get(id);
      // of a part that stands in for another, what the library says of it
      const part = offer.part === undefined ? undefined : parts.get(offer.part);
      return {
        n: i + 1,
        mpn: numbers.get(offer.id) ?? "",
        maker: (part ? part.maker : line?.maker) ?? "",
        description: (part ? part.description : line?.description || line?.valueText) ?? "",
        package: (part ? part.package : line?.package) ?? "",
        qty: buy.qty,
        unitPrice: microsToText(unitPrice),
        total: microsToText(total),
        ...(fee > 0 ? { fee: microsToText(fee) } : {}),
        packaging: offer.packaging ?? "",
        restriction: offer.restriction ?? "",
      };
    }),
    subtotal: microsToText(invoice.total),
  };
}

/** Rows as most suppliers’ forms take them: number, quantity, and which line of the order it is, parted by tabs. */
export const purchaseRows = (o: PurchaseOrder): string =>
  o.lines.map((l) => [l.mpn, l.qty, `${o.number}/${l.n}`].join("\t")).join("\n");
