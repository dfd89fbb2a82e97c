import type { Finding } from "@kobbin/core";
import { isCommand } from "./usage.ts";

/** The command was used wrongly; printed alone, exit 2. */
export class UsageError extends Error {}

/** One JSON document on standard output. */
export const printJson = (value: unknown): void => {
  process.stdout.write(`${JSON.stringify(value, null, 1)}\n`);
};

/** Rows with aligned columns. */
export function printRows(rows: readonly (readonly string[])[]): void {
  const widths = rows.reduce<number[]>((w, r) => r.map((c, i) => Math.max(w[i] ?? 0, c.length)), []);
  for (const r of rows)
    process.stdout.write(
      `${r
        .map((c, i) => c.padEnd(widths[i]!))
        .join("  ")
        .trimEnd()}\n`,
    );
}

/** Findings, worst first. */
export function printFindings(findings: readonly Finding[]): void {
  const order = { error: 0, warning: 1, remark: 2 };
  const name = { error: "blocker", warning: "caution", remark: "remark" };
  for (const f of [...findings].sort((a, b) => order[a.level] - order[b.level])) {
    const where = [f.file, f.line ? `line ${f.line}` : "", f.row ? `row ${f.row}` : ""]
      .filter(Boolean)
      .join(", ");
    process.stdout.write(
      `${name[f.level]}: ${f.text}${where ? ` (${where})` : ""}${f.do ? ` ${f.do}` : ""}\n`,
    );
  }
}

/**
 * That nothing was read, with the reason: beside standard output, and with `--json` as the one document on it, whatever
 * it was that went wrong.
 *
 * @param args the command line as it was typed
 * @param says how it stands on standard error, where that is more than the reason
 */
export function printReject(args: readonly string[], reason: string, says = `rejected: ${reason}`): void {
  process.stderr.write(`${says}\n`);
  if (!args.includes("--json")) return;
  const command = args.find(isCommand);
  printJson({ kobbin: `${command ?? "kobbin"}/1`, outcome: "reject", reason });
}
