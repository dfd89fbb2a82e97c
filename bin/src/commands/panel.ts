import { writeFileSync } from "node:fs";
import { basename, dirname, resolve } from "node:path";
import {
  AppError,
  type Finding,
  isRefusal,
  type PanelLayout,
  type PanelProof,
  type PanelRefusal,
  solvePanel,
} from "@kobbin/core";
import { type PanelBoard, packPanel, readPanelBoard } from "@kobbin/packing";
import { readPaths } from "../drop.ts";
import { readJson } from "../json-file.ts";
import { printFindings, printJson, printRows, UsageError } from "../print.ts";
import { type ReadSpec, readSpec } from "./panel-spec.ts";

const USAGE = "usage: kobbin panel <spec.json> [--out <file.zip>] [--json]";
/** Nothing of a sheet hangs on when it is written: the same spec gives the same bytes. */
const CREATED = "2026-01-01T00:00:00Z";

/** `kobbin panel`: prints panel/1, a sheet that is solved, written and proven. */
export async function panel(
  paths: readonly string[],
  json: boolean,
  out: string | undefined,
): Promise<number> {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError(USAGE);
  const asked = readSpec(readJson(path, "See docs/cli.md for its form."));
  for (const key of asked.unknown) process.stderr.write(`not read: ${key} is no part of a spec\n`);
  const boards: PanelBoard[] = [];
  for (const archive of asked.archives) {
    process.stderr.write(`reading ${archive}\n`);
    try {
      boards.push(
        await readPanelBoard(
          basename(archive).replace(/\.[^.]+$/, ""),
          readPaths([resolve(dirname(path), archive)]),
        ),
      );
    } catch (error) {
      if (!(error instanceof AppError)) throw error;
      return refuse({ tag: "no-board", reason: error.message, nearest: [], do: error.hint }, json);
    }
  }
  const refused = boards.find((b) => "reason" in b.design);
  const findings: Finding[] = [];
  const thicknessMm = thicknessOf(asked, boards, findings);
  const made = refused
    ? (refused.design as PanelRefusal)
    : solvePanel(
        boards.map((b) => b.design as never),
        { ...asked.spec, thicknessMm },
      );
  if (isRefusal(made)) return refuse(made, json);
  findings.push(...made.findings);
  for (const b of boards)
    for (const f of b.measure.findings)
      if (f.level === "error" || f.tag === "already-panel")
        findings.push({ ...f, text: `${b.name}: ${f.text}` });
  const packed = await packPanel(boards as never, made, {
    name: boards.map((b) => b.name).join("+"),
    revision: boards[0]!.set.job?.revision ?? "A",
    thicknessMm,
    mode: asked.write,
    createdAt: CREATED,
    isMeasured: true,
  });
  findings.push(...packed.findings);
  if (!packed.proof.agrees)
    return refuse(
      {
        tag: "panel-unproven",
        reason:
          `The sheet, read back, is not what was laid out, and is not handed out: ${packed.proof.wrong.map((w) => w.text).join(" ")}`.slice(
            0,
            1000,
          ),
        nearest: [],
        do: "Take another gap, another width of tabs, or other turns.",
      },
      json,
    );
  if (out) writeFileSync(out, packed.zip);
  const file = out ? basename(out) : undefined;
  if (json) printJson(documentOf(made, packed.proof, findings, file));
  else print(made, packed.proof, findings, boards, file);
  return 0;
}

function thicknessOf(asked: ReadSpec, boards: readonly PanelBoard[], findings: Finding[]): number {
  if (asked.thicknessMm !== undefined) return asked.thicknessMm;
  const stated = boards.map((b) => b.measure.thicknessMm).find((t) => t !== undefined);
  if (stated === undefined)
    findings.push({
      tag: "thickness-taken",
      level: "remark",
      text: "No thickness is stated: 1.6 mm was taken.",
      do: "Write thicknessMm into the spec.",
    });
  return stated ?? 1.6;
}

function refuse(made: PanelRefusal, json: boolean): number {
  if (json)
    printJson({
      kobbin: "panel/1",
      outcome: "reject",
      reason: made.reason,
      nearest: made.nearest,
      ...(made.do ? { do: made.do } : {}),
      ...(made.at ? { at: made.at } : {}),
    });
  else process.stderr.write(`rejected: ${made.reason}${made.do ? ` ${made.do}` : ""}\n`);
  return 1;
}

/** The document panel/1. */
function documentOf(
  l: PanelLayout,
  proof: PanelProof,
  findings: readonly Finding[],
  file: string | undefined,
) {
  return {
    kobbin: "panel/1",
    outcome: "accept",
    sheet: { widthMm: l.widthMm, heightMm: l.heightMm },
    places: l.places.map(({ board, copy, xMm, yMm, turnDeg }) => ({ board, copy, xMm, yMm, turnDeg })),
    counts: l.counts,
    utilisation: Math.round(l.utilisation * 1e6) / 1e6,
    separation: l.separation,
    rails: l.rails,
    scores: l.scores,
    tabs: l.tabs.map(({ xMm, yMm, widthMm, between, holes }) => ({ xMm, yMm, widthMm, between, holes })),
    fiducials: l.fiducials,
    toolingHoles: l.toolingHoles,
    badMarks: l.badMarks,
    proof: { agrees: proof.agrees, checked: proof.checked },
    findings,
    ...(file === undefined ? {} : { file }),
  };
}

function print(
  l: PanelLayout,
  proof: PanelProof,
  findings: readonly Finding[],
  boards: readonly PanelBoard[],
  file: string | undefined,
): void {
  const mm = (v: number) => String(Math.round(v * 100) / 100);
  printRows([
    ["sheet", `${mm(l.widthMm)} × ${mm(l.heightMm)} mm`],
    ...l.counts.map((c, i) => [boards[i]!.name, `${c} copies`]),
    ["used", `${(l.utilisation * 100).toFixed(1)} %`],
    [
      "parted by",
      l.separation === "mixed" ? "scores and tabs" : l.separation === "score" ? "scores" : "tabs",
    ],
    ["scores", String(l.scores.length)],
    ["tabs", String(l.tabs.length)],
    ["proof", proof.agrees ? `agrees: ${proof.checked.length} checks` : "does not agree"],
    ...(file ? [["written", file]] : []),
  ]);
  printFindings(findings);
}
