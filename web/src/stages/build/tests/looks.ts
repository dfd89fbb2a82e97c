import {
  ALIKE,
  type faultsByClass,
  PRIOR_FAULTS,
  type RunSitting,
  SYMPTOMS,
  type Symptom,
  type shapes,
} from "@kobbin/core";
import { count } from "../../../ui/text/format.ts";

/** A look at one cause of a symptom, and what it came to. */
export interface Look {
  readonly cause: string;
  readonly came: "it" | "not";
}

/** What a look is marked by at the bench: no piece is called so. */
export const lookName = (symptom: Symptom, cause: string): string => `check ${symptom} ${cause}`;

/** Looks at the causes of a symptom on one board. */
export const looksOf = (marks: RunSitting["marks"], symptom: Symptom): Look[] =>
  SYMPTOMS[symptom].causes.flatMap((c): Look[] => {
    const mark = marks[lookName(symptom, c.key)];
    return mark === "done" || mark === "doubt"
      ? [{ cause: c.key, came: mark === "doubt" ? "it" : "not" }]
      : [];
  });

/** Boards of the run that do the same, as far as somebody looked why; the one that is looked at is one of them. */
export const alikeBoards = (
  sittings: readonly Pick<RunSitting, "unit" | "marks">[],
  symptom: Symptom,
  unit: number,
): number =>
  new Set([unit, ...sittings.filter((s) => looksOf(s.marks, symptom).length > 0).map((s) => s.unit)]).size;

const FOUND: Readonly<Record<shapes.DefectClass, string>> = {
  joint: "of joints",
  placement: "of placing",
  part: "of parts",
  board: "of bare boards",
  process: "of programs and handling",
  design: "of the design",
};

/** Where the shares of a symptom's causes come from: the usual, what was found on the product, boards that do the same. */
export function sharesFrom(
  symptom: Symptom,
  seen: ReturnType<typeof faultsByClass>,
  alike: number,
  unit: string,
): string {
  const kinds = new Set<string>(SYMPTOMS[symptom].causes.map((c) => c.kind));
  const own = (Object.keys(FOUND) as shapes.DefectClass[]).filter((k) => kinds.has(k) && (seen[k] ?? 0) > 0);
  const found =
    own.length === 0
      ? "nothing that would do so was found on this product yet"
      : `beside them, found on this product: ${own.map((k) => `${seen[k]} ${FOUND[k]}`).join(", ")}`;
  const each = ALIKE ** (alike - 1);
  const many =
    alike < 2
      ? ""
      : ` ${count(alike, unit)} do so: that each has a bad joint, placing or part of its own is ${each < 0.01 ? "hardly likely" : `${Number(each.toPrecision(2))} times as likely`}; what they share comes first.`;
  return `Shares: ${PRIOR_FAULTS} faults as they usually fall; ${found}.${many}`;
}
