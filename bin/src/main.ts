import { toWire } from "@kobbin/core";
import { readArguments } from "./arguments.ts";
import { printError, UsageError } from "./print.ts";
import { USAGE } from "./usage.ts";

/** Runs one command and returns the exit status. */
export async function main(args: readonly string[]): Promise<number> {
  try {
    const asked = readArguments(args);
    const { command, paths, json, seconds, out, compare } = asked;
    // what a command stands on is evaluated when it is asked for
    switch (command) {
      case "measure":
        return await (await import("./measure.ts")).measure(paths, json, compare);
      case "bom":
        return await (await import("./tables.ts")).bom(paths, json);
      case "placement":
        return await (await import("./tables.ts")).placement(paths, json);
      case "source":
        return await (await import("./source.ts")).source(paths, json, seconds);
      case "fit":
        return await (await import("./fit.ts")).fitAll(paths, json);
      case "probe":
        return await (await import("./probe.ts")).probe(paths, json, asked.minutes);
      case "panel":
        return await (await import("./panel.ts")).panel(paths, json, out);
      case "quote":
        return await (await import("./quote.ts")).quote(paths, json, asked);
      case "cost":
        return await (await import("./run.ts")).cost(paths, json);
      case "package":
        return await (await import("./run.ts")).pack(paths, out);
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
