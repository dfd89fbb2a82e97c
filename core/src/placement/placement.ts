import { type Finding, FindingList, few } from "../findings.ts";
import { wordsOf } from "../role/role-name.ts";
import type { Cells } from "../table/columns.ts";
import { boundedRows } from "../table/rows.ts";
import {
  type PlacementColumn as Column,
  factorOf,
  findPlacementHead,
  type LengthUnit,
  unitAbove,
} from "./headings.ts";

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
  readonly unit: LengthUnit;
  readonly parts: readonly Placement[];
  readonly findings: readonly Finding[];
  /** No unit is stated anywhere: millimetres were taken. */
  readonly isUnitAssumed?: boolean;
}

export type PlacementColumn = Column;

/** True when a table has a reference, X and Y column. */
export const looksLikePlacement = (cells: Cells): boolean => findPlacementHead(spread(cells)) !== undefined;

/** Lines that speak to people, whatever sign they begin with. */
const COMMENT = /^\s*("?\s*)(#|;|\/\/|\*|%|!|--|rem\b)/i;

/** A table whose columns are set apart by blanks arrives as one cell a row, but for remarks with commas: split it there. */
function spread(cells: Cells): Cells {
  const filled = cells.filter((r) => r.some((t) => t.trim() !== ""));
  const single = filled.filter((r) => r.length === 1 || COMMENT.test(r[0] ?? ""));
  if (filled.length === 0 || single.length < 0.8 * filled.length) return cells;
  return cells.map((r) =>
    r
      .join(",")
      .replace(/^#+\s*/, "")
      .trim()
      .split(/\s+/),
  );
}

const TOP =
  /^(t|top|f|front|c|cs|comp|component|components|primary|1|oben|ober|oberseite|vorne|dessus|cara superior)$/i;
const BOTTOM =
  /^(b|bot|btm|bottom|back|rear|s|ss|solder|secondary|2|unten|unter|unterseite|hinten|rückseite|dessous|cara inferior)$/i;
const YES = /^(yes|y|true|1|m|mirror(ed)?|x|ja|on)$/i;

/** A number as people write it: a sign, a decimal comma, blanks, and a unit or a degree sign behind it. */
function readNumber(text: string): { readonly n: number; readonly unit: string } | undefined {
  const m = /^([+\-−]?)\s*(\d+(?:[.,]\d*)?|[.,]\d+)(?:e([+-]?\d{1,2}))?\s*([^\d\s.,+-]*)\.?$/i.exec(
    text.trim(),
  );
  if (!m) return undefined;
  const n = Number(`${m[2]!.replace(",", ".")}e${m[3] ?? 0}`) * (m[1] === "-" || m[1] === "−" ? -1 : 1);
  return Number.isFinite(n) ? { n, unit: m[4]! } : undefined;
}

/** A comma with three digits behind it: of a decimal number, or between thousands. */
const THREE_BEHIND = /^[+\-−]?\s*[1-9]\d{0,2},\d{3}(?!\d)/;

/**
 * Whether a comma with three digits behind it is a decimal one, by the other coordinates of the file: where one has
 * another number of digits behind its comma, or begins with 0, or where all have a comma, it is; not so where one has a
 * point, and unsure where some have neither, as numbers below a thousand would.
 */
function isDecimalComma(texts: readonly string[]): boolean {
  if (texts.some((t) => t.includes("."))) return false;
  const withComma = texts.filter((t) => t.includes(","));
  return withComma.length === texts.length || withComma.some((t) => !THREE_BEHIND.test(t));
}

/**
 * Reads a placement file. The unit of a coordinate is that of its cell, else of its heading, else of a comment above,
 * else millimetres, which is said; rotation in any range, normalised to [0, 360). A row that cannot be read whole is an
 * error, and none of it is taken for 0; the rest is kept.
 */
export function readPlacement(
  cells: Cells,
  file: string,
  chosen: Partial<Record<PlacementColumn, string>> = {},
): Placements {
  const found = new FindingList(20);
  const rows = spread(boundedRows(cells, file, found));
  const head = findPlacementHead(rows, chosen);
  if (!head) {
    found.add({
      tag: "placement-header-missing",
      level: "error",
      file,
      text: "No row names columns of reference, X and Y.",
      do: "Say which columns they are.",
    });
    return { unit: "mm", parts: [], findings: found.done() };
  }
  const reader = new RowReader(rows, head, file, found);
  for (let r = head.row + 1; r < rows.length; r++) {
    const row = rows[r]!;
    if (row.every((t) => t.trim() === "") || COMMENT.test(row[0] ?? "")) continue;
    // a heading that stands there again, as on the next page
    if (!findPlacementHead([row], chosen)) reader.read(r);
  }
  return reader.done();
}

type Head = NonNullable<ReturnType<typeof findPlacementHead>>;

/** Reads the rows of one placement file; what several rows lack is said once. */
class RowReader {
  private readonly rows: Cells;
  private readonly head: Head;
  private readonly file: string;
  private readonly found: FindingList;
  /** Unit of a comment above the table, mm. */
  private readonly above: number | undefined;
  /** Side that the file's name says. */
  private readonly named: "top" | "bottom" | undefined;
  private readonly hasSides: boolean;
  private readonly parts: Placement[] = [];
  /** How many coordinates were read in each unit. */
  private readonly counted = new Map<number, number>();
  private readonly withoutSide: string[] = [];
  private readonly withoutTurn: string[] = [];
  private hasAssumed = false;
  private readonly hasDecimalComma: boolean;

  constructor(rows: Cells, head: Head, file: string, found: FindingList) {
    this.rows = rows;
    this.head = head;
    this.file = file;
    this.found = found;
    this.above = unitAbove(rows.slice(0, head.row + 1));
    this.named = sideInName(file);
    const below = rows.slice(head.row + 1);
    this.hasDecimalComma = isDecimalComma(
      [head.at.x!, head.at.y!].flatMap((at) =>
        below.map((r) => (r[at] ?? "").trim()).filter((t) => readNumber(t)),
      ),
    );
    this.hasSides = head.at.side !== undefined || head.at.mirror !== undefined;
  }

  read(r: number): void {
    const text = (key: PlacementColumn) => this.text(r, key);
    const ref = text("ref");
    if (ref === "") {
      if (text("x") !== "" && text("y") !== "") this.bad(r, "A place without a reference");
      return;
    }
    if (text("x") === "" || text("y") === "") {
      // a line of words is a remark; a reference without its place is a loss
      if (/^[A-Za-z_]+\d+[A-Za-z]?$/.test(ref))
        this.bad(r, `${text("x") === "" ? "X" : "Y"} of ${ref} is empty`);
      return;
    }
    const [x, y] = [this.length(r, "x"), this.length(r, "y")];
    if (x === undefined || y === undefined) {
      this.bad(r, `“${text(x === undefined ? "x" : "y")}” is no ${x === undefined ? "X" : "Y"}`);
      return;
    }
    const unsure = [text("x"), text("y")].find((t) => !this.hasDecimalComma && THREE_BEHIND.test(t));
    if (unsure !== undefined) {
      this.bad(r, `“${unsure}” may be ${unsure.replace(",", ".")} or ${unsure.replace(",", "")}`);
      return;
    }
    const turned = text("rotation");
    const turn = turned === "" ? { n: 0, unit: "" } : readNumber(turned);
    if (!turn || !/^(°|º|deg(rees?)?|d)?$/i.test(turn.unit)) {
      this.bad(r, `“${turned}” is no rotation`);
      return;
    }
    if (turned === "") this.withoutTurn.push(ref);
    const side = sideOf(text("side"), text("mirror"), this.hasSides);
    if (side === undefined) this.withoutSide.push(`${ref} (“${text("side") || text("mirror")}”)`);
    this.parts.push({
      ref: ref.toUpperCase(),
      xMm: round6(x),
      yMm: round6(y),
      rotationDeg: normal(turn.n),
      side: (this.hasSides ? side : this.named) ?? "top",
    });
  }

  private text(r: number, key: PlacementColumn): string {
    const at = this.head.at[key];
    return at === undefined ? "" : (this.rows[r]![at] ?? "").trim();
  }

  private length(r: number, key: "x" | "y"): number | undefined {
    const read = readNumber(this.text(r, key));
    if (!read) return undefined;
    const own = read.unit === "" ? undefined : factorOf(read.unit);
    if (read.unit !== "" && own === undefined) return undefined;
    const f = own ?? this.head.factor[key] ?? this.above;
    if (f === undefined) this.hasAssumed = true;
    this.counted.set(f ?? 1, (this.counted.get(f ?? 1) ?? 0) + 1);
    return read.n * (f ?? 1);
  }

  private bad(r: number, what: string): void {
    const ref = this.text(r, "ref");
    this.found.add({
      tag: "placement-bad-row",
      level: "error",
      file: this.file,
      row: r + 1,
      ...(ref ? { about: [ref] } : {}),
      text: `${what}; ${ref || "the row"} was left out.`,
      do: "Correct the row and drop the file again.",
    });
  }

  done(): Placements {
    const { parts, counted, hasAssumed, found, file } = this;
    this.saySides();
    if (this.withoutTurn.length > 0 && parts.length > 0)
      found.add({
        tag: "placement-turn-unknown",
        level: "warning",
        file,
        about: this.withoutTurn,
        text: `The rotation of ${this.withoutTurn.length === parts.length ? "every part" : few(this.withoutTurn)} is not stated; 0° was taken.`,
        do: "Add it where it matters.",
      });
    const [most] = [...counted].sort((a, b) => b[1] - a[1]);
    const factor = most?.[0] ?? 1;
    if (counted.size > 1 && !hasAssumed)
      found.add({
        tag: "placement-units-mixed",
        level: "remark",
        file,
        text: "Coordinates are written in more than one unit; each was read in its own.",
      });
    return {
      unit: factor === 25.4 ? "inch" : factor === 0.0254 ? "mil" : "mm",
      parts,
      findings: found.done(),
      ...(hasAssumed && parts.length > 0 ? { isUnitAssumed: true } : {}),
    };
  }

  private saySides(): void {
    const { withoutSide, named, file } = this;
    if (withoutSide.length > 0)
      this.found.add({
        tag: "placement-side-unknown",
        level: "error",
        file,
        about: withoutSide.map((s) => s.split(" ")[0]!),
        text: `The side of ${few(withoutSide)} is not known; the top was taken.`,
        do: "Write top or bottom there.",
      });
    else if (!this.hasSides && this.parts.length > 0)
      this.found.add({
        tag: "placement-side-unknown",
        level: named ? "remark" : "warning",
        file,
        text: `No column says the side; all parts were taken as on the ${named ?? "top"}${named ? ", by the file's name" : ""}.`,
        do: "Check it, or add a column of sides.",
      });
  }
}

/** A side that a file's name says. */
function sideInName(file: string): "top" | "bottom" | undefined {
  const words = wordsOf(file);
  if (words.some((w) => ["bottom", "bot", "back"].includes(w))) return "bottom";
  return words.some((w) => ["top", "front"].includes(w)) ? "top" : undefined;
}

/** The side by its word, else by what a column of mirrored parts says; undefined where a word is neither. */
function sideOf(word: string, mirror: string, hasColumn: boolean): Placement["side"] | undefined {
  const w = word
    .replace(/[_\-.]+/g, " ")
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .trim()
    // "top layer", "layer 1", "F side": the word beside it says only what kind of word it is
    .replace(/^(layer|side|lage|seite)\s*(?=\S)|(?<=\S)\s*(layer|side|face|copper|lage|seite)$/gi, "")
    .trim();
  if (BOTTOM.test(w)) return "bottom";
  if (TOP.test(w)) return mirror !== "" && YES.test(mirror) && w === "" ? "bottom" : "top";
  if (w !== "") return undefined;
  if (mirror !== "") return YES.test(mirror) ? "bottom" : "top";
  return hasColumn ? undefined : "top";
}

const normal = (turn: number) => {
  const v = round6(((turn % 360) + 360) % 360);
  return v === 360 ? 0 : v;
};
const round6 = (v: number) => Math.round(v * 1e6) / 1e6;
