import { type Meeting, meet } from "@kobbin/core";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

/** `kobbin meet`: prints meet/1, what meets what when two connectors are put together, also wrongly. */
export function meetAll(paths: readonly string[], json: boolean): number {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError("usage: kobbin meet <meet.json> [--json]");
  const modes = meet(readJson(path, "docs/cli.md shows the form.") as Meeting);
  if (json) printJson({ kobbin: "meet/1", modes });
  else
    printRows([
      ["put in", "does", "because"],
      ...modes.map((m) => [
        `${m.mode}${m.by === undefined ? "" : m.by > 0 ? ", one on" : ", one back"}`,
        m.verdict,
        m.because ?? "",
      ]),
    ]);
  return 0;
}
