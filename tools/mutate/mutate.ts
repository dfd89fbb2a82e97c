// Changes one thing at a time and looks whether a test notices:  npm run mutate -- --seed 7 --count 60 [--in core/src/fab]
// Places are picked by the seed, spread over the folders. Every test in which the changed expression would come to
// something else is run, quick ones first (which those are is found once: reach.mjs); those of the server are asked of
// the server and of the bodies of requests alone. A change that ends in no time counts as noticed. The tree must be clean: each file is put back.
// --unseen changes nothing and lists every place that comes to the same in all tests: no test can notice a change there.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, relative, sep } from "node:path";
import { parseArgs } from "node:util";
import { chance } from "../../core/test/random.ts";
// biome-ignore lint/correctness/useImportExtensions: the types beside it are not the file
import { type Change, changesOf, functionsOf } from "./places.mjs";

const { values } = parseArgs({
  options: {
    seed: { type: "string", default: "7" },
    count: { type: "string", default: "60" },
    /** How many of them are left out at the beginning: to go on where a run was ended. */
    from: { type: "string", default: "0" },
    in: { type: "string", default: "" },
    unseen: { type: "boolean", default: false },
  },
});
/** Changes after which nothing can be told apart, each with its reason, and where many are alike a piece of its line: they count neither way. */
const EQUIVALENT = JSON.parse(
  readFileSync(new URL("mutate-equivalents.json", import.meta.url), "utf8"),
) as readonly {
  readonly file: string;
  readonly change: string;
  readonly in?: string;
  readonly because: string;
}[];
const PARTS = ["core", "formats", "solver", "packing", "contract", "standins", "bin", "server", "web"];

/** A test file as it ran unchanged: how long it took, each function it ran (`file:start`, or the file alone), and of each file the places where a change comes to something else in it. */
interface Ran {
  readonly test: string;
  readonly ms: number;
  readonly reached: ReadonlySet<string>;
  readonly seen: ReadonlyMap<string, ReadonlySet<number>>;
}

/** Runs Jest. @returns whether a test failed, or did not come to an end in the time it has */
function fails(args: readonly string[], timeoutMs: number, env?: Readonly<Record<string, string>>): boolean {
  const run = spawnSync(
    process.execPath,
    [
      "--experimental-vm-modules",
      "--disable-warning=ExperimentalWarning",
      "node_modules/jest/bin/jest.js",
      "--forceExit",
      "--passWithNoTests",
      "--silent",
      ...args,
    ],
    {
      timeout: timeoutMs,
      killSignal: "SIGKILL",
      stdio: env ? "inherit" : "ignore",
      env: { ...process.env, ...env },
    },
  );
  return run.status !== 0;
}

/** Which test runs what, kept for as long as the folders of the tests are the same. Tests that fail unchanged would notice everything: that ends it. */
function reachOf(projects: readonly string[]): Ran[] {
  const trees = execFileSync("git", ["rev-parse", ...projects.map((p) => `HEAD:${p}`)]).toString();
  const key = createHash("sha256").update(trees).digest("hex").slice(0, 16);
  const folder = join("node_modules/.cache/kobbin-reach", `${projects.join("-")}-${key}`);
  if (!existsSync(folder)) {
    rmSync(`${folder}.part`, { recursive: true, force: true });
    mkdirSync(`${folder}.part`, { recursive: true });
    const env = { KOBBIN_REACH: join(process.cwd(), `${folder}.part`) };
    if (fails(["--selectProjects", ...projects, "--maxWorkers=2"], 3_600_000, env)) {
      console.error("Tests fail before anything was changed.");
      process.exit(1);
    }
    renameSync(`${folder}.part`, folder);
  }
  return readdirSync(folder).map((name) => {
    const { test, ms, reached, seen } = JSON.parse(readFileSync(join(folder, name), "utf8")) as {
      test: string;
      ms: number;
      reached: string[];
      seen: Record<string, number[]>;
    };
    return {
      test: relative(process.cwd(), test).split(sep).join("/"),
      ms,
      reached: new Set(reached),
      seen: new Map(Object.entries(seen).map(([file, list]) => [file, new Set(list)])),
    };
  });
}

