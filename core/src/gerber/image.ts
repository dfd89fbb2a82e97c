import type { Finding } from "../findings.ts";

/** What an object of a layer image is. */
export const KIND = { line: 1, arcCw: 2, arcCcw: 3, flash: 4, region: 5 } as const;

/** A stamp, in its own coordinates: capsules (points within r of a segment) and filled rings. */
export interface Aperture {
  readonly code: number;
  /** How the file defined it: C, R, O, P, a macro's name, or a block. */
  readonly template: string;
  /** Diameter for a plain circle, the only shape a stroke can have an exact width from; else undefined. */
  readonly circleMm?: number;
  readonly capsules: readonly { x1: number; y1: number; x2: number; y2: number; r: number }[];
  /** Areas: outer ring, then holes, counter-clockwise and clockwise. */
  readonly areas: readonly (readonly number[])[][];
  readonly box: readonly [number, number, number, number];
  /** Value of the aperture function attribute, such as ["ViaPad"]. */
  readonly function?: readonly string[];
  /** Of a drill's stamp: how much larger and smaller the finished hole may be, mm. */
  readonly toleranceMm?: readonly [number, number];
}

/** Object attributes shared by many objects: net, pin and component. */
export interface ObjectAttributes {
  readonly net?: string;
  readonly ref?: string;
  readonly pin?: string;
  /** What a component layer says of its part: attribute name without the dot → first field, as CRot → "90". */
  readonly component?: Readonly<Record<string, string>>;
}

/**
 * A layer as plain data: one row per object in columns of typed arrays, all in mm.
 *
 * geo holds six numbers per object: line and arc x1 y1 x2 y2 cx cy; flash x y; region first and last+1 point index.
 */
export interface LayerImage {
  readonly n: number;
  readonly kind: Uint8Array;
  readonly aperture: Int32Array;
  readonly dark: Uint8Array;
  readonly attributes: Int32Array;
  readonly geo: Float64Array;
  readonly points: Float64Array;
  readonly apertures: readonly Aperture[];
  readonly attributeTable: readonly ObjectAttributes[];
  /** File attributes: name without the dot → fields, as FileFunction → ["Copper", "L1", "Top"]. */
  readonly fileAttributes: Readonly<Record<string, readonly string[]>>;
  readonly findings: readonly Finding[];
  /** True when a format or unit statement or an aperture was seen: it is a layer file at all. */
  readonly isLayerFile: boolean;
  /** True when the file states itself as its own negative (a deprecated command): what it draws is left out. */
  readonly isNegative?: boolean;
}

/** Growing columns behind a {@link LayerImage}. */
export class ImageBuilder {
  n = 0;
  kind: Uint8Array;
  aperture: Int32Array;
  dark: Uint8Array;
  attributes: Int32Array;
  geo: Float64Array;
  pointCount = 0;
  points = new Float64Array(1 << 10);

  /** @param size objects there is room for before the columns grow */
  constructor(size = 1 << 8) {
    this.kind = new Uint8Array(size);
    this.aperture = new Int32Array(size);
    this.dark = new Uint8Array(size);
    this.attributes = new Int32Array(size);
    this.geo = new Float64Array(size * 6);
  }

  add(
    kind: number,
    aperture: number,
    dark: number,
    attributes: number,
    a: number,
    b: number,
    c = 0,
    d = 0,
    e = 0,
    f = 0,
  ): void {
    if (this.n === this.kind.length) this.grow();
    const i = this.n++;
    this.kind[i] = kind;
    this.aperture[i] = aperture;
    this.dark[i] = dark;
    this.attributes[i] = attributes;
    const g = this.geo;
    const o = i * 6;
    g[o] = a;
    g[o + 1] = b;
    g[o + 2] = c;
    g[o + 3] = d;
    g[o + 4] = e;
    g[o + 5] = f;
  }

  /** Adds an object of another image as it is, or with another aperture or polarity. */
  copy(image: LayerImage, i: number, dark = image.dark[i]!, aperture = image.aperture[i]!): void {
    const [kind, attributes] = [image.kind[i]!, image.attributes[i]!];
    const [a, b, c, d, e, f] = image.geo.subarray(i * 6, i * 6 + 6);
    if (kind === KIND.region) {
      const [first, last] = this.addPoints(Array.from(image.points.subarray(a! * 2, b! * 2)));
      this.add(kind, aperture, dark, attributes, first, last);
    } else this.add(kind, aperture, dark, attributes, a!, b!, c, d, e, f);
  }

  /** What was added, as the columns of an image. */
  columns(): Pick<LayerImage, "n" | "kind" | "aperture" | "dark" | "attributes" | "geo" | "points"> {
    const { n } = this;
    return {
      n,
      kind: this.kind.subarray(0, n),
      aperture: this.aperture.subarray(0, n),
      dark: this.dark.subarray(0, n),
      attributes: this.attributes.subarray(0, n),
      geo: this.geo.subarray(0, n * 6),
      points: this.points.subarray(0, this.pointCount * 2),
    };
  }

  /** Appends points of a region and returns [first, last+1] as point indices. */
  addPoints(ring: readonly number[]): [number, number] {
    const first = this.pointCount;
    while ((first + ring.length / 2) * 2 > this.points.length) {
      const next = new Float64Array(this.points.length * 2);
      next.set(this.points);
      this.points = next;
    }
    this.points.set(ring, first * 2);
    this.pointCount += ring.length / 2;
    return [first, this.pointCount];
  }

  private grow(): void {
    const size = this.kind.length * 2;
    const wider = <T extends Uint8Array | Int32Array | Float64Array>(old: T, next: T): T => {
      next.set(old);
      return next;
    };
    this.kind = wider(this.kind, new Uint8Array(size));
    this.aperture = wider(this.aperture, new Int32Array(size));
    this.dark = wider(this.dark, new Uint8Array(size));
    this.attributes = wider(this.attributes, new Int32Array(size));
    this.geo = wider(this.geo, new Float64Array(size * 6));
  }
}
