import { latin } from "../../gerber/scan.ts";

/** What a file is, by its content alone. */
export type FileKind =
  | "layer"
  | "drill"
  | "netlist"
  | "job"
  | "table"
  | "archive"
  | "picture"
  | "empty"
  | "other";

const starts = (u8: Uint8Array, ...bytes: number[]) => bytes.every((b, i) => u8[i] === b);

/**
 * Kind of a file from its bytes; the name plays no part, so a picture renamed to a layer is still a picture.
 *
 * @param u8 the whole file or its first 64 kB
 */
export function kindOf(u8: Uint8Array): FileKind {
  if (u8.length === 0) return "empty";
  if (starts(u8, 0x50, 0x4b, 3, 4))
    return latin(u8, 0, Math.min(u8.length, 4096)).match(/\[Content_Types\]|xl\/|_rels/)
      ? "table"
      : "archive";
  if (
    starts(u8, 0x89, 0x50, 0x4e, 0x47) ||
    starts(u8, 0xff, 0xd8, 0xff) ||
    starts(u8, 0x47, 0x49, 0x46) ||
    starts(u8, 0x42, 0x4d)
  )
    return "picture";
  if (starts(u8, 0x25, 0x50, 0x44, 0x46)) return "other";
  if (starts(u8, 0xff, 0xfe) || starts(u8, 0xfe, 0xff)) return "table";
  const head = latin(u8, 0, Math.min(u8.length, 65536));
  if (head.includes("\u0000")) return "other";
  if (/^\uFEFF?\s*\{/.test(head))
    return head.includes('"FilesAttributes"') || head.includes('"GeneralSpecs"') ? "job" : "other";
  const lines = head.split(/\r\n|\r|\n/);
  if (
    /%(FS|MO|AD|LP|TF|AM|IP|SF|OF|MI|AS|IN|LN|SR)[^%]*\*/.test(head) ||
    /^G0?4[^*\n]*\*/m.test(head.slice(0, 2000))
  )
    return "layer";
  if (lines.slice(0, 50).some((l) => l.trim() === "M48") || lines.some((l) => /^T\d+.*C\d*\.\d+/.test(l)))
    return "drill";
  if (/^[XY\d-]+D0?[123]\*/m.test(head)) return "layer";
  const netlist = lines.filter((l) => /^(317|327|367|378|P {2})/.test(l)).length;
  if (netlist >= 2 || lines.some((l) => /^P {2}(JOB|UNITS)/.test(l))) return "netlist";
  if (lines.slice(0, 30).some((l) => /^T\d+\s*$/.test(l)) && lines.some((l) => /^X[-\d.]+Y[-\d.]+$/.test(l)))
    return "drill";
  return looksLikeTable(lines) ? "table" : "other";
}

function looksLikeTable(lines: readonly string[]): boolean {
  const rows = lines.filter((l) => l.trim() !== "").slice(0, 50);
  if (rows.length < 2) return false;
  for (const mark of [",", ";", "\t", "|"]) {
    const counts = rows.map((r) => r.split(mark).length - 1);
    if (counts[0]! >= 1 && counts.filter((c) => c >= counts[0]!).length >= rows.length * 0.6) return true;
  }
  return rows.some((r) => /ref|designator/i.test(r) && /\brot/i.test(r) && /side|layer/i.test(r));
}
