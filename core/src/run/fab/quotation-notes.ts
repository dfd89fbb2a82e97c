import type { House } from "../../fab/house.ts";
import type { RunDocument, RunQuote } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/** What a quotation is for, with the keys its notes have and what one without a basis does not say. */
const KINDS = {
  fab: { stage: "fab", key: "quote", unsaid: "for how many boards and which options it was" },
  assembly: { stage: "assemble", key: "assembly-quote", unsaid: "for how many boards it was" },
} as const;

/**
 * What is to be said of a house's quotation: that it is for something else, for nobody knows what, or past its date.
 * @param misfits how what is ordered now differs from what was quoted; empty where it holds
 */
export function quotationNotes(
  doc: RunDocument,
  house: House,
  quote: RunQuote,
  misfits: readonly string[],
  add: Add,
): void {
  const { stage, key, unsaid } = KINDS[quote.kind];
  if (misfits.length > 0) {
    add(
      stage,
      `${key}-elsewhere`,
      "warning",
      `The quotation of ${house.name} of ${quote.capturedOn} was for ${misfits.join("; for ")}. The estimate counts.`,
      { do: "Ask for a new one and type it, or remove the old one." },
    );
    return;
  }
  if (quote.question && !quote.answer)
    add(stage, `${key}-question`, "warning", `${house.name} asks: ${quote.question}`, {
      do: "Answer it beside its quotation; its price may change with the answer.",
    });
  if (!quote.basis)
    add(
      stage,
      `${key}-unbased`,
      "remark",
      `The quotation of ${house.name} does not say ${unsaid}; it is taken to hold.`,
    );
  if (quote.validUntil !== undefined && quote.validUntil < doc.today)
    add(
      stage,
      `${key}-expired`,
      "error",
      `The quotation of ${house.name} was valid until ${quote.validUntil}.`,
      { do: "Ask for a new one, or remove it to use the estimate." },
    );
}
