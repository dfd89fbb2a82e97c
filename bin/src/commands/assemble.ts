import { assembleDocument, type BasketCache, WORK_WORDS } from "@kobbin/core";
import { proveBaskets } from "@kobbin/solver";
import { printJson, printRows } from "../print.ts";
import { PROOF_SECONDS, readRun } from "./run.ts";

/** `kobbin assemble`: prints assemble/1, who solders what and in which order. */
export async function assemble(paths: readonly string[], json: boolean): Promise<number> {
  const run = readRun(paths[0], "assemble");
  const cache: BasketCache = new Map();
  await proveBaskets(run, cache, PROOF_SECONDS);
  const doc = assembleDocument(run, cache);
  if (json) {
    printJson(doc);
    return 0;
  }
  const { currency } = doc;
  process.stdout.write(
    `${doc.start} to start for ${doc.good} good ones, ${(100 * doc.yield.final).toFixed(1)} % end good\n`,
  );
  printRows([
    ["way", "per good board", "cash", "hours", "to start"],
    ...doc.routes.map((r) => [
      r.own ? `${r.key}, chosen` : r.key,
      ...(r.cannot.length > 0
        ? [`cannot be: ${r.cannot.join("; ")}`]
        : [`${r.perGood} ${currency}`, `${r.cash} ${currency}`, r.hours!.toFixed(1), String(r.start)]),
    ]),
  ]);
  for (const b of doc.breakEven)
    process.stdout.write(`${b.route} costs no more than ${b.against} from ${b.quantity} on\n`);
  printRows([
    ["", "step", "minutes", "after", "parts"],
    ...doc.steps.map((s) => [
      String(s.n),
      [WORK_WORDS[s.kind], s.side, s.board].filter((x) => x !== undefined).join(", "),
      s.minutes.toFixed(1),
      s.after.join(" "),
      s.refs.join(" "),
    ]),
  ]);
  for (const c of doc.conflicts) process.stdout.write(`cannot be: ${c.text} ${c.do}\n`);
  return 0;
}
