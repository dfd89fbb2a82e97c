import { type Finding, FindingList, type FindingTag } from "../findings.ts";

/** A test point of a netlist. */
export interface TestPoint {
  readonly net: string;
  readonly ref: string;
  readonly pin: string;
  readonly x: number;
  readonly y: number;
  /** Sides it can be touched from. */
  readonly side: "top" | "bottom" | "both";
  /** Copper layer it is touched on, by its access code; left out where that says both sides. */
  readonly layer?: number;
  readonly holeMm?: number;
  readonly plated?: boolean;
  readonly line: number;
}

/** A netlist as plain data, lengths in mm. */
export interface Netlist {
  readonly points: readonly TestPoint[];
  readonly findings: readonly Finding[];
  /** Millimetres per unit of the file. */
  readonly unitMm: number;
}

/** Name of a point that is connected to nothing. */
export const NO_CONNECTION = "N/C";

/** Millimetres per unit, by the words behind UNITS (recalled): 0.1 mil, a thousandth of a millimetre. */
const UNITS: Readonly<Record<string, number>> = {
  "CUST 0": 0.00254,
  "CUST 1": 0.001,
  "CUST 2": 0.00254,
  SI: 0.001,
  METRIC: 0.001,
  MM: 0.001,
};
/** Records of points: drilled, surface, and others of their kind, by the second digit. */
const POINT = /^3[1-6]7/;
/** Columns of a record that the format leaves empty, between the net's name and the reference. */
const EMPTY_COLUMNS = [17, 20] as const;

/**
 * Reads a netlist of test points in the published format IPC-D-356 and -356A (column layout recalled).
 *
 * Records 317 (drilled), 327 (surface), 367 (unplated hole) and their variants with other second digits; parameters
 * `P  UNITS CUST 0|1|2` (0.1 mil, µm, 0.1 mil) and `P  NNAMEn` long names; 999 ends. Other records hold nothing to test
 * and are passed over. Never throws; a point that cannot be read is an error with its line, what is taken for something
 * a caution.
 */
export function readNetlist(text: string, file: string): Netlist {
  return new NetlistReader(file).read(text);
}

class NetlistReader {
  private readonly file: string;
  private readonly found = new FindingList();
  private readonly points: TestPoint[] = [];
  private readonly names = new Map<string, string>();
  private unit: number | undefined;
  private line = 0;

  constructor(file: string) {
    this.file = file;
  }

  read(text: string): Netlist {
    const lines = text.split(/\r\n|\r|\n/);
    let end = -1;
    for (let k = 0; k < lines.length; k++) {
      this.line = k + 1;
      const line = lines[k]!;
      if (end < 0 && line.startsWith("999")) end = k;
      else if (end < 0) this.record(line);
      else if (POINT.test(line)) {
        this.say(
          "parse-error",
          "error",
          "Points follow the end record; none of them was read.",
          "Export the netlist again, as one.",
        );
        break;
      }
    }
    this.line = lines.length;
    if (end < 0 && this.points.length > 0)
      this.say(
        "missing-end",
        "warning",
        "The netlist ends without its end record; it may be cut off.",
        "Export it again.",
      );
    if (this.points.length === 0)
      this.say(
        "empty-file",
        "warning",
        "The netlist lists no point: nothing is held against it.",
        "Export it again.",
      );
    return { points: this.points, findings: this.found.done(), unitMm: this.unitMm };
  }

  private get unitMm(): number {
    return this.unit ?? 0.00254;
  }

