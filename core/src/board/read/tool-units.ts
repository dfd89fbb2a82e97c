import type { DrillData } from "../../drill/read.ts";
import type { Finding } from "../../findings.ts";
import type { BoardFile } from "../board-file.ts";

/** No drill is finer, mm; a laser's hole is wider than the other, and never without plating. */
const FINEST_MM = 0.08;
const LASER_MM = 0.13;
const USUAL_MM = [0.15, 7] as const;

/**
 * Drill files whose tools are finer than any drill in the unit they state and ordinary in inches: their tools are read in
 * inches, which is said with both sizes. Where one file of a set is so, another of the same set whose tools are as fine as
 * a laser's is too.
 */
export function settleToolUnits(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const sizes = (d: DrillData) => [...d.hits.map((h) => h.diameterMm), ...d.routs.map((r) => r.widthMm)];
  const mayBe = (d: DrillData) => {
    const all = sizes(d);
    return (
      all.length > 0 &&
      all.every((mm) => mm < LASER_MM && mm * 25.4 >= USUAL_MM[0] && mm * 25.4 <= USUAL_MM[1])
    );
  };
  const isSure = (f: BoardFile) => {
    const d = f.drill;
    return (
      d !== undefined &&
      mayBe(d) &&
      (sizes(d).some((mm) => mm < FINEST_MM) || f.plated === false || d.plated === false)
    );
  };
  if (!files.some(isSure)) return [...files];
  return files.map((f) => {
    const d = f.drill;
    if (!d || !mayBe(d)) return f;
    const all = sizes(d);
    const range = (k: number) => {
      const [least, most] = [Math.min(...all) * k, Math.max(...all) * k];
      return least === most ? least.toFixed(4) : `${least.toFixed(4)} to ${most.toFixed(4)}`;
    };
    findings.push({
      tag: "drill-tool-unit",
      level: "warning",
      file: f.path,
      text: `The tools of ${f.path} are ${range(1)} mm as the file states its unit, finer than any drill; inches were taken: ${range(25.4)} mm.`,
      do: "Check the sizes in the drill table, or export the file with one unit.",
    });
    return {
      ...f,
      drill: {
        ...d,
        hits: d.hits.map((h) => ({ ...h, diameterMm: h.diameterMm * 25.4 })),
        routs: d.routs.map((r) => ({ ...r, widthMm: r.widthMm * 25.4 })),
      },
    };
  });
}
