// The command line as a person starts it: help at once, everything else watched.
import { USAGE } from "./usage.ts";

if (["--help", "-h", "help"].includes(process.argv[2] ?? "")) process.stdout.write(USAGE);
else {
  const { watched } = await import("./watched.ts");
  process.exitCode = await watched(process.argv.slice(2), new URL("./command.worker.js", import.meta.url));
}
