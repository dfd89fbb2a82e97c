import { type Finding, FindingList, type FindingTag } from "../findings.ts";
import { commandOf, type Word, withoutComments } from "./command.ts";
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
      else {
        const [bare, comment] = withoutComments(line.toUpperCase());
        if (bare !== "" && !this.head.statement(bare.replace(/\s/g, ""), comment, k + 1))
          this.run(bare, k + 1);
      }
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

  private say(tag: FindingTag, level: Finding["level"], line: number, text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line, text, ...(todo ? { do: todo } : {}) });
  }

  private run(line: string, no: number): void {
    if (/^M9[78]/.test(line)) {
      this.text(no);
      return;
    }
    const command = commandOf(line);
    if (command.kind === "words") this.command(command.words, line.slice(0, 40), no);
    else if (command.kind === "damaged") {
      if (line.startsWith("T")) this.tool = UNREAD_TOOL;
      const what = `“${line.slice(0, 40)}” cannot be read: ${command.why}; what it drills or cuts is missing.`;
      this.say("parse-error", "error", no, what, "Export the drill file again.");
    } else if (line.startsWith("ICI,ON")) this.isIncremental = true;
    else if (!command.isNamed)
      this.say("unknown-command", "remark", no, `“${line.slice(0, 40)}” was passed over.`);
  }

  private command(words: readonly Word[], what: string, no: number): void {
    const get = (letter: string) => words.find(([l]) => l === letter)?.[1];
    const codes = (letter: string) => words.filter(([l]) => l === letter).map(([, n]) => Number(n));
    const [xs, ys, t, repeat] = ["X", "Y", "T", "R"].map(get);
    const [gs, ms] = [codes("G"), codes("M")];
    if (this.isPattern(ms, repeat, xs, ys, no)) return;
    for (const m of ms) this.machine(m, no);
    if (this.hasEnd) return;
    if (t !== undefined) this.select(Number(t), no);
    if (gs.includes(85)) {
      this.slot(words, no);
      return;
    }
    for (const g of gs) this.mode(g, no);
    if (xs === undefined && ys === undefined) return;
    if (this.isText) {
      this.isText = false;
      this.moveTo(xs, ys);
      return;
    }
    // whatever else stands before a place is no hole: read or refused, never guessed
    if (gs.some((g) => !KNOWN_G.has(g)) || ms.some((m) => !KNOWN_M.has(m))) {
      this.moveTo(xs, ys);
      this.missing(`“${what}” is a pattern or cycle Kobbin does not expand; its holes are missing.`, no);
      return;
    }
    if (gs.includes(92) || gs.includes(93)) {
      if (this.head.number(xs ?? "0") !== 0 || this.head.number(ys ?? "0") !== 0)
        this.say(
          "drill-origin-moved",
          "error",
          no,
          "The file moves its origin in the middle; what follows may lie elsewhere.",
          "Export the drill file with one origin, that of the layers.",
        );
      this.moveTo(xs, ys);
      return;
    }
    if (repeat !== undefined) {
      if (this.cutter.isRouting)
        this.missing(`“${what}” repeats a stretch of a cut path; the stretches are missing.`, no);
      else this.repeatHit(Number(repeat), xs, ys, no);
      return;
    }
    const from: [number, number] = [this.x, this.y];
    this.moveTo(xs, ys);
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
        "A routed arc has no centre that fits its ends; a straight line was taken.",
      );
  }

  /** What a pattern is begun, closed, laid and ended by. True where it was one of them. */
  private isPattern(
    ms: readonly number[],
    repeat: string | undefined,
    xs: string | undefined,
    ys: string | undefined,
    no: number,
  ): boolean {
    const [m] = ms;
    if (m === 25) this.pattern = new Pattern(this.hits.length, this.routs.length);
    else if (m === 8) this.pattern = undefined;
    else if (m === 1 && this.pattern) {
      this.lift(no);
      this.pattern.close({ hits: this.hits, routs: this.routs });
    } else if (m !== 2) return false;
    else if (xs !== undefined || ys !== undefined) {
      const times = repeat === undefined ? 1 : Number(repeat);
      const step = [xs, ys].map((w) => (w ? this.head.number(w) : 0));
      if (ms.length > 1)
        this.missing(
          "A pattern is laid mirrored or turned, which Kobbin does not expand; its holes are missing.",
          no,
        );
      else if (!this.pattern?.isTaken)
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

  private machine(m: number, no: number): void {
    if (m === 30 || m === 0) this.hasEnd = true;
    else if (m === 71) this.head.unitMm = 1;
    else if (m === 72) this.head.unitMm = 25.4;
    else if (m === 15) {
      this.lift(no);
      this.cutter.down(this.x, this.y);
    } else if (m === 16 || m === 17) this.lift(no);
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
    else if (g === 41 || g === 42)
      this.say(
        "drill-compensation",
        "warning",
        no,
        `A path is to be cut beside its line (${g === 41 ? "left" : "right"} of it); it was read as the middle of the cut.`,
        "Look at the cut on the picture: it may be half a cutter off.",
      );
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
    if (!this.head.tools.has(number) && !this.head.takeRemarked(number, no))
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
    if (xs !== undefined) this.x = (base ? this.x : 0) + this.head.number(xs);
    if (ys !== undefined) this.y = (base ? this.y : 0) + this.head.number(ys);
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

  private slot(words: readonly Word[], no: number): void {
    const middle = words.findIndex(([l, n]) => l === "G" && Number(n) === 85);
    const half = (list: readonly Word[]) => ["X", "Y"].map((l) => list.find(([k]) => k === l)?.[1]);
    const [x0, y0] = half(words.slice(0, middle));
    const [x1, y1] = half(words.slice(middle));
    this.moveTo(x0, y0);
    const from: [number, number] = [this.x, this.y];
    const isNear = this.isNear(no);
    this.moveTo(x1, y1);
    const tool = this.head.tools.get(this.tool);
    if (!isNear || !this.isNear(no)) return;
    if (tool) this.routs.push(routOf([from, [this.x, this.y]], tool, true));
    else this.say("undefined-tool", "error", no, "A slot has no tool; it is missing.");
  }
}

const isCount = (n: number): boolean => Number.isSafeInteger(n) && n >= 0;
/** Codes that may stand before a place: modes, routing, slots, origin, compensation; end, units, cutter down and up. */
const KNOWN_G = new Set([0, 1, 2, 3, 5, 40, 41, 42, 81, 85, 90, 91, 92, 93]);
const KNOWN_M = new Set([0, 15, 16, 17, 30, 71, 72]);
/** In hand after a tool whose line cannot be read: nothing is drilled with it, which was said there. */
const UNREAD_TOOL = Number.POSITIVE_INFINITY;
