// Changes one thing at a time and looks whether a test notices:  npm run mutate -- --seed 7 --count 60 [--in core/src/fab]
// Places are picked by the seed, spread over the folders. Beside the changed file's own tests those that could notice are
// run too; a change that ends in no time counts as noticed. The tree must be clean: each file is put back as it was.
import { execFileSync, spawnSync } from "node:child_process";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, sep } from "node:path";
import { parseArgs } from "node:util";
import { parseSync } from "@swc/core";
import { chance } from "../core/test/random.ts";

const { values } = parseArgs({
  options: {
    seed: { type: "string", default: "7" },
    count: { type: "string", default: "60" },
    in: { type: "string", default: "" },
  },
});
/** Changes after which nothing can be told apart, each with its reason: they count neither way. */
const EQUIVALENT = JSON.parse(
  readFileSync(new URL("mutate-equivalents.json", import.meta.url), "utf8"),
) as readonly { readonly file: string; readonly change: string; readonly because: string }[];
const ROOTS = ["core/src", "formats/src", "server/src"];

/** One thing to change: what stands there, and what is put in its place. */
interface Change {
  readonly start: number;
  readonly end: number;
  readonly to: string;
}
type Node = Readonly<Record<string, unknown>> & {
  readonly type?: string;
  readonly span?: { start: number; end: number };
};

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
  // spans are counted in bytes from the first token: one is put before everything
  const head = '"";';
  const bytes = Buffer.from(head + source);
  const ast = parseSync(head + source, { syntax: "typescript", target: "es2022" });
  const base = ast.span.start;
  const at = (n: Node) => ({
    start: n.span!.start - base - head.length,
    end: n.span!.end - base - head.length,
  });
  const text = (n: Node) => bytes.subarray(n.span!.start - base, n.span!.end - base).toString();
  const out: Change[] = [];
  const visit = (value: unknown): void => {
    if (Array.isArray(value)) {
      for (const v of value) visit(v);
      return;
    }
    if (!value || typeof value !== "object") return;
    const n = value as Node;
    if (typeof n.type === "string" && /^Ts(?!As|NonNull|Satisfies|Const)/.test(n.type)) return;
    if (n.type === "BinaryExpression") {
      const [left, right, to] = [n.left as Node, n.right as Node, SWAP[n.operator as string]];
      const isText = [left, right].some((s) => s.type === "StringLiteral" || s.type === "TemplateLiteral");
      if (to && !isText) out.push({ ...at(n), to: `(${text(left)}) ${to} (${text(right)})` });
    }
    if (n.type === "NumericLiteral") out.push({ ...at(n), to: `${Number(text(n)) + 1}` });
    if (n.type === "BooleanLiteral") out.push({ ...at(n), to: n.value ? "false" : "true" });
    if (n.type === "IfStatement") out.push({ ...at(n.test as Node), to: "false" });
    if (n.type === "ConditionalExpression")
      out.push({ ...at(n.test as Node), to: `!(${text(n.test as Node)})` });
    if (n.type === "UnaryExpression" && n.operator === "!")
      out.push({ ...at(n), to: text(n.argument as Node) });
    for (const v of Object.values(n)) visit(v);
  };
  visit(ast.body);
  // from bytes to places in the text
  const prefix = Buffer.from(source);
  const index = (byte: number) => prefix.subarray(0, byte).toString().length;
  return out.map((c) => ({ start: index(c.start), end: index(c.end), to: c.to }));
}

/** A change may make a test run for ever: so many times as long as all tests take unchanged. */
const PATIENCE = 4;
let usualMs = 3_600_000;

/** Runs some tests. @returns whether one of them failed, or none came to an end */
function fails(args: readonly string[]): boolean {
  const run = spawnSync(
    process.execPath,
    [
      "--experimental-vm-modules",
      "--disable-warning=ExperimentalWarning",
      "node_modules/jest/bin/jest.js",
      "--bail",
      "--forceExit",
      "--passWithNoTests",
      "--silent",
      ...args,
    ],
    { timeout: Math.ceil(PATIENCE * usualMs), killSignal: "SIGKILL", stdio: "ignore" },
  );
  return run.status !== 0;
}

const SERVER = ["--selectProjects", "server"];
const notices = (file: string): boolean =>
  fails([`${dirname(file)}/`]) ||
  (file.startsWith("server/")
    ? fails(SERVER)
    : fails(["--selectProjects", "core", "formats", "packing", "bin", "--findRelatedTests", file]));

if (execFileSync("git", ["status", "--porcelain"]).toString().trim() !== "") {
  console.error("The tree is not clean; commit or put aside first.");
  process.exit(1);
}
const files = ROOTS.flatMap((root) =>
  readdirSync(root, { recursive: true })
    .map((f) => join(root, String(f)).split(sep).join("/"))
    .filter((f) => f.endsWith(".ts") && !/\.(test|fixture|worker)\.ts$|\/index\.ts$|\/shape\//.test(f)),
).filter((f) => f.startsWith(values.in));
const folders = new Map<string, string[]>();
for (const f of files) folders.set(dirname(f), [...(folders.get(dirname(f)) ?? []), f]);

// tests that fail by themselves would notice everything
const needed = [
  ...(files.some((f) => f.startsWith("server/")) ? [SERVER] : []),
  ["--selectProjects", "core", "formats"],
];
const began = performance.now();
const isBroken = needed.some(fails);
usualMs = performance.now() - began;
if (isBroken) {
  console.error(
    "Tests fail before anything was changed; the server's need TEST_DATABASE_URL (npm test sets it).",
  );
  process.exit(1);
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
  const same = EQUIVALENT.find((e) => e.file === file && words.startsWith(e.change));
  if (same) {
    console.log(`the same ${where}  ${words}: ${same.because}`);
    continue;
  }
  let isKilled = false;
  try {
    writeFileSync(file, source.slice(0, c.start) + c.to + source.slice(c.end));
    isKilled = notices(file);
  } finally {
    writeFileSync(file, source);
  }
  const [k, of] = killed.get(folder) ?? [0, 0];
  killed.set(folder, [k + Number(isKilled), of + 1]);
  if (!isKilled) survived.push(`${where}  ${words}`);
  console.log(`${isKilled ? "noticed " : "SURVIVED"} ${where}  ${words}`);
}
const all = [...killed.values()].reduce(([a, b], [k, of]) => [a + k, b + of], [0, 0]);
console.log(`\n${all[0]} of ${all[1]} noticed, ${Math.round((100 * all[0]!) / Math.max(1, all[1]!))} %`);
for (const [folder, [k, of]] of [...killed].sort()) console.log(`  ${folder}: ${k} of ${of}`);
if (survived.length > 0) console.log(`\nnobody noticed:\n  ${survived.join("\n  ")}`);
