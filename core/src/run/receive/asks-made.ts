import { numberKey } from "../../bom/number.ts";
import type { RunDocument } from "../document/document.ts";

/** What goes off while it lies, by what it is called. */
const AGES = /\b(cells?|batter(y|ies)|accumulators?|electrolytic|supercap(acitor)?s?|paste|flux)\b/i;

/**
 * Why the date code of what came of an offer is asked for; undefined where it matters to nobody: parts that must not lie in the
 * air, that age on the shelf, that came from where nobody answers for them, or whose offer binds one to a date.
 */
export function asksMade(doc: RunDocument, offerId: string): string | undefined {
  const offer = doc.offers.find((o) => o.id === offerId);
  const line = doc.lines.find((l) => l.id === offer?.line);
  if (!offer || !line) return undefined;
  const key = numberKey(offer.part ?? line.mpn ?? "");
  const part = (doc.library ?? []).find((p) => numberKey(p.mpn) === key);
  const supplier = doc.suppliers.find((s) => s.id === offer.supplier);
  if (/\bdate/i.test(offer.restriction ?? "")) return `its offer says: ${offer.restriction}`;
  if (part?.moisture) return "a bag that was sealed long ago is no dry bag";
  if (AGES.test([line.description, line.valueText, part?.description].join(" ")))
    return "it ages while it lies";
  if (supplier?.sourceClass && supplier.sourceClass !== "authorised")
    return "it is not from its maker’s own seller: one lot has one date";
  return undefined;
}
