import { Worker } from "node:worker_threads";
import { readArguments } from "./arguments.ts";
import { printReject, UsageError } from "./print.ts";

/** Memory a command may take in all, MB. */
const MOST_MB = 1000;

/**
 * Runs one command beside a clock and a look at the memory, so that whatever the file, it ends: what takes longer than
 * `--max-seconds`, or more memory than a board could need, is rejected.
 *
 * @param program what a thread runs that is given a command
 * @returns the exit status
 */
export function watched(args: readonly string[], program: URL): Promise<number> {
  let seconds = 60;
  try {
    seconds = readArguments(args).seconds;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    printReject(args, error.message.split("\n")[0]!, error.message);
    return Promise.resolve(2);
  }
  const worker = new Worker(program, {
    workerData: [...args],
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB * 0.8 },
  });
  return new Promise((resolve) => {
    let isOver = false;
    const end = (status: number, why?: string, says?: string) => {
      if (isOver) return;
      isOver = true;
      clearTimeout(late);
      clearInterval(look);
      if (why) printReject(args, why, says);
      void worker.terminate().then(() => resolve(status));
    };
    const late = setTimeout(
      () => end(1, `not done after ${seconds} s (--max-seconds). Give it longer, or less to read.`),
      seconds * 1000,
    );
    const look = setInterval(() => {
      if (process.memoryUsage.rss() / 1048576 > MOST_MB) end(1, TOO_MUCH);
    }, 50);
    worker.on("error", (error: NodeJS.ErrnoException) => {
      if (error.code === "ERR_WORKER_OUT_OF_MEMORY") end(1, TOO_MUCH);
      else {
        const says = `a defect of Kobbin: ${error.stack ?? String(error)}`;
        end(3, `A defect of Kobbin: ${error.message}`, says);
      }
    });
    worker.on("exit", (status) => end(status));
  });
}

const TOO_MUCH = `this needs more than ${MOST_MB} MB of memory. Give it the files of one board only.`;
