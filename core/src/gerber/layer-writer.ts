import { turnOf } from "../geometry/turn.ts";
import { IDENTITY, transformAperture } from "./aperture.ts";
import { type Aperture, KIND, type LayerImage } from "./image.ts";
import { ringsOf, shapesOfObject } from "./shapes.ts";
import { type FileAttribute, fileHead, nm } from "./write.ts";

/** How an aperture is called in its attribute, as ["FiducialPad", "Panel"]. */
export type ApertureFunction = readonly string[];

/** Corners an outline of an aperture macro may have (recalled from the published format). */
const MOST_CORNERS = 4999;

/**
 * A layer in the published layer format, object by object: millimetres, six decimals, every aperture defined once.
 *
 * Coordinates are counted in whole nanometres from the start: an object is rounded once in its own board's coordinates,
 * turned by quarters exactly and moved by whole nanometres, so that all copies are alike to the last digit.
 */
export class LayerWriter {
  private readonly definitions: string[] = [];
  private readonly body: string[] = [];
  private readonly codes = new Map<string, number>();
  private readonly attributes: readonly FileAttribute[];
  private current = -1;
  private isDark = true;
  private interpolation = "";
  /** Objects written, each of a repeated block once. */
  objects = 0;

  constructor(attributes: readonly FileAttribute[]) {
    this.attributes = attributes;
  }

  /** A disc. */
  disc(x: number, y: number, diameterMm: number, use?: ApertureFunction): void {
    this.polarity(true);
    this.select(this.define(`C,${mm(diameterMm)}`, use));
    this.body.push(`X${nm(x)}Y${nm(y)}D03*`);
    this.objects++;
  }

  /** A straight stroke with round ends. */
  line(x1: number, y1: number, x2: number, y2: number, widthMm: number, use?: ApertureFunction): void {
    this.polarity(true);
    this.select(this.define(`C,${mm(widthMm)}`, use));
    this.straight();
    this.body.push(`X${nm(x1)}Y${nm(y1)}D02*`, `X${nm(x2)}Y${nm(y2)}D01*`);
    this.objects++;
  }

  /** A closed line along a ring. */
  outline(ring: ArrayLike<number>, widthMm: number, use?: ApertureFunction): void {
    this.polarity(true);
    this.select(this.define(`C,${mm(widthMm)}`, use));
    this.straight();
    const corners = cornersOf(ring);
    if (corners.length < 2) return;
    this.body.push(`${corners[0]}D02*`, ...corners.slice(1).map((c) => `${c}D01*`), `${corners[0]}D01*`);
    this.objects += corners.length;
  }

  /** A filled area, its holes cleared: what was drawn under a hole is lost, so areas with holes come first. */
  area(rings: readonly ArrayLike<number>[], isDark = true): void {
    rings.forEach((ring, k) => {
      this.polarity(k === 0 ? isDark : !isDark);
      this.straight();
      const corners = cornersOf(ring);
      if (corners.length < 3) return;
      this.body.push(
        "G36*",
        `${corners[0]}D02*`,
        ...corners.slice(1).map((c) => `${c}D01*`),
        `${corners[0]}D01*`,
        "G37*",
      );
      this.objects++;
    });
  }

