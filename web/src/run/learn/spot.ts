import type { NewErratumBody } from "@kobbin/contract";
import { typedNumber } from "../../ui/text/format.ts";

/** Around a part's pins or a place that much is compared between revisions, mm. */
const AROUND_MM = { ref: 0.4, at: 2 };

/** A part, a pin, a place in mm from the lower left corner as `6.5 / 34`, or nothing; undefined where it is none of them. */
export function spotOf(text: string): NewErratumBody["spot"] | undefined {
  const t = text.trim();
  if (t === "") return { side: "top", diameterMm: AROUND_MM.ref };
  const two = /^([\d.,]+)\s*(?:mm)?\s*(?:\/|;|\s)\s*([\d.,]+)\s*(?:mm)?$/.exec(t);
  if (two) {
    const [x, y] = [Number(typedNumber(two[1]!)), Number(typedNumber(two[2]!))];
    return x <= 10_000 && y <= 10_000 ? { at: [x, y], side: "top", diameterMm: AROUND_MM.at } : undefined;
  }
  return /^[A-Za-z_]+\d[\w.+-]*$/.test(t) ? { ref: t, side: "top", diameterMm: AROUND_MM.ref } : undefined;
}
