import type { Finding } from "../../findings.ts";
import type { laidOut } from "../shape/laid.ts";
import type { PanelLayout, PanelSpec, SheetHole, SheetParts } from "../spec.ts";
import { clean } from "./grid.ts";

/** What stands on rails, mm (domain.md 6.3). */
export const FIDUCIAL = { copperMm: 1, maskMm: 2, clearMm: 2 } as const;
const TOOLING_MM = 3;
const FROM_EDGE_MM = 5;
/** Offset of one fiducial, so that a sheet put in the other way round is told. */
const ASKEW_MM = 5;
export const BAD_MARK_MM = 2;
const BALANCE = { diameterMm: 1.5, pitchMm: 2.5 } as const;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** Fiducials, tooling holes, marks for bad boards and balancing copper on the rails, as far as there is room. */
export function furnish(
  spec: PanelSpec,
  s: SheetParts,
  laid: ReturnType<typeof laidOut>,
  findings: Finding[],
): Pick<PanelLayout, "fiducials" | "toolingHoles" | "badMarks" | "balance"> {
  const { widthMm: W, heightMm: H, rails } = s;
  const taken: Spot[] = [];
  const isFree = (x: number, y: number, r: number) =>
    x - r >= -1e-9 &&
    y - r >= -1e-9 &&
    x + r <= W + 1e-9 &&
    y + r <= H + 1e-9 &&
    taken.every((t) => Math.hypot(t.x - x, t.y - y) >= t.r + r - 1e-9) &&
    onRail(s, x, y, r);
  const put = (x: number, y: number, r: number) => {
    if (!isFree(x, y, r)) return false;
    taken.push({ x, y, r });
    return true;
  };
  const isLying = rails.top > 0 && rails.bottom > 0;
  const hasRails = isLying || (rails.left > 0 && rails.right > 0);
  const { toolingHoles, fiducials } = hasRails
    ? onTheRails(spec, s, isLying, put, findings)
    : { toolingHoles: [], fiducials: [] };
  sayMissing(spec, hasRails, fiducials.length, toolingHoles.length, findings);
  const badMarks = spec.badMarks && hasRails ? badMarksOf(s, laid, isLying, put) : [];
  if (spec.badMarks && badMarks.length < laid.length)
    findings.push({
      tag: "no-room-for-bad-marks",
      level: "remark",
      text: hasRails
        ? `The rails have room for ${badMarks.length} of ${laid.length} marks of bad boards.`
        : "Without rails there is no room for marks of bad boards.",
    });
  return {
    fiducials,
    toolingHoles,
    badMarks,
    balance: spec.copperBalance ? balanceOf(s, isFree) : [],
  };
}

/** Tooling holes in the corners, fiducials beside them in the shape of an L. */
function onTheRails(
  spec: PanelSpec,
  { widthMm: W, heightMm: H, rails }: SheetParts,
  isLying: boolean,
  put: (x: number, y: number, r: number) => boolean,
  findings: Finding[],
): { readonly toolingHoles: SheetHole[]; readonly fiducials: { xMm: number; yMm: number }[] } {
  const toolingHoles: SheetHole[] = [];
  const fiducials: { xMm: number; yMm: number }[] = [];
  const at = (u: number, v: number): [number, number] => (isLying ? [u, v] : [v, u]);
  const [L, B] = isLying ? [W, H] : [H, W];
  const rail = isLying ? Math.min(rails.top, rails.bottom) : Math.min(rails.left, rails.right);
  const inHole = Math.min(FROM_EDGE_MM, rail - TOOLING_MM / 2 - 0.3);
  const inMark = Math.min(FROM_EDGE_MM, rail - FIDUCIAL.clearMm);
  if (spec.toolingHoles)
    for (const [u, v] of [
      [FROM_EDGE_MM, inHole],
      [L - FROM_EDGE_MM, inHole],
      [FROM_EDGE_MM, B - inHole],
      [L - FROM_EDGE_MM, B - inHole],
    ] as const) {
      const [x, y] = at(u, v);
      if (inHole > TOOLING_MM / 2 && put(x, y, TOOLING_MM / 2 + 0.3))
        toolingHoles.push({ xMm: clean(x), yMm: clean(y), diameterMm: TOOLING_MM });
    }
  if (spec.fiducials) {
    const step = spec.toolingHoles ? FROM_EDGE_MM + 8 : FROM_EDGE_MM;
    for (const [u, v] of [
      [step, inMark],
      [L - step, inMark],
      [step + ASKEW_MM, B - inMark],
    ] as const) {
      const [x, y] = at(u, v);
      if (inMark >= FIDUCIAL.clearMm - 1e-9 && put(x, y, FIDUCIAL.clearMm))
        fiducials.push({ xMm: clean(x), yMm: clean(y) });
    }
    if (inMark < FROM_EDGE_MM - 1e-9 && fiducials.length > 0)
      findings.push({
        tag: "fiducial-at-clamp",
        level: "warning",
        at: { x: fiducials[0]!.xMm, y: fiducials[0]!.yMm },
        text: `Fiducials lie ${Number(inMark.toFixed(2))} mm from the sheet's edge, where a machine's clamps may cover them; ${FROM_EDGE_MM} mm is usual.`,
        do: `Rails of ${FROM_EDGE_MM + FIDUCIAL.clearMm} mm have room for it.`,
      });
  }
  return { toolingHoles, fiducials };
}