  /**
   * Objects of a layer as they are painted, polarity with them, turned about 0/0 and moved.
   *
   * @param objects which of them, in their order; all where left out
   * @param turnDeg counter-clockwise; other turns than quarters are rounded to a nanometre
   * @param aside called instead for an object that is to be written otherwise; true where it was
   */
  copy(
    image: LayerImage,
    at: { readonly xMm: number; readonly yMm: number; readonly turnDeg: number },
    aside?: (object: number, isDark: boolean) => boolean,
  ): void {
    const [c, s] = turnOf(at.turnDeg);
    const [dx, dy] = [nm(at.xMm), nm(at.yMm)];
    const isQuarter = Number.isInteger(at.turnDeg / 90);
    // rounded before a quarter turn, after any other
    const place = isQuarter
      ? (x: number, y: number) => `X${c * nm(x) - s * nm(y) + dx}Y${s * nm(x) + c * nm(y) + dy}`
      : (x: number, y: number) => `X${nm(x * c - y * s) + dx}Y${nm(x * s + y * c) + dy}`;
    const stamps = new Map<number, number>();
    const g = image.geo;
    for (let i = 0; i < image.n; i++) {
      const isDark = image.dark[i] === 1;
      if (aside?.(i, isDark)) continue;
      const kind = image.kind[i]!;
      const o = i * 6;
      if (kind === KIND.region) {
        const points = image.points.subarray(g[o]! * 2, g[o + 1]! * 2);
        const corners: string[] = [];
        for (let k = 0; k < points.length; k += 2) {
          const p = place(points[k]!, points[k + 1]!);
          if (p !== corners.at(-1)) corners.push(p);
        }
        if (corners.length > 1 && corners[0] === corners.at(-1)) corners.pop();
        if (corners.length < 3) continue;
        this.polarity(isDark);
        this.straight();
        this.body.push("G36*", `${corners[0]}D02*`);
        for (let k = 1; k < corners.length; k++) this.body.push(`${corners[k]}D01*`);
        this.body.push(`${corners[0]}D01*`, "G37*");
        this.objects++;
        continue;
      }
      const aperture = image.apertures[image.aperture[i]!]!;
      if (kind !== KIND.flash && (aperture.circleMm === undefined || aperture.areas.length > 0)) {
        // only round stamps may draw: any other stroke is an area
        for (const shape of shapesOfObject(image, i))
          this.area(
            ringsOf(shape).map((ring) => {
              const out: number[] = [];
              for (let k = 0; k < ring.length; k += 2) {
                const [x, y] = [ring[k]!, ring[k + 1]!];
                out.push(x * c - y * s + at.xMm, x * s + y * c + at.yMm);
              }
              return out;
            }),
            isDark,
          );
        continue;
      }
      let code = stamps.get(image.aperture[i]!);
      if (code === undefined) {
        code = this.stamp(aperture, at.turnDeg);
        stamps.set(image.aperture[i]!, code);
      }
      this.polarity(isDark);
      this.select(code);
      this.objects++;
      if (kind === KIND.flash) {
        this.body.push(`${place(g[o]!, g[o + 1]!)}D03*`);
        continue;
      }
      const [from, to] = [place(g[o]!, g[o + 1]!), place(g[o + 2]!, g[o + 3]!)];
      if (kind === KIND.line) {
        this.straight();
        this.body.push(`${from}D02*`, `${to}D01*`);
        continue;
      }
      const [i0, j0] = [nm(g[o + 4]!) - nm(g[o]!), nm(g[o + 5]!) - nm(g[o + 1]!)];
      const [iT, jT] = [Math.round(i0 * c - j0 * s), Math.round(i0 * s + j0 * c)];
      this.interpolate(kind === KIND.arcCw ? "G02*" : "G03*");
      this.body.push(`${from}D02*`, `${to}I${iT}J${jT}D01*`);
    }
  }

  /** Everything written between the two is repeated on a grid of the steps given (step and repeat). */
  repeated(nx: number, ny: number, stepXMm: number, stepYMm: number, write: () => void): void {
    this.body.push(`%SRX${nx}Y${ny}I${mm(stepXMm)}J${mm(stepYMm)}*%`);
    this.forget();
    write();
    this.body.push("%SR*%");
    this.forget();
  }

  /** The file's text, line ends LF, plain letters only. */
  done(): string {
    return [
      ...fileHead(this.attributes),
      ...this.definitions,
      "%LPD*%",
      "G01*",
      "G75*",
      ...this.body,
      "M02*",
      "",
    ].join("\n");
  }

  private forget(): void {
    this.current = -1;
    this.interpolation = "";
    this.body.push("G01*");
    this.interpolation = "G01*";
  }

  private polarity(isDark: boolean): void {
    if (isDark === this.isDark) return;
    this.isDark = isDark;
    this.body.push(isDark ? "%LPD*%" : "%LPC*%");
  }

  private straight(): void {
    this.interpolate("G01*");
  }

  private interpolate(word: string): void {
    if (this.interpolation === word || (this.interpolation === "" && word === "G01*")) return;
    this.interpolation = word;
    this.body.push(word);
  }

  private select(code: number): void {
    if (code === this.current) return;
    this.current = code;
    this.body.push(`D${code}*`);
  }

  private define(template: string, use?: ApertureFunction): number {
    const key = `${template} ${use?.join(",") ?? ""}`;
    const known = this.codes.get(key);
    if (known !== undefined) return known;
    const code = 10 + this.codes.size;
    this.codes.set(key, code);
    if (use) this.definitions.push(`%TA.AperFunction,${use.join(",")}*%`);
    this.definitions.push(`%ADD${code}${template}*%`);
    if (use) this.definitions.push("%TD*%");
    return code;
  }

