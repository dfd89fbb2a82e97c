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
