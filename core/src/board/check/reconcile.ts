import type { Bom } from "../../bom/bom.ts";
import { lettersOf } from "../../bom/refs.ts";
import { type Finding, few } from "../../findings.ts";
import type { Placement, Placements } from "../../placement/placement.ts";
import type { OpenPad } from "../copper/coats.ts";
import type { CrossCheck } from "../measure-document.ts";
import { pinsOfPackage } from "./package-pins.ts";
import type { PartPads } from "./part-pads.ts";

const NOT_PARTS = new Set(["TP", "FID", "MH", "H", "VIA"]);

/**
 * Parts list × placement × pads. Pads belong to parts by the attributes of the copper, else by the netlist's pins; where
 * neither says it, only what the two tables tell is compared, and a part far from every pad is still found.
 *
 * @param byRef pads by part, empty where no file says whose they are
 * @param pads of all copper layers
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one comparison of three lists, by reference
export function reconcile(
  bom: Bom | undefined,
  placements: Placements | undefined,
  byRef: ReadonlyMap<string, PartPads>,
  pads: readonly OpenPad[],
  sideOf: (layer: number) => string,
  placementFile: string,
  findings: Finding[],
): CrossCheck | undefined {
  if (!bom && !placements) return undefined;
  const fitted = new Set((bom?.lines ?? []).filter((l) => !l.dnp).flatMap((l) => l.refs));
  const dnp = new Set((bom?.lines ?? []).filter((l) => l.dnp).flatMap((l) => l.refs));
  const places = placements?.parts ?? [];
  const placed = new Set(places.map((p) => p.ref));
  const isPart = (r: string) => !NOT_PARTS.has(lettersOf(r));
  const placedNotInBom = bom ? [...placed].filter((r) => !fitted.has(r) && !dnp.has(r) && isPart(r)) : [];
  const placedButDnp = [...placed].filter((r) => dnp.has(r));
  if (placedNotInBom.length > 0)
    findings.push({
      tag: "placement-unknown-part",
      level: "warning",
      about: placedNotInBom,
      text: `Placed but in no line of the parts list: ${few(placedNotInBom)}.`,
      do: "Add them to the parts list, or mark them do-not-place.",
    });
  if (placedButDnp.length > 0)
    findings.push({
      tag: "placement-not-fitted",
      level: "remark",
      about: placedButDnp,
      text: `Placed though the parts list leaves them off: ${few(placedButDnp)}.`,
      do: "A house may fit them: take them out of the placement file that goes to the house.",
    });
  if (placements) {
    doubled(places, findings);
    if (byRef.size > 0) againstPads(places, byRef, placementFile, findings);
    else farFromPads(places, pads, sideOf, findings);
  }
  const throughHole = [...byRef].filter(([r, p]) => p.hasHole && isPart(r)).map(([r]) => r);
  const all = new Set([...fitted, ...placed]);
  if (byRef.size === 0) {
    // no file says whose pads are whose: a drilled pad is the nearest placed part's
    for (const p of nearestParts(places, pads)) if (!throughHole.includes(p)) throughHole.push(p);
  }
  const withoutPads =
    byRef.size > 0 ? [...fitted].filter((r) => !byRef.has(r) && isOnBoard(r, placed)) : undefined;
  const padsWithoutPart =
    byRef.size > 0 && bom
      ? [...byRef]
          .filter(([r, p]) => p.isSoldered && !fitted.has(r) && !dnp.has(r) && isPart(r))
          .map(([r]) => r)
      : undefined;
  if (withoutPads && withoutPads.length > 0)
    findings.push({
      tag: "part-without-pads",
      level: "warning",
      ...placeOf(withoutPads, places),
      about: withoutPads,
      text: `In the parts list, but no pad of the board is theirs: ${few(withoutPads)}.`,
      do: "If they are not on the board (cable, case), mark the line so; else a footprint is missing.",
    });
  if (padsWithoutPart && padsWithoutPart.length > 0)
    findings.push({
      tag: "pads-without-part",
      level: "warning",
      about: padsWithoutPart,
      text: `Pads on the board, but no line of the parts list: ${few(padsWithoutPart)}.`,
      do: "Add them to the list, or write them in as not fitted.",
    });
  if (bom) pinCounts(bom, byRef, findings);
  return {
    inBomNotPlaced: placements ? [...fitted].filter((r) => !placed.has(r)) : [],
    placedNotInBom,
    placedButDnp,
    partsOnBottom: places.filter((p) => p.side === "bottom").map((p) => p.ref),
    throughHole: throughHole.filter((r) => all.size === 0 || all.has(r)).sort(),
    ...(withoutPads ? { withoutPads } : {}),
    ...(padsWithoutPart ? { padsWithoutPart } : {}),
  };
}

/** A line without placement may be a screw or a cable: only what is placed or named like a part on the board is missed. */
const isOnBoard = (ref: string, placed: ReadonlySet<string>) =>
  placed.has(ref) || /^(R|C|L|D|Q|U|IC|J|K|X|Y|F|SW|RV|RN|LED)\d/.test(ref);

