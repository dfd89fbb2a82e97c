import type { Measure } from "../../src/board/measure-document.ts";
import { measure } from "../write-board.ts";
import { BOARD_UNDECIDED, type WrittenBoard } from "./boards.ts";
import type { Verdict } from "./judge-list.ts";

const near = (a: number | undefined, b: number, by: number) => a !== undefined && Math.abs(a - b) <= by;
const sizesOf = (holes: readonly { readonly mm: number; readonly isPlated: boolean }[]) => {
  const out = new Map<string, number>();
  for (const h of holes) {
    const key = `${h.mm.toFixed(2)} ${h.isPlated ? "plated" : "bare"}`;
    out.set(key, (out.get(key) ?? 0) + 1);
  }
  return [...out].map(([k, n]) => `${n} × ${k}`).sort();
};

/** What of a board was not read as meant. */
function wrongIn(m: Measure, { truth }: WrittenBoard): string[] {
  const out: string[] = [];
  const miss = (what: string, is: unknown, meant: unknown) => out.push(`${what}: ${meant} became ${is}`);
  if (truth.widthMm !== undefined && !near(m.outline?.widthMm, truth.widthMm, 0.02))
    miss("width", m.outline?.widthMm, truth.widthMm);
  if (truth.heightMm !== undefined && !near(m.outline?.heightMm, truth.heightMm, 0.02))
    miss("height", m.outline?.heightMm, truth.heightMm);
  if (truth.areaMm2 !== undefined && !near(m.outline?.areaMm2, truth.areaMm2, 0.001 * truth.areaMm2))
    miss("area", m.outline?.areaMm2, truth.areaMm2);
  if (truth.cutouts !== undefined && m.outline?.cutouts !== truth.cutouts)
    miss("cut-outs", m.outline?.cutouts, truth.cutouts);
  if (truth.holes) {
    const is = sizesOf(
      m.holes.flatMap((h) =>
        Array.from({ length: h.count }, () => ({ mm: h.diameterMm, isPlated: h.plated === true })),
      ),
    ).join(", ");
    const meant = sizesOf(truth.holes).join(", ");
    if (is !== meant) miss("holes", is, meant);
  }
  if (truth.smdPads !== undefined && (m.smdPads?.top ?? 0) !== truth.smdPads)
    miss("pads", m.smdPads?.top, truth.smdPads);
  if (truth.openings !== undefined && m.maskOpenings?.top?.count !== truth.openings)
    miss("openings", m.maskOpenings?.top?.count, truth.openings);
  if (truth.narrowestMm !== undefined && (m.minTrackMm ?? 1) < truth.narrowestMm)
    miss("narrowest copper", m.minTrackMm, truth.narrowestMm);
  return out;
}

/** What became of a written board: read as meant; not, but said of the file that is odd; or neither. */
export function judgeBoard(written: WrittenBoard): { verdict: Verdict; why: string; measure: Measure } {
  const m = measure(written.entries);
  const loud = m.findings.filter((f) => f.level !== "remark");
  if (m.outcome === "reject") return { verdict: "refused", why: m.reason ?? "", measure: m };
  const wrong = wrongIn(m, written);
  const isOdd = written.culprit !== undefined && Object.hasOwn(BOARD_UNDECIDED, written.kind);
  const isSaid = isOdd ? loud.some((f) => f.file === written.culprit) : loud.length > 0;
  // the odd file is told, not its neighbour
  const blamed = loud.find((f) => f.tag === "layer-scale" && f.file !== written.culprit);
  if (blamed)
    return { verdict: "silent", why: `${blamed.file} is blamed for ${written.culprit}`, measure: m };
  if (wrong.length === 0 && !isOdd) return { verdict: "right", why: "", measure: m };
  if (isSaid) return { verdict: isOdd ? "asked" : "said", why: wrong[0] ?? "", measure: m };
  return { verdict: "silent", why: wrong[0] ?? `nothing is said of ${written.culprit}`, measure: m };
}
