import { type Finding, FindingList } from "../board/findings.ts";
import { arcPoints } from "../geometry/arc.ts";

/** A round hit. */
export interface Hit {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  /** From tool or file; undefined where nothing says it. */
  readonly plated: boolean | undefined;
}

/** A slot or routed path: the tool's centre follows the points. */
export interface Rout {
  readonly points: readonly (readonly [number, number])[];
  readonly widthMm: number;
  readonly plated: boolean | undefined;
  /** Stated as a slot between two points (G85); a routed path stays a path, even a straight one. */
  readonly isSlot: boolean;
}

/** A drill file as plain data, in mm. */
export interface DrillData {
  readonly hits: readonly Hit[];
  readonly routs: readonly Rout[];
  readonly plated: boolean | "mixed" | undefined;
  readonly fileAttributes: Readonly<Record<string, readonly string[]>>;
  /** False when the file did not state its unit or where its zeros are left out: another reading may fit better. */
  readonly isCertain: boolean;
  readonly isDrillFile: boolean;
  /** Kept only where the reading is not certain, so that another one can be tried. */
  readonly text?: string;
  readonly findings: readonly Finding[];
}

/** How to read coordinates where the file does not say. */
export interface DrillReading {
  readonly unitMm: number;
  /** "keep-leading": missing digits are trailing zeros; "keep-trailing": the number is read as it stands. */
  readonly zeros: "keep-leading" | "keep-trailing";
  readonly integers: number;
  readonly decimals: number;
}

/** The readings tried in turn for a file that states neither unit nor zeros (domain.md 2.2). */
export const READINGS: readonly DrillReading[] = [
  { unitMm: 1, zeros: "keep-trailing", integers: 3, decimals: 3 },
  { unitMm: 25.4, zeros: "keep-trailing", integers: 2, decimals: 4 },
  { unitMm: 1, zeros: "keep-leading", integers: 3, decimals: 3 },
  { unitMm: 25.4, zeros: "keep-leading", integers: 2, decimals: 4 },
  { unitMm: 1, zeros: "keep-trailing", integers: 3, decimals: 2 },
  { unitMm: 1, zeros: "keep-leading", integers: 3, decimals: 2 },
];

/** Places farther from the origin than this, mm, are a wrong unit. */
const FARTHEST_MM = 5000;
const PLATED_WORDS = /\bPLATED\b/i;
const NON_PLATED_WORDS = /\bNON[_ -]?PLATED\b|\bNPTH\b|\bUNPLATED\b/i;

/**
 * Reads a drill and rout file in the dialects found in the wild.
 *
 * Units METRIC, INCH, M71, M72; zeros kept at either end or decimal points; tool tables in head or body; slots by G85
 * and by routing; repeats; comments that carry plating, unit and format. Never throws; O(bytes).
 *
 * @param reading overrides what the file leaves open
 */
export function readDrill(text: string, file: string, reading?: DrillReading): DrillData {
  return new DrillReader(file, reading).read(text);
}

class DrillReader {
  private readonly file: string;
  private readonly reading: DrillReading | undefined;
  private readonly found = new FindingList();
  private readonly tools = new Map<number, { mm: number; plated: boolean | undefined }>();
  private readonly hits: Hit[] = [];
  private readonly routs: Rout[] = [];
  private readonly fileAttributes: Record<string, string[]> = {};
  private unitMm: number | undefined;
  private zeros: "keep-leading" | "keep-trailing" | undefined;
  private integers = 0;
  private decimals = 0;
  private hasBareNumbers = false;
  private hasPoints = false;
  private isIncremental = false;
  private tool = -1;
  private x = 0;
  private y = 0;
  private inHeader = false;
  private isRouting = false;
  private isDown = false;
  /** 1 straight, 2 clockwise, 3 counter-clockwise. */
  private arc: 1 | 2 | 3 = 1;
  private path: [number, number][] = [];
  private filePlated: boolean | undefined;
  private toolPlated: boolean | undefined;
  private evidence = 0;
  private hasEnd = false;

  constructor(file: string, reading: DrillReading | undefined) {
    this.file = file;
    this.reading = reading;
  }

