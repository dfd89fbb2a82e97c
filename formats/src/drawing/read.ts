import { decodeText } from "../text.ts";
import { DRAWING_LIMITS, type ReadDrawing, TooManyShapes } from "./drawing.ts";
import { readDxf } from "./dxf.ts";
import { readSvg } from "./svg.ts";

/** A case's or a neighbour's drawing, told by its content: an exchange drawing in text, or a vector picture. */
export function readDrawing(bytes: Uint8Array): ReadDrawing {
  if (bytes.length > DRAWING_LIMITS.bytes)
    return {
      kind: "refused",
      why: "The drawing is larger than 8 MB: export only the posts and the opening.",
    };
  const text = decodeText(bytes);
  const head = text.slice(0, 4000);
  try {
    if (/<svg[\s>]/i.test(head)) return readSvg(text);
    if (/^[\s\S]{0,600}?\b0\s*\r?\n\s*SECTION\b/.test(head)) return readDxf(text);
  } catch (error) {
    if (error instanceof TooManyShapes)
      return {
        kind: "refused",
        why: "The drawing has more shapes than a case can: export only the posts and the opening.",
      };
    throw error;
  }
  if (bytes.subarray(0, 64).includes(0))
    return { kind: "refused", why: "The file is binary: export the drawing as text (DXF) or as SVG." };
  return { kind: "refused", why: "The file is neither a DXF nor an SVG drawing." };
}
