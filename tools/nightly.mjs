// What takes longer than a check may: every law at its full length, all attacks, kills by the hundred, made-up files,
// combinations, changes that a test must notice. The short form of each is in npm test.
//   npm run nightly -- [--only laws,attack] [--seed N]
import { spawnSync } from "node:child_process";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, option, ROOT } from "./setup.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
// a seed of the day, so that every night tries other cases; told, so that they can be tried again
const seed = option("--seed") ?? new Date().toISOString().slice(0, 10).replaceAll("-", "");
const TSX = ["node_modules/tsx/dist/cli.mjs", "--conditions=source"];
const PARTS = {
  laws: [["tools/units.mjs", "--silent"], { KOBBIN_LONG: "yes", FC_RUNS: "1000", FC_SEED: seed }],
  attack: [["tools/attack.mjs"]],
  kills: [["tools/crash.mjs", "100", "--seed", seed]],
  files: [[...TSX, "tools/fuzz.ts", "100000", seed]],
  changes: [[...TSX, "tools/mutate/mutate.ts", "--seed", seed, "--count", "60"]],
};
const only = option("--only")?.split(",") ?? Object.keys(PARTS);
const rows = [];
for (const [name, [args, env]] of Object.entries(PARTS).filter(([name]) => only.includes(name))) {
  console.log(`\n— ${name}, seed ${seed}`);
  const started = Date.now();
  const { status } = spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, ...env },
  });
  rows.push([name, status === 0, Math.round((Date.now() - started) / 60_000)]);
}
console.log(`\n| ${new Date().toISOString().slice(0, 10)}, seed ${seed} | held | minutes |\n|---|---|---|`);
for (const [name, held, minutes] of rows)
  console.log(`| ${name} | ${held ? "yes" : "**no**"} | ${minutes} |`);
process.exitCode = rows.every(([, held]) => held) ? 0 : 1;
