// Builds what bin/kobbin needs right after an install. Quiet when the sources are not complete (a packed install).
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";

if (existsSync("bin/tsconfig.json") && existsSync("node_modules/typescript")) {
  const done = spawnSync(process.execPath, ["node_modules/typescript/bin/tsc", "-b", "bin"], {
    stdio: "inherit",
  });
  process.exitCode = done.status ?? 1;
  if (done.status === 0) await (await import("./bundle.mjs")).bundle(process.cwd());
}
