import { markInColumn } from "../bom/marks.ts";
import type { FindingList } from "../findings.ts";
import type { Cells } from "../table/columns.ts";
import { COMMENT } from "../table/parted.ts";
import { accountOfPlaces } from "./account.ts";
import type { PlacementColumn } from "./column.ts";
import type { PlacementHead } from "./head.ts";
import { fittedBy } from "./headings.ts";
import { isDecimalComma, isUnsure, readNumber, readPair } from "./number.ts";
import type { Placement, Placements } from "./placed.ts";
import { type RowsRead, sayColumns, sayOfRows } from "./row-findings.ts";
import { type Side, sideByMirror, sideOfTitle, sidesOf } from "./side.ts";
import { sideInName, unitOf } from "./told.ts";
import { weighTurns } from "./turn.ts";
import { degreesOf, factorOf, nameOfFactor, senseIn, unitIn } from "./units.ts";

/** A place as it was read, its rotation still as written. */
interface Read extends Omit<Placement, "rotationDeg"> {
  readonly turn: number;
  /** Degrees in one, where its cell says so. */
  readonly degrees?: number | undefined;
}

/** Reads the rows of one placement file; what several rows lack is said once. */
export class RowReader {
  private readonly rows: Cells;
  private head: PlacementHead;
  private readonly file: string;
  private readonly found: FindingList;
  /** Unit of a remark above or below the table, mm. */
  private readonly told: number | undefined;
  /** Unit of a row under the headings, mm. */
  private under: Partial<Record<"x" | "y", number>> = {};
  /** Side that the file's name says. */
  private readonly named: Side | undefined;
  /** Side that a title above a table says. */
  private titled: Side | undefined;
  private sideBy: ReturnType<typeof sidesOf>;
  private readonly sense: "clockwise" | "counter-clockwise" | undefined;
  private readonly parts: Read[] = [];
  private readonly places: (readonly string[])[] = [];
  private passed = 0;
  /** How many coordinates were read in each unit. */
  private readonly counts = new Map<number, number>();
  private readonly withoutSide: string[] = [];
  private readonly withoutTurn: string[] = [];
  private readonly leftOff: string[] = [];
  private readonly seen = new Map<string, number>();
  private readonly twice: string[] = [];
  /** Rows that hold more than the headings name. */
  private readonly ragged: { readonly ref: string; readonly row: number }[] = [];
  private readonly byTitle = new Set<Side>();
  private hasAssumed = false;
  private hasDecimalComma = false;
  private hasPointBetween = false;

  constructor(rows: Cells, head: PlacementHead, file: string, found: FindingList) {
    this.rows = rows;
    this.head = head;
    this.file = file;
    this.found = found;
    const remarks = rows.filter((r, i) => i < head.row || this.isRemark(r));
    this.told = unitOf(remarks);
    this.sense = remarks.map((r) => senseIn(r.join(" "))).find((s) => s !== undefined);
    this.named = sideInName(file);
    this.sideBy = sidesOf([]);
    for (const r of rows.slice(0, Math.max(0, head.row))) this.title(r);
    this.passed = Math.max(0, head.row);
    this.begin(head);
  }

  /** Takes a heading for the rows below it. */
  begin(head: PlacementHead): void {
    if (head !== this.head) this.passed++;
    this.head = head;
    this.under = {};
    const below = this.rows.slice(head.row + 1);
    const numbers = [head.at.x!, head.at.y!].flatMap((at) =>
      below.map((r) => (r[at] ?? "").trim()).filter((t) => readNumber(t)),
    );
    this.hasDecimalComma = isDecimalComma(numbers);
    this.hasPointBetween = numbers.some((t) => /,\d+\D*$/.test(t) && !/,\d{3}(?!\d)/.test(t));
    const at = head.at.side;
    this.sideBy = sidesOf(at === undefined ? [] : below.map((r) => r[at] ?? ""));
  }

  /** Whether a row has a reference and numbers where they belong: it is no heading, whatever its words are. */
  isPlace(r: number): boolean {
    const { x, y } = this.coordinates(r);
    return readNumber(x) !== undefined && readNumber(y) !== undefined;
  }

  private isRemark(row: readonly string[]): boolean {
    return COMMENT.test(row[0] ?? "") || row.filter((t) => t.trim() !== "").length === 1;
  }

