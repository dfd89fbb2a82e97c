import { basename } from "node:path";
import { AppError, type Cells, type Finding, readBom, readPlacement } from "@kobbin/core";
import { BudgetError, readTable } from "@kobbin/formats";
import { readBytes } from "./json-file.ts";
import { printFindings, printJson, printRows, UsageError } from "./print.ts";

async function cellsOf(paths: readonly string[], command: string): Promise<{ cells: Cells; name: string }> {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError(`usage: kobbin ${command} <file> [--json]`);
  const bytes = readBytes(path);
  const cells = await readTable(bytes).catch((error) => {
    if (!(error instanceof BudgetError)) throw error;
    throw new AppError("TABLE_UNREADABLE", error.message, "Keep only the list in it and save it as CSV.");
  });
  if (!cells)
    throw new AppError("TABLE_UNREADABLE", `${basename(path)} holds no table.`, "Save it as CSV or XLSX.");
  return { cells, name: basename(path) };
}

const isRejected = (findings: readonly Finding[]) =>
  findings.some((f) => f.tag.endsWith("header-missing") && f.level === "error");

/** `kobbin bom`: prints bom/1. */
export async function bom(paths: readonly string[], json: boolean): Promise<number> {
  const { cells, name } = await cellsOf(paths, "bom");
  const { columns, lines, findings } = readBom(cells, name);
  if (json) printJson({ kobbin: "bom/1", columns, lines, findings });
  else {
    printRows([
      ["references", "qty", "value", "package", "part number"],
      ...lines.map((l) => [
        l.refs.join(" "),
        `${l.qty}${l.dnp ? " do not place" : ""}`,
        l.valueText,
        l.package,
        l.mpn,
      ]),
    ]);
    printFindings(findings);
  }
  return isRejected(findings) ? 1 : 0;
}

/** `kobbin placement`: prints placement/1. */
export async function placement(paths: readonly string[], json: boolean): Promise<number> {
  const { cells, name } = await cellsOf(paths, "placement");
  const read = readPlacement(cells, name);
  if (json) printJson({ kobbin: "placement/1", ...read });
  else {
    printRows([
      ["reference", "x mm", "y mm", "rotation", "side"],
      ...read.parts.map((p) => [p.ref, String(p.xMm), String(p.yMm), String(p.rotationDeg), p.side]),
    ]);
    printFindings(read.findings);
  }
  return isRejected(read.findings) ? 1 : 0;
}
