import { workerData } from "node:worker_threads";
import { main } from "./main.ts";

// the work of a command, apart from the clock that watches it
process.exitCode = await main(workerData as string[]);
