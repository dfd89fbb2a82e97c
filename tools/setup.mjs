// What npm start and npm test share: the engine, the packages, the build.
import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));

/** The number after an option on the command line. */
export const numberOption = (name, other) => Number(option(name) ?? other);

/** The value after an option on the command line. */
export const option = (name) => {
  const i = process.argv.indexOf(name);
  return i < 0 ? undefined : process.argv[i + 1];
};

/** The parts of the repository whose sources are built and tested. */
export const PARTS = [
  "core",
  "formats",
  "solver",
  "packing",
  "contract",
  "standins",
  "demo",
  "bin",
  "server",
  "web",
];

/** Whether a module is the program that was called, not one of its parts. @param url the module's own */
export const isCalled = (url) => process.argv[1] === fileURLToPath(url);

/** Says in a sentence when Node is not one Kobbin runs on. */
export function checkEngine() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major === 20 && minor >= 19) return;
  console.error(`Kobbin runs on Node 20.19 or a later 20; this is ${process.versions.node}.`);
  process.exit(2);
}

const run = (file, args, what) => {
  const done = spawnSync(file, args, {
    cwd: ROOT,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, npm_config_loglevel: "error" },
  });
  if (done.status !== 0) {
    console.error(`${what} failed.`);
    process.exit(done.status ?? 1);
  }
};

/** Installs packages where node_modules does not match the lock file. */
export function ensurePackagesInstalled() {
  const stamp = join(ROOT, "node_modules", ".package-lock.json");
  const lock = join(ROOT, "package-lock.json");
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= statSync(lock).mtimeMs) return;
  console.log("installing packages …");
  run("npm", ["ci", "--no-audit", "--no-fund"], "npm ci");
}

/** Newest change of any source file below some folders. */
function newest(folders) {
  let time = 0;
  const walk = (dir) => {
    for (const entry of readdirSync(dir, { withFileTypes: true })) {
      if (["node_modules", "dist", "dist-types", ".git", ".kobbin"].includes(entry.name)) continue;
      const path = join(dir, entry.name);
      if (entry.isDirectory()) walk(path);
      else time = Math.max(time, statSync(path).mtimeMs);
    }
  };
  for (const f of folders) if (existsSync(join(ROOT, f))) walk(join(ROOT, f));
  return time;
}

/** Builds server and page when a source is newer than the last build. */
export async function ensureBuilt() {
  const stamp = join(ROOT, "web", "dist", ".built");
  const sources = newest(PARTS);
  if (existsSync(stamp) && Number(readFileSync(stamp, "utf8")) >= sources) return;
  console.log("building …");
  run(process.execPath, ["node_modules/typescript/bin/tsc", "-b"], "the type check");
  await (await import("./bundle.mjs")).bundle(ROOT);
  run(
    process.execPath,
    ["node_modules/vite/bin/vite.js", "build", "web", "--logLevel", "warn"],
    "the build of the page",
  );
  writeFileSync(stamp, String(newest(PARTS)));
}

/** Brings a database forward, in a process of its own: nothing that hears a request has the owner's address. */
export function migrateDatabase(ownerUrl) {
  const done = spawnSync(process.execPath, ["server/dist/migrate.js"], {
    cwd: ROOT,
    stdio: ["ignore", "ignore", "pipe"],
    encoding: "utf8",
    env: { ...process.env, MIGRATION_URL: ownerUrl },
  });
  if (done.status !== 0) throw new Error(`The database was not brought forward: ${done.stderr.trim()}`);
}