/** A change may make a test run for ever: it has so many times as long as it took unchanged, and this for the beginning. */
const PATIENCE = 6;
const START_MS = 60_000;
/** Tests that take less than this in all are run first: most changes are noticed by them. */
const QUICK_MS = 15_000;

function notices(tests: readonly Ran[]): boolean {
  let quickMs = 0;
  const quick: Ran[] = [];
  const slow: Ran[] = [];
  for (const t of [...tests].sort((a, b) => a.ms - b.ms)) {
    quickMs += t.ms;
    (quickMs < QUICK_MS ? quick : slow).push(t);
  }
  return [quick, slow].some((list) => {
    if (list.length === 0) return false;
    const ms = list.reduce((sum, t) => sum + t.ms, 0);
    const patience = START_MS + PATIENCE * ms;
    const hasty = ["--bail", "--env=./tools/first-failure.mjs", "--maxWorkers=2"];
    return fails([...hasty, "--runTestsByPath", ...list.map((t) => t.test)], patience);
  });
}

if (execFileSync("git", ["status", "--porcelain"]).toString().trim() !== "") {
  console.error("The tree is not clean; commit or put aside first.");
  process.exit(1);
}
/** Run as processes, from what was built. */
const PROCESSES = [
  "server/src/main.ts",
  "server/src/migrate.ts",
  "standins/src/main.ts",
  "bin/src/main.ts",
  "bin/src/entry.ts",
];
/** What hangs on the page: the journeys look at it, not these tests. */
const isOfThePage = (f: string) =>
  f.startsWith("web/") &&
  (/\/use[A-Z]\w*\.ts$|\.d\.ts$/.test(f) ||
    /from "(react|swr|@radix-ui)|document\.|window\.|new Worker|postMessage|fetch\(|sessionStorage/.test(
      readFileSync(f, "utf8"),
    ));
const files = PARTS.flatMap((part) =>
  readdirSync(`${part}/src`, { recursive: true })
    .map((f) => join(part, "src", String(f)).split(sep).join("/"))
    .filter((f) => f.endsWith(".ts") && !/\.(test|fixture|worker)\.ts$|\/index\.ts$/.test(f)),
).filter((f) => f.startsWith(values.in) && !PROCESSES.includes(f) && !isOfThePage(f));
const folders = new Map<string, string[]>();
for (const f of files) folders.set(dirname(f), [...(folders.get(dirname(f)) ?? []), f]);

const NEAR = ["core", "formats", "packing", "bin", "solver", "standins", "web"];
/** What only tests with a database look at; of the bodies of requests these and those of the page. */
const isFor = {
  server: (f: string) => /^(server|contract)\//.test(f),
  near: (f: string) => !f.startsWith("server/"),
};
if (files.some(isFor.server) && !process.env.TEST_DATABASE_URL) {
  const { startCluster } = await import("../cluster.mjs");
  const { testEnv } = await import("../units.mjs");
  const folder = mkdtempSync(join(tmpdir(), "kobbin-mutate-"));
  const cluster = await startCluster(folder, undefined, true);
  Object.assign(process.env, testEnv(cluster));
  // however it ends
  process.on("exit", () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  });
}
const ran = {
  server: files.some(isFor.server) ? reachOf(["server"]) : [],
  near: files.some(isFor.near) ? reachOf(NEAR) : [],
};
const known = new Map<string, ReturnType<typeof functionsOf>>();
/** The tests that could notice a change: those in which it comes to something else; where that cannot be told all that run the innermost function around it, and of what stands in none all that load the file. */
function testsOf(file: string, source: string, change: Change, index: number): Ran[] {
  const all = [...(isFor.near(file) ? ran.near : []), ...(isFor.server(file) ? ran.server : [])];
  const functions = known.get(source) ?? functionsOf(source);
  known.set(source, functions);
  const around = functions.filter((f) => f.start <= change.start && change.start < f.end);
  const inner = around.sort((a, b) => b.start - a.start)[0];
  const run = all.filter((r) => r.reached.has(inner ? `${file}:${inner.start}` : file));
  // what runs in a thread of its own is not seen: then all that load the file
  if (run.length === 0) return all.filter((r) => r.reached.has(file));
  return change.kind === "name" ? run : run.filter((r) => r.seen.get(file)?.has(index));
}

