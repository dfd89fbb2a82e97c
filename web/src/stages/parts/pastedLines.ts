import { type Mount, type RunLine, readBom } from "@kobbin/core";
import { fromTsv } from "../../ui/grid/gridModel.ts";

/** Lines read out of pasted rows, and what a person should know of them. */
export interface PastedLines {
  readonly lines: readonly Omit<RunLine, "id">[];
  /** The rows name their columns: a list of its own, not cells of this one. */
  readonly hasHeader?: boolean;
  readonly problem?: string;
  /** The first thing that could not be taken as it stands. */
  readonly remark?: string;
}

const OWN_ORDER = ["References", "Quantity", "Value", "Package", "Part number"];
const MOUNTS: Readonly<Record<string, Mount>> = {
  "by machine": "machine",
  "by hand": "hand",
  "not soldered": "none",
};

/**
 * Reads rows pasted from a spreadsheet or copied from the bill itself. A row that names its columns is used; without
 * one, three rows and more tell by what they hold, fewer are taken in the order of the bill: references, pieces, value,
 * package, part number.
 */
export function readPastedLines(text: string): PastedLines {
  const split = text.includes("\t") ? fromTsv(text) : text.split(/\r\n?|\n/).map((l) => l.split(";"));
  const rows = split.map((r) => r.map((c) => c.trim())).filter((r) => r.some((c) => c !== ""));
  if (rows.length === 0 || rows.every((r) => r.length < 2))
    return { lines: [], problem: "The clipboard holds no rows of cells." };
  // the bill's own first column carries the numbers of notes only
  const isOwn = rows.every((r) => r.length >= 8 && /^\d*$|^Notes$/.test(r[0]!));
  const cells = isOwn ? rows.map((r) => r.slice(1)) : rows;
  const withHeader = readBom(cells, "clipboard");
  const isHeadless = withHeader.findings.some((f) => f.tag === "bom-header-missing");
  // by what they hold only where there are rows enough to tell, and never the bill's own rows
  const isTold = withHeader.lines.length > 0 && (!isHeadless || (!isOwn && rows.length >= 3));
  const bom = isTold ? withHeader : readBom([OWN_ORDER, ...cells.map((r) => r.slice(0, 5))], "clipboard");
  const mounts = isOwn ? cells.map((r) => MOUNTS[r[5] ?? ""]) : [];
  const first = isTold && !isHeadless ? 1 : 0;
  const lines = bom.lines.map((l, i) => ({
    refs: l.refs,
    qty: l.refs.length > 0 ? l.refs.length : (l.qtyStated ?? l.qty ?? 1),
    valueText: l.valueText,
    package: l.package,
    mpn: l.mpn,
    maker: l.maker,
    description: l.description,
    dnp: l.dnp,
    mount: mounts[i + first] ?? (l.refs.length > 0 ? ("machine" as const) : ("none" as const)),
  }));
  const worst = bom.findings.find((f) => f.level !== "remark");
  return lines.length === 0
    ? { lines, problem: "No row holds references or a quantity." }
    : {
        lines,
        ...(isTold && !isHeadless ? { hasHeader: true } : {}),
        ...(worst ? { remark: `Row ${(worst.row ?? 1) - (isTold ? 0 : 1)}: ${worst.text}` } : {}),
      };
}
