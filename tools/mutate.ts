// Changes one thing at a time and looks whether a test notices:  npm run mutate -- --seed 7 --count 60 [--in core/src/fab]
// Places are picked by the seed, spread over the folders. Every test that runs the changed function is run, quick ones
// first (which those are is found once: reach.mjs); of core and formats those of the server are not asked.
// A change that ends in no time counts as noticed. The tree must be clean: each file is put back as it was.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { parseArgs } from "node:util";
import { chance } from "../core/test/random.ts";
// biome-ignore lint/correctness/useImportExtensions: the types beside it are not the file
import { functionsOf, parsed, walk } from "./reach.mjs";

const { values } = parseArgs({
  options: {
    seed: { type: "string", default: "7" },
    count: { type: "string", default: "60" },
    /** How many of them are left out at the beginning: to go on where a run was ended. */
    from: { type: "string", default: "0" },
    in: { type: "string", default: "" },
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
const ROOTS = ["core/src", "formats/src", "server/src"];

/** One thing to change: what stands there, and what is put in its place. */
interface Change {
  readonly start: number;
  readonly end: number;
  readonly to: string;
}
type Node = Readonly<Record<string, unknown>> & { readonly type: string };

const SWAP: Readonly<Record<string, string>> = {
  "<": "<=",
  "<=": "<",
  ">": ">=",
  ">=": ">",
  "===": "!==",
  "!==": "===",
  "+": "-",
  "-": "+",
  "*": "/",
  "/": "*",
  "&&": "||",
  "||": "&&",
};

/** Everything in a file that can be changed for the worse. Texts, types and docstrings are left alone. */
function changesOf(source: string): Change[] {
  const { body, at } = parsed(source);
  const text = (n: Node) => source.slice(at(n).start, at(n).end);
  const out: Change[] = [];
  walk(body, (n: Node) => {
    if (/^Ts(?!As|NonNull|Satisfies|Const)/.test(n.type)) return false;
    if (n.type === "BinaryExpression") {
      const [left, right, to] = [n.left as Node, n.right as Node, SWAP[n.operator as string]];
      const isText = [left, right].some((s) => s.type === "StringLiteral" || s.type === "TemplateLiteral");
      if (to && !isText) out.push({ ...at(n), to: `(${text(left)}) ${to} (${text(right)})` });
    }
    if (n.type === "NumericLiteral") out.push({ ...at(n), to: `${Number(text(n).replaceAll("_", "")) + 1}` });
    if (n.type === "BooleanLiteral") out.push({ ...at(n), to: n.value ? "false" : "true" });
    if (n.type === "IfStatement") out.push({ ...at(n.test as Node), to: "false" });
    if (n.type === "ConditionalExpression")
      out.push({ ...at(n.test as Node), to: `!(${text(n.test as Node)})` });
    if (n.type === "UnaryExpression" && n.operator === "!")
      out.push({ ...at(n), to: text(n.argument as Node) });
    return true;
  });
  return out;
}

/** A test file as it ran unchanged: how long it took, and each function it ran (`file:start`, or the file alone). */
interface Ran {
  readonly test: string;
  readonly ms: number;
  readonly reached: ReadonlySet<string>;
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
      console.error(
        "Tests fail before anything was changed; the server's need TEST_DATABASE_URL (npm test sets it).",
      );
      process.exit(1);
    }
    renameSync(`${folder}.part`, folder);
  }
  return readdirSync(folder).map((name) => {
    const { test, ms, reached } = JSON.parse(readFileSync(join(folder, name), "utf8")) as {
      test: string;
      ms: number;
      reached: string[];
    };
    return {
      test: relative(process.cwd(), test).split(sep).join("/"),
      ms,
      reached: new Set(reached),
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
const files = ROOTS.flatMap((root) =>
  readdirSync(root, { recursive: true })
    .map((f) => join(root, String(f)).split(sep).join("/"))
    .filter((f) => f.endsWith(".ts") && !/\.(test|fixture|worker)\.ts$|\/index\.ts$/.test(f)),
)
  // these two are run as processes, from what was built
  .filter((f) => !["server/src/main.ts", "server/src/migrate.ts"].includes(f))
  .filter((f) => f.startsWith(values.in));
const folders = new Map<string, string[]>();
for (const f of files) folders.set(dirname(f), [...(folders.get(dirname(f)) ?? []), f]);

const NEAR = ["core", "formats", "packing", "bin", "solver", "standins"];
const ran = {
  server: files.some((f) => f.startsWith("server/")) ? reachOf(["server"]) : [],
  near: files.some((f) => !f.startsWith("server/")) ? reachOf(NEAR) : [],
};
/** The tests that run the innermost function around a place; what stands in none is run by all that load the file. */
function testsOf(file: string, source: string, place: number): Ran[] {
  const around = functionsOf(source).filter((f) => f.start <= place && place < f.end);
  const inner = around.sort((a, b) => b.start - a.start)[0];
  const key = inner ? `${file}:${inner.start}` : file;
  const all = ran[file.startsWith("server/") ? "server" : "near"];
  const own = all.filter((r) => r.reached.has(key));
  // what runs in a thread of its own is not seen: then by all that load the file
  return own.length > 0 ? own : all.filter((r) => r.reached.has(file));
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
  const c = random.pick(list);
  const where = `${file}:${source.slice(0, c.start).split("\n").length}`;
  const words = `${source.slice(c.start, c.end).replace(/\s+/g, " ").slice(0, 50)} → ${c.to.replace(/\s+/g, " ").slice(0, 50)}`;
  const line = source.split("\n")[Number(where.split(":")[1]) - 1]!;
  if (i < Number(values.from)) continue;
  const same = EQUIVALENT.find(
    (e) => e.file === file && words.startsWith(e.change) && line.includes(e.in ?? ""),
  );
  if (same) {
    console.log(`${i} the same ${where}  ${words}: ${same.because}`);
    continue;
  }
  const tests = testsOf(file, source, c.start);
  let isKilled = false;
  try {
    writeFileSync(file, source.slice(0, c.start) + c.to + source.slice(c.end));
    isKilled = notices(tests);
  } finally {
    writeFileSync(file, source);
  }
  const [k, of] = killed.get(folder) ?? [0, 0];
  killed.set(folder, [k + Number(isKilled), of + 1]);
  const by = tests.length === 0 ? "no test runs it" : `${tests.length} tests`;
  if (!isKilled) survived.push(`${where}  ${words}  (${by})`);
  console.log(`${i} ${isKilled ? "noticed " : "SURVIVED"} ${where}  ${words}  (${by})`);
}
const all = [...killed.values()].reduce(([a, b], [k, of]) => [a + k, b + of], [0, 0]);
console.log(`\n${all[0]} of ${all[1]} noticed, ${Math.round((100 * all[0]!) / Math.max(1, all[1]!))} %`);
for (const [folder, [k, of]] of [...killed].sort()) console.log(`  ${folder}: ${k} of ${of}`);
if (survived.length > 0) console.log(`\nnobody noticed:\n  ${survived.join("\n  ")}`);
