import { few } from "../findings.ts";
import type { Step, Work, WorkPart } from "./step.ts";

/** What is said of parts in a step that fits them, where it is so of any: most of it is why they are not in an earlier one. */
const OF_PARTS: readonly (readonly [(p: WorkPart, work: Work) => boolean, (names: string) => string])[] = [
  [(p) => p.how === "paste" && p.isMoist, (n) => `${n}: opened last, kept dry until now.`],
  [(p) => p.isSideGuessed === true, (n) => `Taken to be on the top, as no place is known: ${n}.`],
  [
    (p) => p.how !== "paste" && p.tooHot !== undefined,
    (n) => `Not through the heat, which is too much for the body: ${n}.`,
  ],
  [(p) => p.fitAfter === "wash", (n) => `After washing, which they do not stand: ${n}.`],
  [(p) => p.fitAfter === "test", (n) => `After the test: ${n}.`],
  [(p) => p.opensOnce, (n) => `Opens only once, so nothing is left to do below: ${n}.`],
  [(p) => p.covers.length > 0, (n) => `Covers what was done before: ${n}.`],
  [(p, work) => p.heightMm === undefined && work.school === "low", (n) => `Height not known, so last: ${n}.`],
];

/**
 * Why a step stands where it does, and what was taken for granted in it.
 * @param sideFirst why the side of a first print is first, where its board has two
 */
export function sayStep(
  work: Work,
  step: Omit<Step, "because">,
  parts: readonly WorkPart[],
  sideFirst: readonly string[],
): string[] {
  switch (step.kind) {
    case "print":
      return [...sideFirst];
    case "place":
    case "iron":
    case "mechanical":
      return OF_PARTS.flatMap(([is, words]) => {
        const of = parts.filter((p) => is(p, work));
        return of.length === 0
          ? []
          : [
              words(
                few(
                  of.map((p) => p.name),
                  6,
                ),
              ),
            ];
      });
    case "turn":
      return ["What is soldered now hangs below while the other side melts."];
    case "program":
    case "test":
      return step.refs.length === 0 ? [] : [`At ${step.refs.join(", ")}, while it can be reached.`];
    default:
      return [];
  }
}