/** Where the first of the parts is placed, for the picture. */
const placeOf = (refs: readonly string[], places: readonly Placement[]): Pick<Finding, "at"> | undefined => {
  const p = places.find((q) => refs.includes(q.ref));
  return p ? { at: { layer: p.side, x: p.xMm, y: p.yMm } } : undefined;
};

function doubled(places: readonly Placement[], findings: Finding[]): void {
  const sorted = [...places].sort((a, b) => a.xMm - b.xMm);
  for (let i = 0; i < sorted.length; i++)
    for (let j = i + 1; j < sorted.length && sorted[j]!.xMm - sorted[i]!.xMm < 0.2; j++) {
      const [a, b] = [sorted[i]!, sorted[j]!];
      if (a.side !== b.side || a.ref === b.ref || Math.abs(a.yMm - b.yMm) >= 0.2) continue;
      findings.push({
        tag: "placement-doubled",
        level: "warning",
        at: { layer: a.side, x: a.xMm, y: a.yMm },
        about: [a.ref, b.ref],
        text: `${a.ref} and ${b.ref} are placed at one point.`,
        do: "If one replaces the other, mark one as not fitted.",
      });
    }
}

const box = (p: PartPads) => {
  const xs = p.places.map((q) => q.x);
  const ys = p.places.map((q) => q.y);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
};
const median = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

