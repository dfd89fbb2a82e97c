import type { RIGHT_KINDS, RIGHT_STATES, SALE_QUESTIONS } from "../shape/right.ts";

export type RightKind = (typeof RIGHT_KINDS)[number];
export type SaleQuestion = (typeof SALE_QUESTIONS)[number];

/** A mark, picture, file or design on a product, with who it belongs to and what entitles to it (needs N024, N144, idea X24). */
export interface Right {
  readonly id: string;
  readonly kind: RightKind;
  /** What it is; of a question its key. */
  readonly what: string;
  /** Where it is: on which side, in which file. */
  readonly place: string;
  readonly owner: string;
  readonly state: (typeof RIGHT_STATES)[number];
  /** Licence, letter, report, receipt: what one would show. */
  readonly evidence: string;
  readonly facts: {
    readonly version?: string;
    /** What its author says of it. */
    readonly status?: string;
    /** Whether anybody is known to have it working. */
    readonly built?: "yes" | "no";
    readonly limits?: string;
  };
}

/** What each kind is called. */
export const RIGHT_WORDS = {
  logo: "a mark or a logo",
  approval: "an approval mark or an identifier",
  picture: "a picture, an emblem, a typeface",
  file: "files or a program",
  design: "a design that was borrowed",
  question: "a question before it is sold",
} as const satisfies Record<RightKind, string>;

/** Questions before something is sold: each is answered with what one would show, never by Kobbin. */
export const SALE_WORDS = {
  conformity: "Which rules of the places it is sold in hold for it, and who says that it keeps them?",
  lead: "Is there lead or another restricted substance in it, and where is that written?",
  cells: "Does it carry cells: how are they packed, marked, taken back?",
  mains: "Does anything of it meet mains or dangerous voltage, and who competent has looked?",
  radio: "Does it send: who has measured it, and under which number?",
  hosts: "What does it plug into, and do those who made that have a say?",
} as const satisfies Record<SaleQuestion, string>;

/** Whether one may use something: proven, still to be shown, or not granted. */
export type RightVerdict = "proven" | "open" | "refused";

/**
 * What is one's own needs no paper, but an approval does: nobody grants that to themselves. What somebody granted is shown;
 * what nobody has looked at is open, however likely.
 */
export function judgeRight(r: Pick<Right, "kind" | "state" | "owner" | "evidence">): RightVerdict {
  const isShown = r.evidence.trim() !== "";
  if (r.state === "refused") return "refused";
  if (r.state === "unknown") return "open";
  if (r.kind === "question" || r.kind === "approval") return isShown ? "proven" : "open";
  if (r.state === "own") return "proven";
  return isShown && r.owner.trim() !== "" ? "proven" : "open";
}
