import { arcPoints, arcSweep } from "../geometry/arc.ts";
import { signedArea } from "../geometry/polygon.ts";
import { KIND } from "./image.ts";
import { type Command, HAS } from "./scan.ts";
import type { LayerState } from "./state.ts";

/** Points farther than this from the origin, mm, are a wrong format or unit. */
const FARTHEST_MM = 5000;

/** Carries out an operation: D01 draws, D02 moves, D03 flashes; the new point follows from the command. */
export function operate(s: LayerState, c: Command, d: number): void {
  const { numbers } = s;
  if (!numbers.hasFormat && !s.saidNoFormat) {
    s.saidNoFormat = true;
    s.say(
      s.evidence > 0 ? "coordinates-before-format" : "missing-format",
      "error",
      c.line,
      "Coordinates come before the format is stated; six decimals were taken.",
      "Export the layer again.",
    );
  }
  const isStep = numbers.isIncremental;
  const nx = c.has & HAS.x ? (isStep ? s.x : 0) + numbers.lengthX(c.x, c.xDigits) : s.x;
  const ny = c.has & HAS.y ? (isStep ? s.y : 0) + numbers.lengthY(c.y, c.yDigits) : s.y;
  moveTo(s, c, d, nx, ny);
}

/** The same with the point known in mm. */
export function moveTo(s: LayerState, c: Command, d: number, nx: number, ny: number): void {
  s.lastD = d;
  // written so that what is not a number is far away too
  if (!(nx < FARTHEST_MM && nx > -FARTHEST_MM && ny < FARTHEST_MM && ny > -FARTHEST_MM)) {
    s.say(
      "value-out-of-range",
      "error",
      c.line,
      `The point ${nx.toFixed(0)}, ${ny.toFixed(0)} mm lies metres away; the format or the unit is stated wrongly.`,
    );
    return;
  }
  if (d === 1) {
    if (s.mode === 1 && !s.inRegion && s.current >= 0) {
      if (s.empty.size > 0) sayEmpty(s, c);
      if (s.hasRoom(c.line))
        s.builder.add(KIND.line, s.stamp(s.current), s.dark, s.attributes.index, s.x, s.y, nx, ny);
    } else draw(s, c, nx, ny);
  } else if (d === 3) flash(s, c, nx, ny);
  else if (s.inRegion && s.contour.length > 2) closeContour(s, c.line);
  s.x = nx;
  s.y = ny;
}

function draw(s: LayerState, c: Command, nx: number, ny: number): void {
  const { x, y } = s;
  const centre = s.mode === 1 ? undefined : arcCentre(s, c, nx, ny);
  const isFull = !s.isSingleQuadrant;
  if (s.inRegion) {
    if (s.contour.length === 0) {
      s.contour.push(x, y);
      s.contourLine = c.line;
    }
    if (centre)
      for (const v of arcPoints(x, y, nx, ny, centre[0], centre[1], s.mode === 3, isFull)) s.contour.push(v);
    else s.contour.push(nx, ny);
    return;
  }
  if (s.current < 0) {
    s.say(
      "undefined-aperture",
      "error",
      c.line,
      s.current === -1
        ? "A stroke is drawn without an aperture; it is missing."
        : "A stroke is drawn with a block, which can only be flashed; it is missing.",
    );
    return;
  }
  sayEmpty(s, c);
  if (!s.hasRoom(c.line)) return;
  const stamp = s.stamp(s.current);
  if (!centre || (x === nx && y === ny && !isFull))
    s.builder.add(KIND.line, stamp, s.dark, s.attributes.index, x, y, nx, ny);
  else
    s.builder.add(
      s.mode === 2 ? KIND.arcCw : KIND.arcCcw,
      stamp,
      s.dark,
      s.attributes.index,
      x,
      y,
      nx,
      ny,
      centre[0],
      centre[1],
    );
}

/** Says once of an aperture without an area that what it draws is missing. */
function sayEmpty(s: LayerState, c: Command): void {
  if (!s.empty.delete(s.current)) return;
  s.say(
    "undefined-aperture",
    "error",
    c.line,
    `D${s.apertures[s.current]!.code} has no area: its hole is as large as it is, or a size is 0; what it draws is missing.`,
    "Export the layer again.",
  );
}

