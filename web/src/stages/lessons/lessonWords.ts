import type {
  BuiltWith,
  LearnedAnswer,
  OpenInRun,
  ShopErratum,
  ShopLesson,
  ShopReport,
} from "@kobbin/contract";
import { contradictionOf, lessonWords, type WasMade } from "@kobbin/core";
import { isOpen } from "../../run/owners/told.ts";
import { count } from "../../ui/text/format.ts";

/** Revisions of an erratum's product that nobody has decided on. */
export const undecided = (
  e: Pick<ShopErratum, "revisionId" | "decisions">,
  revisions: LearnedAnswer["products"][number]["revisions"],
) => revisions.filter((r) => r.id !== e.revisionId && e.decisions[r.id] === undefined);

/** Boards that have a fault and went out: those of its revision, and of those in which it was left. */
export const outWith = (
  products: LearnedAnswer["products"],
  e: Pick<ShopErratum, "productId" | "revisionId" | "decisions">,
): number =>
  (products.find((p) => p.id === e.productId)?.revisions ?? [])
    .filter((r) => r.id === e.revisionId || e.decisions[r.id]?.is === "stays")
    .reduce((n, r) => n + r.out, 0);

/** The whole page in a sentence: what counts, what does not hold now, what is still to be decided. */
export function saysAll({ lessons, errata, products, uncounted, reports }: LearnedAnswer): string {
  const counting = lessons.filter((l) => l.clearedOn === undefined);
  const stands = counting.map((l) => standOf(l));
  const broken = stands.filter((s) => s === "broken").length;
  const looks = stands.filter((s) => s === "look").length;
  const caught = lessons.reduce((n, l) => n + l.caught.length, 0);
  const open = errata.filter(
    (e) => undecided(e, products.find((p) => p.id === e.productId)?.revisions ?? []).length > 0,
  ).length;
  const waiting = reports.filter(isOpen).length;
  if (lessons.length + errata.length + reports.length === 0) return "Nothing is written down yet.";
  return `${[
    `${count(counting.length, "lesson")} ${counting.length === 1 ? "counts" : "count"}`,
    broken > 0 && `${broken} ${broken === 1 ? "does" : "do"} not hold in an open run`,
    looks > 0 && `${looks} ${looks === 1 ? "is" : "are"} to be looked at`,
    broken + looks + uncounted === 0 && "nothing of it is open in a run",
    uncounted > 0 && `how they stand in ${count(uncounted, "open run")} is not known yet`,
    caught > 0 ? `caught ${count(caught, "revision")} so far` : "none has caught anything yet",
    open > 0 ? `${count(open, "fault")} not decided on` : "no fault is left undecided",
    waiting > 0 && `${count(waiting, "owner")} not answered`,
  ]
    .filter((x) => x !== false)
    .join("; ")}.`;
}

/** How a lesson stands over all open runs: the worst of what nobody has accepted. */
export function standOf({ runs }: Pick<ShopLesson, "runs">): "broken" | "look" | "accepted" | "nothing" {
  const open = runs.filter((r) => r.because === undefined);
  if (open.some((r) => r.is === "broken")) return "broken";
  return open.length > 0 ? "look" : runs.length > 0 ? "accepted" : "nothing";
}

const IS: Readonly<Record<OpenInRun["is"], string>> = {
  broken: "does not hold",
  ask: "to be answered",
  "not-there": "what it is about is not there",
  unknown: "cannot be told",
};

/** How it stands in one run. */
export const saysRun = (r: OpenInRun): string =>
  r.because === undefined ? IS[r.is] : `${IS[r.is]}, accepted: ${r.because}`;

/** What one row says, as it is searched in. */
function wordsOf(x: ShopLesson | ShopErratum | ShopReport): string {
  if ("says" in x)
    return [x.says, x.conditions, x.workaround, x.answer, x.product, x.revision ?? "", x.run ?? ""].join(" ");
  return "check" in x
    ? [
        x.title,
        lessonWords(x.check),
        x.came,
        x.evidence,
        x.product ?? "",
        ...x.caught.flatMap((c) => [c.product, c.found]),
      ].join(" ")
    : [x.title, x.effect, x.workaround, x.product, x.revision, x.spot.ref ?? "", x.evidence].join(" ");
}

/** Whether every word that is asked for begins a word of it. */
export function fitsSearch(x: ShopLesson | ShopErratum | ShopReport, asked: string): boolean {
  const words = wordsOf(x).toLowerCase();
  return asked
    .toLowerCase()
    .split(/\s+/)
    .every((w) => words.includes(w));
}

/**
 * How far something that is doubted went in a run: "8 boards for certain, of 21 begun"; where no board is known, as many as
 * were begun, with where it is.
 */
export function saysBuilt(b: Pick<BuiltWith, "begun" | "good" | "units" | "places" | "bags">): string {
  if (b.units !== undefined)
    return `${count(b.units, "board")} for certain, of ${Math.max(b.begun, b.units)} begun`;
  const few =
    b.places.length <= 6
      ? b.places.join(", ")
      : `${b.places.slice(0, 6).join(", ")} and ${b.places.length - 6} more`;
  const so = b.begun === 0 ? "no board begun yet" : `${count(b.begun, "board")}, ${b.good} good`;
  return `${few === "" ? so : `${so} (${few})`}${saysBags(b.bags ?? [])}`;
}

/** Every bag of the part that is known of the run was made before or after what is doubted: its boards are not concerned. */
export const isOutside = ({ bags = [] }: Pick<BuiltWith, "bags">): boolean =>
  bags.length > 0 && bags.every((b) => b.was === "outside");

/** ": a bag of those days, 2541; one without a date code that tells". */
function saysBags(bags: NonNullable<BuiltWith["bags"]>): string {
  if (bags.length === 0) return "";
  const of = (was: WasMade) => bags.filter((b) => b.was === was);
  const codes = (list: typeof bags) =>
    [...new Set(list.flatMap((b) => (b.code === "" ? [] : [b.code])))].join(", ");
  const [within, open, outside] = [of("within"), of("not known"), of("outside")];
  const told = [
    within.length > 0 && `${count(within.length, "bag")} of those days, ${codes(within)}`,
    open.length > 0 &&
      `${count(open.length, "bag")} whose date code does not tell${codes(open) === "" ? "" : `, ${codes(open)}`}`,
    outside.length > 0 && `${count(outside.length, "bag")} of other days, ${codes(outside)}`,
  ].filter((x) => x !== false);
  return `: ${told.join("; ")}`;
}

/** Lessons that count and that no board of one product can hold together with a lesson, with why. */
export const contradicting = (
  l: ShopLesson,
  all: readonly ShopLesson[],
): readonly { readonly id: string; readonly title: string; readonly why: string }[] =>
  l.clearedOn !== undefined
    ? []
    : all.flatMap((o) => {
        const isOfBoth = !l.productId || !o.productId || l.productId === o.productId;
        const why =
          o.id === l.id || o.clearedOn !== undefined || !isOfBoth
            ? undefined
            : contradictionOf(l.check, o.check);
        return why ? [{ id: o.id, title: o.title, why }] : [];
      });
