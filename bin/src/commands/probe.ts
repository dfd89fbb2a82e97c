import { type ProbeDocument, type ProbePoint, probeBoard } from "@kobbin/core";
import { readAsBoard } from "@kobbin/packing";
import { readPaths } from "../drop.ts";
import { printFindings, printJson, printRows, UsageError } from "../print.ts";

/** `kobbin probe`: prints probe/1, what to try on a bare board with a meter. */
export async function probe(
  paths: readonly string[],
  json: boolean,
  minutes: string | undefined,
): Promise<number> {
  if (paths.length === 0)
    throw new UsageError("usage: kobbin probe <archive.zip | folder | file…> [--minutes 5] [--json]");
  const time = Number(minutes ?? 5);
  if (!(Number.isFinite(time) && time > 0 && time <= 600))
    throw new UsageError("--minutes needs a number above 0, up to 600.");
  const { set, rejected } = await readAsBoard(readPaths(paths));
  const list = probeBoard(set, time);
  const doc: ProbeDocument = rejected
    ? { ...list, outcome: "reject", reason: rejected, findings: set.findings }
    : list;
  if (json) printJson(doc);
  else print(doc);
  return doc.outcome === "accept" ? 0 : 1;
}

const at = (p: ProbePoint) => `${p.pad ? `${p.pad} ` : ""}${p.layer} ${p.x} / ${p.y}`;

function print(d: ProbeDocument): void {
  if (d.reason) process.stdout.write(`${d.reason}\n`);
  printRows([
    ["", "meter", "net", "from", "to", "because"],
    ...d.probes.map((p, i) => [
      String(i + 1),
      p.expect === "joined" ? "beeps" : "silent",
      p.nets.join(" – "),
      at(p.a),
      at(p.b),
      p.because,
    ]),
  ]);
  const { nets, ofNets, pairs, ofPairs } = d.covers;
  process.stdout.write(
    `\nabout ${d.minutes} min: ${nets} of ${ofNets} nets end to end, ${pairs} of ${ofPairs} pairs apart\n`,
  );
  if (d.outOfReach.length > 0) process.stdout.write(`out of reach under mask: ${d.outOfReach.join(", ")}\n`);
  printFindings(d.findings);
}
