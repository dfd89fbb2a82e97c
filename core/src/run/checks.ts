import { checkHouse } from "../fab/check.ts";
import type { House } from "../fab/house.ts";
import type { FabOptions } from "../fab/options.ts";
import type { RunDocument } from "./document.ts";
import type { BoardCheck } from "./note.ts";

/** What a house's limits say of each board. */
export const checksOf = (doc: RunDocument, house: House, options: FabOptions): BoardCheck[] =>
  doc.boards.flatMap((b) =>
    checkHouse(house, b.measure, options).map((c) => ({
      ...c,
      ...(b.id === undefined ? {} : { board: b.id }),
    })),
  );
