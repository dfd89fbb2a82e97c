import type { BomLine } from "../bom/bom.ts";
import { readValue } from "../bom/value.ts";
import { KIND, type LayerImage } from "../gerber/image.ts";
import type { Placement } from "./placed.ts";

/** Parts of a component layer: where they stand, and what they are as lines of a list. */
export interface LayerParts {
  readonly parts: readonly Placement[];
  readonly lines: readonly BomLine[];
}

/**
 * Reads the parts out of a component layer (published layer format, third extension: one flash with the function
 * ComponentMain a part, its reference, rotation and kind as object attributes). Marks for cameras are no parts. Parts
 * of one value, package and maker number are one line; a part mounted otherwise is a line without a mark against it.
 *
 * @param firstRow row the first line is given, from 1
 */
export function partsOfImage(image: LayerImage, side: "top" | "bottom", firstRow: number): LayerParts {
  const parts: Placement[] = [];
  const lines = new Map<string, Omit<BomLine, "qty"> & { refs: string[] }>();
  for (let i = 0; i < image.n; i++) {
    if (image.kind[i] !== KIND.flash) continue;
    if (image.apertures[image.aperture[i]!]?.function?.[0] !== "ComponentMain") continue;
    const { ref, component = {} } = image.attributeTable[image.attributes[i]!] ?? {};
    if (!ref || component.CMnt === "Fiducial") continue;
    const turn = Number(component.CRot ?? "0");
    const rotationDeg = Number.isFinite(turn) ? ((turn % 360) + 360) % 360 : 0;
    parts.push({ ref, xMm: image.geo[i * 6]!, yMm: image.geo[i * 6 + 1]!, rotationDeg, side });
    const { CVal = "", CPkg = component.CFtp ?? "", CMPN = "", CMfr = "" } = component;
    const key = JSON.stringify([CVal, CPkg, CMPN, CMfr]);
    const line = lines.get(key);
    if (line) line.refs.push(ref);
    else
      lines.set(key, {
        refs: [ref],
        value: readValue(CVal, ref).value,
        valueText: CVal,
        package: CPkg,
        mpn: CMPN,
        maker: CMfr,
        description: "",
        dnp: false,
        row: firstRow + lines.size,
      });
  }
  return { parts, lines: [...lines.values()].map((l) => ({ ...l, qty: l.refs.length })) };
}
