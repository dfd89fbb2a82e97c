import type { Finding } from "../../findings.ts";
import { ImageBuilder, KIND, type LayerImage } from "../../gerber/image.ts";
import { shapesOfObject } from "../../gerber/shapes.ts";
import type { BoardFile } from "../board-file.ts";
import { words } from "./guess.ts";
import { flashesOf, shareOnto } from "./registration.ts";

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
    let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
    for (let i = 0; i < image.n; i++)
      if (image.dark[i] === 1)
        for (const { box } of shapesOfObject(image, i)) {
          x0 = Math.min(x0, box[0]);
          y0 = Math.min(y0, box[1]);
          x1 = Math.max(x1, box[2]);
          y1 = Math.max(y1, box[3]);
        }
    if (x0 > x1) return image;
    const m = MARGIN_MM;
    fill([x0 - m, y0 - m, x1 + m, y0 - m, x1 + m, y1 + m, x0 - m, y1 + m], 1);
  }
  for (let i = 0; i < image.n; i++)
    b.copy(image, i, 1 - image.dark[i]!, image.kind[i] === KIND.region ? -1 : image.aperture[i]!);
  const { isNegative: _, ...rest } = image;
  return {
    ...rest,
    ...b.columns(),
  };
}

/** Share of the holes that have a pad on a layer: a plane drawn as its negative has none of its own. */
const FEW = 0.1;

/**
 * Asks about inner copper that says nothing of its polarity and looks like a negative: rings of clearance and thermal
 * reliefs on empty ground, no tracks, where the holes of the board are.
 */
export function askNegatives(
  files: readonly BoardFile[],
  known: ReadonlySet<BoardFile>,
  findings: Finding[],
): void {
  const holes = files.flatMap((f) => f.drill?.hits.filter((h) => h.plated !== false) ?? []);
  if (holes.length < 4) return;
  const cells = new Map<string, number>();
  const key = (x: number, y: number) => `${Math.round(x * 20)} ${Math.round(y * 20)}`;
  for (const [n, h] of holes.entries()) cells.set(key(h.x, h.y), n);
  for (const f of files) {
    if (f.role !== "copper" || f.side !== "inner" || !f.layer || known.has(f)) continue;
    if (f.layer.fileAttributes.FilePolarity) continue;
    const { n, kind, geo, dark, aperture, apertures } = f.layer;
    let [strokes, regions, atHoles, larger] = [0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      if (kind[i] === KIND.region) regions++;
      else if (kind[i] !== KIND.flash) strokes++;
      else if (dark[i] === 1) {
        const hole = cells.get(key(geo[i * 6]!, geo[i * 6 + 1]!));
        if (hole === undefined) continue;
        atHoles++;
        const size = apertures[aperture[i]!]?.circleMm;
        if (size !== undefined && size > holes[hole]!.diameterMm + 0.5) larger++;
      }
    }
    // clearings are wider than a pad would be, and there is next to nothing else
    const isLike =
      regions === 0 && atHoles >= holes.length * 0.3 && larger >= atHoles * 0.5 && strokes <= n * FEW * 2;
    if (!isLike) continue;
    findings.push({
      tag: "polarity-unknown",
      level: "error",
      file: f.path,
      text: `${f.path} (${words(f)}) does not say whether it is drawn as copper or as what is taken away, and looks like the latter: ${atHoles} wide discs where holes are, no fills, hardly a track. It was read as copper.`,
      do: "Export the plane as positive, or with its polarity stated.",
    });
  }
}

/**
 * Masks that state to be drawn as mask (positive) while their shapes lie on the pads, which are to be free of it: they are
 * read as openings, and that is said.
 */
export function sayPositiveMasks(files: readonly BoardFile[], findings: Finding[]): void {
  for (const f of files) {
    if (f.role !== "mask" || !f.layer || !/positive/i.test(f.layer.fileAttributes.FilePolarity?.[0] ?? ""))
      continue;
    const copper = files.find((o) => o.role === "copper" && o.side === f.side && o.layer);
    const own = flashesOf(f.layer);
    if (!copper?.layer || own.length === 0) continue;
    const share = shareOnto(own, flashesOf(copper.layer));
    findings.push({
      tag: "polarity-unknown",
      level: share >= 0.5 ? "warning" : "error",
      file: f.path,
      text: `${f.path} (${words(f)}) states that it draws the mask itself, and ${Math.round(share * 100)} % of what it flashes lies on pads, which the mask leaves free: its shapes were read as openings.`,
      do: "Look at the mask on the picture, and export it with the polarity that is meant.",
    });
  }
}
