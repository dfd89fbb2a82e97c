import { shapeOf } from "../../assembly/package-class.ts";
import { numberKey } from "../../bom/number.ts";
import type { RunLesson } from "../../learn/lesson.ts";
import { type MadeBetween, wasMade } from "../../shelf/made-between.ts";
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
  const key = numberKey(boughtNumber(doc, offerId));
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

/** Packages whose bodies burst where they took up moisture: sealed round a die, and heated from all sides. */
const SEALED: ReadonlySet<string> = new Set(["tab", "gull", "gullFine", "leadless", "ball"]);

/**
 * Whether the moisture level of what came of an offer is asked for, where boards are heated here: a sealed body that is put on by
 * machine, of which the library says none. A level stands on the bag and nowhere else, and the bag is thrown away.
 */
export function asksMoisture(doc: RunDocument, offerId: string): boolean {
  const offer = doc.offers.find((o) => o.id === offerId);
  const line = doc.lines.find((l) => l.id === offer?.line);
  if (!offer || !line || line.dnp || line.mount !== "machine") return false;
  const key = numberKey(boughtNumber(doc, offerId));
  const part = key === "" ? undefined : (doc.library ?? []).find((p) => numberKey(p.mpn) === key);
  const { kind } = shapeOf(line.package || part?.package || "", line.refs[0], true);
  return key !== "" && SEALED.has(kind) && (part?.moisture ?? "") === "";
}

/** Number of what is bought by an offer: of the library's part it is for, or of its line; empty where there is none. */
export function boughtNumber(doc: RunDocument, offerId: string): string {
  const offer = doc.offers.find((o) => o.id === offerId);
  if (offer?.part !== undefined) return doc.library?.find((p) => p.id === offer.part)?.mpn ?? "";
  return doc.lines.find((l) => l.id === offer?.line)?.mpn ?? "";
}

/** Days of a part that are doubted, and what was said of them. */
export interface DaysDoubted {
  readonly title: string;
  readonly made: MadeBetween;
}

/** A lesson of the shop, as far as it tells for whom it counts. */
export interface CountingLesson extends Pick<RunLesson, "title" | "check"> {
  readonly clearedOn?: string;
  readonly productId?: string;
  readonly relaxed?: readonly { readonly product: string }[];
}

/**
 * Days of a part that a notice doubts, as far as they count for a product: what comes of it is held against them.
 *
 * @param lessons as the shop has them today: a notice may come after the order
 * @param mpn of the part; empty says nothing
 */
export function daysDoubted(
  lessons: readonly CountingLesson[],
  mpn: string,
  productId: string,
): readonly DaysDoubted[] {
  if (mpn === "") return [];
  return lessons.flatMap(({ title, check, clearedOn, productId: only, relaxed }) =>
    check.kind === "part" &&
    check.made &&
    numberKey(check.mpn) === numberKey(mpn) &&
    clearedOn === undefined &&
    (only === undefined || only === productId) &&
    !relaxed?.some((r) => r.product === productId)
      ? [{ title, made: check.made }]
      : [],
  );
}

/** Something the shop doubts of a lot on its shelf. */
export interface LotDoubt {
  readonly id: string;
  readonly title: string;
  /** The order is stopped by it, or somebody has to look. */
  readonly level: RunLesson["level"];
  /** The one product it is about, by its id; any where left out. */
  readonly productId?: string;
  /** Days in which it may have been made, where its date code does not tell. */
  readonly perhaps?: MadeBetween;
}

/**
 * What the shop doubts of a lot today: itself, its part, or days in which it was or may have been made.
 *
 * @param today ISO date, for date codes without a century
 */
export function doubtsOfLot(
  lessons: readonly (CountingLesson & Pick<RunLesson, "id" | "level">)[],
  lot: { readonly id: string; readonly mpn: string; readonly made?: string },
  today: string,
): LotDoubt[] {
  return lessons.flatMap(({ id, title, level, check, clearedOn, productId }): LotDoubt[] => {
    if (clearedOn !== undefined) return [];
    const doubt = { id, title, level, ...(productId === undefined ? {} : { productId }) };
    if (check.kind === "lot") return check.id === lot.id ? [doubt] : [];
    if (check.kind !== "part" || numberKey(check.mpn) !== numberKey(lot.mpn)) return [];
    if (!check.made) return [doubt];
    const was = wasMade(lot.made, check.made, today);
    if (was === "outside") return [];
    return [was === "within" ? doubt : { ...doubt, perhaps: check.made }];
  });
}
