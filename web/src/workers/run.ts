import type { CurvePoint, RunDocument } from "@kobbin/core";
import * as Comlink from "comlink";
import type { RunApi } from "./run.worker.ts";

/** The worker that computes a run: figures, effects, curve. One for the page's life. */
export function connectRun() {
  const worker = new Worker(new URL("./run.worker.ts", import.meta.url), { type: "module", name: "run" });
  return Comlink.wrap<RunApi>(worker);
}

let shared: ReturnType<typeof connectRun> | undefined;
/** The page's run worker, made at first use. */
export const runWorker = () => {
  shared ??= connectRun();
  return shared;
};

let told = 0;
/** Points of one document's curve: the document is sent once, and again where the worker has forgotten it over others. */
export function pointsOf(doc: RunDocument): (quantity: number) => Promise<CurvePoint | undefined> {
  const id = ++told;
  let isHeld = false;
  const ask = async (quantity: number): Promise<CurvePoint | undefined> => {
    if (!isHeld) await runWorker().hold(id, doc);
    isHeld = true;
    const p = await runWorker().pointOf(id, quantity);
    if (p !== "gone") return p;
    isHeld = false;
    return ask(quantity);
  };
  return ask;
}
