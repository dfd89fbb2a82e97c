import { fromWire } from "@kobbin/core";
import { Piscina } from "piscina";
import type { Answer, Measured, Packaged, Summarised, Task } from "./messages.ts";

type AnswerOf<K extends Task["kind"]> = K extends "measure"
  ? Measured
  : K extends "summary"
    ? Summarised
    : Packaged;

/** The worker pool: what is stored is computed here, never in the request's own thread. */
export interface Compute {
  run<K extends Task["kind"]>(task: Extract<Task, { kind: K }>): Promise<AnswerOf<K>>;
  close(): Promise<void>;
}

export function createCompute(onDefect: (error: unknown) => void): Compute {
  const ext = import.meta.url.endsWith(".ts") ? "ts" : "js";
  const pool = new Piscina<Task, Answer>({
    filename: new URL(`./compute.worker.${ext}`, import.meta.url).href,
    minThreads: 1,
    maxThreads: 2,
    maxQueue: 64,
    resourceLimits: { maxOldGenerationSizeMb: 2048 },
    ...(ext === "ts" ? { execArgv: ["--import", "tsx", "--conditions=source"] } : {}),
  });
  pool.on("error", onDefect);
  return {
    async run<K extends Task["kind"]>(task: Extract<Task, { kind: K }>) {
      const answer = await pool.run(task as Task, { signal: AbortSignal.timeout(90_000) });
      if (answer.kind === "error") throw fromWire(answer);
      return answer as AnswerOf<K>;
    },
    close: () => pool.close(),
  };
}
