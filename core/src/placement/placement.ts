import { type Finding, FindingList } from "../board/findings.ts";
import { type Cells, type ColumnWords, findHeader } from "../table/columns.ts";

/** One part put at one place; the rotation as stated, bottom side not mirrored. */
export interface Placement {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: "top" | "bottom";
}

/** A placement file as read. */
export interface Placements {
  readonly unit: "mm" | "inch" | "mil";
  readonly parts: readonly Placement[];
  readonly findings: readonly Finding[];
}

export type PlacementColumn = "ref" | "x" | "y" | "rotation" | "side";

const WORDS: ColumnWords<PlacementColumn> = {
  ref: ["ref", "designator", "reference", "refdes", "ref des", "part", "name"],
  x: [
    "x",
    "mid x",
    "pos x",
    "posx",
    "center x",
    "centre x",
    "x mm",
    "x coord",
    "location x",
    "ref x",
    "x pos",
  ],
  y: [
    "y",
    "mid y",
    "pos y",
    "posy",
    "center y",
    "centre y",
    "y mm",
    "y coord",
    "location y",
    "ref y",
    "y pos",
  ],
  rotation: ["rotation", "rot", "rot deg", "angle", "orientation"],
  side: ["side", "layer", "tb", "board side", "mount side"],
};

const FACTOR = { mm: 1, inch: 25.4, mil: 0.0254 };

/** True when a table has a reference, X and Y column. */
export function looksLikePlacement(cells: Cells): boolean {
  const h = findHeader(spread(cells), WORDS, 3);
  return h?.at.ref !== undefined && h.at.x !== undefined && h.at.y !== undefined;
}

/** A table whose columns are set apart by blanks arrives as one cell per row: split it there. */
function spread(cells: Cells): Cells {
  if (!cells.some((r) => r.length > 1))
    return cells.map((r) =>
      (r[0] ?? "")
        .replace(/^#+\s*/, "")
        .trim()
        .split(/\s+/),
    );
  return cells;
}

/**
 * Reads a placement file. Units from the header or the numbers' own suffix, else mm; rotation normalised to [0, 360).
 * Bad rows become findings, the rest is kept.
 */
export function readPlacement(
  cells: Cells,
  file: string,
  chosen: Partial<Record<PlacementColumn, string>> = {},
): Placements {
  const found = new FindingList(20);
  const rows = spread(cells);
  const header = findHeader(rows, WORDS, 3, chosen);
  if (!header || header.at.ref === undefined || header.at.x === undefined || header.at.y === undefined) {
    found.add({
      tag: "placement-header-missing",
      level: "error",
      file,
      text: "No row names columns of reference, X and Y.",
      do: "Say which columns they are.",
    });
    return { unit: "mm", parts: [], findings: found.done() };
  }
  const { at } = header;
  const text = (r: number, key: PlacementColumn) =>
    at[key] === undefined ? "" : (rows[r]![at[key]!] ?? "").trim();
  const headText = rows[header.row]!.join(" ").toLowerCase();
  const above = rows
    .slice(0, header.row + 1)
    .flat()
    .join(" ")
    .toLowerCase();
  let unit: Placements["unit"] =
    /\bmils?\b/.test(headText) || /units?\W+mils?\b/.test(above)
      ? "mil"
      : /\binch(es)?\b/.test(headText) || /units?\W+inch/.test(above)
        ? "inch"
        : "mm";
  const suffix = /(mm|mil|inch|in|")$/i
    .exec(text(header.row + 1 < rows.length ? header.row + 1 : header.row, "x"))?.[1]
    ?.toLowerCase();
  if (suffix) unit = suffix === "mm" ? "mm" : suffix === "mil" ? "mil" : "inch";
  const number = (t: string) => Number(t.replace(/\s*(mm|mils?|inch|in|")$/i, "").replace(",", "."));
  const parts: Placement[] = [];
  for (let r = header.row + 1; r < rows.length; r++) {
    const ref = text(r, "ref");
    if (ref === "" || ref.startsWith("#")) continue;
    const [x, y] = [number(text(r, "x")), number(text(r, "y"))];
    const turn = number(text(r, "rotation") || "0");
    if (![x, y, turn].every(Number.isFinite) || text(r, "x") === "") {
      found.add({
        tag: "placement-bad-row",
        level: "warning",
        file,
        row: r + 1,
        about: [ref],
        text: `The place of ${ref} cannot be read.`,
      });
      continue;
    }
    const side = /^(b|bot|bottom|back|solder|2|unterseite)/i.test(text(r, "side")) ? "bottom" : "top";
    const f = FACTOR[unit];
    parts.push({
      ref: ref.toUpperCase(),
      xMm: round6(x * f),
      yMm: round6(y * f),
      rotationDeg: ((turn % 360) + 360) % 360,
      side,
    });
  }
  return { unit, parts, findings: found.done() };
}

const round6 = (v: number) => Math.round(v * 1e6) / 1e6;
