import type { FabOptions } from "../../fab/options.ts";
import { CHOICE_FIELDS, type ChoicePart } from "../../shape/choice-fields.ts";
import { DEFAULT_ASSEMBLY, type RunAssembly, type RunChoices, type RunDocument } from "./document.ts";

/** What may be said of some decisions: one left out stays as it is, null takes one back. */
type Over<T> = { readonly [K in keyof T]?: T[K] | null | undefined };

/** A change of what was decided about a run. */
export interface ChoiceChange extends Over<RunChoices> {
  readonly options?: Over<FabOptions> | undefined;
  readonly assembly?: Over<RunAssembly> | undefined;
}
/** A change of a run. */
export interface RunChange extends ChoiceChange {
  readonly name?: string | undefined;
  readonly goodBoards?: number | undefined;
  readonly confidence?: number | undefined;
  /** Null: no house any more. */
  readonly houseId?: string | null | undefined;
}

type Decisions = Readonly<Record<string, unknown>>;
const isSaid = ([, value]: readonly [string, unknown]) => value !== undefined;

function over(base: object | undefined, change: object): Decisions {
  const all = { ...base, ...Object.fromEntries(Object.entries(change).filter(isSaid)) };
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v !== null && v !== undefined));
}

/**
 * What was decided with a change laid over it: the one law of it, for the page that shows it at once and for the server
 * that keeps it.
 * @returns the groups of decisions the change says anything of, each whole
 */
export function layChoices(
  base: { readonly [P in ChoicePart]?: object },
  change: ChoiceChange,
): { readonly [P in ChoicePart]?: Decisions } {
  const choices = Object.keys(CHOICE_FIELDS.choices).flatMap((key) => {
    const value = change[key as keyof RunChoices];
    return value === undefined ? [] : [[key, value] as const];
  });
  return {
    ...(change.options ? { options: over(base.options, change.options) } : {}),
    ...(change.assembly ? { assembly: over(base.assembly, change.assembly) } : {}),
    ...(choices.length > 0 ? { choices: over(base.choices, Object.fromEntries(choices)) } : {}),
  };
}

/** The document with a change laid over it, as the server lays it over the run's row. */
export function layChange(doc: RunDocument, c: RunChange): RunDocument {
  const { house: oldHouse, ...rest } = doc;
  const house = c.houseId === undefined ? oldHouse : doc.houses?.find((h) => h.id === c.houseId);
  const { assembly, ...laid } = layChoices(doc, c);
  return {
    ...rest,
    ...(house ? { house } : {}),
    name: c.name ?? doc.name,
    goodBoards: c.goodBoards ?? doc.goodBoards,
    confidence: c.confidence ?? doc.confidence,
    ...laid,
    ...(assembly ? { assembly: { ...DEFAULT_ASSEMBLY, ...assembly } } : {}),
  };
}
