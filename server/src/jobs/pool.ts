import { AppError, fromWire } from "@kobbin/core";
import { Piscina } from "piscina";
import { createShare } from "../db/share.ts";
import { createKnown, keyOfMeasure } from "./known.ts";
import type {
  Answer,
  AnswerRead,
  BackupRead,
  Differs,
  Ended,
  Measured,
  Packaged,
  PlacesRead,
  Requested,
  Summarised,
  Task,
} from "./messages.ts";

type AnswerOf<K extends Task["kind"]> = K extends "measure"
  ? Measured
  : K extends "summary"
    ? Summarised
    : K extends "backup"
      ? BackupRead
      : K extends "outcome"
        ? Ended
        : K extends "places"
          ? PlacesRead
          : K extends "request"
            ? Requested
            : K extends "answer"
              ? AnswerRead
              : K extends "difference"
                ? Differs
                : Packaged;

/** The worker pool: what is stored is computed here, never in the request's own thread. */
export interface Compute {
  /**
   * @param shop whose work it is: no shop has all the threads, and none waits behind another's heap
   * @throws AppError of the work; TOO_MUCH_WORK where it was ended; BUSY where its turn did not come
   */
  run<K extends Task["kind"]>(task: Extract<Task, { kind: K }>, shop: string): Promise<AnswerOf<K>>;
  close(): Promise<void>;
}

/** Bounds of one piece of work, counted from its beginning and not while it waits. */
export interface ComputeLimits {
  readonly threads: number;
  readonly seconds: Readonly<Record<Task["kind"], number>>;
  /** Objects of a thread, MB. */
  readonly heapMb: number;
  /** What the process may grow by while threads work, MB: tables of numbers lie beside the objects. */
  readonly growthMb: number;
}

const LIMITS: ComputeLimits = {
  threads: 2,
  seconds: {
    measure: 60,
    places: 60,
    difference: 60,
    summary: 45,
    answer: 10,
    request: 45,
    outcome: 45,
    package: 90,
    backup: 180,
  },
  heapMb: 1024,
  growthMb: 1800,
};

/** What a thread runs: the sources where these are the sources, else the bundle, which a thread reads in a moment. */
const PROGRAM = new URL(
  import.meta.url.endsWith(".ts") ? "./compute.worker.ts" : "./compute.bundle.js",
  import.meta.url,
);

/** @param program what each thread runs instead */
export function createCompute(
  onDefect: (error: unknown) => void,
  over: Partial<ComputeLimits> = {},
  program = PROGRAM,
): Compute {
  const limits = { ...LIMITS, ...over };
  const pool = new Piscina<Task, Answer>({
    filename: program.href,
    minThreads: 1,
    maxThreads: limits.threads,
    maxQueue: 8,
    // a thread that ends with its work begins the next one cold: half a second, and code not yet made fast
    idleTimeout: 120_000,
    resourceLimits: { maxOldGenerationSizeMb: limits.heapMb, maxYoungGenerationSizeMb: 64 },
    ...(program.href.endsWith(".ts") ? { execArgv: ["--import", "tsx", "--conditions=source"] } : {}),
  });
  pool.on("error", onDefect);
  // what waits, waits here, shop by shop: a thread is free when work is handed to it, so its clock starts then
  const share = createShare({
    inAll: limits.threads,
    perShop: limits.threads,
    perPerson: limits.threads,
    waitMs: 120_000,
    mostWaiting: 30,
  });
  const watch = watchMemory(limits.growthMb);
  const known = createKnown();
  return {
    async run<K extends Task["kind"]>(task: Extract<Task, { kind: K }>, shop: string) {
      const key =
        task.kind === "measure" ? keyOfMeasure(task as Extract<Task, { kind: "measure" }>) : undefined;
      const before = key && known.get(key);
      if (before) return before as AnswerOf<K>;
      const release = await share.take(shop);
      const ending = new AbortController();
      let why = `took longer than ${limits.seconds[task.kind]} seconds`;
      const late = setTimeout(() => ending.abort(), limits.seconds[task.kind] * 1000);
      const unwatch = watch(() => {
        why = "needed more memory than there is for one drop";
        ending.abort();
      });
      try {
        const answer = await pool.run(task as Task, { signal: ending.signal });
        if (answer.kind === "error") throw fromWire(answer);
        if (key && answer.kind === "measured") known.keep(key, answer);
        return answer as AnswerOf<K>;
      } catch (error) {
        const code = (error as { code?: string }).code;
        if (code === "ERR_WORKER_OUT_OF_MEMORY")
          throw tooMuch("needed more memory than there is for one drop");
        if (ending.signal.aborted) throw tooMuch(why);
        throw error;
      } finally {
        clearTimeout(late);
        unwatch();
        release();
      }
    },
    close: () => pool.close(),
  };
}

const tooMuch = (why: string) =>
  new AppError(
    "TOO_MUCH_WORK",
    `Working on this ${why}; it was ended and nothing was kept.`,
    "Drop only the board's own files; if they are all it is, report it.",
  );

/** Looks at the process while something works; what grows beyond the bound ends what began first. */
function watchMemory(growthMb: number): (end: () => void) => () => void {
  const running: (() => void)[] = [];
  let timer: NodeJS.Timeout | undefined;
  let before = 0;
  const look = () => {
    if ((process.memoryUsage.rss() - before) / 1048576 > growthMb) running.shift()?.();
  };
  return (end) => {
    if (running.length === 0) {
      before = process.memoryUsage.rss();
      timer = setInterval(look, 150);
      timer.unref();
    }
    running.push(end);
    return () => {
      const i = running.indexOf(end);
      if (i >= 0) running.splice(i, 1);
      if (running.length === 0) clearInterval(timer);
    };
  };
}