const shown = (text: string) => text.replace(/\s+/g, " ").slice(0, 50);
/** Where a change is and what it is, as listed, and why nothing can tell it apart if that is known. */
function described(file: string, source: string, c: Change) {
  const line = source.slice(0, c.start).split("\n").length;
  const words = c.words
    ? c.words.replace(/\s+/g, " ")
    : `${shown(source.slice(c.start, c.end))} → ${shown(c.to)}`;
  const text = source.split("\n")[line - 1]!;
  const same = EQUIVALENT.find(
    (e) => e.file === file && words.startsWith(e.change) && text.includes(e.in ?? ""),
  );
  return { where: `${file}:${line}`, words, text: text.trim(), same: same?.because };
}

const report = (title: string, folders: ReadonlyMap<string, readonly [number, number]>) => {
  const all = [...folders.values()].reduce(([a, b], [k, of]) => [a + k, b + of], [0, 0]);
  console.log(`\n${all[0]} of ${all[1]} ${title}, ${Math.round((100 * all[0]) / Math.max(1, all[1]))} %`);
  for (const [folder, [k, of]] of [...folders].sort()) console.log(`  ${folder}: ${k} of ${of}`);
};

if (values.unseen) {
  const seen = new Map<string, [number, number]>();
  for (const file of files) {
    const source = readFileSync(file, "utf8");
    changesOf(source).forEach((c, i) => {
      const { where, words, text, same } = described(file, source, c);
      if (same) return;
      const isSeen = testsOf(file, source, c, i).length > 0;
      const [k, of] = seen.get(dirname(file)) ?? [0, 0];
      seen.set(dirname(file), [k + Number(isSeen), of + 1]);
      if (!isSeen) console.log(`${where}  ${words}  | ${text}`);
    });
  }
  report("can be noticed", seen);
  process.exit(0);
}

const random = chance(Number(values.seed));
const folderList = random.shuffled([...folders.keys()].sort());
const killed = new Map<string, [killed: number, of: number]>();
const survived: string[] = [];
for (let i = 0; i < Number(values.count); i++) {
  const folder = folderList[i % folderList.length]!;
  const file = random.pick(folders.get(folder)!);
  const source = readFileSync(file, "utf8");
  const list = changesOf(source);
  if (list.length === 0) continue;
  const index = random.below(list.length);
  const c = list[index]!;
  const { where, words, same } = described(file, source, c);
  if (i < Number(values.from)) continue;
  if (same) {
    console.log(`${i} the same ${where}  ${words}: ${same}`);
    continue;
  }
  const tests = testsOf(file, source, c, index);
  let isKilled = false;
  if (tests.length > 0)
    try {
      writeFileSync(file, source.slice(0, c.start) + c.to + source.slice(c.end));
      isKilled = notices(tests);
    } finally {
      writeFileSync(file, source);
    }
  const [k, of] = killed.get(folder) ?? [0, 0];
  killed.set(folder, [k + Number(isKilled), of + 1]);
  const by = tests.length === 0 ? "it comes to the same in all tests" : `${tests.length} tests`;
  if (!isKilled) survived.push(`${where}  ${words}  (${by})`);
  console.log(`${i} ${isKilled ? "noticed " : "SURVIVED"} ${where}  ${words}  (${by})`);
}
report("noticed", killed);
if (survived.length > 0) console.log(`\nnobody noticed:\n  ${survived.join("\n  ")}`);
