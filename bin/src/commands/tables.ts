import { basename } from "node:path";
import {
  AppError,
  type Cells,
  chooseSheet,
  type Finding,
  looksLikeBom,
  looksLikePlacement,
  readBom,
  readPlacement,
  saysAccount,
  settlePlacements,
} from "@kobbin/core";
import { BudgetError, readTables } from "@kobbin/formats";
import { readBytes } from "../json-file.ts";
import { printFindings, printJson, printRows, UsageError } from "../print.ts";

async function cellsOf(
  paths: readonly string[],
  command: "bom" | "placement",
): Promise<{ cells: Cells; name: string; findings: Finding[] }> {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError(`usage: kobbin ${command} <file> [--json]`);
  const bytes = readBytes(path);
  const sheets = await readTables(bytes).catch((error) => {
    if (!(error instanceof BudgetError)) throw error;
    throw new AppError("TABLE_UNREADABLE", error.message, "Keep only the list in it and save it as CSV.");
  });
  const findings: Finding[] = [];
  const name = basename(path);
  const taken =
    sheets &&
    (command === "bom"
      ? chooseSheet(sheets, (c) => looksLikeBom(c) && !looksLikePlacement(c), "a parts list", name, findings)
      : chooseSheet(sheets, looksLikePlacement, "a list of places", name, findings));
  if (!taken)
    throw new AppError("TABLE_UNREADABLE", `${basename(path)} holds no table.`, "Save it as CSV or XLSX.");
  return { cells: taken.cells, name, findings };
}

const isRejected = (findings: readonly Finding[]) =>
  findings.some((f) => f.tag.endsWith("header-missing") && f.level === "error");

/** `kobbin bom`: prints bom/1. */
export async function bom(paths: readonly string[], json: boolean): Promise<number> {
  const { cells, name, findings: chosen } = await cellsOf(paths, "bom");
  const { columns, lines, findings: read, account } = readBom(cells, name);
  const findings = [...chosen, ...read];
  if (json)
    printJson({
      kobbin: "bom/1",
      columns,
      lines: lines.map(({ dnp, ...l }) => (l.fitted ? l : { ...l, dnp })),
      findings,
      ...(account ? { account } : {}),
    });
  else {
    printRows([
      ["references", "qty", "value", "package", "part number"],
      ...lines.map((l) => [
        l.refs.join(" "),
        `${l.qty}${l.fitted ? " fitted or not?" : l.dnp ? " do not place" : ""}`,
        l.valueText,
        l.package,
        l.mpn,
      ]),
    ]);
    if (account) process.stdout.write(`${saysAccount(account)}.\n`);
    printFindings(findings);
  }
  return isRejected(findings) ? 1 : 0;
}

/** `kobbin placement`: prints placement/1. */
export async function placement(paths: readonly string[], json: boolean): Promise<number> {
  const { cells, name, findings: chosen } = await cellsOf(paths, "placement");
  const found = readPlacement(cells, name);
  // without a board there is nothing to weigh an assumed unit against
  const alone: Finding[] = [];
  const { unit, parts, account } = settlePlacements(found, undefined, name, alone);
  const read = {
    unit,
    parts,
    findings: [...chosen, ...found.findings, ...alone],
    ...(account ? { account } : {}),
  };
  if (json) printJson({ kobbin: "placement/1", ...read });
  else {
    printRows([
      ["reference", "x mm", "y mm", "rotation", "side"],
      ...read.parts.map((p) => [p.ref, String(p.xMm), String(p.yMm), String(p.rotationDeg), p.side]),
    ]);
    if (account) process.stdout.write(`${saysAccount(account)}.\n`);
    printFindings(read.findings);
  }
  return isRejected(read.findings) ? 1 : 0;
}
