// What in a source can be changed for the worse, and where its functions are: for changes that are tried (mutate.ts) and
// for what tells whether a test could notice them (reach.mjs).
import { Buffer } from "node:buffer";
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

/** What each operator is changed to. */
export const SWAP = {
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

/**
 * Everything in a source that can be changed for the worse: from where to where, what is put in its place, and by what it
 * is told whether a difference is seen there (`kind`: the operator; `if`: where it is true; `value`: wherever it is
 * computed; `name`: cannot be told). Texts, types and docstrings are left alone.
 */
export function changesOf(source) {
  const { body, at } = parsed(source);
  const text = (n) => source.slice(at(n).start, at(n).end);
  const out = [];
  const names = new Set();
  walk(body, (n) => {
    if (/^Ts(?!As|NonNull|Satisfies|Const)/.test(n.type)) return false;
    // a name is not computed, so nothing can be told there
    if (n.key?.type === "NumericLiteral") names.add(n.key);
    if (n.type === "BinaryExpression") {
      const { left, right, operator } = n;
      const to = SWAP[operator];
      const isText = [left, right].some((s) => s.type === "StringLiteral" || s.type === "TemplateLiteral");
      if (to && !isText)
        out.push({
          ...at(n),
          to: `(${text(left)}) ${to} (${text(right)})`,
          kind: operator,
          left: at(left),
          right: at(right),
        });
    }
    if (n.type === "NumericLiteral")
      out.push({
        ...at(n),
        to: `${Number(text(n).replaceAll("_", "")) + 1}`,
        kind: names.has(n) ? "name" : "value",
      });
    if (n.type === "BooleanLiteral") out.push({ ...at(n), to: n.value ? "false" : "true", kind: "value" });
    if (n.type === "IfStatement") out.push({ ...at(n.test), to: "false", kind: "if" });
    if (n.type === "ConditionalExpression")
      out.push({ ...at(n.test), to: `!(${text(n.test)})`, kind: "value" });
    if (n.type === "UnaryExpression" && n.operator === "!")
      out.push({ ...at(n), to: text(n.argument), kind: "value" });
    return true;
  });
  return out;
}
