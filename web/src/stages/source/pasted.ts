/** Price steps read out of pasted or typed text. */
export interface PastedBreaks {
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
  readonly problem?: string;
}

/**
 * Steps from rows such as "100  0.055" or "100+: 0,055 EUR", one a line or tab between: the first whole number is the
 * quantity, the last number the price; a decimal comma is read as a point.
 */
export function readBreaks(text: string): PastedBreaks {
  const breaks: { qty: number; price: string }[] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === "") continue;
    const numbers = line.match(/\d+(?:[.,]\d+)?/g) ?? [];
    const [first, last] = [numbers[0], numbers.at(-1)];
    if (!first || !last || numbers.length < 2)
      return {
        breaks,
        problem: `Row ${i + 1} (“${line.trim().slice(0, 30)}”) needs a quantity and a price.`,
      };
    const qty = Number(first.replace(",", "."));
    const price = last.replace(",", ".");
    if (!Number.isInteger(qty) || qty < 1)
      return { breaks, problem: `Row ${i + 1}: ${first} is no quantity.` };
    if (breaks.some((b) => b.qty === qty))
      return { breaks, problem: `Row ${i + 1}: the quantity ${qty} stands twice.` };
    breaks.push({ qty, price });
  }
  return breaks.length === 0
    ? { breaks, problem: "Write at least one row: a quantity and a price." }
    : { breaks: breaks.sort((a, b) => a.qty - b.qty) };
}
