import { branch, type CostNode, leaf } from "../../costing/tree.ts";
import { convertMicros, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { rateOf } from "../document/parts.ts";
import type { BoardOrder } from "../orders/order-boards.ts";

/** What the house charges for each board of the product, by its quotation or term by term. */
export function boardsNode(doc: RunDocument, orders: readonly BoardOrder[]): CostNode {
  return branch(
    "boards",
    "Bare boards",
    orders.map((o, i) => {
      const currency = o.quoted?.currency ?? doc.house?.currency ?? doc.workshop.currency;
      const rate = rateOf(doc, currency) ?? "0";
      const note = rate === "1" ? "" : ` at ${rate}`;
      if (o.quoted)
        return leaf(`board-${i}`, o.name, [
          {
            label: "quotation",
            micros: o.micros,
            note: `${o.quoted.total} ${currency}${note}`,
            from: `quotation of ${o.quoted.capturedOn}`,
          },
        ]);
      const fixed = o.quote.sum.reduce((s, t) => s + t.fixed, 0);
      const fewer = o.quote.insteadOf;
      const why = fewer ? `; ${o.quote.pieces} cost less than ${fewer.pieces}` : "";
      const terms = o.quote.sum.map((t) => ({
        label: t.label,
        micros: convertMicros(t.micros, rate) as number,
        ...(t.note || note ? { note: `${t.note ?? ""}${t.key === "area" ? why : ""}${note}`.trim() } : {}),
        from: `profile of ${doc.house?.checkedOn ?? ""}`,
      }));
      const rate60 = toMicros(doc.workshop.hourlyRate) / 60;
      const own = (o.ownMinutes ?? 0) * rate60;
      const rounding = o.micros - terms.reduce((s, t) => s + t.micros, 0);
      if (rounding !== 0)
        terms.push({ label: "rounding", micros: rounding, from: "the house rounds its sum" });
      if (own > 0)
        terms.push({
          label: "own hours at the bench",
          micros: own,
          note: `${Number(o.ownMinutes!.toFixed(1))} min at ${doc.workshop.hourlyRate} an hour`,
          from: `profile of ${doc.house?.checkedOn ?? ""}`,
        });
      const setup = (doc.house?.bench?.setupMin ?? 0) * rate60;
      return leaf(`board-${i}`, `${o.quote.pieces} × ${o.name}`, terms, convertMicros(fixed, rate) + setup);
    }),
  );
}