  read(text: string): DrillData {
    const lines = text.split(/\r\n|\r|\n/);
    this.hasPoints = /[XY][-+]?\d*\.\d/.test(text);
    for (let k = 0; k < lines.length && !this.hasEnd; k++) {
      const line = lines[k]!.trim();
      if (line === "") continue;
      if (line.startsWith(";")) this.comment(line.slice(1).trim());
      else this.statement(line, k + 1);
    }
    this.lift();
    if (!this.hasEnd && this.evidence > 1)
      this.say(
        "missing-end",
        "warning",
        lines.length,
        "The drill file ends without its end mark; it may be cut off.",
        "Export it again.",
      );
    const plated = this.overall();
    const isCertain =
      this.reading !== undefined ||
      (this.unitMm !== undefined && (!this.hasBareNumbers || this.zeros !== undefined));
    return {
      hits: this.hits,
      routs: this.routs,
      plated,
      fileAttributes: this.fileAttributes,
      isCertain,
      isDrillFile: this.evidence > 0,
      ...(isCertain ? {} : { text }),
      findings: this.found.done(),
    };
  }

  private overall(): boolean | "mixed" | undefined {
    const kinds = new Set([...this.hits, ...this.routs].map((h) => h.plated));
    if (kinds.has(true) && kinds.has(false)) return "mixed";
    if (kinds.size === 1) return [...kinds][0];
    return this.filePlated;
  }

