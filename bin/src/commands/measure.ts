import {
  type Comparison,
  compareMeasured,
  diffBoards,
  isHolesLeast,
  type Measure,
  measureBoard,
  measureSpec,
  measureToKeep,
} from "@kobbin/core";
import { readAsBoard } from "@kobbin/packing";
import { readPaths } from "../drop.ts";
import { printFindings, printJson, printRows, UsageError } from "../print.ts";

/** Characters of an answer before it is spread over lines, which about doubles it. */
const MOST_CHARACTERS = 10_000_000;

/** `kobbin measure`: prints measure/1, with --compare the difference to another board too. */
export async function measure(
  paths: readonly string[],
  json: boolean,
  other: string | undefined,
): Promise<number> {
  if (paths.length === 0 || other === "")
    throw new UsageError("usage: kobbin measure <archive.zip | folder | file…> [--compare <other>] [--json]");
  const { set, rejected } = await readAsBoard(readPaths(paths));
  let m = measureBoard(set);
  let compared: Comparison | undefined;
  if (other !== undefined) {
    const against = await readAsBoard(readPaths([other]));
    if (against.rejected) throw new UsageError(`${other}: ${against.rejected}`);
    compared = compareMeasured(diffBoards(set, against.set), m, measureBoard(against.set));
    m = { ...m, diff: compared.diff };
  }
  const doc: Measure = measureToKeep(
    rejected ? { ...m, outcome: "reject", reason: rejected } : m,
    MOST_CHARACTERS,
  );
  if (json) printJson(compared ? { ...doc, revision: revisionOf(compared) } : doc);
  else print(doc, compared);
  return doc.outcome === "accept" ? 0 : 1;
}

/** What follows from a difference, beside the difference itself. */
const revisionOf = ({ parts, figures, notes, letter }: Comparison) => ({
  letter,
  parts,
  figures,
  findings: { fresh: notes.fresh, solved: notes.solved, same: notes.same },
});

const STENCIL = {
  reuse: "can be used again",
  tape: "can be used again with tape over what is too many",
  dispense: "can be used again, with paste by hand where openings are missing",
  new: "a new one is needed",
} as const;
const LETTER = {
  none: "the same board",
  stencil: "the board is the same, its stencil is not",
  suffix: "silkscreen only: a suffix is enough",
  letter: "a new letter",
} as const;

function print(m: Measure, compared: Comparison | undefined): void {
  printRows(
    m.layers.map((l) => [l.file, `${l.role}${l.side ? ` ${l.side}` : ""}`, l.reason, `${l.objects}`]),
  );
  const mm = (v: number | undefined) => (v === undefined ? "–" : `${v} mm`);
  process.stdout.write("\n");
  printRows([
    [
      "size",
      m.outline?.widthMm === undefined
        ? "–"
        : `${m.outline.widthMm} × ${m.outline.heightMm} mm, ${m.outline.areaMm2} mm²`,
    ],
    ["copper layers", String(m.copperLayers)],
    ...["minTrackMm", "minNetSpaceMm", "minHoleMm", "minAnnularMm"]
      .map(measureSpec)
      .map((s): [string, string] => [s.label, mm(s.valueOf(m, {}))]),
    [
      isHolesLeast(m) ? "holes, at least" : "holes",
      m.holes.map((h) => `${h.count} × ${h.diameterMm}${h.plated ? "" : " unplated"}`).join(", "),
    ],
    ["nets", String(m.nets?.count ?? "–")],
  ]);
  if (m.diff)
    printRows([
      ["changed", m.diff.changed.join(", ") || "nothing"],
      ["unchanged", m.diff.unchanged.join(", ") || "nothing"],
      ...Object.entries(m.diff.stencilReusable).map(([side, is]) => [
        `stencil ${side}`,
        STENCIL[m.diff!.stencil[side]?.says ?? (is ? "reuse" : "new")],
      ]),
    ]);
  if (compared)
    printRows([
      [
        "parts",
        compared.parts.map((p) => `${p.ref} ${p.kind}`).join(", ") || "none moved, as far as files name pins",
      ],
      ["revision", LETTER[compared.letter.says]],
      ["findings", `${compared.notes.fresh.length} new, ${compared.notes.solved.length} solved`],
    ]);
  process.stdout.write("\n");
  printFindings(m.findings);
}