  /** An aperture as a plain shape where it is one, else as a macro of outlines. */
  private stamp(a: Aperture, turnDeg: number): number {
    const t = turnDeg % 360 === 0 ? a : transformAperture(a, { ...IDENTITY, degrees: turnDeg });
    return this.define(plainTemplate(t) ?? this.macro(t), a.function);
  }

  private macro(a: Aperture): string {
    const lines: string[] = [];
    const areas = [...a.areas].sort((p, q) => Math.abs(size(q[0]!)) - Math.abs(size(p[0]!)));
    for (const area of areas)
      area.forEach((ring, k) => {
        lines.push(outlinePrimitive(ring, k === 0));
      });
    for (const c of a.capsules) {
      const d = mm(2 * c.r);
      if (c.x1 !== c.x2 || c.y1 !== c.y2)
        lines.push(`20,1,${d},${mm(c.x1)},${mm(c.y1)},${mm(c.x2)},${mm(c.y2)},0*`);
      lines.push(`1,1,${d},${mm(c.x1)},${mm(c.y1)}*`);
      if (c.x1 !== c.x2 || c.y1 !== c.y2) lines.push(`1,1,${d},${mm(c.x2)},${mm(c.y2)}*`);
    }
    const text = lines.join("\n");
    const known = this.macros.get(text);
    if (known) return known;
    const name = `SHAPE${this.macros.size + 1}`;
    this.macros.set(text, name);
    this.definitions.push(`%AM${name}*\n${text}%`);
    return name;
  }

  private readonly macros = new Map<string, string>();
}

/** Millimetres with six decimals at most. */
const mm = (v: number): string => {
  const t = (Math.round(v * 1e6) / 1e6).toFixed(6).replace(/\.?0+$/, "");
  return t === "-0" || t === "" ? "0" : t;
};

const near = (a: number, b: number) => Math.abs(a - b) < 5e-7;

/** C, O or R where the stamp is just that about its own middle. */
function plainTemplate(a: Aperture): string | undefined {
  if (a.areas.length === 0 && a.circleMm !== undefined) return `C,${mm(a.circleMm)}`;
  const [c] = a.capsules;
  if (a.areas.length === 0 && a.capsules.length === 1 && c && near(c.x1, -c.x2) && near(c.y1, -c.y2)) {
    if (near(c.x1, c.x2) && near(c.y1, c.y2)) return `C,${mm(2 * c.r)}`;
    if (near(c.y1, c.y2)) return `O,${mm(2 * Math.abs(c.x1) + 2 * c.r)}X${mm(2 * c.r)}`;
    if (near(c.x1, c.x2)) return `O,${mm(2 * c.r)}X${mm(2 * Math.abs(c.y1) + 2 * c.r)}`;
  }
  const ring = a.areas[0]?.[0];
  if (a.capsules.length > 0 || a.areas.length !== 1 || a.areas[0]!.length !== 1 || ring?.length !== 8)
    return undefined;
  const [x0, y0, x1, y1] = a.box;
  if (!near(x0, -x1) || !near(y0, -y1)) return undefined;
  for (let i = 0; i < 8; i += 2)
    if (!near(Math.abs(ring[i]!), x1) || !near(Math.abs(ring[i + 1]!), y1)) return undefined;
  return `R,${mm(x1 - x0)}X${mm(y1 - y0)}`;
}

function outlinePrimitive(ring: readonly number[], isOn: boolean): string {
  // an outline of more corners than the format allows keeps every second one until it fits: under 1 µm on any real pad
  let r: readonly number[] = ring;
  while (r.length / 2 > MOST_CORNERS) r = r.filter((_, i) => (i >> 1) % 2 === 0);
  const n = r.length / 2;
  const points: string[] = [];
  for (let i = 0; i <= n; i++) points.push(`${mm(r[(i % n) * 2]!)},${mm(r[(i % n) * 2 + 1]!)}`);
  return `4,${isOn ? 1 : 0},${n},\n${points.join(",\n")},0*`;
}

function size(ring: readonly number[]): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    sum += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
  return sum;
}

function cornersOf(ring: ArrayLike<number>): string[] {
  const corners: string[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const at = `X${nm(ring[i]!)}Y${nm(ring[i + 1]!)}`;
    if (at !== corners.at(-1)) corners.push(at);
  }
  if (corners.length > 1 && corners[0] === corners.at(-1)) corners.pop();
  return corners;
}
