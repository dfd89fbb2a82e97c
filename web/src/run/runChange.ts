import type { RunBody } from "@kobbin/contract";
import type { RunChoices, RunDocument } from "@kobbin/core";

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
      // one that is forgotten here would show only once the server has answered
      ...defined({
        basket: c.basket,
        pins: c.pins,
        leftovers: c.leftovers,
        ownShelf: c.ownShelf,
        variant: c.variant,
        surplus: c.surplus,
        guests: c.guests,
        panel: c.panel,
        overrun: c.overrun,
        accepted: c.accepted,
      } satisfies Record<keyof RunChoices, unknown>),
    },
  };
}
