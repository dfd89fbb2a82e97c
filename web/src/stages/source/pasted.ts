import { decimalMark, isOpenPrice, type MarkReading, plainPrice, unitPrice } from "@kobbin/core";

export type { MarkReading };

/** Price steps read out of pasted or typed text. */
export interface PastedBreaks {
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
  readonly problem?: string;
  /** A price that can be read two ways, where nothing else in the text decides: both readings, to be asked. */
  readonly doubt?: { readonly text: string; readonly decimal: string; readonly grouped: string };
}

/** A quantity, "100", "100+", "from 1.000 pcs", "10 - 99", and behind it a price. */
const STEP =
  /^(?:from|ab|qty|>=?|≥)?\s*(\d[\d.,'’]*?)(?:\s*(?:-|–|to|bis)\s*\d[\d.,'’]*)?\s*(?:\+|x|(?:pcs|pieces|stk|st)\.?)?(?:\s*[:=;@]\s*|\s+[-–]\s+|\s+)(?=\D*\d)(.+)$/i;

/**
 * Steps from rows such as "100  0.055" or "100+: 1.234,50 EUR", one a line or tab between: a quantity and a price
 * each. Whatever else stands in a row is refused with it: a sum beside the price, another currency, a price for a hundred.
 *
 * Quantities are whole, so 1.000 is a thousand. In a price the last of two marks is the decimal one; a single mark with
 * three digits behind it is read as the other prices are written, and where they do not tell, it is asked.
 *
 * @param currency what the offer is in
 * @param reading what the person answered
 */
export function readBreaks(text: string, currency: string, reading?: MarkReading): PastedBreaks {
  const rows: { qty: number; price: string; row: number }[] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === "") continue;
    const [, first, rest] = STEP.exec(line.trim()) ?? [];
    if (!first || !rest)
      return {
        breaks: [],
        problem: `Row ${i + 1} (“${line.trim().slice(0, 30)}”) needs a quantity and a price.`,
      };
    const qty = /^\d{1,3}([.,'’]\d{3})+$/.test(first) ? Number(first.replace(/\D/g, "")) : Number(first);
    if (!Number.isInteger(qty) || qty < 1)
      return { breaks: [], problem: `Row ${i + 1}: ${first} is no quantity.` };
    if (rows.some((b) => b.qty === qty))
      return { breaks: [], problem: `Row ${i + 1}: the quantity ${qty} stands twice.` };
    const read = unitPrice(rest, currency);
    if (read.wrong !== undefined) return { breaks: [], problem: `Row ${i + 1}: ${read.wrong}.` };
    rows.push({ qty, price: read.price!, row: i + 1 });
  }
  if (rows.length === 0) return { breaks: [], problem: "Write at least one row: a quantity and a price." };
  const mark = decimalMark(rows.map((r) => r.price));
  const open = rows.find((r) => isOpenPrice(r.price));
  if (open && mark === undefined && reading === undefined) {
    const digits = open.price.replace(/\D/g, "");
    return {
      breaks: [],
      doubt: { text: open.price, decimal: open.price.replace(",", "."), grouped: digits },
    };
  }
  return {
    breaks: rows
      .map(({ qty, price }) => ({ qty, price: plainPrice(price, mark, reading) }))
      .sort((a, b) => a.qty - b.qty),
  };
}
