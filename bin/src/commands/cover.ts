import { coverDocument } from "@kobbin/core";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

/** `kobbin cover`: prints cover/1, which joints a test plan exercises. */
export function cover(paths: readonly string[], json: boolean): number {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError("usage: kobbin cover <plan.json> [--json]");
  const c = coverDocument(readJson(path, "docs/cli.md shows the form."));
  if (json) {
    printJson(c);
    return 0;
  }
  printRows([
    ["pins", `${c.pins.tested} tested`, `${c.pins.implied} implied`, `${c.pins.never} never`],
    ["nets", `${c.nets.tested} tested`, "", `${c.nets.never} never`],
  ]);
  if (c.never.length > 0) process.stdout.write(`a pass says nothing of ${c.never.join(" ")}\n`);
  for (const n of c.next.slice(0, 10))
    process.stdout.write(`one item at ${n.net} takes ${n.gains} pins out of that\n`);
  return 0;
}
