import { KIND, type LayerImage } from "./image.ts";

/** Numbers of `geo` that say where an object of a kind lies. */
const NUMBERS: Readonly<Record<number, number>> = {
  [KIND.flash]: 2,
  [KIND.line]: 4,
  [KIND.arcCw]: 6,
  [KIND.arcCcw]: 6,
};

/**
 * The layer with each object once where the file draws it again on the same spot: the image is the same, and copies by
 * the thousand cost nothing. What lies between changes of polarity is told apart. O(n), one table in typed arrays.
 *
 * @returns the layer itself where nothing is drawn twice
 */
export function withoutCopies(image: LayerImage): LayerImage {
  const { n, kind, aperture, dark, attributes, geo, points } = image;
  const size = 2 ** Math.ceil(Math.log2(2 * n + 2));
  const table = new Int32Array(size).fill(-1);
  const words = new Uint32Array(geo.buffer, geo.byteOffset, geo.length * 2);
  const pointWords = new Uint32Array(points.buffer, points.byteOffset, points.length * 2);
  const mix = (h: number, w: number) => Math.imul(h ^ w ^ (h >>> 15), 0x85ebca6b);
  const run = new Int32Array(n);
  const keep = new Uint8Array(n);
  let kept = 0;
  const isSame = (i: number, j: number): boolean => {
    if (kind[i] !== kind[j] || aperture[i] !== aperture[j] || attributes[i] !== attributes[j]) return false;
    if (run[i] !== run[j]) return false;
    const [a, b] = [i * 6, j * 6];
    if (kind[i] !== KIND.region) {
      for (let k = 0; k < NUMBERS[kind[i]!]!; k++) if (geo[a + k] !== geo[b + k]) return false;
      return true;
    }
    const length = geo[a + 1]! - geo[a]!;
    if (length !== geo[b + 1]! - geo[b]!) return false;
    for (let k = 0; k < length * 2; k++)
      if (points[geo[a]! * 2 + k] !== points[geo[b]! * 2 + k]) return false;
    return true;
  };
  for (let i = 0; i < n; i++) {
    run[i] = i === 0 ? 0 : run[i - 1]! + (dark[i] === dark[i - 1] ? 0 : 1);
    let h = mix(mix(kind[i]!, aperture[i]!), run[i]!);
    const o = i * 6;
    if (kind[i] === KIND.region)
      for (let k = geo[o]! * 4; k < geo[o + 1]! * 4; k++) h = mix(h, pointWords[k]!);
    else for (let k = o * 2; k < (o + NUMBERS[kind[i]!]!) * 2; k++) h = mix(h, words[k]!);
    let slot = (h ^ (h >>> 13)) & (size - 1);
    while (table[slot]! >= 0 && !isSame(table[slot]!, i)) slot = (slot + 1) & (size - 1);
    if (table[slot]! >= 0) continue;
    table[slot] = i;
    keep[i] = 1;
    kept++;
  }
  if (kept === n) return image;
  const pick = <T extends Uint8Array | Int32Array>(from: T, to: T): T => {
    let m = 0;
    for (let i = 0; i < n; i++) if (keep[i]) to[m++] = from[i]!;
    return to;
  };
  const left = new Float64Array(kept * 6);
  let m = 0;
  for (let i = 0; i < n; i++) if (keep[i]) left.set(geo.subarray(i * 6, i * 6 + 6), 6 * m++);
  return {
    ...image,
    n: kept,
    kind: pick(kind, new Uint8Array(kept)),
    aperture: pick(aperture, new Int32Array(kept)),
    dark: pick(dark, new Uint8Array(kept)),
    attributes: pick(attributes, new Int32Array(kept)),
    geo: left,
  };
}