function againstPads(
  places: readonly Placement[],
  byRef: ReadonlyMap<string, PartPads>,
  file: string,
  findings: Finding[],
): void {
  const known = places.filter((p) => byRef.has(p.ref));
  const off = known.map((p) => {
    const [x0, y0, x1, y1] = box(byRef.get(p.ref)!);
    return { p, dx: (x0 + x1) / 2 - p.xMm, dy: (y0 + y1) / 2 - p.yMm, x0, y0, x1, y1 };
  });
  // one shift of everything is said once, not once a part
  const [sx, sy] = [median(off.map((o) => o.dx)), median(off.map((o) => o.dy))];
  const agree = off.filter((o) => Math.hypot(o.dx - sx, o.dy - sy) < 1).length;
  const isShifted = off.length >= 3 && Math.hypot(sx, sy) > 0.5 && agree >= off.length * 0.8;
  if (isShifted)
    findings.push({
      tag: "placement-shifted",
      level: "warning",
      text: `The whole placement lies ${(-sx).toFixed(3)}, ${(-sy).toFixed(3)} mm beside the pads: another origin.`,
      do: "Move it back here, or export it with the origin of the layers.",
      file,
      offer: { says: "move the placement onto the pads", file, move: { dxMm: sx, dyMm: sy } },
    });
  const bottom = off.filter((o) => o.p.side === "bottom");
  const sum = median(bottom.map((o) => (o.x0 + o.x1) / 2 + o.p.xMm));
  const isMirrored =
    !isShifted &&
    bottom.length >= 3 &&
    bottom.filter((o) => Math.abs((o.x0 + o.x1) / 2 + o.p.xMm - sum) < 0.5).length >= bottom.length * 0.8 &&
    bottom.filter((o) => Math.abs(o.dx) < 0.5).length < bottom.length * 0.5;
  if (isMirrored)
    findings.push({
      tag: "placement-mirrored",
      level: "error",
      about: bottom.map((o) => o.p.ref),
      text: "The parts below are placed as seen from below: their X runs the other way than the layers'.",
      do: "Export the placement as seen through the board from above, or turn it here.",
    });
  for (const o of off) {
    const part = byRef.get(o.p.ref)!;
    if (!part.hasHole && part.sides.size === 1 && !part.sides.has(o.p.side))
      findings.push({
        tag: "placement-wrong-side",
        level: "error",
        at: { layer: [...part.sides][0]!, x: o.p.xMm, y: o.p.yMm },
        about: [o.p.ref],
        text: `${o.p.ref} is placed on the ${o.p.side}, its pads are on the ${[...part.sides][0]}.`,
        do: "Correct the side in the placement file.",
      });
    if (isShifted || (isMirrored && o.p.side === "bottom")) continue;
    const slack = 0.5;
    if (o.p.xMm < o.x0 - slack || o.p.xMm > o.x1 + slack || o.p.yMm < o.y0 - slack || o.p.yMm > o.y1 + slack)
      findings.push({
        tag: "placement-off-pads",
        level: "warning",
        at: { layer: o.p.side, x: o.p.xMm, y: o.p.yMm },
        about: [o.p.ref],
        text: `${o.p.ref} is placed ${Math.hypot(o.dx, o.dy).toFixed(2)} mm from the middle of its pads, outside all of them.`,
        do: "Check its place on the picture.",
      });
  }
}

function farFromPads(
  places: readonly Placement[],
  pads: readonly OpenPad[],
  sideOf: (layer: number) => string,
  findings: Finding[],
): void {
  if (pads.length === 0) return;
  for (const p of places) {
    const near = pads.some(
      (q) => (q.body >= 0 || sideOf(q.layer) === p.side) && Math.hypot(q.x - p.xMm, q.y - p.yMm) < 6,
    );
    if (near) continue;
    findings.push({
      tag: "placement-off-pads",
      level: "warning",
      at: { layer: p.side, x: p.xMm, y: p.yMm },
      about: [p.ref],
      text: `No pad lies within 6 mm of ${p.ref} on the ${p.side}.`,
      do: "Check its place and side, and the origin of the placement file.",
    });
  }
}

function nearestParts(places: readonly Placement[], pads: readonly OpenPad[]): string[] {
  const out = new Set<string>();
  for (const q of pads) {
    if (q.body < 0 || q.opening < 0) continue;
    let best: { ref: string; d: number } | undefined;
    for (const p of places) {
      const d = Math.hypot(p.xMm - q.x, p.yMm - q.y);
      if (d < 10 && (!best || d < best.d)) best = { ref: p.ref, d };
    }
    if (best && !NOT_PARTS.has(lettersOf(best.ref))) out.add(best.ref);
  }
  return [...out];
}

function pinCounts(bom: Bom, byRef: ReadonlyMap<string, PartPads>, findings: Finding[]): void {
  if (byRef.size === 0) return;
  for (const line of bom.lines) {
    const stated = pinsOfPackage(line.package);
    if (stated === undefined) continue;
    const odd = line.refs.filter((r) => {
      const n = byRef.get(r)?.pins.size;
      // a tab or a pad below counts as one more
      return n !== undefined && n !== stated && n !== stated + 1;
    });
    if (odd.length > 0)
      findings.push({
        tag: "pin-count-odd",
        level: "warning",
        row: line.row,
        about: odd,
        text: `${few(odd)}: the package ${line.package} has ${stated} pins, the board has pads for ${byRef.get(odd[0]!)!.pins.size}.`,
        do: "Check that part and footprint belong together.",
      });
  }
}
