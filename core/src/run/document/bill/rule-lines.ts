import { type PartRule, RULE_KINDS, type RuleKind, ruleOf } from "../../../library/rules.ts";
import type { RunDocument, RunLine } from "../document.ts";
import { withVariant } from "./structure.ts";

/** Lines of a class that name no part, with what is asked for in their place. */
export interface RuleClass {
  readonly kind: RuleKind;
  readonly isConfirmed: boolean;
  readonly lines: readonly { readonly line: RunLine; readonly rule: PartRule }[];
}

/** What lines without a number ask for, by class, and those that say too little to be asked. */
export interface RuleLines {
  readonly classes: readonly RuleClass[];
  readonly tooLittle: readonly { readonly line: RunLine; readonly why: string }[];
}

/** A line that is bought and names no part. */
export const isUnnamed = (l: RunLine): boolean =>
  !l.dnp && l.mpn === "" && l.mount !== "none" && (l.origin ?? "bought") === "bought";

/** The lines of a run that name no part. */
export function ruleLines(given: RunDocument): RuleLines {
  const doc = withVariant(given);
  const asked = doc.lines.filter(isUnnamed).map((line) => ({ line, rule: ruleOf(line, doc.workshop.rules) }));
  return {
    classes: RULE_KINDS.flatMap((kind) => {
      const lines = asked.flatMap(({ line, rule }) =>
        "facts" in rule && rule.kind === kind ? [{ line, rule }] : [],
      );
      return lines.length === 0
        ? []
        : [{ kind, isConfirmed: doc.workshop.rules?.[kind] !== undefined, lines }];
    }),
    tooLittle: asked.flatMap(({ line, rule }) =>
      "tooLittle" in rule ? [{ line, why: rule.tooLittle }] : [],
    ),
  };
}