/** Centre of an arc, or undefined where none fits its ends; says what is wrong with it. */
function arcCentre(s: LayerState, c: Command, nx: number, ny: number): [number, number] | undefined {
  const { x, y } = s;
  const i = c.has & HAS.i ? s.numbers.lengthX(c.i, c.iDigits) : 0;
  const j = c.has & HAS.j ? s.numbers.lengthY(c.j, c.jDigits) : 0;
  const slack = (r: number) => Math.max(0.02, r * 0.02);
  const misfit = (p: readonly [number, number]) =>
    Math.abs(Math.hypot(x - p[0], y - p[1]) - Math.hypot(nx - p[0], ny - p[1]));
  let centre: [number, number] | undefined = s.isSingleQuadrant
    ? quadrantCentre(s, i, j, nx, ny)
    : [x + i, y + j];
  // neither quadrant mode was stated: old writers mean the single one, which their offsets without sign tell
  if (centre && !s.hasQuadrant && misfit(centre) > slack(Math.hypot(i, j))) {
    const old = quadrantCentre(s, i, j, nx, ny);
    if (old && misfit(old) <= slack(Math.hypot(i, j))) centre = old;
  }
  const radius = centre ? Math.hypot(x - centre[0], y - centre[1]) : 0;
  if (!centre || !(radius >= 1e-6 && radius < 4 * FARTHEST_MM)) {
    s.say(
      "arc-invalid",
      "warning",
      c.line,
      "An arc has no centre that fits its ends; a straight line was drawn.",
    );
    return undefined;
  }
  if (misfit(centre) > slack(radius))
    s.say("arc-invalid", "warning", c.line, "The ends of an arc lie at different distances from its centre.");
  return centre;
}

/** Single quadrant: offsets carry no sign; the centre that fits both ends and turns at most 90° is meant. */
function quadrantCentre(
  s: LayerState,
  i: number,
  j: number,
  nx: number,
  ny: number,
): [number, number] | undefined {
  const { x, y } = s;
  let best: [number, number] | undefined;
  let bestError = Number.POSITIVE_INFINITY;
  for (const [sx, sy] of [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ] as const) {
    const [cx, cy] = [x + sx * Math.abs(i), y + sy * Math.abs(j)];
    const error = Math.abs(Math.hypot(x - cx, y - cy) - Math.hypot(nx - cx, ny - cy));
    const sweep = Math.abs(arcSweep(x, y, nx, ny, cx, cy, s.mode === 3, false));
    if (sweep <= Math.PI / 2 + 1e-3 && error < bestError) {
      best = [cx, cy];
      bestError = error;
    }
  }
  return best;
}

function flash(s: LayerState, c: Command, nx: number, ny: number): void {
  if (s.inRegion) {
    s.say("unknown-command", "error", c.line, "A flash stands inside of a region; it is missing.");
    return;
  }
  if (s.current === -1) {
    s.say("undefined-aperture", "error", c.line, "A flash has no aperture; it is missing.");
    return;
  }
  if (s.current < -1) {
    const block = s.blocks.get(-2 - s.current);
    if (block) s.copy(block, 0, Number.POSITIVE_INFINITY, nx, ny, s.transform, s.dark === 0, c.line);
    return;
  }
  sayEmpty(s, c);
  if (s.hasRoom(c.line)) s.builder.add(KIND.flash, s.stamp(s.current), s.dark, s.attributes.index, nx, ny);
}

/** Ends a contour of a region: closed where it is not, counter-clockwise, added as a filled area. */
export function closeContour(s: LayerState, line: number): void {
  const ring = s.contour;
  s.contour = [];
  const n = ring.length;
  if (n < 6 || !s.hasRoom(line)) return;
  if (Math.hypot(ring[0]! - ring[n - 2]!, ring[1]! - ring[n - 1]!) > 0.001)
    s.say("region-open", "warning", line, "A filled area is not closed; a straight line closes it here.");
  else ring.length = n - 2;
  if (ring.length < 6) return;
  if (signedArea(ring) < 0)
    for (let a = 0, b = ring.length - 2; a < b; a += 2, b -= 2) {
      [ring[a], ring[b]] = [ring[b]!, ring[a]!];
      [ring[a + 1], ring[b + 1]] = [ring[b + 1]!, ring[a + 1]!];
    }
  const [first, last] = s.builder.addPoints(ring);
  s.builder.add(KIND.region, -1, s.dark, s.attributes.index, first, last);
}
