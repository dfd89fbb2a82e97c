import { type Finding, FindingList, type FindingTag } from "../findings.ts";
import { IDENTITY, type Transform, transformAperture } from "./aperture.ts";
import { Attributes } from "./attributes.ts";
import { Coordinates } from "./coordinates.ts";
import { copyObjects } from "./copies.ts";
import { type Aperture, ImageBuilder } from "./image.ts";
import type { Macro } from "./macro.ts";
import { Scanner } from "./scan.ts";
import { WholeImage } from "./whole.ts";

/** Bounds of one layer; a file beyond them is read up to the bound and says so. */
export interface LayerLimits {
  readonly maxObjects: number;
}

/** Points of all filled areas together; copies of large areas stop here. */
const MAX_POINTS = 12_000_000;

/** A step and repeat that is open: its copies are made when it closes. */
export interface Repeat {
  readonly nx: number;
  readonly ny: number;
  readonly dx: number;
  readonly dy: number;
  readonly from: number;
}

/** Everything a layer file's commands change while they are read (the graphics state of the published layer format). */
export class LayerState {
  readonly scanner: Scanner;
  readonly file: string;
  readonly limits: LayerLimits;
  readonly found = new FindingList();
  readonly apertures: Aperture[] = [];
  /** Aperture index by its D code; of a block −2 − code. */
  readonly byCode = new Map<number, number>();
  readonly macros = new Map<string, Macro>();
  /** How each aperture is defined, by its D code. */
  readonly definitions = new Map<number, string>();
  /** Apertures that have no area, until it was said. */
  readonly empty = new Set<number>();
  readonly blocks = new Map<number, ImageBuilder>();
  readonly attributes = new Attributes();
  readonly numbers = new Coordinates();
  readonly whole = new WholeImage();

  builder: ImageBuilder;
  readonly open: { code: number; builder: ImageBuilder; repeat: Repeat | undefined }[] = [];
  repeat: Repeat | undefined;

  saidNoFormat = false;
  x = 0;
  y = 0;
  lastD = 2;
  /** Aperture in force; −1 none, below that a block. */
  current = -1;
  mode: 1 | 2 | 3 = 1;
  isSingleQuadrant = false;
  hasQuadrant = false;
  dark: 0 | 1 = 1;
  inRegion = false;
  contour: number[] = [];
  contourLine = 0;
  hasEnd = false;
  isFull = false;
  /** Statements that only a layer file has. */
  evidence = 0;
  private turn: Transform = IDENTITY;
  private isPlain = true;
  private readonly derived = new Map<string, number>();

  constructor(u8: Uint8Array, file: string, limits: LayerLimits) {
    this.scanner = new Scanner(u8);
    this.file = file;
    this.limits = limits;
    // an object takes some forty bytes of text
    this.builder = new ImageBuilder(Math.min(limits.maxObjects, 256 + Math.floor(u8.length / 40)));
  }

  say(tag: FindingTag, level: Finding["level"], line: number, text: string, todo?: string): void {
    this.found.add({ tag, level, file: this.file, line, text, ...(todo ? { do: todo } : {}) });
  }

  get transform(): Transform {
    return this.turn;
  }

  set transform(t: Transform) {
    this.turn = t;
    this.isPlain = !t.mirrorX && !t.mirrorY && t.degrees === 0 && t.scale === 1;
  }

  /** The aperture under the transformation in force, made once. */
  stamp(index: number): number {
    return this.isPlain ? index : this.derive(index, this.turn);
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

  /** True when one more object fits; else says once that the layer is full. */
  hasRoom(line: number): boolean {
    if (this.builder.n < this.limits.maxObjects) return true;
    if (!this.isFull)
      this.say(
        "too-many-objects",
        "error",
        line,
        `The layer holds more than ${this.limits.maxObjects} objects; it was read up to here.`,
      );
    this.isFull = true;
    return false;
  }

  /** Copies objects of a builder into the open one, moved and transformed, up to the bounds. */
  copy(
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

  /** Unrolls the open step and repeat. */
  closeRepeat(): void {
    const r = this.repeat;
    this.repeat = undefined;
    if (!r || r.from === this.builder.n) return;
    const to = this.builder.n;
    for (let a = 0; a < r.nx && !this.isFull; a++)
      for (let b = 0; b < r.ny && !this.isFull; b++)
        if (a + b > 0)
          this.copy(this.builder, r.from, to, a * r.dx, b * r.dy, IDENTITY, false, this.scanner.command.line);
  }

  /** Ends the innermost block aperture; its objects wait to be stamped. */
  closeBlock(line: number): void {
    this.closeRepeat();
    const last = this.open.pop();
    if (!last) {
      this.say("parse-error", "warning", line, "A block is closed that was never opened.");
      return;
    }
    this.blocks.set(last.code, this.builder);
    this.byCode.set(last.code, -2 - last.code);
    this.builder = last.builder;
    this.repeat = last.repeat;
  }
}
