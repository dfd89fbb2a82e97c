import { closeContour, moveTo, operate } from "./draw.ts";
import { readAttribute, readBlock, setUnit } from "./extended.ts";
import type { LayerImage } from "./image.ts";
import type { Command } from "./scan.ts";
import { type LayerLimits, LayerState } from "./state.ts";

export type { LayerLimits } from "./state.ts";

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
  const s = new LayerState(u8, file, limits);
  const { scanner, numbers } = s;
  const c = scanner.command;
  while (!s.hasEnd && !s.isFull) {
    // most of a layer is plain points: they take the short way
    if (numbers.isPlain && scanner.nextPoint()) {
      if (c.g === 1) s.mode = 1;
      const nx = c.has & 1 ? (c.x / numbers.divideX) * numbers.unitMm : s.x;
      const ny = c.has & 2 ? (c.y / numbers.divideY) * numbers.unitMm : s.y;
      moveTo(s, c, c.d, nx, ny);
      continue;
    }
    scanner.next();
    if (c.kind === "end") break;
    if (c.kind === "block") readBlock(s, c.text, c.line);
    else word(s, c);
  }
  return finish(s);
}

function finish(s: LayerState): LayerImage {
  const { line } = s.scanner.command;
  if (s.inRegion && s.contour.length > 2) closeContour(s, s.contourLine);
  while (s.open.length > 0) s.closeBlock(line);
  s.closeRepeat();
  if (!s.hasEnd && !s.isFull && s.evidence > 0)
    s.say(
      "missing-end",
      "warning",
      line,
      "The file ends without its end mark; it may be cut off.",
      "Export it again and compare the size.",
    );
  const b = s.builder;
  if (b.n > 0 && !s.numbers.hasUnit)
    s.say(
      "missing-unit",
      "warning",
      1,
      "The file does not state its unit; millimetres were taken.",
      "Compare the size on the picture with your design.",
    );
  s.whole.apply(b, s.apertures);
  return {
    ...b.columns(),
    apertures: s.apertures,
    attributeTable: s.attributes.table,
    fileAttributes: s.attributes.file,
    findings: s.found.done(),
    isLayerFile: s.evidence > 0,
    ...(s.whole.isNegative ? { isNegative: true } : {}),
  };
}

function word(s: LayerState, c: Command): void {
  if (c.bad) {
    unread(s, c);
    return;
  }
  if (c.g === 4) {
    const hidden = /^\s*#@!\s*(T[FAOD].*)$/.exec(c.text);
    if (hidden) readAttribute(s, hidden[1]!.trim(), c.line);
    return;
  }
  if (c.g >= 0) general(s, c);
  // where the star between is forgotten the end mark stands in the word of the last object
  if (c.m === 2 || c.m === 0 || c.m === 30) s.hasEnd = true;
  if (c.d >= 10) {
    select(s, c);
    return;
  }
  if (c.d < 0 && c.has === 0) return;
  if (c.d === 0 || (c.d > 3 && c.d < 10)) {
    s.say(
      "unknown-command",
      "error",
      c.line,
      `D${c.d} is not a code of the format; what it draws or chooses is missing.`,
      AGAIN,
    );
    return;
  }
  operate(s, c, c.d > 0 ? c.d : s.lastD);
}

const AGAIN = "Export the layer again.";
/** What says a place, an aperture or a manner of drawing, whatever is wrong with it. */
const DRAWS = /[GDXYIJ]\s*[-+]?[.\d]|^[-+.\dGDXYIJM\s]*$/i;
/** A word that cannot be read: lost where it would have drawn or chosen something, else passed over. */
function unread(s: LayerState, c: Command): void {
  if (DRAWS.test(c.text))
    s.say(
      "parse-error",
      "error",
      c.line,
      `“${c.text}” was not understood; what it draws or chooses is missing.`,
      AGAIN,
    );
  else s.say("parse-error", "warning", c.line, `“${c.text}” was not understood and was passed over.`);
}

function select(s: LayerState, c: Command): void {
  s.evidence++;
  if (c.has !== 0)
    s.say(
      "parse-error",
      "error",
      c.line,
      `D${c.d} is chosen and a place said in one; what is drawn there is missing.`,
      AGAIN,
    );
  const index = s.byCode.get(c.d);
  if (s.open.some((b) => b.code === c.d)) {
    s.say("block-recursive", "error", c.line, `Block D${c.d} stamps itself; the stamp was left out.`);
    s.current = -1;
    return;
  }
  if (index === undefined)
    s.say(
      "undefined-aperture",
      "error",
      c.line,
      `D${c.d} is used but not defined; what it draws is missing.`,
      "Export the layer again with its aperture list inside.",
    );
  s.current = index ?? -1;
}

function general(s: LayerState, c: Command): void {
  switch (c.g) {
    case 1:
    case 2:
    case 3:
      s.mode = c.g;
      break;
    case 36:
      s.inRegion = true;
      s.contour = [];
      break;
    case 37:
      if (s.contour.length > 2) closeContour(s, c.line);
      s.inRegion = false;
      s.contour = [];
      break;
    case 74:
    case 75:
      s.isSingleQuadrant = c.g === 74;
      s.hasQuadrant = true;
      break;
    case 70:
      setUnit(s, 25.4, c.line);
      break;
    case 71:
      setUnit(s, 1, c.line);
      break;
    case 90:
    case 91:
      s.numbers.setIncremental(c.g === 91);
      break;
    case 0: // a rapid move of very old writers
    case 54:
    case 55:
      break;
    case 10:
    case 11:
    case 12:
    case 60: // straight lines ten times as large or small, of very old writers
      s.say(
        "unknown-command",
        "error",
        c.line,
        `G${c.g} changes the size of what follows, which Kobbin does not read; it may be drawn too large or too small.`,
        AGAIN,
      );
      break;
    default:
      s.say("unknown-command", "warning", c.line, `G${c.g} is not a code of the format and was passed over.`);
  }
}
