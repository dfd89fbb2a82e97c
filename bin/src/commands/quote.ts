import {
  AppError,
  type House,
  type Measure,
  measureBoard,
  quoteDocument,
  readHouseFile,
  shapes,
  type Wishes,
} from "@kobbin/core";
import { readAsBoard } from "@kobbin/packing";
import { readPaths } from "../drop.ts";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

const USAGE =
  "usage: kobbin quote <archive | measure.json> --house <house.json> --quantity N [--options <options.json>] [--json]";
const HINT = "See docs/cli.md for its form.";

/** `kobbin quote`: prints quote/1, what a house asks for a board by its profile. */
export async function quote(
  paths: readonly string[],
  json: boolean,
  asked: { house: string | undefined; quantity: string | undefined; options: string | undefined },
): Promise<number> {
  const [path] = paths;
  const quantity = Number(asked.quantity);
  if (!path || paths.length > 1 || !asked.house || asked.quantity === undefined) throw new UsageError(USAGE);
  if (!Number.isSafeInteger(quantity) || quantity < 1 || quantity > 1_000_000)
    throw new UsageError("--quantity needs a number of boards, 1 to 1000000.");
  const house = houseOf(asked.house);
  const doc = quoteDocument(
    await measureOf(path),
    house,
    quantity,
    asked.options ? wishesOf(asked.options) : {},
  );
  if (json) {
    printJson(doc);
    return 0;
  }
  printRows([
    ...doc.sum.map((t) => [t.label, t.amount.toFixed(2), t.note ?? ""]),
    [`in all, ${doc.pieces} boards`, doc.total.toFixed(2), `${doc.currency}, ${doc.days} days`],
  ]);
  process.stdout.write("\n");
  printRows(
    doc.checks.filter((c) => c.level !== "fine").map((c) => [c.measure, `${c.value} of ${c.limit}`, c.level]),
  );
  for (const key of doc.unstated) process.stdout.write(`not judged: ${doc.house} states no ${key}\n`);
  for (const r of doc.refused) process.stdout.write(`not had: ${r.key} ${r.value}; ${r.because}\n`);
  return 0;
}

function houseOf(path: string): House {
  const value = readJson(path, HINT);
  const { profile, wrong, unknown } = readHouseFile(value);
  if (!profile)
    throw new AppError("DOCUMENT_INVALID", `${path} is no profile of a house: ${wrong.join(" ")}`, HINT);
  for (const key of unknown)
    process.stderr.write(`not read: ${path} has ${key}, which is no part of a profile\n`);
  return { id: "house", ...profile };
}

function wishesOf(path: string): Wishes {
  const value = readJson(path, HINT);
  const isPlain =
    typeof value === "object" &&
    value !== null &&
    !Array.isArray(value) &&
    Object.values(value).every((v) => typeof v === "string" || typeof v === "number");
  if (!isPlain)
    throw new AppError(
      "DOCUMENT_INVALID",
      `${path} holds no options.`,
      'Write { "mask": "black", "leadDays": 6 }.',
    );
  return value as Wishes;
}

/** A board's measure, read from its files or from what was measured before. */
async function measureOf(path: string): Promise<Measure> {
  if (/\.json$/i.test(path)) {
    const value = readJson(path, HINT) as { kobbin?: unknown } | null;
    const wrong =
      value?.kobbin === "measure/1" ? shapes.measureShape(value, "") : "it does not say measure/1";
    if (wrong) throw new AppError("DOCUMENT_INVALID", `${path} is no measure of a board: ${wrong}.`, HINT);
    return value as unknown as Measure;
  }
  const { set, rejected } = await readAsBoard(readPaths([path]));
  const m = measureBoard(set);
  if (rejected || m.outcome === "reject")
    throw new AppError(
      "NO_BOARD_FILE",
      `${path}: ${rejected ?? m.reason ?? "nothing in it is a board"}`,
      "Give it the archive of one board.",
    );
  return m;
}
