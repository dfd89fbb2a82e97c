import type { Finding } from "../../src/findings.ts";
import { type Placements, readPlacement } from "../../src/placement/placement.ts";
import { settlePlacements } from "../../src/placement/settle.ts";
import type { Verdict } from "./judge-list.ts";
import { PLACE_UNDECIDED, type WrittenPlaces } from "./places.ts";

/**
 * What became of a written table of places.
 * @returns the verdict, and the first part that does not stand as meant
 */
export function judgePlaces(written: WrittenPlaces): {
  verdict: Verdict;
  why: string;
  findings: readonly Finding[];
} {
  const read: Placements = readPlacement(written.cells, written.file);
  const more: Finding[] = [];
  const { parts } = settlePlacements(read, written.box, written.file, more);
  const findings = [...read.findings, ...more];
  const isUndecided = Object.hasOwn(PLACE_UNDECIDED, written.kind);
  if (parts.length === 0)
    return {
      verdict: !findings.some((f) => f.level === "error") ? "silent" : isUndecided ? "asked" : "refused",
      why: "nothing was read",
      findings,
    };
  const byRef = new Map(parts.map((p) => [p.ref, p]));
  // a guess of a unit is said by its own tag; what is said of a side says nothing of a place
  const says = (about: RegExp, ref: string) =>
    findings.some(
      (f) => f.level !== "remark" && about.test(f.tag) && (f.about === undefined || f.about.includes(ref)),
    );
  const wrong: { why: string; isSaid: boolean }[] = [];
  const miss = (why: string, about: RegExp, ref: string) => wrong.push({ why, isSaid: says(about, ref) });
  for (const t of written.places) {
    const p = byRef.get(t.ref);
    if (!p) miss(`${t.ref} is missing`, /bad-row|ragged/, t.ref);
    else {
      if (Math.abs(p.xMm - t.xMm) > 1e-3 || Math.abs(p.yMm - t.yMm) > 1e-3)
        miss(`${t.ref}: ${t.xMm} ${t.yMm} became ${p.xMm} ${p.yMm}`, /unit|off-pads|bad-row|ragged/, t.ref);
      if (Math.abs(((p.rotationDeg - t.rotationDeg + 540) % 360) - 180) > 0.01)
        miss(`${t.ref}: turned ${t.rotationDeg} became ${p.rotationDeg}`, /turn|bad-row|ragged/, t.ref);
      if (p.side !== t.side) miss(`${t.ref}: ${t.side} became ${p.side}`, /side|ragged/, t.ref);
    }
  }
  const known = new Set(written.places.map((p) => p.ref));
  for (const p of parts) if (!known.has(p.ref)) miss(`${p.ref} is no part`, /bad-row|ragged/, p.ref);
  const bad = wrong.find((w) => !w.isSaid) ?? wrong[0];
  const said = isUndecided ? "asked" : "said";
  return { verdict: !bad ? "right" : bad.isSaid ? said : "silent", why: bad?.why ?? "", findings };
}
