// Who may import whom. RULES mirrors the table in docs/architecture.md; a new line there is a decision record.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, sep } from "node:path";
import { parseSync } from "@swc/core";
import { PARTS } from "./setup.mjs";

const PURE = /^(big\.js|clipper2-ts)$/;
const TEST = /\.test\.tsx?$/;
const RULES = [
  { name: "core is pure", from: /^core\/src\//, deny: /^(?!core\/src\/)/, allow: PURE },
  {
    name: "formats imports only packages",
    from: /^formats\/src\//,
    deny: /^(@kobbin\/|core\/|server\/|web\/|node:)/,
  },
  {
    name: "the solver knows core and its package",
    from: /^solver\/src\//,
    deny: /^(?!(solver\/src\/|@kobbin\/core$|highs$))/,
  },
  {
    name: "packing knows core and formats",
    from: /^packing\/src\//,
    deny: /^(?!(packing\/src\/|@kobbin\/(core|formats)$))/,
  },
  {
    name: "parts are used by their door",
    from: /^(server|web|bin|contract|standins|demo|solver|packing)\/src\//,
    deny: /^(core|formats|contract|solver|packing)\/src\//,
    allow: (file, target) => target.startsWith(`${file.split("/")[0]}/`),
  },
  {
    name: "contract stands on core alone",
    from: /^contract\/src\//,
    deny: /^(@kobbin\/(?!core$)|node:|react|koa|pg$)/,
  },
  { name: "stand-ins know the contract only", from: /^standins\/src\//, deny: /^@kobbin\/(?!contract$)/ },
  { name: "the demo's boards know no reader", from: /^demo\/src\//, deny: /^@kobbin\// },
  {
    name: "a resource is used by its door",
    from: /^server\/src\/resources\/([^/]+)\//,
    deny: (m) => new RegExp(`^server/src/resources/(?!${m[1]}/)[^/]+/(?!index\\.ts$)`),
  },
  {
    name: "jobs and the demo use resources by their door",
    from: /^server\/src\/(jobs\/|demo)/,
    deny: /^server\/src\/resources\/[^/]+\/(?!index\.ts$)/,
  },
  { name: "web and server meet over HTTP only", from: /^web\//, deny: /^(server\/|@kobbin\/server|node:)/ },
  { name: "server knows no interface", from: /^server\//, deny: /^(web\/|@kobbin\/web|react|react-dom)/ },
  {
    name: "the way out of the server knows nothing behind it",
    from: /^server\/src\/outside\//,
    deny: /(koa|^pg$|\/resources\/|\/jobs\/|\/db\/|\/middleware\/)/,
  },
  {
    name: "there is one way out of the server (server/src/outside/request.ts)",
    from: /^server\/src\/(?!outside\/request\.ts$)/,
    deny: /^(node:https?|node:http2|node:net|node:tls|node:dns|undici|axios|fetch)$/,
    // types of what comes in, and whether a proxy's address is one: nothing is connected to; the demo shop's life is told to
    // the server itself, on a port of its own that nobody else knows of
    allow: (file) =>
      /^server\/src\/(app|uncaught|life\/door|middleware\/client|resources\/product\/upload)\.ts$/.test(file),
  },
  {
    name: "a worker gets data and returns data",
    from: /^server\/src\/jobs\/.*\.worker\.ts$/,
    deny: /(koa|^pg$|resources|\/db\/)/,
  },
  {
    name: "stages stand apart",
    from: /^web\/src\/stages\/([^/]+)\//,
    deny: (m) => new RegExp(`^web/src/stages/(?!${m[1]}/)`),
  },
  { name: "radix is wrapped once", from: /^web\/src\/(?!ui\/)/, deny: /^radix-ui$/ },
  {
    name: "the kit knows no data",
    from: /^web\/src\/ui\//,
    deny: /^(web\/src\/(resources|stages|workers|run|proof|history|command)\/|@kobbin\/)/,
  },
  { name: "data knows no stage", from: /^web\/src\/resources\//, deny: /^web\/src\/(stages|run|proof)\// },
  {
    name: "a frame knows no stage",
    from: /^web\/src\/(run|proof|history|command)\//,
    deny: /^web\/src\/stages\//,
  },
];

/** Folders of core, the ground floor first: each imports only from those above it in this list. */
const FLOORS = [
  ["errors.ts", "finding-tags.ts", "findings.ts", "day.ts", "counted.ts", "grouped.ts", "words.ts"],
  ["money", "geometry"],
  ["gerber", "table"],
  ["drill", "job", "netlist", "bom", "role"],
  ["placement"],
  ["board"],
  ["library", "fab", "costing"],
  ["assembly", "sourcing", "sums"],
  ["shape"],
  ["bodies"],
  [
    "fit",
    "heat",
    "meet",
    "probe",
    "flow",
    "compare",
    "stencil",
    "panel",
    "steps",
    "price",
    "cover",
    "testing",
    "serial",
    "program",
    "yield",
  ],
  ["shelf"],
  ["order-sheet", "own-bench", "equipment", "learn", "rights"],
  ["run"],
  ["release"],
  ["index.ts"],
];
/** Rooms of three of those folders, the lowest floor first; a name with its ending is a file of the folder itself. */
const ROOMS = {
  "core/src/run": [
    ["document"],
    ["sheet"],
    ["needs"],
    ["orders"],
    ["ledger", "program"],
    ["stage"],
    ["board", "parts", "source", "panel", "fab"],
    ["stencil"],
    ["assemble", "cost", "receive", "build", "release"],
    [
      "stages.ts",
      "roll-up.ts",
      "what-if.ts",
      "notes.ts",
      "first-choices.ts",
      "curve.ts",
      "cost-document.ts",
      "break-even.ts",
      "assemble-document.ts",
      "quote-document.ts",
      "prove.ts",
    ],
  ],
  "core/src/board": [
    [
      "board-file.ts",
      "diff-document.ts",
      "measure-document.ts",
      "worst.ts",
      "keep.ts",
      "corrections.ts",
      "move.ts",
      "partly-read.ts",
      "pins.ts",
      "attempts.ts",
    ],
    ["outline"],
    ["copper"],
    ["panels"],
    ["read"],
    ["measure"],
    ["check"],
    ["diff"],
    ["measure.ts"],
  ],
  "core/src/panel": [
    ["spec.ts", "design.ts", "choice.ts", "practice.ts"],
    ["shape"],
    ["hold"],
    ["lay"],
    ["write"],
  ],
};
/** A folder that is longer is two. */
const MOST_FILES = 30;

/** What is wrong with an import within a folder that has rooms; nothing where it goes downward, or stays in its room. */
function roomTrouble(file, target) {
  for (const [folder, floors] of Object.entries(ROOMS)) {
    if (!file.startsWith(`${folder}/`) || !target.startsWith(`${folder}/`)) continue;
    const room = (path) => path.slice(folder.length + 1).split("/")[0];
    const [a, b] = [room(file), room(target)];
    const at = (name) => floors.findIndex((names) => names.includes(name));
    if (/\.fixture\.ts$/.test(file)) return undefined;
    if (at(a) < 0 || at(b) < 0) return `${at(a) < 0 ? file : target} stands on no floor of ${folder}`;
    if (at(b) > at(a)) return `${file}: "${target}" is a floor above it`;
    const isSideways = a !== b && at(a) === at(b) && !(a.endsWith(".ts") && b.endsWith(".ts"));
    return isSideways ? `${file}: "${target}" is a room beside it` : undefined;
  }
  return undefined;
}

const floorOf = (path) => {
  const m = /^core\/src\/([^/]+)/.exec(path);
  return m ? FLOORS.findIndex((names) => names.includes(m[1])) : undefined;
};

const files = PARTS.flatMap((root) =>
  readdirSync(join(root, "src"), { recursive: true })
    .map((f) => join(root, "src", f).split(sep).join("/"))
    .filter((f) => /\.tsx?$/.test(f) && !TEST.test(f)),
);
if (files.length === 0) throw new Error("no source files found: run this from the root of the repository");

const problems = [];
const graph = new Map(files.map((f) => [f, []]));
for (const file of files) {
  for (const specifier of importsOf(file)) {
    const target = specifier.startsWith(".")
      ? normalize(join(dirname(file), specifier))
          .split(sep)
          .join("/")
      : specifier;
    if (specifier.startsWith(".")) graph.get(file).push(target);
    const [at, to] = [floorOf(file), floorOf(target)];
    if (at === -1 || to === -1) problems.push(`${at === -1 ? file : target} stands on no floor of core`);
    else if (at !== undefined && to !== undefined && to > at)
      problems.push(`${file}: "${specifier}" is a floor above it`);
    else if (
      at !== undefined &&
      at === to &&
      file.split("/")[2] !== target.split("/")[2] &&
      FLOORS[at].length > 1 &&
      file.split("/").length > 3
    )
      problems.push(`${file}: "${specifier}" is beside it on its floor`);
    const room = roomTrouble(file, target);
    if (room) problems.push(room);
    for (const { name, from, deny, allow } of RULES) {
      const m = from.exec(file);
      if (!m) continue;
      const bad = typeof deny === "function" ? deny(m) : deny;
      const excused = typeof allow === "function" ? allow(file, target) : allow?.test(target);
      if (bad.test(target) && !excused) problems.push(`${file}: "${specifier}" breaks "${name}"`);
    }
  }
}
for (const [folder, many] of foldersOf([...PARTS, "tools", "e2e"]))
  if (many > MOST_FILES)
    problems.push(`${folder} has ${many} files: more than ${MOST_FILES} are two folders`);
for (const ring of circles(graph)) problems.push(`in a circle: ${ring.join(" ")}`);
for (const p of problems) console.error(p);
console.log(`${files.length} files, ${problems.length} forbidden imports`);
process.exitCode = problems.length ? 1 : 0;

/** Files that import each other in a circle, type-only imports counted (strong components, Tarjan 1972). */
function circles(graph) {
  const number = new Map();
  const low = new Map();
  const stack = [];
  const found = [];
  const visit = (v) => {
    number.set(v, number.size);
    low.set(v, number.get(v));
    stack.push(v);
    for (const w of graph.get(v)) {
      if (!graph.has(w)) continue;
      if (!number.has(w)) {
        visit(w);
        low.set(v, Math.min(low.get(v), low.get(w)));
      } else if (stack.includes(w)) low.set(v, Math.min(low.get(v), number.get(w)));
    }
    if (low.get(v) !== number.get(v)) return;
    const ring = stack.splice(stack.indexOf(v));
    if (ring.length > 1) found.push(ring);
  };
  for (const v of graph.keys()) if (!number.has(v)) visit(v);
  return found;
}

/** Folders of source with how many files each holds, tests too. */
function foldersOf(roots) {
  const out = new Map();
  const visit = (folder) => {
    for (const e of readdirSync(folder, { withFileTypes: true })) {
      if (e.isDirectory()) {
        if (!/^(node_modules|dist|golden|boards|public)$/.test(e.name)) visit(join(folder, e.name));
      } else if (/\.(ts|tsx|mjs)$/.test(e.name)) out.set(folder, (out.get(folder) ?? 0) + 1);
    }
  };
  for (const r of roots) visit(r);
  return out;
}

/** Every module a file names, type-only and dynamic imports too. */
function importsOf(file) {
  const found = [];
  const visit = (node) => {
    if (Array.isArray(node)) return node.forEach(visit);
    if (!node || typeof node !== "object") return;
    if (typeof node.source?.value === "string") found.push(node.source.value);
    if (node.type === "CallExpression" && node.callee.type === "Import")
      found.push(node.arguments[0].expression.value ?? "");
    // asked like a module, though it needs no import
    if (node.type === "CallExpression" && node.callee.value === "fetch") found.push("fetch");
    for (const value of Object.values(node)) visit(value);
  };
  visit(
    parseSync(readFileSync(file, "utf8"), { syntax: "typescript", tsx: file.endsWith("x"), target: "es2022" })
      .body,
  );
  return found;
}
