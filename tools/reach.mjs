// Which test runs which function: asked for by KOBBIN_REACH (a folder), written there, one file a test file. A change of
// the code is then tried on the tests that run the changed function, and on no others (mutate.ts).
import { Buffer } from "node:buffer";
import { relative, sep } from "node:path";
import { parseSync } from "@swc/core";

// spans are counted in bytes from the first token: one is put before everything
const HEAD = '"";';

/** A source as a tree, and where in the text a node of it begins and ends. */
export function parsed(source) {
  const ast = parseSync(HEAD + source, { syntax: "typescript", target: "es2022" });
  const bytes = Buffer.from(source);
  const isPlain = bytes.length === source.length;
  const index = (byte) => (isPlain ? byte : bytes.subarray(0, byte).toString().length);
  const at = ({ span }) => ({
    start: index(span.start - ast.span.start - HEAD.length),
    end: index(span.end - ast.span.start - HEAD.length),
  });
  return { body: ast.body, at };
}

/** Calls back for every node of a tree; `false` leaves out what is in it. */
export function walk(value, visit) {
  if (Array.isArray(value)) for (const v of value) walk(v, visit);
  else if (value && typeof value === "object") {
    if (typeof value.type === "string" && visit(value) === false) return;
    for (const v of Object.values(value)) walk(v, visit);
  }
}

/** Every function of a source with its text's start and end, and those of its body. */
export function functionsOf(source) {
  const { body, at } = parsed(source);
  const out = [];
  walk(body, (n) => {
    const inner = n.type === "ClassMethod" || n.type === "PrivateMethod" ? n.function.body : n.body;
    if (!/Function|Method|Constructor|Getter|Setter/.test(n.type) || !inner?.span || !n.span) return;
    out.push({ ...at(n), body: at(inner), isBlock: source[at(inner).start] === "{" });
  });
  return out;
}

/** Whether a file of the tree is one whose functions are watched. */
const isWatched = (file) =>
  /^(core|formats|server)\/src\/.*\.ts$/.test(file) && !/\.(test|fixture|worker)\.ts$/.test(file);

/** The source, telling at the head of each function that it is run; in as many lines as before. */
export function watched(source, path) {
  const file = relative(process.cwd(), path).split(sep).join("/");
  if (!isWatched(file)) return source;
  const puts = [];
  const flags = [];
  for (const f of functionsOf(source)) {
    // told once: what is run by the million stays as quick as it was
    const flag = `__reached${flags.length}`;
    flags.push(`${flag} = false`);
    const tell = `${flag} || (${flag} = true, __reach.add(${JSON.stringify(`${file}:${f.start}`)}))`;
    if (f.isBlock) puts.push([f.body.start + 1, `${tell};`]);
    else puts.push([f.body.start, `(${tell}, `], [f.body.end, ")"]);
  }
  // where one body ends and the next begins the closing comes first
  puts.sort((a, b) => b[0] - a[0] || Number(a[1] === ")") - Number(b[1] === ")"));
  let text = source;
  for (const [at, put] of puts) text = text.slice(0, at) + put + text.slice(at);
  const head = `const __reach = globalThis.__reach ?? new Set(); __reach.add(${JSON.stringify(file)});`;
  return `${head} ${flags.length > 0 ? `let ${flags.join(", ")}; ` : ""}${text}`;
}
