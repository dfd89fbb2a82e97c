import type { Measure } from "../../board/measure-document.ts";
import { checkHouse } from "../../fab/check.ts";
import type { House } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import type { RunDocument } from "../document/document.ts";
import type { BoardCheck } from "../document/note.ts";
import { panelOf, type RunPanel } from "../sheet/panel.ts";

/** What a house's limits say of each board; of boards on a sheet it is the sheet that must have a size the house takes. */
export function checksOf(doc: RunDocument, house: House, options: FabOptions): BoardCheck[] {
  const panel = panelOf({ ...doc, house });
  return doc.boards.flatMap((b, i) => {
    const isOn = panel !== undefined && panel.perSheet[i]! > 0;
    const measure = isOn ? asLarge(b.measure, panel) : b.measure;
    return checkHouse(house, measure, options).map((c) => ({
      ...c,
      ...(isOn && c.measure === "outline" ? { label: c.label.replace(/^board/, "sheet") } : {}),
      ...(b.id === undefined ? {} : { board: b.id }),
    }));
  });
}

const asLarge = (m: Measure, { choice: { widthMm, heightMm } }: RunPanel): Measure =>
  m.outline ? { ...m, outline: { ...m.outline, widthMm, heightMm } } : m;
