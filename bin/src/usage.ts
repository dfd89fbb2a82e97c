/** Version of the command line, that of its package. */
export const VERSION = "0.1.0";

/** One command: how it is called, what it does, an example. */
interface Help {
  readonly call: string;
  readonly says: string;
  /** Lines of options: how it is written, and what it does. */
  readonly options?: readonly (readonly [string, string])[];
  readonly example: string;
}

/** Every command there is, in working order. */
export const COMMANDS = {
  measure: {
    call: "measure <archive.zip | folder | file…>",
    says: "what a board's files hold",
    options: [["--compare <other>", "and what changed against another board"]],
    example: "kobbin measure board.zip --compare board-rev-a.zip --json",
  },
  bom: { call: "bom <file>", says: "a parts list, read", example: "kobbin bom parts.xlsx --json" },
  placement: {
    call: "placement <file>",
    says: "a placement file, read",
    example: "kobbin placement places.csv",
  },
  fit: {
    call: "fit <fit.json>",
    says: "what goes into what, with its tolerances",
    example: "kobbin fit case.fit.json --json",
  },
  meet: {
    call: "meet <meet.json>",
    says: "what meets what in two connectors, also when they are put together wrongly",
    example: "kobbin meet display.meet.json --json",
  },
  probe: {
    call: "probe <archive> [--minutes 5]",
    says: "what to try on a bare board with a meter",
    example: "kobbin probe board.zip --minutes 10",
  },
  quote: {
    call: "quote <archive> --house <house.json>",
    says: "what a house asks for a board",
    options: [["--quantity N [--options <options.json>]", ""]],
    example: "kobbin quote board.zip --house house.json --quantity 30",
  },
  panel: {
    call: "panel <spec.json> [--out <file.zip>]",
    says: "a sheet of several boards, solved and proven",
    example: "kobbin panel sheet.json --out sheet.zip",
  },
  heat: {
    call: "heat <log.csv> --alloy <lead | silver | bismuth>",
    says: "a temperature log, held against what its paste wants",
    options: [["--peak-limit C [--window <json>]", "the weakest part; what the data sheet says otherwise"]],
    example: "kobbin heat oven.csv --alloy silver --peak-limit 250",
  },
  source: {
    call: "source <instance.json>",
    says: "the cheapest basket, proven",
    example: "kobbin source basket.json --max-seconds 10",
  },
  cost: {
    call: "cost <run.json>",
    says: "what a run costs, with its curve",
    example: "kobbin cost run.json --json",
  },
  assemble: {
    call: "assemble <run.json>",
    says: "who solders, from how many on, and the order of work",
    example: "kobbin assemble run.json --json",
  },
  cover: {
    call: "cover <plan.json>",
    says: "which joints a test plan exercises",
    example: "kobbin cover plan.json --json",
  },
  price: {
    call: "price <price.json>",
    says: "what one must sell for, channel by channel",
    example: "kobbin price price.json --json",
  },
  package: {
    call: "package <run.json> --out <file.zip>",
    says: "the order package of a run",
    example: "kobbin package run.json --out order.zip",
  },
} as const satisfies Readonly<Record<string, Help>>;

export type Command = keyof typeof COMMANDS;

export const isCommand = (word: string): word is Command => Object.hasOwn(COMMANDS, word);

const WIDE = 41;
const linesOf = ({ call, says, options = [] }: Help): string =>
  [[call, says], ...options.map(([o, t]) => [`  ${o}`, t])]
    .map(([left = "", right = ""]) => `  ${left.padEnd(WIDE - 2)}${right}`.trimEnd())
    .join("\n");
const COMMON = `Options: --json prints one document; --max-seconds N ends a long run (default 60); --help prints this.
Exit: 0 read, 1 rejected as a whole, 2 wrong use, 3 a defect of ours.
`;

export const USAGE = `usage: kobbin <command> [--json]
${Object.values(COMMANDS).map(linesOf).join("\n")}
kobbin help <command> gives an example; kobbin --version its version.
${COMMON}`;

/** How one command is called, with an example. */
export const usageOf = (command: Command): string =>
  `usage: kobbin\n${linesOf(COMMANDS[command])}\nexample: ${COMMANDS[command].example}\n${COMMON}`;

const HELP = ["--help", "-h", "help"];

/** What is printed for a command line that asks for help or the version; undefined where it asks for something else. */
export function helpFor(args: readonly string[]): string | undefined {
  const [first = ""] = args;
  if (["--version", "-v", "version"].includes(first)) return `kobbin ${VERSION}\n`;
  const end = args.indexOf("--");
  const asked = args.slice(0, end < 0 ? undefined : end);
  if (!HELP.includes(first) && !asked.some((a) => a === "--help" || a === "-h")) return undefined;
  const command = asked.find(isCommand);
  return command ? usageOf(command) : USAGE;
}
