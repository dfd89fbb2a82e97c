import { toWire } from "@kobbin/core";
import { measure } from "./measure.ts";
import { printError, UsageError } from "./print.ts";
import { cost, pack } from "./run.ts";
import { source } from "./source.ts";
import { bom, placement } from "./tables.ts";

const USAGE = `usage: kobbin <command> [--json]
  measure <archive.zip | folder | file…>   what a board's files hold
    --compare <other>                      and what changed against another board
  bom <file>                               a parts list, read
  placement <file>                         a placement file, read
  source <instance.json>                   the cheapest basket, proven
  cost <run.json>                          what a run costs, with its curve
  package <run.json> --out <file.zip>      the order package of a run
Options: --json prints one document; --max-seconds N ends a long run (default 60).
Exit: 0 read, 1 rejected as a whole, 2 wrong use, 3 a defect of ours.
`;

/** Runs one command and returns the exit status. */
export async function main(args: readonly string[]): Promise<number> {
  const [command, ...rest] = args;
  const json = rest.includes("--json");
  const at = rest.indexOf("--max-seconds");
  const seconds = at >= 0 ? Number(rest[at + 1]) : 60;
  const out = rest.indexOf("--out");
  const compare = rest.indexOf("--compare");
  const isValue = (i: number) => [at, out, compare].some((k) => k >= 0 && i === k + 1);
  const paths = rest.filter((a, i) => !a.startsWith("--") && !isValue(i));
  const timer = setTimeout(() => {
    process.stderr.write(`rejected: not done after ${seconds} s (--max-seconds)\n`);
    process.exit(1);
  }, seconds * 1000);
  timer.unref();
  try {
    switch (command) {
      case "measure":
        return await measure(paths, json, compare >= 0 ? (rest[compare + 1] ?? "") : undefined);
      case "bom":
        return await bom(paths, json);
      case "placement":
        return await placement(paths, json);
      case "source":
        return await source(paths, json, seconds);
      case "cost":
        return await cost(paths, json);
      case "package":
        return await pack(paths, out >= 0 ? rest[out + 1] : undefined);
      default:
        process.stderr.write(USAGE);
        return 2;
    }
  } catch (error) {
    if (error instanceof UsageError) {
      process.stderr.write(`${error.message}\n`);
      return 2;
    }
    const wire = toWire(error);
    if (wire) {
      printError(wire);
      return 1;
    }
    process.stderr.write(`a defect of Kobbin: ${error instanceof Error ? error.stack : String(error)}\n`);
    return 3;
  } finally {
    clearTimeout(timer);
  }
}
