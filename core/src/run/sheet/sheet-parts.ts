import { turnFor } from "../../assembly/turns.ts";
import type { BoardSet } from "../../board/board-file.ts";
import type { BomLine } from "../../bom/line.ts";
import { asMade } from "../document/bill/as-made.ts";
import { boardOf, Places } from "../document/boards.ts";
import type { RunDocument, RunLine } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";
import { byMachine } from "../document/ways.ts";
import { assemblyHouse } from "../document/who-places.ts";

const asLine = (l: RunLine, row: number): BomLine => ({
  refs: l.refs,
  qty: l.qty,
  value: null,
  valueText: l.valueText,
  package: l.package,
  mpn: l.mpn,
  maker: l.maker,
  description: l.description,
  dnp: l.dnp,
  row,
});

/**
 * A board's files with the places and the bill of this run in the place of those that were dropped: what the sheet's lists
 * say is what the run's own say. Placed is what a machine places; packages lie as the house that places them expects.
 *
 * @param i which of the run's boards
 */
export function partsOfRun(set: BoardSet, given: RunDocument, i: number): BoardSet {
  const doc = asMade(given);
  const board = doc.boards[i];
  const lines = doc.lines.filter((l) => l.refs.length > 0 && boardOf(doc, l) === board);
  const places = new Places(doc);
  const isPlaced = byMachine(doc, lineParts(doc));
  const turns = assemblyHouse(doc)?.assembly.turns;
  const parts = lines
    .filter((l) => !l.dnp)
    .flatMap((l) =>
      l.refs.flatMap((ref) => {
        const p = isPlaced(l, ref) ? places.of(l, ref) : undefined;
        if (!p) return [];
        const { board: _, ...place } = p;
        return [{ ...place, rotationDeg: place.rotationDeg + turnFor(turns, l.package) }];
      }),
    );
  const bom = { columns: {}, headers: [], findings: [], lines: lines.map(asLine) };
  const placements = set.placements ?? { unit: "mm" as const, findings: [] };
  return { ...set, bom, placements: { ...placements, parts } };
}

/** A guest's files without its places and its bill: its parts are neither bought nor placed in this run. */
export function withoutParts({ bom: _, placements: __, ...set }: BoardSet): BoardSet {
  return set;
}