  private say(tag: FindingTag, level: Finding["level"], text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line: this.line, text, ...(todo ? { do: todo } : {}) });
  }

  private record(line: string): void {
    if (line.trim() === "" || line.startsWith("C") || line.startsWith("#")) return;
    if (/^P\s/i.test(line)) {
      this.parameter(line);
      return;
    }
    if (!/^\d{3}/.test(line)) {
      this.say(
        "parse-error",
        "warning",
        `“${line.slice(0, 30)}” is no record of a netlist and was passed over.`,
      );
      return;
    }
    if (/^0[1-6]7/.test(line))
      this.say(
        "parse-error",
        "warning",
        "The record continues the point before it; what it adds is not read.",
      );
    if (POINT.test(line)) this.point(line);
  }

  private parameter(line: string): void {
    const [, name, value] = /^P\s+(\S+)\s*(.*?)\s*$/i.exec(line) ?? [];
    const key = name?.toUpperCase() ?? "";
    if (key === "UNITS") this.units(value!);
    else if (/^NNAME\d+$/.test(key) && value !== "") {
      const before = this.names.get(key);
      if (before !== undefined && before !== value)
        this.say(
          "defined-twice",
          "warning",
          `${key} is ${before} and ${value}; points before this line are of the first, those behind it of the second.`,
        );
      this.names.set(key, value!);
    }
  }

  private units(value: string): void {
    const unit = UNITS[value.toUpperCase().replace(/\s+/g, " ")];
    if (unit === undefined) {
      if (value !== "")
        this.say(
          "unknown-unit",
          "warning",
          `“${value}” is no unit of a netlist and was passed over.`,
          "Look where its points lie.",
        );
      return;
    }
    if (this.unit !== undefined && this.unit !== unit)
      this.say("defined-twice", "warning", "The netlist states a second unit; it counts from here on.");
    this.unit = unit;
  }

  private point(line: string): void {
    const name = line.slice(3, EMPTY_COLUMNS[0]).trim();
    const lost = (why: string) =>
      this.say(
        "parse-error",
        "error",
        `The point “${line.slice(3, 31).trim()}” ${why}; it was left out.`,
        "Export the netlist again.",
      );
    const read = line.includes("\t") ? undefined : placeOf(line, this.unitMm);
    if (line.includes("\t")) lost("has tabs between its columns, which cannot be told apart");
    else if (!read) lost("has no place that can be read");
    else if (name === "") lost("names no net");
    else {
      if (this.unit === undefined && this.points.length === 0)
        this.say(
          "missing-unit",
          "warning",
          "The netlist states no unit; tenths of a mil were taken.",
          "Look where its points lie.",
        );
      if (line.slice(...EMPTY_COLUMNS).trim() !== "")
        this.say(
          "columns-shifted",
          "warning",
          `“${line.slice(3, 31).trim()}” runs over its columns: the net was read as ${name}, the part as ${line.slice(20, 26).trim() || "none"}.`,
          "Look whether names are cut, and export long names as NNAME.",
        );
      const known = this.names.get(name.toUpperCase()) ?? name;
      this.points.push({
        net: known.toUpperCase() === NO_CONNECTION ? NO_CONNECTION : known,
        ...read,
        line: this.line,
      });
    }
  }
}

/** What stands behind the name of a point's net; undefined where its place cannot be read. */
function placeOf(line: string, unitMm: number): Omit<TestPoint, "net" | "line"> | undefined {
  const place = /X\s*([+-]?)\s*(\d{1,7})\s*Y\s*([+-]?)\s*(\d{1,7})(?![\d.,])/.exec(line.slice(31));
  if (!place) return undefined;
  const hole = /^.{32}D\s*(\d{1,5})\s*([PU]?)/.exec(line);
  const access = /A\s*(\d{1,2})/.exec(line.slice(31, 42));
  const layer = access ? Number(access[1]) : 0;
  const isDrilled = line[1] === "1" || line[1] === "6";
  return {
    ref: line.slice(20, 26).trim(),
    pin: line.slice(27, 31).trim(),
    x: (place[1] === "-" ? -1 : 1) * Number(place[2]) * unitMm,
    y: (place[3] === "-" ? -1 : 1) * Number(place[4]) * unitMm,
    // access 00 is both sides, 01 the first layer, anything else the last: inner layers cannot be touched
    ...(layer > 0 ? { layer } : {}),
    side: isDrilled || layer === 0 ? "both" : layer > 1 ? "bottom" : "top",
    ...(hole ? { holeMm: Number(hole[1]) * unitMm } : {}),
    ...(hole?.[2] ? { plated: hole[2] === "P" } : line[1] === "6" ? { plated: false } : {}),
  };
}
