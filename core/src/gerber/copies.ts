import { apply, type Transform } from "./aperture.ts";
import { type ImageBuilder, KIND } from "./image.ts";

/** Which objects are copied, and where to. */
export interface Copying {
  readonly first: number;
  readonly last: number;
  readonly dx: number;
  readonly dy: number;
  readonly transform: Transform;
  /** Dark becomes clear and clear dark: a block stamped with clear polarity. */
  readonly flips: boolean;
}

/** What the reader knows about stamps and about how much it may still hold. */
export interface CopyHost {
  readonly stamp: (aperture: number) => number;
  readonly hasRoom: () => boolean;
}

/**
 * Copies objects of one builder into another (or the same), transformed about the origin and then moved: how step and
 * repeat and block apertures are unrolled.
 *
 * @returns false when there was no room for all of them
 */
export function copyObjects(from: ImageBuilder, into: ImageBuilder, c: Copying, host: CopyHost): boolean {
  const end = Math.min(c.last, from.n);
  const mirrors = c.transform.mirrorX !== c.transform.mirrorY;
  const move = (x: number, y: number): [number, number] => {
    const [px, py] = apply(c.transform, x, y);
    return [px + c.dx, py + c.dy];
  };
  for (let i = c.first; i < end; i++) {
    if (!host.hasRoom()) return false;
    const o = i * 6;
    const g = from.geo;
    const kind = from.kind[i]!;
    const dark = c.flips ? 1 - from.dark[i]! : from.dark[i]!;
    const attributes = from.attributes[i]!;
    if (kind === KIND.region) {
      const ring: number[] = [];
      for (let k = g[o]!; k < g[o + 1]!; k++)
        ring.push(...move(from.points[k * 2]!, from.points[k * 2 + 1]!));
      const [a, b] = into.addPoints(ring);
      into.add(kind, -1, dark, attributes, a, b);
      continue;
    }
    const stamp = host.stamp(from.aperture[i]!);
    const p = move(g[o]!, g[o + 1]!);
    if (kind === KIND.flash) {
      into.add(kind, stamp, dark, attributes, p[0], p[1]);
      continue;
    }
    const q = move(g[o + 2]!, g[o + 3]!);
    const m = move(g[o + 4]!, g[o + 5]!);
    // a mirrored arc runs the other way
    const turned = !mirrors || kind === KIND.line ? kind : kind === KIND.arcCw ? KIND.arcCcw : KIND.arcCw;
    into.add(turned, stamp, dark, attributes, p[0], p[1], q[0], q[1], m[0], m[1]);
  }
  return true;
}
