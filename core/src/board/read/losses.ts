import type { Finding } from "../../findings.ts";
import type { TestPoint } from "../../netlist/read.ts";
import type { BoardFile } from "../board-file.ts";
import { words } from "./guess.ts";

/** Roles without which a board is another board. */
const NEEDED = ["copper", "mask", "profile", "drill"];

/**
 * Files whose role promises a part of the board and that give nothing, or are cut off: a loss is an error. An unplated
 * drill file without holes is what many programs write for a board that has none.
 */
export function sayLosses(files: readonly BoardFile[], findings: Finding[]): void {
  for (const f of files) {
    if (!NEEDED.includes(f.role)) continue;
    for (const [i, x] of findings.entries())
      if (x.file === f.path && x.tag === "missing-end" && x.level === "warning")
        findings[i] = {
          ...x,
          level: "error",
          text: `${x.text} It is ${words(f)}: what is cut off is missing on the board.`,
        };
    const isEmpty =
      f.role === "drill"
        ? f.drill
          ? f.drill.hits.length + f.drill.routs.length === 0
          : true
        : (f.layer?.n ?? 0) === 0;
    if (!isEmpty || (f.layer === undefined && f.drill === undefined)) continue;
    if (f.role === "profile") continue;
    const isUsual = f.role === "drill" && f.plated === false;
    findings.push({
      tag: "empty-file",
      level: isUsual ? "remark" : "error",
      file: f.path,
      text: isUsual
        ? "The file of unplated holes holds none."
        : `${f.path} is ${words(f)} by ${f.because === "corrected" ? "what you said" : f.reason}, and holds nothing.`,
      ...(isUsual
        ? {}
        : { do: "Export it again; if the board really has nothing there, accept this with the reason." }),
    });
  }
}

/** Gaps in a set of copper layers, told by their numbers, by what the job file counts, by drill spans, by the netlist. */
export function sayGaps(
  files: readonly BoardFile[],
  points: readonly TestPoint[],
  jobLayers: number | undefined,
  findings: Finding[],
): void {
  const copper = files.filter((f) => f.role === "copper" && f.layer);
  if (copper.length === 0) return;
  const lost = (text: string) =>
    findings.push({
      tag: "layer-missing",
      level: "error",
      text,
      do: "Export the missing layer and drop the whole set again.",
    });
  const inner = [...new Set(copper.flatMap((f) => (f.side === "inner" && f.index ? [f.index] : [])))].sort(
    (a, b) => a - b,
  );
  const most = Math.max(0, ...inner, ...(jobLayers ? [jobLayers - 2] : []));
  const gone = Array.from({ length: most }, (_, i) => i + 1).filter((n) => !inner.includes(n));
  if (gone.length > 0)
    lost(
      `Inner copper ${gone.join(", ")} ${gone.length > 1 ? "are" : "is"} missing: ${
        jobLayers && most === jobLayers - 2
          ? `the job file counts ${jobLayers} copper layers`
          : `there is an inner layer ${inner.at(-1)}`
      }.`,
    );
  for (const side of ["top", "bottom"] as const)
    if (!copper.some((f) => f.side === side) && (inner.length > 0 || (jobLayers ?? 0) > 1))
      lost(
        `The copper of the ${side} is missing${inner.length > 0 ? ", though there are inner layers" : `: the job file counts ${jobLayers} copper layers`}.`,
      );
  const layers = new Set(copper.map((f) => `${f.side} ${f.index ?? ""}`)).size;
  const deepest = Math.max(0, ...files.flatMap((f) => f.span ?? []));
  if (deepest > Math.max(layers, (inner.at(-1) ?? 0) + 2) && !(jobLayers && gone.length > 0))
    lost(`A drill file joins copper layers down to ${deepest}, but only ${layers} are in the drop.`);
  const touched = points.reduce((most, p) => Math.max(most, p.layer ?? 0), 0);
  if (touched > Math.max(2, layers) && !(jobLayers && gone.length > 0))
    lost(
      `The netlist touches copper layer ${touched}, but only ${layers} ${layers === 1 ? "is" : "are"} in the drop.`,
    );
  // a netlist that touches pads on a side whose copper is not there
  if (
    inner.length === 0 &&
    copper.every((f) => f.side === "top" || f.side === undefined) &&
    points.some((p) => p.side === "bottom") &&
    jobLayers === undefined
  )
    lost("The netlist has points on the bottom, but no copper of the bottom is in the drop.");
}