  private title(row: readonly string[]): void {
    if (row.filter((t) => t.trim() !== "").length !== 1) return;
    this.titled = sideOfTitle(row.join(" ")) ?? this.titled;
  }

  /** Units in a row of their own under the headings; false where it is none. */
  private isUnits(r: number): boolean {
    const { x, y } = this.coordinates(r);
    const [fx, fy] = [x, y].map((t) => unitIn(t.replace(/[[\]()]/g, ""))?.factor);
    if (fx === undefined || fy === undefined || readNumber(x) || readNumber(y)) return false;
    this.under = { x: fx, y: fy };
    return true;
  }

  read(r: number): void {
    const row = this.rows[r]!;
    if (row.every((t) => t.trim() === "")) return;
    const ref = this.text(r, "ref");
    const { x, y } = this.coordinates(r);
    if (this.isUnits(r)) {
      this.passed++;
      return;
    }
    if (ref === "" || x === "" || y === "") {
      if (ref === "" && (x === "" || y === "")) {
        this.passed++;
        this.title(row);
      } else if (ref === "") this.bad(r, "A place without a reference");
      // a line of words is a remark; a reference without its place is a loss
      else if (COMMENT.test(row[0] ?? "") || !/^[a-z_]{1,6}\d/i.test(ref)) {
        this.passed++;
        this.title(row);
      } else this.bad(r, `${x === "" ? "X" : "Y"} of ${ref} is empty`);
      return;
    }
    if (this.beyond(r) !== undefined) this.ragged.push({ ref, row: r + 1 });
    else this.place(r, ref, x, y);
  }

  /** What stands in a row beyond its headings, where that may be a number cut in two: a side where it belongs says it is not. */
  private beyond(r: number): string | undefined {
    if (this.head.row < 0) return undefined;
    const more = this.rows[r]!.slice(this.head.texts.length).filter((t) => t.trim() !== "");
    if (more.length === 0) return undefined;
    // a number under the heading of references says that all has moved
    const isInPlace = this.sideBy(this.text(r, "side")) !== undefined && /\p{L}/u.test(this.text(r, "ref"));
    const isRemark = isInPlace && !more.some((t) => readNumber(t) || this.sideBy(t) !== undefined);
    return isRemark ? undefined : more.at(-1);
  }

  private place(r: number, ref: string, x: string, y: string): void {
    const [xMm, yMm] = [this.length(r, "x", x), this.length(r, "y", y)];
    if (xMm === undefined || yMm === undefined) {
      this.bad(r, `“${xMm === undefined ? x : y}” is no ${xMm === undefined ? "X" : "Y"}`);
      return;
    }
    const unsure = [x, y].find((t) => isUnsure(t, this.hasDecimalComma, this.hasPointBetween));
    if (unsure !== undefined) {
      this.bad(r, `“${unsure}” may be ${unsure.replace(",", ".")} or ${unsure.replace(/[.,]/, "")}`);
      return;
    }
    const turned = this.text(r, "rotation");
    const turn = turned === "" ? { n: 0, unit: "" } : readNumber(turned);
    const degrees = turn && turn.unit !== "" ? degreesOf(turn.unit) : undefined;
    if (!turn || (turn.unit !== "" && degrees === undefined)) {
      this.bad(r, `“${turned}” is no rotation`);
      return;
    }
    if (turned === "") this.withoutTurn.push(ref);
    this.fitted(r, ref);
    const key = ref.toUpperCase();
    const before = this.seen.get(key);
    if (before !== undefined) this.twice.push(`${key} (rows ${before} and ${r + 1})`);
    else this.seen.set(key, r + 1);
    this.places.push(this.rows[r]!);
    this.parts.push({
      ref: key,
      xMm: round6(xMm),
      yMm: round6(yMm),
      turn: turn.n,
      degrees,
      side: this.side(r, ref),
    });
  }

  private side(r: number, ref: string): Side {
    const { side, mirror } = this.head.at;
    const [word, mark] = [this.text(r, "side"), this.text(r, "mirror")];
    if (side === undefined && mirror === undefined) {
      if (this.titled) this.byTitle.add(this.titled);
      return this.titled ?? this.named ?? "top";
    }
    const said =
      word !== ""
        ? this.sideBy(word)
        : mirror === undefined || (mark === "" && side !== undefined)
          ? undefined
          : sideByMirror(mark);
    if (said === undefined) this.withoutSide.push(`${ref} (“${word || mark}”)`);
    return said ?? "top";
  }

