import type { RunBody } from "@kobbin/contract";
import { fitOptions, type RunDocument } from "@kobbin/core";

/** A change of choices; keys left out stay as they are. */
export type RunChange = Partial<Omit<RunBody, "version">>;

/** The document with a change laid over it, as the server will lay it. */
export function applyChange(doc: RunDocument, c: RunChange): RunDocument {
  const defined = (o: object | undefined) =>
    Object.fromEntries(Object.entries(o ?? {}).filter(([, v]) => v !== undefined));
  const { house: oldHouse, ...rest } = doc;
  const house = c.houseId === undefined ? oldHouse : doc.houses?.find((h) => h.id === c.houseId);
  return {
    ...rest,
    ...(house ? { house } : {}),
    name: c.name ?? doc.name,
    goodBoards: c.goodBoards ?? doc.goodBoards,
    confidence: c.confidence ?? doc.confidence,
    options: { ...doc.options, ...defined(c.options) },
    assembly: { ...doc.assembly, ...defined(c.assembly) } as RunDocument["assembly"],
    choices: {
      ...doc.choices,
      ...defined({ basket: c.basket, pins: c.pins, leftovers: c.leftovers, accepted: c.accepted }),
    },
  };
}

/** The change that takes a change back. */
export function inverseOf(doc: RunDocument, c: RunChange): RunChange {
  const pick = <T extends object>(now: object, change: T | undefined) =>
    change
      ? (Object.fromEntries(Object.keys(change).map((k) => [k, (now as Record<string, unknown>)[k]])) as T)
      : undefined;
  const out: Record<string, unknown> = {};
  if (c.name !== undefined) out.name = doc.name;
  if (c.goodBoards !== undefined) out.goodBoards = doc.goodBoards;
  if (c.confidence !== undefined) out.confidence = doc.confidence;
  if (c.houseId !== undefined) out.houseId = doc.house?.id ?? null;
  // an option never chosen goes back to what the house takes when nothing is said
  if (c.options) out.options = pick(doc.house ? fitOptions(doc.house, doc.options) : doc.options, c.options);
  if (c.assembly) out.assembly = pick(doc.assembly, c.assembly);
  if (c.basket) out.basket = doc.choices.basket ?? [];
  if (c.pins) out.pins = doc.choices.pins ?? {};
  if (c.leftovers) out.leftovers = doc.choices.leftovers ?? "stock";
  if (c.accepted) out.accepted = doc.choices.accepted ?? {};
  return out as RunChange;
}
