import { type CurvePoint, quotedOf } from "@kobbin/core";
import { amount, count } from "../ui/text/format.ts";

/** What of the curve is no price: beyond the stock, and where nothing prices a line. */
export function CurveSays({
  curve,
  goodBoards,
  isDashed = false,
}: {
  curve: readonly CurvePoint[];
  goodBoards: number;
  /** Its estimates are drawn so. */
  isDashed?: boolean;
}) {
  const from = curve.find((p) => p.isEstimate);
  const open = curve.find((p) => p.quantity === goodBoards)?.unpriced ?? curve[0]?.unpriced;
  const quoted = quotedOf(curve);
  if (!from && !open && !quoted) return null;
  return (
    <p className="mt-1 text-[14px] text-ink-2" data-testid="curve-says">
      {quoted &&
        `At ${quoted.quantities.join(", ")} the quotation of ${quoted.names.join(" and ")} counts; at the other quantities their estimates do, so a step there may be one of the prices alone. `}
      {from &&
        `From ${from.quantity} on more is needed than is in stock: an estimate${isDashed ? " (dashed)" : ""}, the known prices carried on as if there were more. `}
      {open !== undefined && open > 0 && (
        <span className="font-semibold text-stop">
          {count(open, "thing")} that nothing prices {open === 1 ? "is" : "are"} left out: the whole curve is
          at least so much.
        </span>
      )}
    </p>
  );
}

/** A point of a curve in words: what it is, and what of it is no price. */
export const pointWords = (p: CurvePoint | undefined, value: number, currency: string): string =>
  `${p?.unpriced ? "at least " : ""}${amount(value, currency)} ${currency} each${p?.isEstimate ? ", an estimate beyond stock" : ""}${p?.quoted ? `, by the quotation of ${p.quoted.join(" and ")}` : ""}`;