  private say(tag: string, level: Finding["level"], line: number, text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line, text, ...(todo ? { do: todo } : {}) });
  }

  private comment(text: string): void {
    const attribute = /^#@!\s*(T[FAD])(.*)$/.exec(text);
    if (attribute) {
      const [name = "", ...fields] = attribute[2]!.trim().replace(/\*$/, "").split(",");
      if (attribute[1] === "TF") {
        this.fileAttributes[name.replace(/^\./, "")] = fields;
        if (name === ".FileFunction") {
          if (fields[0] === "Plated") this.filePlated = true;
          if (fields[0] === "NonPlated") this.filePlated = false;
        }
      } else if (attribute[1] === "TA") {
        if (
          fields.includes("Plated") ||
          fields.includes("ViaDrill") ||
          fields.includes("ComponentDrill") ||
          fields.includes("CastellatedDrill")
        )
          this.toolPlated = true;
        else if (fields.includes("NonPlated") || fields.includes("MechanicalDrill")) this.toolPlated = false;
      } else this.toolPlated = undefined;
      return;
    }
    const format = /FILE_FORMAT\s*=\s*(\d)\s*:\s*(\d)/i.exec(text);
    if (format) {
      this.integers = Number(format[1]);
      this.decimals = Number(format[2]);
    }
    if (/^TYPE\s*=\s*NON_?PLATED/i.test(text) || NON_PLATED_WORDS.test(text)) this.mark(false);
    else if (/^TYPE\s*=\s*PLATED/i.test(text) || PLATED_WORDS.test(text)) this.mark(true);
    if (this.unitMm === undefined && /\bunits?\b.*\b(inch|inches|imperial)\b/i.test(text)) this.unitMm = 25.4;
    if (this.unitMm === undefined && /\bunits?\b.*\b(mm|metric|millimet)/i.test(text)) this.unitMm = 1;
  }

  private mark(isPlated: boolean): void {
    if (this.inHeader && this.tools.size === 0) this.filePlated = isPlated;
    this.toolPlated = isPlated;
  }

  private statement(line: string, no: number): void {
    if (line === "M48") {
      this.evidence += 5;
      this.inHeader = true;
      return;
    }
    if (line === "%" || line === "M95") {
      this.inHeader = false;
      return;
    }
    const unit = /^(METRIC|INCH)((?:,[A-Z0-9.]+)*)$/i.exec(line);
    if (unit) {
      this.evidence += 3;
      this.unitMm = unit[1]!.toUpperCase() === "METRIC" ? 1 : 25.4;
      for (const word of unit[2]!.toUpperCase().split(",")) {
        if (word === "LZ") this.zeros = "keep-leading";
        if (word === "TZ") this.zeros = "keep-trailing";
        const digits = /^(0+)\.(0+)$/.exec(word);
        if (digits) {
          this.integers = digits[1]!.length;
          this.decimals = digits[2]!.length;
        }
      }
      return;
    }
    const define = /^T(\d+)(?=.*C)((?:[A-Z][-+.\d]*)*)$/i.exec(line);
    if (define && /C[.\d]/i.test(line)) {
      this.defineTool(Number(define[1]), define[2]!, no);
      return;
    }
    this.run(line.toUpperCase(), no);
  }

  private defineTool(number: number, fields: string, no: number): void {
    this.evidence += 2;
    const c = /C([.\d]+)/i.exec(fields);
    const size = Number(c?.[1]);
    const unit = this.reading?.unitMm ?? this.unitMm ?? 1;
    let mm = size * unit;
    if (!c![1]!.includes(".") && size >= 10) mm = (size / (unit === 1 ? 1000 : 10000)) * unit;
    if (!(mm > 0 && mm < 50)) {
      this.say(
        "parse-error",
        "error",
        no,
        `The diameter of tool ${number} is ${c?.[1]}; that cannot be.`,
        "Export the drill file again.",
      );
      return;
    }
    this.tools.set(number, { mm, plated: this.toolPlated ?? this.filePlated });
    if (!this.inHeader) this.tool = number;
  }

  private run(line: string, no: number): void {
    const words = [...line.matchAll(/([A-Z])([-+]?\d*\.?\d*)/g)].map((m) => [m[1]!, m[2]!] as const);
    if (
      words.length === 0 ||
      words.reduce((n, [a, b]) => n + a.length + b.length, 0) !== line.replace(/\s/g, "").length
    ) {
      if (!/^(FMAT|VER|DETECT|ATC|ICI|OSTOP|R,|VI|M47|M45)/.test(line))
        this.say("unknown-command", "remark", no, `“${line.slice(0, 40)}” was passed over.`);
      if (line.startsWith("ICI,ON")) this.isIncremental = true;
      return;
    }
    const get = (letter: string) => words.find(([a]) => a === letter)?.[1];
    const g = get("G");
    const m = get("M");
    const t = get("T");
    if (/^(FMAT|VER|DETECT|ATC|ICI|OSTOP)/.test(line)) return;
    if (m !== undefined && this.machine(Number(m))) return;
    if (t !== undefined && t !== "") this.select(Number(t), no);
    if (g === "85") {
      this.slot(line, no);
      return;
    }
    if (g !== undefined) this.mode(Number(g));
    const repeat = get("R");
    const xs = get("X");
    const ys = get("Y");
    if (xs === undefined && ys === undefined) return;
    if (repeat !== undefined && repeat !== "" && Number(repeat) < 10_000) {
      this.repeatHit(Number(repeat), xs, ys, no);
      return;
    }
    const [fromX, fromY] = [this.x, this.y];
    this.moveTo(xs, ys);
    if (g !== undefined && ["90", "91", "93", "92"].includes(g)) return;
    if (this.isRouting) {
      if (this.isDown) this.rout(fromX, fromY, get("A"), get("I"), get("J"), no);
    } else this.hit(no);
  }

  /** A stretch of a routed path: straight, or an arc by its radius or its centre's offset. */
  private rout(
    fromX: number,
    fromY: number,
    radius: string | undefined,
    i: string | undefined,
    j: string | undefined,
    no: number,
  ): void {
    if (!this.isNear(no)) return;
    const isCcw = this.arc === 3;
    let centre: readonly [number, number] | undefined;
    if (this.arc !== 1 && (i || j))
      centre = [fromX + (i ? this.number(i) : 0), fromY + (j ? this.number(j) : 0)];
    else if (this.arc !== 1 && radius) {
      centre = centreByRadius(fromX, fromY, this.x, this.y, Math.abs(this.number(radius)), isCcw);
      if (!centre)
        this.say(
          "arc-invalid",
          "warning",
          no,
          "A routed arc's radius is too small for its ends; a straight line was taken.",
        );
    }
    if (!centre || !(Math.hypot(centre[0] - fromX, centre[1] - fromY) < 4 * FARTHEST_MM)) {
      this.path.push([this.x, this.y]);
      return;
    }
    const points = arcPoints(fromX, fromY, this.x, this.y, centre[0], centre[1], isCcw, false, 0.002);
    for (let k = 0; k < points.length; k += 2) this.path.push([points[k]!, points[k + 1]!]);
  }

  private machine(m: number): boolean {
    if (m === 30 || m === 0) {
      this.hasEnd = true;
      return true;
    }
    if (m === 71) this.unitMm = 1;
    else if (m === 72) this.unitMm = 25.4;
    else if (m === 15) {
      this.lift();
      this.isDown = true;
      this.path = [[this.x, this.y]];
    } else if (m === 16 || m === 17) this.lift();
    return false;
  }

  private mode(g: number): void {
    if (g === 0) {
      this.lift();
      this.isRouting = true;
      this.arc = 1;
    } else if (g === 1 || g === 2 || g === 3) {
      this.isRouting = true;
      this.arc = g;
    } else if (g === 5 || g === 81) {
      this.lift();
      this.isRouting = false;
    } else if (g === 90) this.isIncremental = false;
    else if (g === 91) this.isIncremental = true;
  }

  private lift(): void {
    const tool = this.tools.get(this.tool);
    if (this.isDown && this.path.length > 1 && tool)
      this.routs.push({
        points: this.path,
        widthMm: tool.mm,
        plated: tool.plated,
        isSlot: false,
      });
    this.isDown = false;
    this.path = [];
  }

  private select(number: number, no: number): void {
    this.evidence++;
    if (number === 0) return;
    this.lift();
    this.tool = number;
    if (!this.tools.has(number))
      this.say(
        "undefined-tool",
        "error",
        no,
        `Tool ${number} is used but its diameter is not stated; its holes are missing.`,
        "Export the drill file with its tool table.",
      );
  }

  private number(text: string): number {
    const unit = this.reading?.unitMm ?? this.unitMm ?? 1;
    // in a file that writes points, a number without one is whole units
    if (text.includes(".") || this.hasPoints) return Number(text) * unit;
    this.hasBareNumbers = true;
    const sign = text.startsWith("-") ? -1 : 1;
    const digits = text.replace(/^[-+]/, "");
    const zeros = this.reading?.zeros ?? this.zeros ?? "keep-trailing";
    const decimals = this.reading?.decimals ?? (this.decimals || (unit === 1 ? 3 : 4));
    const integers = this.reading?.integers ?? (this.integers || (unit === 1 ? 3 : 2));
    const full = zeros === "keep-leading" ? digits.padEnd(integers + decimals, "0") : digits;
    return ((sign * Number(full)) / 10 ** decimals) * unit;
  }

  private moveTo(xs: string | undefined, ys: string | undefined): void {
    const base = this.isIncremental;
    if (xs !== undefined && xs !== "") this.x = (base ? this.x : 0) + this.number(xs);
    if (ys !== undefined && ys !== "") this.y = (base ? this.y : 0) + this.number(ys);
  }

  /** True where a place can be on a board; says once a place where not. */
  private isNear(no: number): boolean {
    if (Math.abs(this.x) < FARTHEST_MM && Math.abs(this.y) < FARTHEST_MM) return true;
    this.say(
      "value-out-of-range",
      "error",
      no,
      `The place ${this.x.toFixed(0)}, ${this.y.toFixed(0)} mm lies metres away; the unit or the digits are stated wrongly. It was left out.`,
    );
    return false;
  }

  private hit(no: number): void {
    const tool = this.tools.get(this.tool);
    if (!tool) {
      if (this.tool < 0)
        this.say(
          "undefined-tool",
          "error",
          no,
          "A hole is drilled before any tool is chosen; it is missing.",
        );
      return;
    }
    if (!this.isNear(no)) return;
    this.hits.push({ x: this.x, y: this.y, diameterMm: tool.mm, plated: tool.plated });
  }

  private repeatHit(count: number, xs: string | undefined, ys: string | undefined, no: number): void {
    const dx = xs ? this.number(xs) : 0;
    const dy = ys ? this.number(ys) : 0;
    for (let k = 0; k < count; k++) {
      this.x += dx;
      this.y += dy;
      this.hit(no);
    }
  }

  private slot(line: string, no: number): void {
    const [a = "", b = ""] = line.split("G85");
    const read = (s: string) => [/X([-+]?[\d.]+)/.exec(s)?.[1], /Y([-+]?[\d.]+)/.exec(s)?.[1]] as const;
    this.moveTo(...read(a));
    const from: [number, number] = [this.x, this.y];
    const isNear = this.isNear(no);
    this.moveTo(...read(b));
    const tool = this.tools.get(this.tool);
    if (!isNear || !this.isNear(no)) return;
    if (tool)
      this.routs.push({
        points: [from, [this.x, this.y]],
        widthMm: tool.mm,
        plated: tool.plated,
        isSlot: true,
      });
    else this.say("undefined-tool", "error", no, "A slot has no tool; it is missing.");
  }
}

/** Centre of the arc of at most half a turn with a radius through two points; undefined where the radius is too small. */
function centreByRadius(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  r: number,
  isCcw: boolean,
): readonly [number, number] | undefined {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const d = Math.hypot(dx, dy);
  const rest = r * r - (d * d) / 4;
  if (d === 0 || rest < -1e-4 * r * r - 1e-9) return undefined;
  const h = (Math.sqrt(Math.max(0, rest)) / d) * (isCcw ? 1 : -1);
  return [(x1 + x2) / 2 - dy * h, (y1 + y2) / 2 + dx * h];
}
