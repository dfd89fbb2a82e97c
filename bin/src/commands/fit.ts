import { dirname, resolve } from "node:path";
import { AppError, type FitResult, judgeFit, type Measure, measureBoard } from "@kobbin/core";
import { readAsBoard } from "@kobbin/packing";
import { readPaths } from "../drop.ts";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

type Json = unknown;
const isRecord = (v: Json): v is Record<string, Json> =>
  typeof v === "object" && v !== null && !Array.isArray(v);

/** `kobbin fit`: prints fit/1, whether things go together, worst case and statistically. */
export async function fitAll(paths: readonly string[], json: boolean): Promise<number> {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError("usage: kobbin fit <fit.json> [--json]");
  const asked = readJson(path, "See docs/cli.md for its form.");
  if (!isRecord(asked) || !Array.isArray(asked.checks))
    throw new AppError(
      "DOCUMENT_INVALID",
      `${path} holds no list of checks.`,
      "See docs/cli.md for its form.",
    );
  const boards = new Map<string, Promise<Measure>>();
  const results: FitResult[] = [];
  for (const check of asked.checks) results.push(judgeFit(await filled(check, dirname(path), boards)));
  if (json) printJson({ kobbin: "fit/1", checks: results });
  else
    printRows([
      ["check", "nominal", "worst case", "statistically", "chance of none", "verdict", "safe size"],
      ...results.map((r) => [
        r.id,
        `${r.nominalMm} mm`,
        `${r.worstMm[0]} … ${r.worstMm[1]}`,
        `${r.rssMm[0]} … ${r.rssMm[1]}`,
        `${Math.round(r.interference * 1000) / 10} %`,
        `${r.verdict.replaceAll("-", " ")}${r.missingMm > 0 ? `, ${r.missingMm} mm missing` : ""}${r.doubt ? ", the readings lie between two thicknesses" : ""}`,
        r.safeNominalMm === undefined ? "" : `${r.safeNominalMm} mm`,
      ]),
    ]);
  return 0;
}

/** A check with every `{ "from": { archive, measure } }` in it measured. */
async function filled(value: Json, folder: string, boards: Map<string, Promise<Measure>>): Promise<Json> {
  if (Array.isArray(value)) return Promise.all(value.map((v) => filled(v, folder, boards)));
  if (!isRecord(value)) return value;
  if (isRecord(value.from)) return measured(value.from, folder, boards);
  const entries = await Promise.all(
    Object.entries(value).map(async ([k, v]) => [k, await filled(v, folder, boards)] as const),
  );
  return Object.fromEntries(entries);
}

async function measured(
  from: Record<string, Json>,
  folder: string,
  boards: Map<string, Promise<Measure>>,
): Promise<number> {
  const { archive, measure } = from;
  if (typeof archive !== "string" || typeof measure !== "string")
    throw new AppError(
      "DOCUMENT_INVALID",
      "A length is to be measured, and its archive or its measure is missing.",
      'Write { "from": { "archive": "a.zip", "measure": "minTrackMm" } }.',
    );
  const path = resolve(folder, archive);
  if (!boards.has(path))
    boards.set(
      path,
      readAsBoard(readPaths([path])).then(({ set }) => measureBoard(set)),
    );
  const m = await boards.get(path)!;
  const found = measure
    .split(".")
    .reduce<Json>(
      (v, key) =>
        typeof v === "object" && v !== null && Object.hasOwn(v, key)
          ? (v as Record<string, Json>)[key]
          : undefined,
      m,
    );
  if (typeof found !== "number")
    throw new AppError(
      "NOT_FOUND",
      `${archive} has no ${measure} that is a number.`,
      "kobbin measure prints what there is; a dot leads into what is nested.",
    );
  return found;
}
