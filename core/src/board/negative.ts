import { ImageBuilder, KIND, type LayerImage } from "../gerber/image.ts";
import { solidsOf } from "../gerber/solids.ts";

/** Room left around a negative image where no outline bounds it, mm. */
const MARGIN_MM = 1;

/**
 * A layer that states itself as its negative, as the image it means: the board filled, what was drawn cut out.
 *
 * @param rings the board's outline and cut-outs, or nothing where none is closed: the drawn image's box then, a millimetre larger
 */
export function positiveOf(image: LayerImage, rings: readonly (readonly number[])[]): LayerImage {
  const b = new ImageBuilder(image.n + rings.length + 1);
  const fill = (ring: readonly number[], dark: 0 | 1) => {
    const [first, last] = b.addPoints(ring);
    b.add(KIND.region, -1, dark, 0, first, last);
  };
  if (rings.length > 0) for (const [i, ring] of rings.entries()) fill(ring, i === 0 ? 1 : 0);
  else {
    const { box, count } = solidsOf(image);
    if (count === 0) return image;
    const all = Array.from({ length: count }, (_, k) => k * 4);
    const [x0, y0] = [
      all.reduce((m, o) => Math.min(m, box[o]!), 1e9),
      all.reduce((m, o) => Math.min(m, box[o + 1]!), 1e9),
    ];
    const [x1, y1] = [
      all.reduce((m, o) => Math.max(m, box[o + 2]!), -1e9),
      all.reduce((m, o) => Math.max(m, box[o + 3]!), -1e9),
    ];
    const m = MARGIN_MM;
    fill([x0 - m, y0 - m, x1 + m, y0 - m, x1 + m, y1 + m, x0 - m, y1 + m], 1);
  }
  for (let i = 0; i < image.n; i++) {
    const o = i * 6;
    const g = image.geo;
    const dark = 1 - image.dark[i]!;
    if (image.kind[i] === KIND.region) {
      const [first, last] = b.addPoints(Array.from(image.points.subarray(g[o]! * 2, g[o + 1]! * 2)));
      b.add(KIND.region, -1, dark, image.attributes[i]!, first, last);
    } else
      b.add(
        image.kind[i]!,
        image.aperture[i]!,
        dark,
        image.attributes[i]!,
        g[o]!,
        g[o + 1]!,
        g[o + 2]!,
        g[o + 3]!,
        g[o + 4]!,
        g[o + 5]!,
      );
  }
  const { isNegative: _, ...rest } = image;
  return {
    ...rest,
    ...b.columns(),
  };
}
