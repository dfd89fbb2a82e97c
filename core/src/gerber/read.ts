import { type Finding, FindingList } from "../board/findings.ts";
import { arcPoints, arcSweep } from "../geometry/arc.ts";
import { signedArea } from "../geometry/polygon.ts";
import { defineAperture, IDENTITY, type Transform, transformAperture } from "./aperture.ts";
import { Attributes } from "./attributes.ts";
import { Coordinates } from "./coordinates.ts";
import { copyObjects } from "./copies.ts";
import { type Aperture, ImageBuilder, KIND, type LayerImage } from "./image.ts";
import type { Macro } from "./macro.ts";
import { type Command, HAS, Scanner } from "./scan.ts";

/** Bounds of one layer; a file beyond them is read up to the bound and says so. */
export interface LayerLimits {
  readonly maxObjects: number;
}

/** Points of all filled areas together; copies of large areas stop here. */
const MAX_POINTS = 12_000_000;

const DEFAULT_LIMITS: LayerLimits = { maxObjects: 2_000_000 };

/**
 * Reads a layer image (published layer format, X1 to X3 including deprecated words) into plain data.
 *
 * Never throws for bad input: what was not understood stands in `findings` with line and text, the rest is read.
 * O(bytes + objects). Lengths come out in mm whatever the file's unit.
 *
 * @param file name for the findings only; the content alone decides
 */
export function readLayer(u8: Uint8Array, file: string, limits: LayerLimits = DEFAULT_LIMITS): LayerImage {
  return new LayerReader(u8, file, limits).read();
}

/** One interpreter: the commands of the scanner change this state and add objects. */
class LayerReader {
  private readonly scanner: Scanner;
  private readonly file: string;
  private readonly limits: LayerLimits;
  private readonly found = new FindingList();
  private readonly apertures: Aperture[] = [];
  private readonly byCode = new Map<number, number>();
  private readonly derived = new Map<string, number>();
  private readonly macros = new Map<string, Macro>();
  private readonly blocks = new Map<number, ImageBuilder>();
  private readonly attributes = new Attributes();
  private readonly numbers = new Coordinates();

  private builder = new ImageBuilder();
  private readonly open: { code: number; builder: ImageBuilder }[] = [];
  private repeat: { nx: number; ny: number; dx: number; dy: number; from: number } | undefined;

  private saidNoFormat = false;
  private x = 0;
  private y = 0;
  private lastD = 2;
  private current = -1;
  private mode: 1 | 2 | 3 = 1;
  private isSingleQuadrant = false;
  private dark: 0 | 1 = 1;
  private transform: Transform = IDENTITY;
  private inRegion = false;
  private contour: number[] = [];
  private contourLine = 0;
  private hasEnd = false;
  private isFull = false;
  private evidence = 0;

  constructor(u8: Uint8Array, file: string, limits: LayerLimits) {
    this.scanner = new Scanner(u8);
    this.file = file;
    this.limits = limits;
  }

  read(): LayerImage {
    for (
      let c = this.scanner.next();
      c.kind !== "end" && !this.hasEnd && !this.isFull;
      c = this.scanner.next()
    ) {
      if (c.kind === "block") this.block(c.text, c.line);
      else this.word(c);
    }
    if (this.inRegion && this.contour.length > 2) this.closeContour(this.contourLine);
    while (this.open.length > 0) this.closeBlock(this.scanner.command.line);
    this.closeRepeat();
    if (!this.hasEnd && !this.isFull && this.evidence > 0)
      this.say(
        "missing-end",
        "warning",
        this.scanner.command.line,
        "The file ends without its end mark; it may be cut off.",
        "Export it again and compare the size.",
      );
    if (this.builder.n > 0 && !this.numbers.hasUnit)
      this.say(
        "missing-unit",
        "warning",
        1,
        "The file does not state its unit; millimetres were taken.",
        "Compare the size on the picture with your design.",
      );
    const b = this.builder;
    return {
      n: b.n,
      kind: b.kind.subarray(0, b.n),
      aperture: b.aperture.subarray(0, b.n),
      dark: b.dark.subarray(0, b.n),
      attributes: b.attributes.subarray(0, b.n),
      geo: b.geo.subarray(0, b.n * 6),
      points: b.points.subarray(0, b.pointCount * 2),
      apertures: this.apertures,
      attributeTable: this.attributes.table,
      fileAttributes: this.attributes.file,
      findings: this.found.done(),
      isLayerFile: this.evidence > 0,
    };
  }

