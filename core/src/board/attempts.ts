import type { Finding } from "../findings.ts";
import { type OverBudget, orGivenUp, type Work } from "../geometry/work.ts";

/** Thrown where a board cannot be measured at all; says why. */
export class NotMeasurable extends Error {}

/**
 * The work of measuring one board, in pieces that may be given up: what a piece would have told is left out then, and a
 * finding says so. Nothing that was not measured to its end is ever a figure.
 */
export class Attempts {
  private readonly whole: Work;
  private readonly findings: Finding[];

  constructor(findings: Finding[], whole: Work) {
    this.findings = findings;
    this.whole = whole;
  }

  /**
   * A piece without which the rest stands.
   *
   * @param what is worked on, as the start of a sentence
   * @param lost what is not known without it, with its verb
   * @returns undefined where it was given up
   */
  optional<T>(what: string, lost: string, piece: (work: Work) => T): T | undefined {
    return orGivenUp(
      () => piece(this.whole.part()),
      (error) => {
        this.say(`${saysOf(what, error)} ${lost} not known.`);
        return undefined;
      },
    );
  }

  /** A piece that everything rests on. @throws NotMeasurable where it was given up */
  needed<T>(what: string, piece: (work: Work) => T): T {
    return orGivenUp(
      () => piece(this.whole.part()),
      (error) => this.giveUp(what, error),
    );
  }

  /** Says that the board is not measured. @throws NotMeasurable always */
  giveUp(what: string, error: OverBudget): never {
    this.say(saysOf(what, error));
    throw new NotMeasurable(saysOf(what, error));
  }

  private say(text: string): void {
    this.findings.push({
      tag: "budget-reached",
      level: "error",
      text,
      do: "Look for copies on one spot, hatching or scribbles that are not meant, and export the layer again; a fill is best written as one area.",
    });
  }
}

const saysOf = (what: string, { far, message }: OverBudget) => `${what} was given up${far}: ${message}.`;
