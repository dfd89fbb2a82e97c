import type { Finding } from "../../findings.ts";
import type { BoardSet } from "../board-file.ts";
import type { Outline } from "../outline/outline.ts";

/** What the job file states against what was found. */
export function checkAgainstJob(
  { job }: BoardSet,
  copperLayers: number,
  outline: Outline | undefined,
  findings: Finding[],
): void {
  if (job?.layers !== undefined && copperLayers > 0 && job.layers !== copperLayers)
    findings.push({
      tag: "job-layer-count",
      level: "warning",
      text: `The job file states ${job.layers} copper layers, ${copperLayers} were found.`,
      do: "Look for a missing layer.",
    });
  for (const [what, stated, found] of [
    ["width", job?.widthMm, outline?.widthMm],
    ["height", job?.heightMm, outline?.heightMm],
  ] as const)
    if (stated !== undefined && found !== undefined && Math.abs(stated - found) > 0.3)
      findings.push({
        tag: "job-size",
        level: "warning",
        text: `The job file states a ${what} of ${stated} mm, the outline measures ${found} mm.`,
        do: "Check whether the files are of one export.",
      });
}
