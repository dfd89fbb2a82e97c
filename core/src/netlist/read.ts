import { type Finding, FindingList } from "../findings.ts";

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

/**
 * Reads a netlist of test points in the published format IPC-D-356 and -356A (column layout recalled).
 *
 * Records 317 (drilled), 327 (surface), 367 (unplated hole) and their variants with other second digits; parameters
 * `P  UNITS CUST 0|1|2` (0.1 mil, µm, 0.1 mil) and `P  NNAMEn` long names; 999 ends. Other records hold nothing to test
 * and are passed over. Never throws; what cannot be read becomes a finding with its line.
 */
export function readNetlist(text: string, file: string): Netlist {
  const found = new FindingList();
  const points: TestPoint[] = [];
  const names = new Map<string, string>();
  let unitMm = 0.00254;
  let hasEnd = false;
  const say = (tag: string, level: Finding["level"], line: number, what: string, todo?: string) =>
    found.add({ tag, level, file, line, text: what, ...(todo ? { do: todo } : {}) });
  const lines = text.split(/\r\n|\r|\n/);
  for (let k = 0; k < lines.length && !hasEnd; k++) {
    const line = lines[k]!;
    const no = k + 1;
    if (line.trim() === "" || line.startsWith("C") || line.startsWith("#")) continue;
    if (line.startsWith("P")) {
      const unit = /^P\s+UNITS\s+CUST\s*([012])/i.exec(line);
      if (unit) unitMm = unit[1] === "1" ? 0.001 : 0.00254;
      else if (/^P\s+UNITS\s+(SI|METRIC|MM)/i.test(line)) unitMm = 0.001;
      const name = /^P\s+(NNAME\d+)\s+(\S.*)$/i.exec(line);
      if (name) names.set(name[1]!.toUpperCase(), name[2]!.trim());
      continue;
    }
    const code = line.slice(0, 3);
    if (code === "999") {
      hasEnd = true;
      continue;
    }
    if (!/^\d{3}$/.test(code)) {
      say(
        "parse-error",
        "warning",
        no,
        `“${line.slice(0, 30)}” is no record of a netlist and was passed over.`,
      );
      continue;
    }
    if (code[0] !== "3" || !["1", "2", "3", "4", "5", "6"].includes(code[1]!) || code[2] !== "7") continue;
    const point = readPoint(line, no, unitMm, names);
    if (point) points.push(point);
    else
      say(
        "parse-error",
        "warning",
        no,
        `The place of “${line.slice(3, 31).trim()}” cannot be read; the point was left out.`,
        "Export the netlist again.",
      );
  }
  if (!hasEnd && points.length > 0)
    say(
      "missing-end",
      "warning",
      lines.length,
      "The netlist ends without its end record; it may be cut off.",
      "Export it again.",
    );
  return { points, findings: found.done(), unitMm };
}

function readPoint(
  line: string,
  no: number,
  unitMm: number,
  names: ReadonlyMap<string, string>,
): TestPoint | undefined {
  const place = /X\s*([+-]?)\s*(\d{1,7})\s*Y\s*([+-]?)\s*(\d{1,7})/.exec(line.slice(31));
  if (!place) return undefined;
  const raw = line.slice(3, 17).trim();
  const net = names.get(raw.toUpperCase()) ?? raw;
  const ref = line.slice(20, 26).trim();
  const pin = line.slice(27, 31).trim();
  const hole = /^.{32}D\s*(\d{1,5})\s*([PU]?)/.exec(line);
  const access = /A\s*(\d{1,2})/.exec(line.slice(31, 42));
  const layer = access ? Number(access[1]) : 0;
  const isDrilled = line[1] === "1" || line[1] === "6";
  return {
    net,
    ref,
    pin,
    x: (place[1] === "-" ? -1 : 1) * Number(place[2]) * unitMm,
    y: (place[3] === "-" ? -1 : 1) * Number(place[4]) * unitMm,
    // access 00 is both sides, 01 the first layer, anything else the last: inner layers cannot be touched
    ...(layer > 0 ? { layer } : {}),
    side: isDrilled ? "both" : layer > 1 ? "bottom" : "top",
    ...(hole ? { holeMm: Number(hole[1]) * unitMm } : {}),
    ...(hole?.[2] ? { plated: hole[2] === "P" } : line[1] === "6" ? { plated: false } : {}),
    line: no,
  };
}
