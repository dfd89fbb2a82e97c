import { AppError, type RunDocument } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { oneRun, releasedDocument, type StoredRun } from "../run/index.ts";

/** The run with what it was released with. @throws AppError NOT_ALLOWED before the release */
export async function released(tx: Tx, id: string): Promise<{ run: StoredRun; document: RunDocument }> {
  const run = await oneRun(tx, id);
  const document = await releasedDocument(tx, id);
  if (run.state !== "released" || !document)
    throw new AppError(
      "NOT_ALLOWED",
      "The run is not released yet; nothing of it is ordered.",
      "Release it first; then write down what is ordered and what comes.",
    );
  return { run, document };
}