  /** A place that is marked as left off stays a place, and is said. */
  private fitted(r: number, ref: string): void {
    const at = this.head.at.fitted;
    if (at === undefined) return;
    const isFitted = fittedBy(this.head.texts[at] ?? "") !== false;
    const said = markInColumn(this.text(r, "fitted"), !isFitted);
    if (said === "no") this.leftOff.push(ref);
  }

  private text(r: number, key: PlacementColumn): string {
    const at = this.head.at[key];
    return at === undefined ? "" : (this.rows[r]![at] ?? "").trim();
  }

  private coordinates(r: number): { readonly x: string; readonly y: string } {
    if (!this.head.isPair) return { x: this.text(r, "x"), y: this.text(r, "y") };
    const text = this.text(r, "x");
    const pair = readPair(text);
    return pair ? { x: pair[0], y: pair[1] } : { x: text, y: text };
  }

  private length(r: number, key: "x" | "y", text: string): number | undefined {
    const read = readNumber(text);
    if (!read) return undefined;
    const own = read.unit === "" ? undefined : factorOf(read.unit);
    if (read.unit !== "" && own === undefined) return undefined;
    const word = this.text(r, "unit");
    const ofRow = word === "" ? undefined : unitIn(word)?.factor;
    if (word !== "" && ofRow === undefined && own === undefined) return undefined;
    const f = own ?? ofRow ?? this.head.factor[key] ?? this.under[key] ?? this.told;
    if (f === undefined) this.hasAssumed = true;
    this.counts.set(f ?? 1, (this.counts.get(f ?? 1) ?? 0) + 1);
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
    const { counts, hasAssumed, found, file } = this;
    // where many rows hold a number cut in two, the others may only happen to be as long as the heading
    if (this.ragged.length > 0.2 * (this.ragged.length + this.parts.length)) this.parts.length = 0;
    const read = this.asRead();
    sayOfRows(read, found);
    const parts = this.turned();
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    if (counts.size > 1 && !hasAssumed)
      found.add({
        tag: "placement-units-mixed",
        level: "remark",
        file,
        text: "Coordinates are written in more than one unit; each was read in its own.",
      });
    const account = accountOfPlaces(this.head, this.places, {
      lines: parts.length,
      passed: this.passed,
      withoutSide: this.withoutSide.length,
    });
    sayColumns(
      read,
      account.columns.filter((c) => c.as === "asked"),
      found,
    );
    return {
      unit: nameOfFactor(most?.[0] ?? 1),
      parts,
      findings: found.done(),
      account,
      ...(hasAssumed && parts.length > 0 ? { isUnitAssumed: true } : {}),
    };
  }

  private asRead(): RowsRead {
    const { file, head, parts, named, byTitle, withoutSide, withoutTurn, leftOff, twice, ragged } = this;
    return { file, head, parts, named, byTitle, withoutSide, withoutTurn, leftOff, twice, ragged };
  }

  /** Rotations in degrees, counter-clockwise: in the unit of the cell, else of the heading, else of what the numbers can be. */
  private turned(): Placement[] {
    const { head, parts, file, found } = this;
    const stated = head.turn.degrees ?? (parts.some((p) => p.degrees !== undefined) ? 1 : undefined);
    const weighed = stated === undefined ? weighTurns(parts.map((p) => p.turn)) : { degrees: stated };
    if (weighed.finding) found.add({ ...weighed.finding, file });
    const isClockwise = (head.turn.sense ?? this.sense) === "clockwise";
    if (isClockwise && parts.length > 0)
      found.add({
        tag: "placement-turn-sense",
        level: "remark",
        file,
        text: "The file turns parts clockwise, as it says; the rotations were turned round.",
      });
    return parts.map(({ turn, degrees, ...p }) => ({
      ...p,
      rotationDeg: normal(turn * (degrees ?? weighed.degrees) * (isClockwise ? -1 : 1)),
    }));
  }
}

const normal = (turn: number) => {
  const v = round6(((turn % 360) + 360) % 360);
  return v === 360 ? 0 : v;
};
const round6 = (v: number) => Math.round(v * 1e6) / 1e6;
