import { basename } from "node:path";
import { ALLOYS, type Alloy, AppError, type HeatWindow, judgeHeat, WINDOWS, windowShape } from "@kobbin/core";
import { BudgetError, readTables } from "@kobbin/formats";
import type { Asked } from "../arguments.ts";
import { readBytes, readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

const USAGE = `usage: kobbin heat <log.csv> --alloy <${ALLOYS.join(" | ")}> [--peak-limit C] [--window <json>] [--json]`;

/** What the alloy wants, with what a data sheet says otherwise: a file, or the document itself. */
function windowOf(alloy: Alloy, given: string | undefined): HeatWindow {
  if (given === undefined) return WINDOWS[alloy];
  const hint = "docs/cli.md lists what a window holds.";
  let own: unknown;
  if (given.trim().startsWith("{"))
    try {
      own = JSON.parse(given);
    } catch (cause) {
      throw new AppError("DOCUMENT_INVALID", "--window is not JSON.", hint, { cause });
    }
  else own = readJson(given, hint);
  const wrong = windowShape(own, "");
  if (wrong) throw new AppError("DOCUMENT_INVALID", `${wrong}.`, hint);
  return { ...WINDOWS[alloy], ...(own as Partial<HeatWindow>) };
}

/** `kobbin heat`: prints heat/1, a temperature log held against what its paste wants. */
export async function heat(paths: readonly string[], json: boolean, asked: Asked): Promise<number> {
  const [path] = paths;
  const alloy = ALLOYS.find((a) => a === asked.alloy);
  if (!path || paths.length > 1 || !alloy) throw new UsageError(USAGE);
  const limit = asked.peakLimit === undefined ? undefined : Number(asked.peakLimit);
  if (limit !== undefined && !(limit > 0 && limit < 1000))
    throw new UsageError("--peak-limit needs a temperature in °C.");
  const window = windowOf(alloy, asked.window);
  const sheets = await readTables(readBytes(path)).catch((error) => {
    if (!(error instanceof BudgetError)) throw error;
    throw new AppError("TABLE_UNREADABLE", error.message, "Keep only the log in it and save it as CSV.");
  });
  const all = (sheets ?? []).filter((s) => s.cells.length > 0);
  const logs = all.map((s) => judgeHeat(s.cells, window, limit));
  const good = logs.filter((j) => !("outcome" in j));
  if (all.length === 0 || good.length > 1)
    throw new AppError(
      "TABLE_UNREADABLE",
      `${basename(path)} holds ${all.length === 0 ? "no table" : `${good.length} logs`}.`,
      "Save the one log as CSV.",
    );
  const judged = good[0] ?? logs[0]!;
  if (json) printJson(judged);
  if ("outcome" in judged) {
    if (!json) process.stderr.write(`${judged.reason}\n`);
    return 1;
  }
  if (json) return 0;
  printRows([
    ["probe", "peak", "at", "above liquidus", "soak", "rise", "fall"],
    ...judged.probes.map((p) => [
      p.name,
      `${p.peakC} °C`,
      `${p.peakAtS} s`,
      `${p.secondsAboveLiquidus} s`,
      `${p.soakS} s`,
      p.rampCps === undefined ? "" : `${p.rampCps} °C/s`,
      p.coolCps === undefined ? "" : `${p.coolCps} °C/s`,
    ]),
  ]);
  for (const f of judged.findings) process.stdout.write(`${f.level}: ${f.text}\n`);
  process.stdout.write(`${judged.verdict}\n`);
  return 0;
}
