import { toWire } from "@kobbin/core";
import { readArguments } from "./arguments.ts";
import { printReject, UsageError } from "./print.ts";
import { USAGE } from "./usage.ts";

/** Runs one command and returns the exit status. */
export async function main(args: readonly string[]): Promise<number> {
  try {
    const asked = readArguments(args);
    const { command, paths, json, seconds, out, compare } = asked;
    // what a command stands on is evaluated when it is asked for
    switch (command) {
      case "measure":
        return await (await import("./commands/measure.ts")).measure(paths, json, compare);
      case "bom":
        return await (await import("./commands/tables.ts")).bom(paths, json);
      case "placement":
        return await (await import("./commands/tables.ts")).placement(paths, json);
      case "source":
        return await (await import("./commands/source.ts")).source(paths, json, seconds);
      case "fit":
        return await (await import("./commands/fit.ts")).fitAll(paths, json);
      case "meet":
        return (await import("./commands/meet.ts")).meetAll(paths, json);
      case "probe":
        return await (await import("./commands/probe.ts")).probe(paths, json, asked.minutes);
      case "heat":
        return await (await import("./commands/heat.ts")).heat(paths, json, asked);
      case "panel":
        return await (await import("./commands/panel.ts")).panel(paths, json, out);
      case "quote":
        return await (await import("./commands/quote.ts")).quote(paths, json, asked);
      case "cost":
        return await (await import("./commands/run.ts")).cost(paths, json);
      case "assemble":
        return await (await import("./commands/assemble.ts")).assemble(paths, json);
      case "cover":
        return (await import("./commands/cover.ts")).cover(paths, json);
      case "price":
        return (await import("./commands/price.ts")).price(paths, json);
      case "package":
        return await (await import("./commands/run.ts")).pack(paths, out);
      default:
        throw new UsageError(
          command === undefined ? USAGE.trimEnd() : `There is no command “${command}”.\n${USAGE}`.trimEnd(),
        );
    }
  } catch (error) {
    if (error instanceof UsageError) {
      printReject(args, error.message.split("\n")[0]!, error.message);
      return 2;
    }
    const wire = toWire(error);
    if (wire) {
      printReject(args, `${wire.message} ${wire.hint}`);
      return 1;
    }
    const why = error instanceof Error ? error.message : String(error);
    printReject(args, `A defect of Kobbin: ${why}`, `a defect of Kobbin: ${stackOf(error)}`);
    return 3;
  }
}

const stackOf = (error: unknown) => (error instanceof Error ? error.stack : String(error));
