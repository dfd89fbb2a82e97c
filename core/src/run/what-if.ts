import type { RunDocument } from "./document/document.ts";
import type { StageKey } from "./document/note.ts";
import { rollUp } from "./roll-up.ts";
import { asking, type WhatIf } from "./stage/effect.ts";
import type { BasketCache, RunResult } from "./stage/result.ts";
import { STAGES } from "./stages.ts";

/**
 * Effects of every single change, each stage's own: houses, options, ways to solder, certainty, left-overs. Baskets are
 * shared where the needs do not change.
 *
 * @param stages whose lists are wanted; each costs a run counted anew for every alternative in it
 */
export function whatIf(doc: RunDocument, base: RunResult, cache?: BasketCache): WhatIf;
export function whatIf(
  doc: RunDocument,
  base: RunResult,
  cache: BasketCache,
  stages: readonly StageKey[],
): Partial<WhatIf>;
export function whatIf(
  doc: RunDocument,
  base: RunResult,
  cache: BasketCache = new Map(),
  stages?: readonly StageKey[],
): Partial<WhatIf> {
  const ask = asking(doc, base, (alternative) =>
    rollUp(alternative, {
      cache,
      scope: "the best",
      notes: "none",
      ...(isOfBoardsAlone(doc, alternative) ? { same: base } : {}),
    }),
  );
  const asked = STAGES.filter((s) => !stages || stages.includes(s.key));
  return Object.assign({}, ...asked.map((s) => s.effects?.(ask) ?? {}));
}

/** Whether another house or other options of its boards are all that an alternative has. */
const isOfBoardsAlone = (doc: RunDocument, alternative: RunDocument): boolean =>
  (Object.keys({ ...doc, ...alternative }) as (keyof RunDocument)[]).every(
    (key) => key === "house" || key === "options" || alternative[key] === doc[key],
  );
