import { serialOf, USUAL_RULE } from "../../serial/serial.ts";
import type { RunDocument } from "./document.ts";
import type { RunRecord } from "./record.ts";

/**
 * The serial number of one of the boards that are started, by the rule the run was released with. Nothing before the
 * release, and where the rule has no more numbers.
 *
 * @param unit from 1
 */
export function serialOfUnit(
  doc: Pick<RunDocument, "product" | "workshop">,
  record: Pick<RunRecord, "series">,
  unit: number,
): string | undefined {
  if (!record.series || unit < 1) return undefined;
  try {
    return serialOf(doc.workshop.serialRule || USUAL_RULE, {
      product: doc.product,
      ...record.series,
      n: unit,
    });
  } catch {
    return undefined;
  }
}
