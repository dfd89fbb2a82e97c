import { type Finding, FindingList } from "../findings.ts";
import { Cutter, routOf } from "./cutter.ts";
import type { DrillData, DrillReading, Hit, Rout } from "./data.ts";
import { DrillHead } from "./head.ts";
import { MOST_HOLES, Pattern } from "./pattern.ts";

export { type DrillData, type DrillReading, type Hit, READINGS, type Rout } from "./data.ts";

/** Places farther from the origin than this, mm, are a wrong unit. */
const FARTHEST_MM = 5000;
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
  private readonly found = new FindingList();
  private readonly head: DrillHead;
  private readonly hits: Hit[] = [];
  private readonly routs: Rout[] = [];
  private isIncremental = false;
  private tool = -1;
  private x = 0;
  private y = 0;
  private readonly cutter = new Cutter();
  private hasEnd = false;
  /** A pattern that is being taken down, or was. */
  private pattern: Pattern | undefined;
  /** The next coordinate is the place of a text, not of a hole. */
  private isText = false;

  constructor(file: string, reading: DrillReading | undefined) {
    this.file = file;
    this.head = new DrillHead(file, reading, this.found);
  }

  read(text: string): DrillData {
    const lines = text.split(/\r\n|\r|\n/);
    this.head.hasPoints = /[XY][-+]?\d*\.\d/.test(text);
    for (let k = 0; k < lines.length && !this.hasEnd; k++) {
      const line = lines[k]!.trim();
      if (line === "") continue;
      if (line.startsWith(";")) this.head.comment(line.slice(1).trim());
      else if (!this.head.statement(line, k + 1)) this.run(line.toUpperCase(), k + 1);
      if (this.head.defined !== undefined) {
        this.tool = this.head.defined;
        this.head.defined = undefined;
      }
    }
    this.lift(lines.length);
    if (!this.hasEnd && this.head.evidence > 1)
      this.say(
        "missing-end",
        "warning",
        lines.length,
        "The drill file ends without its end mark; it may be cut off.",
        "Export it again.",
      );
    const plated = this.overall();
    const { isCertain } = this.head;
    return {
      hits: this.hits,
      routs: this.routs,
      plated,
      fileAttributes: this.head.fileAttributes,
      isCertain,
      isDrillFile: this.head.evidence > 0,
      ...(isCertain ? {} : { text }),
      findings: this.found.done(),
    };
  }

  private overall(): boolean | "mixed" | undefined {
    const kinds = new Set([...this.hits, ...this.routs].map((h) => h.plated));
    if (kinds.has(true) && kinds.has(false)) return "mixed";
    if (kinds.size === 1) return [...kinds][0];
    return this.head.filePlated;
  }

  private say(tag: string, level: Finding["level"], line: number, text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line, text, ...(todo ? { do: todo } : {}) });
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
      if (/^M9[78]/.test(line)) this.text(no);
      return;
    }
    const get = (letter: string) => words.find(([a]) => a === letter)?.[1];
    const g = get("G");
    const m = get("M");
    const t = get("T");
    if (/^(FMAT|VER|DETECT|ATC|ICI|OSTOP)/.test(line)) return;
    if (m !== undefined && this.isPattern(Number(m), get("R"), get("X"), get("Y"), no)) return;
    if (m !== undefined && this.machine(Number(m), no)) return;
    if (t !== undefined && t !== "") this.select(Number(t), no);
    if (g === "85") {
      this.slot(line, no);
      return;
    }
    if (g !== undefined) this.mode(Number(g), no);
    const repeat = get("R");
    const xs = get("X");
    const ys = get("Y");
    if (g !== undefined && ["40", "41", "42"].includes(g)) this.compensation(g, no);
    if (xs === undefined && ys === undefined) return;
    if (this.isText) {
      this.isText = false;
      this.moveTo(xs, ys);
      return;
    }
    // whatever else stands before a place is no hole: read or refused, never guessed
    if (g !== undefined && !KNOWN.has(Number(g))) {
      this.moveTo(xs, ys);
      const what = line.slice(0, 40);
      this.missing(`“${what}” is a pattern or cycle Kobbin does not expand; its holes are missing.`, no);
      return;
    }
    if (
      g !== undefined &&
      (g === "92" || g === "93") &&
      (this.head.number(xs ?? "0") !== 0 || this.head.number(ys ?? "0") !== 0)
    )
      this.say(
        "drill-origin-moved",
        "error",
        no,
        "The file moves its origin in the middle; what follows may lie elsewhere.",
        "Export the drill file with one origin, that of the layers.",
      );
    if (repeat !== undefined && repeat !== "") {
      this.repeatHit(Number(repeat), xs, ys, no);
      return;
    }
    const from: [number, number] = [this.x, this.y];
    this.moveTo(xs, ys);
    if (g !== undefined && ["90", "91", "93", "92"].includes(g)) return;
    if (!this.cutter.isRouting) this.hit(no);
    else if (this.cutter.isDown) this.rout(from, [get("A"), get("I"), get("J")], no);
  }

  /** A stretch of a routed path: straight, or an arc by its radius or its centre's offset. */
  private rout(from: [number, number], words: readonly (string | undefined)[], no: number): void {
    if (!this.isNear(no)) return;
    const [radius, i, j] = words.map((w) => (w ? this.head.number(w) : undefined));
    if (!this.cutter.cut(from, [this.x, this.y], { radius, i, j }, 4 * FARTHEST_MM))
      this.say(
        "arc-invalid",
        "warning",
        no,
        "A routed arc's radius is too small for its ends; a straight line was taken.",
      );
  }

  /** What a pattern is begun, closed, laid and ended by. True where it was one of them. */
  private isPattern(
    m: number,
    repeat: string | undefined,
    xs: string | undefined,
    ys: string | undefined,
    no: number,
  ): boolean {
    if (m === 25) this.pattern = new Pattern(this.hits.length, this.routs.length);
    else if (m === 8) this.pattern = undefined;
    else if (m === 1 && this.pattern) {
      this.lift(no);
      this.pattern.close({ hits: this.hits, routs: this.routs });
    } else if (m !== 2) return false;
    else if (xs !== undefined || ys !== undefined) {
      const times = repeat === undefined || repeat === "" ? 1 : Number(repeat);
      const step = [xs, ys].map((w) => (w ? this.head.number(w) : 0));
      if (!this.pattern?.isTaken)
        this.missing("A pattern is laid again that was never begun; its holes are missing.", no);
      else if (!isCount(times))
        this.missing(`A pattern is laid ${repeat} times, which is no number of times; it was not laid.`, no);
      else if (!this.pattern.lay(times, step[0]!, step[1]!, { hits: this.hits, routs: this.routs }))
        this.missing(
          `A pattern is laid ${times} times, which makes more holes than a board has; it was not laid.`,
          no,
        );
    }
    return true;
  }

  /** Holes are not there that the file asks for. */
  private missing(text: string, no: number): void {
    const todo = "Export the drill file with every hole written out.";
    this.say("drill-not-expanded", "error", no, text, todo);
  }

  /** A text is drilled as dots: which ones, only the machine knows. */
  private text(no: number): void {
    this.isText = true;
    this.say(
      "drill-not-expanded",
      "error",
      no,
      "A text is to be drilled; its holes are not known and missing.",
      "Leave the text out of the drill file.",
    );
  }

  private compensation(g: string, no: number): void {
    if (g !== "40")
      this.say(
        "drill-compensation",
        "warning",
        no,
        `A path is to be cut beside its line (${g === "41" ? "left" : "right"} of it); it was read as the middle of the cut.`,
        "Look at the cut on the picture: it may be half a cutter off.",
      );
  }

  private machine(m: number, no: number): boolean {
    if (m === 30 || m === 0) {
      this.hasEnd = true;
      return true;
    }
    if (m === 71) this.head.unitMm = 1;
    else if (m === 72) this.head.unitMm = 25.4;
    else if (m === 15) {
      this.lift(no);
      this.cutter.down(this.x, this.y);
    } else if (m === 16 || m === 17) this.lift(no);
    return false;
  }

  private mode(g: number, no: number): void {
    if (g === 0) {
      this.lift(no);
      this.cutter.isRouting = true;
      this.cutter.arc = 1;
    } else if (g === 1 || g === 2 || g === 3) {
      this.cutter.isRouting = true;
      this.cutter.arc = g;
    } else if (g === 5 || g === 81) {
      this.lift(no);
      this.cutter.isRouting = false;
    } else if (g === 90) this.isIncremental = false;
    else if (g === 91) this.isIncremental = true;
  }

  private lift(no: number): void {
    const path = this.cutter.lift();
    const tool = this.head.tools.get(this.tool);
    if (!path) return;
    if (!tool) this.toolless("A path is cut", no);
    else if (path.length > 1) this.routs.push(routOf(path, tool, false));
    else {
      // down and up on the spot leaves a hole as wide as the cutter
      const [x, y] = path[0]!;
      this.hits.push({ x, y, diameterMm: tool.mm, plated: tool.plated, tool });
    }
  }

  /** What is drilled or cut before any tool is chosen; a tool without a diameter was said where it was chosen. */
  private toolless(what: string, no: number): void {
    if (this.tool >= 0) return;
    const todo = "Export the drill file again, with a tool chosen before the first hole and path.";
    this.say("undefined-tool", "error", no, `${what} before any tool is chosen; it is missing.`, todo);
  }

  private select(number: number, no: number): void {
    this.head.evidence++;
    if (number === 0) return;
    this.lift(no);
    this.tool = number;
    if (!this.head.tools.has(number))
      this.say(
        "undefined-tool",
        "error",
        no,
        `Tool ${number} is used but its diameter is not stated; its holes are missing.`,
        "Export the drill file with its tool table.",
      );
  }

  private moveTo(xs: string | undefined, ys: string | undefined): void {
    const base = this.isIncremental;
    if (xs !== undefined && xs !== "") this.x = (base ? this.x : 0) + this.head.number(xs);
    if (ys !== undefined && ys !== "") this.y = (base ? this.y : 0) + this.head.number(ys);
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
    const tool = this.head.tools.get(this.tool);
    if (!tool) this.toolless("A hole is drilled", no);
    else if (this.isNear(no))
      this.hits.push({ x: this.x, y: this.y, diameterMm: tool.mm, plated: tool.plated, tool });
  }

  private repeatHit(count: number, xs: string | undefined, ys: string | undefined, no: number): void {
    if (!isCount(count) || this.hits.length + count > MOST_HOLES) {
      const why = isCount(count) ? "which makes more holes than a board has" : "which is no number of times";
      this.missing(`A hole is repeated ${count} times, ${why}; they are missing.`, no);
      return;
    }
    const dx = xs ? this.head.number(xs) : 0;
    const dy = ys ? this.head.number(ys) : 0;
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
    const tool = this.head.tools.get(this.tool);
    if (!isNear || !this.isNear(no)) return;
    if (tool) this.routs.push(routOf([from, [this.x, this.y]], tool, true));
    else this.say("undefined-tool", "error", no, "A slot has no tool; it is missing.");
  }
}

const isCount = (n: number): boolean => Number.isSafeInteger(n) && n >= 0;
/** Commands that may stand before a place: modes, routing, slots, origin, compensation. */
const KNOWN = new Set([0, 1, 2, 3, 5, 40, 41, 42, 81, 85, 90, 91, 92, 93]);