  private say(tag: string, level: Finding["level"], line: number, text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line, text, ...(todo ? { do: todo } : {}) });
  }

  // ---- words -------------------------------------------------------------------------------------------------

  private word(c: Command): void {
    if (c.bad) {
      this.say("parse-error", "warning", c.line, `“${c.text}” was not understood and was passed over.`);
      return;
    }
    if (c.g === 4) {
      const hidden = /^\s*#@!\s*(T[FAOD].*)$/.exec(c.text);
      if (hidden) this.attribute(hidden[1]!.trim(), c.line);
      return;
    }
    if (c.g >= 0) this.general(c);
    if (c.m === 2 || c.m === 0 || c.m === 30) {
      this.hasEnd = true;
      return;
    }
    if (c.d >= 10) {
      this.evidence++;
      const index = this.byCode.get(c.d) ?? (this.blocks.has(c.d) ? -2 - c.d : undefined);
      if (index === undefined) {
        this.say(
          "undefined-aperture",
          "error",
          c.line,
          `D${c.d} is used but not defined; what it draws is missing.`,
          "Export the layer again with its aperture list inside.",
        );
        this.current = -1;
      } else this.current = index;
      return;
    }
    if (c.d < 0 && c.has === 0) return;
    if (c.d === 0 || (c.d > 3 && c.d < 10)) {
      this.say("unknown-command", "warning", c.line, `D${c.d} is not a code of the format.`);
      return;
    }
    this.operate(c, c.d > 0 ? c.d : this.lastD);
  }

  private general(c: Command): void {
    switch (c.g) {
      case 1:
      case 2:
      case 3:
        this.mode = c.g;
        break;
      case 36:
        this.inRegion = true;
        this.contour = [];
        break;
      case 37:
        if (this.contour.length > 2) this.closeContour(c.line);
        this.inRegion = false;
        this.contour = [];
        break;
      case 74:
        this.isSingleQuadrant = true;
        break;
      case 75:
        this.isSingleQuadrant = false;
        break;
      case 70:
        this.numbers.setUnit(25.4);
        break;
      case 71:
        this.numbers.setUnit(1);
        break;
      case 90:
        this.numbers.isIncremental = false;
        break;
      case 91:
        this.numbers.isIncremental = true;
        break;
      case 54:
      case 55:
        break;
      default:
        this.say(
          "unknown-command",
          "warning",
          c.line,
          `G${c.g} is not a code of the format and was passed over.`,
        );
    }
  }

  private operate(c: Command, d: number): void {
    if (!this.numbers.hasFormat && !this.saidNoFormat) {
      this.saidNoFormat = true;
      const tag = this.evidence > 0 ? "coordinates-before-format" : "missing-format";
      this.say(
        tag,
        "error",
        c.line,
        "Coordinates come before the format is stated; six decimals were taken.",
        "Export the layer again.",
      );
    }
    const baseX = this.numbers.isIncremental ? this.x : 0;
    const baseY = this.numbers.isIncremental ? this.y : 0;
    const nx = c.has & HAS.x ? baseX + this.numbers.length(c.x, c.xDigits) : this.x;
    const ny = c.has & HAS.y ? baseY + this.numbers.length(c.y, c.yDigits) : this.y;
    this.lastD = d;
    if (Math.abs(nx) > 5000 || Math.abs(ny) > 5000) {
      this.say(
        "value-out-of-range",
        "error",
        c.line,
        `The point ${nx.toFixed(0)}, ${ny.toFixed(0)} mm lies metres away; the format or the unit is stated wrongly.`,
      );
      this.x = nx;
      this.y = ny;
      return;
    }
    if (this.builder.n >= this.limits.maxObjects) {
      this.say(
        "too-many-objects",
        "error",
        c.line,
        `The layer holds more than ${this.limits.maxObjects} objects; it was read up to here.`,
      );
      this.isFull = true;
      return;
    }
    if (d === 1) this.draw(c, nx, ny);
    else if (d === 3) this.flash(c, nx, ny);
    else if (this.inRegion && this.contour.length > 2) this.closeContour(c.line);
    this.x = nx;
    this.y = ny;
  }

  private centre(c: Command, nx: number, ny: number): [number, number] | undefined {
    const i = c.has & HAS.i ? this.numbers.length(c.i, c.iDigits) : 0;
    const j = c.has & HAS.j ? this.numbers.length(c.j, c.jDigits) : 0;
    const { x, y } = this;
    if (!this.isSingleQuadrant) return [x + i, y + j];
    // single quadrant: offsets carry no sign; the centre that fits both ends and turns at most 90° is meant
    let best: [number, number] | undefined;
    let bestError = Number.POSITIVE_INFINITY;
    for (const [sx, sy] of [
      [1, 1],
      [1, -1],
      [-1, 1],
      [-1, -1],
    ] as const) {
      const [cx, cy] = [x + sx * Math.abs(i), y + sy * Math.abs(j)];
      const error = Math.abs(Math.hypot(x - cx, y - cy) - Math.hypot(nx - cx, ny - cy));
      const sweep = Math.abs(arcSweep(x, y, nx, ny, cx, cy, this.mode === 3, false));
      if (sweep <= Math.PI / 2 + 1e-3 && error < bestError) {
        best = [cx, cy];
        bestError = error;
      }
    }
    return best;
  }

  private draw(c: Command, nx: number, ny: number): void {
    const { x, y } = this;
    let centre: [number, number] | undefined;
    if (this.mode !== 1) {
      centre = this.centre(c, nx, ny);
      const radius = centre ? Math.hypot(x - centre[0], y - centre[1]) : 0;
      if (!centre || radius < 1e-6) {
        this.say(
          "arc-invalid",
          "warning",
          c.line,
          "An arc has no centre that fits its ends; a straight line was drawn.",
        );
        centre = undefined;
      } else if (
        Math.abs(radius - Math.hypot(nx - centre[0], ny - centre[1])) > Math.max(0.02, radius * 0.02)
      )
        this.say(
          "arc-invalid",
          "warning",
          c.line,
          "The ends of an arc lie at different distances from its centre.",
        );
    }
    const isFull = !this.isSingleQuadrant;
    if (this.inRegion) {
      if (this.contour.length === 0) {
        this.contour.push(x, y);
        this.contourLine = c.line;
      }
      if (centre)
        this.contour.push(...arcPoints(x, y, nx, ny, centre[0], centre[1], this.mode === 3, isFull));
      else this.contour.push(nx, ny);
      return;
    }
    if (this.current < 0) {
      if (this.current === -1)
        this.say(
          "undefined-aperture",
          "error",
          c.line,
          "A stroke is drawn without an aperture; it is missing.",
        );
      return;
    }
    const stamp = this.stamp(this.current);
    if (!centre) this.builder.add(KIND.line, stamp, this.dark, this.attributes.index, x, y, nx, ny);
    else if (x === nx && y === ny && !isFull)
      this.builder.add(KIND.line, stamp, this.dark, this.attributes.index, x, y, nx, ny);
    else
      this.builder.add(
        this.mode === 2 ? KIND.arcCw : KIND.arcCcw,
        stamp,
        this.dark,
        this.attributes.index,
        x,
        y,
        nx,
        ny,
        centre[0],
        centre[1],
      );
  }

  private flash(c: Command, nx: number, ny: number): void {
    if (this.inRegion) {
      this.say("unknown-command", "warning", c.line, "A flash inside a region was passed over.");
      return;
    }
    if (this.current === -1) {
      this.say("undefined-aperture", "error", c.line, "A flash has no aperture; it is missing.");
      return;
    }
    if (this.current < -1) {
      this.copyObjects(
        this.blocks.get(-2 - this.current)!,
        0,
        Number.POSITIVE_INFINITY,
        nx,
        ny,
        this.transform,
        this.dark === 0,
        c.line,
      );
      return;
    }
    this.builder.add(KIND.flash, this.stamp(this.current), this.dark, this.attributes.index, nx, ny);
  }

  /** The aperture under the transformation in force, made once. */
  private stamp(index: number): number {
    return this.derive(index, this.transform);
  }

  private derive(index: number, t: Transform): number {
    if (!t.mirrorX && !t.mirrorY && t.degrees === 0 && t.scale === 1) return index;
    const key = `${index} ${t.mirrorX} ${t.mirrorY} ${t.degrees} ${t.scale}`;
    let found = this.derived.get(key);
    if (found === undefined) {
      found = this.apertures.length;
      this.apertures.push(transformAperture(this.apertures[index]!, t));
      this.derived.set(key, found);
    }
    return found;
  }

  private closeContour(line: number): void {
    const ring = this.contour;
    this.contour = [];
    const n = ring.length;
    if (n < 6) return;
    if (Math.hypot(ring[0]! - ring[n - 2]!, ring[1]! - ring[n - 1]!) > 0.001)
      this.say(
        "region-open",
        "warning",
        line,
        "A filled area is not closed; a straight line closes it here.",
      );
    else ring.length = n - 2;
    if (ring.length < 6) return;
    if (signedArea(ring) < 0) {
      for (let a = 0, b = ring.length - 2; a < b; a += 2, b -= 2) {
        [ring[a], ring[b]] = [ring[b]!, ring[a]!];
        [ring[a + 1], ring[b + 1]] = [ring[b + 1]!, ring[a + 1]!];
      }
    }
    const [first, last] = this.builder.addPoints(ring);
    this.builder.add(KIND.region, -1, this.dark, this.attributes.index, first, last);
  }

  // ---- blocks between percent signs --------------------------------------------------------------------------

  private block(text: string, line: number): void {
    const statements = text.split("*");
    const first = statements[0]!.trim();
    if (first.startsWith("AM")) {
      const name = first.slice(2);
      const body = statements.slice(1).map((s) => s.replace(/[\r\n]/g, "").trim());
      this.macros.set(name, { name, statements: body });
      this.evidence++;
      return;
    }
    for (const raw of statements) {
      const s = raw.replace(/[\r\n]/g, "").trim();
      if (s === "") continue;
      try {
        this.extended(s, line);
      } catch (error) {
        const tag = s.startsWith("AD") ? "macro-error" : "parse-error";
        this.say(
          tag,
          "error",
          line,
          `${s.slice(0, 40)}: ${(error as Error).message}.`,
          "What it draws is missing; export the layer again.",
        );
      }
    }
  }

  private extended(s: string, line: number): void {
    const key = s.slice(0, 2);
    switch (key) {
      case "FS":
        this.format(s, line);
        break;
      case "MO":
        this.evidence++;
        if (s === "MOMM") this.numbers.setUnit(1);
        else if (s === "MOIN") this.numbers.setUnit(25.4);
        else throw new Error("the unit is neither MM nor IN");
        break;
      case "AD":
        this.define(s);
        break;
      case "LP":
        this.dark = s[2] === "C" ? 0 : 1;
        break;
      case "LM":
        this.transform = { ...this.transform, mirrorX: s.includes("X", 2), mirrorY: s.includes("Y", 2) };
        break;
      case "LR":
        this.transform = { ...this.transform, degrees: Number(s.slice(2)) || 0 };
        break;
      case "LS":
        this.transform = { ...this.transform, scale: Number(s.slice(2)) || 1 };
        break;
      case "SR":
        this.stepRepeat(s, line);
        break;
      case "AB":
        this.blockAperture(s, line);
        break;
      case "TF":
      case "TA":
      case "TO":
      case "TD":
        this.attribute(s, line);
        break;
      case "IP":
        if (s === "IPNEG")
          this.say(
            "deprecated-transform",
            "warning",
            line,
            "The whole image is stated negative; it was read as positive.",
            "Look at the layer on the picture and correct its role if it is inverted.",
          );
        break;
      case "OF":
      case "MI":
      case "SF":
      case "AS":
      case "IR":
        if (!isNeutral(s))
          this.say(
            "deprecated-transform",
            "warning",
            line,
            `“${s}” moves or turns the whole image; it is not applied.`,
            "Compare the layer's place with the others on the picture.",
          );
        break;
      case "IN":
      case "LN":
      case "IF":
        break;
      default:
        this.say(
          "unknown-command",
          "warning",
          line,
          `“${s.slice(0, 30)}” is not a command of the format and was passed over.`,
        );
    }
  }

  private format(s: string, line: number): void {
    this.evidence++;
    if (!this.numbers.setFormat(s))
      this.say("parse-error", "warning", line, "X and Y state different number formats; X counts.");
  }

  private define(s: string): void {
    const m = /^ADD(\d+)([A-Za-z_.$][\w.$-]*)(?:,(.*))?$/.exec(s);
    if (!m) throw new Error("the aperture cannot be read");
    this.evidence++;
    const code = Number(m[1]);
    const p = (m[3] ?? "")
      .split("X")
      .filter((t) => t.trim() !== "")
      .map(Number);
    if (p.some((v) => !Number.isFinite(v))) throw new Error("a parameter is not a number");
    const aperture = defineAperture(code, m[2]!, p, this.macros, this.numbers.unitMm);
    this.byCode.set(code, this.apertures.length);
    this.apertures.push(
      this.attributes.apertureFunction
        ? { ...aperture, function: this.attributes.apertureFunction }
        : aperture,
    );
  }

  private attribute(s: string, line: number): void {
    if (!this.attributes.apply(s))
      this.say("unknown-command", "remark", line, `“${s.slice(0, 30)}” was passed over.`);
  }

  // ---- copies ------------------------------------------------------------------------------------------------

  private stepRepeat(s: string, line: number): void {
    this.closeRepeat();
    const m = /^SRX(\d+)Y(\d+)I([-\d.]+)J([-\d.]+)$/.exec(s);
    if (!m) {
      if (s !== "SR") this.say("parse-error", "warning", line, `“${s}” was not understood.`);
      return;
    }
    this.repeat = {
      nx: Number(m[1]),
      ny: Number(m[2]),
      dx: Number(m[3]) * this.numbers.unitMm,
      dy: Number(m[4]) * this.numbers.unitMm,
      from: this.builder.n,
    };
  }

  private closeRepeat(): void {
    const r = this.repeat;
    this.repeat = undefined;
    if (!r || r.from === this.builder.n) return;
    const to = this.builder.n;
    for (let a = 0; a < r.nx && !this.isFull; a++)
      for (let b = 0; b < r.ny && !this.isFull; b++)
        if (a + b > 0)
          this.copyObjects(
            this.builder,
            r.from,
            to,
            a * r.dx,
            b * r.dy,
            IDENTITY,
            false,
            this.scanner.command.line,
          );
  }

  private blockAperture(s: string, line: number): void {
    const m = /^ABD(\d+)$/.exec(s);
    if (m) {
      if (this.open.length > 10) throw new Error("blocks are nested more than ten deep");
      this.open.push({ code: Number(m[1]), builder: this.builder });
      this.builder = new ImageBuilder();
      this.evidence++;
    } else this.closeBlock(line);
  }

  private closeBlock(line: number): void {
    const last = this.open.pop();
    if (!last) {
      this.say("parse-error", "warning", line, "A block is closed that was never opened.");
      return;
    }
    this.blocks.set(last.code, this.builder);
    this.builder = last.builder;
  }

  private copyObjects(
    from: ImageBuilder,
    first: number,
    last: number,
    dx: number,
    dy: number,
    transform: Transform,
    flips: boolean,
    line: number,
  ): void {
    const { builder, limits } = this;
    const isDone = copyObjects(
      from,
      builder,
      { first, last, dx, dy, transform, flips },
      {
        stamp: (aperture) => this.derive(aperture, transform),
        hasRoom: () => builder.n < limits.maxObjects && builder.pointCount <= MAX_POINTS,
      },
    );
    if (isDone) return;
    if (!this.isFull)
      this.say(
        "too-many-objects",
        "error",
        line,
        `Copies make more than ${limits.maxObjects} objects; the rest was left out.`,
      );
    this.isFull = true;
  }
}

const isNeutral = (s: string) =>
  /^(OFA?0?B?0?|MIA0B0|SFA1(\.0*)?B1(\.0*)?|ASAXBY|IR0)$/.test(s.replace(/\.0+(?=\D|$)/g, ""));
