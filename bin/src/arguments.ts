import { parseArgs } from "node:util";
import { UsageError } from "./print.ts";
import { USAGE } from "./usage.ts";

const OPTIONS = {
  json: { type: "boolean" },
  "max-seconds": { type: "string" },
  out: { type: "string" },
  compare: { type: "string" },
  house: { type: "string" },
  quantity: { type: "string" },
  options: { type: "string" },
  minutes: { type: "string" },
  alloy: { type: "string" },
  "peak-limit": { type: "string" },
  window: { type: "string" },
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
  readonly alloy: string | undefined;
  readonly peakLimit: string | undefined;
  readonly window: string | undefined;
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
    alloy: values.alloy,
    peakLimit: values["peak-limit"],
    window: values.window,
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
