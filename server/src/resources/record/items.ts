import { AppError, boardKey, orderOf, type RunDocument } from "@kobbin/core";

/** An item of an order as the released document has it. */
export interface OrderedItem {
  readonly label: string;
  /** What the lot on the shelf is of; nothing for boards and work, which make no lot. */
  readonly lot?: { readonly mpn: string; readonly currency: string };
}

/**
 * Whom an order goes to, and in which currencies it may be: a house's own, or that of its quotation. Which of the two
 * counts hangs on figures; the page knows it and says it.
 *
 * @throws AppError NOT_FOUND
 */
export function partyOf(doc: RunDocument, order: string): { name: string; currencies: readonly string[] } {
  const { kind, party: id, currency: other } = orderOf(order);
  if (kind === "parts") {
    const supplier = doc.suppliers.find((s) => s.id === id);
    if (!supplier) throw unknown("That is none of the run's orders.");
    return { name: supplier.name, currencies: [other ?? supplier.currency] };
  }
  const house = (doc.houses ?? (doc.house ? [doc.house] : [])).find((h) => h.id === id);
  if (!house) throw unknown("That is none of the run's orders.");
  const quoted = doc.quotes.filter(
    (q) => q.house === id && q.kind === (kind === "boards" ? "fab" : "assembly"),
  );
  return { name: house.name, currencies: [house.currency, ...quoted.map((q) => q.currency)] };
}

/**
 * So much of an item comes at once without being asked about: a hundred times what the run needs, and whole reels of it
 * beside.
 *
 * @throws AppError OUT_OF_RANGE where it is more: mostly a slip of the hand, which would stand on the shelf
 */
export function checkCame(doc: RunDocument, item: string, label: string, qty: number): void {
  const offer = doc.offers.find((o) => o.id === item);
  const each = doc.lines.find((l) => l.id === offer?.line)?.qty ?? 1;
  const most = 100 * Math.ceil(doc.goodBoards * Math.max(1, each)) + 20_000;
  if (qty <= most) return;
  throw new AppError(
    "OUT_OF_RANGE",
    `${qty} × ${label} is more than a hundred times what a run of ${doc.goodBoards} boards needs.`,
    `Look at the number again. If so many came, say that the number is right and count them once more.`,
  );
}

/** An item of an order. @throws AppError NOT_FOUND where the order has none of that key */
export function itemOf(doc: RunDocument, order: string, item: string): OrderedItem {
  const { kind, party } = orderOf(order);
  if (kind === "parts") {
    const offer = doc.offers.find((o) => o.id === item && o.supplier === party);
    const line = doc.lines.find((l) => l.id === offer?.line);
    if (!offer || !line) throw unknown("The order has no such line.");
    const part = offer.part === undefined ? undefined : doc.library?.find((p) => p.id === offer.part);
    const mpn = part?.mpn ?? (line.mpn || line.valueText || "unnamed");
    return { label: mpn, lot: { mpn, currency: offer.currency } };
  }
  if (kind === "boards") {
    return { label: boardNamed(doc, item) };
  }
  if (item !== "placing") throw unknown("The order has no such item.");
  return { label: "assembled boards" };
}

/** Name of a run's board by the key its orders use. @throws AppError NOT_FOUND */
export function boardNamed(doc: RunDocument, item: string): string {
  const guest = doc.guests?.find((g) => `guest ${g.id}` === item);
  if (guest) return `${guest.name}, for ${guest.product}`;
  const i = doc.boards.findIndex((_, at) => boardKey(doc, at) === item);
  if (i < 0) throw unknown("The order has no such board.");
  return doc.boards[i]!.name;
}

const unknown = (text: string) =>
  new AppError("NOT_FOUND", text, "Reload the page; it shows what the run was released with.");
