import { parseArgs } from "node:util";
import { toWire } from "@kobbin/core";
import { fitAll } from "./fit.ts";
import { measure } from "./measure.ts";
import { panel } from "./panel.ts";
import { printError, UsageError } from "./print.ts";
import { probe } from "./probe.ts";
import { quote } from "./quote.ts";
import { cost, pack } from "./run.ts";
import { source } from "./source.ts";
import { bom, placement } from "./tables.ts";

const USAGE = `usage: kobbin <command> [--json]
  measure <archive.zip | folder | file…>   what a board's files hold
    --compare <other>                      and what changed against another board
  bom <file>                               a parts list, read
  placement <file>                         a placement file, read
  fit <fit.json>                           what goes into what, with its tolerances
  probe <archive> [--minutes 5]            what to try on a bare board with a meter
  quote <archive> --house <house.json>     what a house asks for a board
    --quantity N [--options <options.json>]
  panel <spec.json> [--out <file.zip>]      a sheet of several boards, solved and proven
  source <instance.json>                   the cheapest basket, proven
  cost <run.json>                          what a run costs, with its curve
  package <run.json> --out <file.zip>      the order package of a run
Options: --json prints one document; --max-seconds N ends a long run (default 60).
Exit: 0 read, 1 rejected as a whole, 2 wrong use, 3 a defect of ours.
`;

const OPTIONS = {
  json: { type: "boolean" },
  "max-seconds": { type: "string" },
  out: { type: "string" },
  compare: { type: "string" },
  house: { type: "string" },
  quantity: { type: "string" },
  options: { type: "string" },
  minutes: { type: "string" },
} as const;

/** A command line, taken apart. */
export interface Asked {
  readonly command: string | undefined;
  readonly paths: readonly string[];
  readonly json: boolean;
  readonly seconds: number;
  readonly out: string | undefined;
  readonly compare: string | undefined;
  readonly house: string | undefined;
  readonly quantity: string | undefined;
  readonly options: string | undefined;
  readonly minutes: string | undefined;
}

/** @throws UsageError where an option is unknown, lacks its value, or is no number */
export function readArguments(args: readonly string[]): Asked {
  const { values, positionals } = taken(args);
  const [command, ...paths] = positionals;
  const seconds = Number(values["max-seconds"] ?? 60);
  if (!(Number.isFinite(seconds) && seconds > 0 && seconds <= 86_400))
    throw new UsageError("--max-seconds needs a number of seconds above 0.");
  return {
    command,
    paths,
    json: values.json ?? false,
    seconds,
    out: values.out,
    compare: values.compare,
    house: values.house,
    quantity: values.quantity,
    options: values.options,
    minutes: values.minutes,
  };
}

function taken(args: readonly string[]) {
  try {
    const asked = parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
    for (const [name, value] of Object.entries(asked.values))
      if (value === "") throw new UsageError(`--${name} needs a value after it.`);
    return asked;
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${error instanceof Error ? error.message : String(error)}\n${USAGE}`);
  }
}

/** Runs one command and returns the exit status. */
export async function main(args: readonly string[]): Promise<number> {
  try {
    const asked = readArguments(args);
    const { command, paths, json, seconds, out, compare } = asked;
    switch (command) {
      case "measure":
        return await measure(paths, json, compare);
      case "bom":
        return await bom(paths, json);
      case "placement":
        return await placement(paths, json);
      case "source":
        return await source(paths, json, seconds);
      case "fit":
        return await fitAll(paths, json);
      case "probe":
        return await probe(paths, json, asked.minutes);
      case "panel":
        return await panel(paths, json, out);
      case "quote":
        return await quote(paths, json, asked);
      case "cost":
        return await cost(paths, json);
      case "package":
        return await pack(paths, out);
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
  }
}
