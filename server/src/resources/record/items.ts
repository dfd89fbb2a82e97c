import { AppError, boardKey, type RunDocument, type RunOffer } from "@kobbin/core";

/** An item of an order as the released document has it. */
export interface OrderedItem {
  readonly label: string;
  /** Number the lot on the shelf gets; nothing for boards and work, which make no lot. */
  readonly mpn?: string;
  /** What a piece was to cost, and in which currency. */
  readonly unitCost: string;
  readonly currency: string;
}

const PLACE = /^(parts|boards|assembly) ([\w-]+)(?: ([A-Z]{3}))?$/;

/** Whom an order goes to and in which currency; the document says so. @throws AppError NOT_FOUND */
export function partyOf(doc: RunDocument, order: string): { name: string; currency: string } {
  const [, kind, id, other] = PLACE.exec(order) ?? [];
  const party =
    kind === "parts"
      ? doc.suppliers.find((s) => s.id === id)
      : (doc.houses ?? (doc.house ? [doc.house] : [])).find((h) => h.id === id);
  if (!party) throw unknown("That is none of the run's orders.");
  const quoted = doc.quotes.find(
    (q) => q.house === id && q.kind === (kind === "boards" ? "fab" : "assembly"),
  );
  return { name: party.name, currency: other ?? quoted?.currency ?? party.currency };
}

/** An item of an order. @throws AppError NOT_FOUND where the order has none of that key */
export function itemOf(doc: RunDocument, order: string, item: string, qty = 1): OrderedItem {
  const { currency } = partyOf(doc, order);
  if (order.startsWith("parts ")) {
    const offer = doc.offers.find((o) => o.id === item && order.startsWith(`parts ${o.supplier}`));
    const line = doc.lines.find((l) => l.id === offer?.line);
    if (!offer || !line) throw unknown("The order has no such line.");
    const part = offer.part === undefined ? undefined : doc.library?.find((p) => p.id === offer.part);
    const mpn = part?.mpn ?? (line.mpn || line.valueText || "unnamed");
    return { label: mpn, mpn, unitCost: priceOf(offer, qty), currency: offer.currency };
  }
  if (order.startsWith("boards ")) {
    const i = doc.boards.findIndex((_, at) => boardKey(doc, at) === item);
    if (i < 0) throw unknown("The order has no such board.");
    return { label: doc.boards[i]!.name, unitCost: "0", currency };
  }
  if (item !== "placing") throw unknown("The order has no such item.");
  return { label: "assembled boards", unitCost: "0", currency };
}

/** The price at which so many are sold, as it stands in the offer. */
const priceOf = (offer: RunOffer, qty: number): string =>
  String((offer.breaks.filter((b) => b.qty <= qty).at(-1) ?? offer.breaks[0]!).price);

const unknown = (text: string) =>
  new AppError("NOT_FOUND", text, "Reload the page; it shows what the run was released with.");
