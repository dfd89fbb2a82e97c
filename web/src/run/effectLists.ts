import type { WhatIf } from "@kobbin/core";

/** Which lists of effects each stage gives. */
const LISTS = {
  fab: ["houses", "options"],
  panel: ["overrun"],
  assemble: ["methods", "confidence", "foils", "foilsAt"],
  cost: ["leftovers"],
} as const satisfies Partial<Record<string, readonly (keyof WhatIf)[]>>;

/** A stage that has alternatives. */
export type EffectStage = keyof typeof LISTS;
export type EffectsOf<S extends EffectStage> = Pick<WhatIf, (typeof LISTS)[S][number]>;

/** What was found, where all of these stages' lists are in it. */
export const withAll = <S extends EffectStage>(
  found: Partial<WhatIf> | undefined,
  stages: readonly S[],
): EffectsOf<S> | undefined =>
  found && stages.every((s) => LISTS[s].every((list) => found[list] !== undefined))
    ? (found as EffectsOf<S>)
    : undefined;
