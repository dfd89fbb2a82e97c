// The command line as a person starts it: help at once, everything else watched.
import { helpFor } from "./usage.ts";

const help = helpFor(process.argv.slice(2));
if (help !== undefined) process.stdout.write(help);
else {
  const { watched } = await import("./watched.ts");
  process.exitCode = await watched(process.argv.slice(2), new URL("./command.worker.js", import.meta.url));
}