function onRail(s: SheetParts, x: number, y: number, r: number): boolean {
  const { widthMm: W, heightMm: H, rails } = s;
  const e = 1e-9;
  return (
    (rails.left > 0 && x + r <= rails.left + e) ||
    (rails.right > 0 && x - r >= W - rails.right - e) ||
    (rails.bottom > 0 && y + r <= rails.bottom + e) ||
    (rails.top > 0 && y - r >= H - rails.top - e)
  );
}

function sayMissing(
  spec: PanelSpec,
  hasRails: boolean,
  fiducials: number,
  holes: number,
  findings: Finding[],
): void {
  const lacks = [
    ...(spec.fiducials && fiducials < 3 ? [`${3 - fiducials} of 3 fiducials`] : []),
    ...(spec.toolingHoles && holes < 3 ? [`${3 - holes} of at least 3 tooling holes`] : []),
  ];
  if (lacks.length > 0)
    findings.push({
      tag: "no-room-on-rails",
      level: "warning",
      text: hasRails
        ? `The rails have no room for ${lacks.join(" and ")}.`
        : `Without rails there is no room for ${lacks.join(" and ")}.`,
      do: "Give the sheet rails of 7 mm, or do without: by hand neither is needed.",
    });
}

/** One dot a board, in the order of the copies, along the first rail and, where that is full, the other. */
function badMarksOf(
  s: SheetParts,
  laid: ReturnType<typeof laidOut>,
  isLying: boolean,
  put: (x: number, y: number, r: number) => boolean,
): PanelLayout["badMarks"] {
  const { widthMm: W, heightMm: H, rails } = s;
  const [L, B] = isLying ? [W, H] : [H, W];
  const [lo, hi] = isLying ? [rails.bottom, rails.top] : [rails.left, rails.right];
  const r = BAD_MARK_MM / 2 + 0.25;
  const spots: [number, number][] = [];
  for (const v of [lo / 2, B - hi / 2]) for (let u = 10; u <= L - 10; u += 2 * r) spots.push([u, v]);
  const out: { xMm: number; yMm: number; copy: number }[] = [];
  let k = 0;
  for (const l of laid) {
    for (; k < spots.length; k++) {
      const [u, v] = spots[k]!;
      const [x, y] = isLying ? [u, v] : [v, u];
      if (!put(x, y, r)) continue;
      out.push({ xMm: clean(x), yMm: clean(y), copy: l.place.copy });
      k++;
      break;
    }
  }
  return out;
}

function balanceOf(
  s: SheetParts,
  isFree: (x: number, y: number, r: number) => boolean,
): PanelLayout["balance"] {
  const out: { xMm: number; yMm: number }[] = [];
  const r = BALANCE.diameterMm / 2;
  for (let x = BALANCE.pitchMm; x < s.widthMm; x += BALANCE.pitchMm)
    for (let y = BALANCE.pitchMm; y < s.heightMm; y += BALANCE.pitchMm)
      if (isFree(x, y, r + 0.5)) out.push({ xMm: clean(x), yMm: clean(y) });
  return out;
}

export const BALANCE_MM = BALANCE.diameterMm;
