import { type RunSitting, SYMPTOMS, type Symptom } from "@kobbin/core";

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
