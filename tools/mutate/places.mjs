// What in a source can be changed for the worse, and where its functions are: for changes that are tried (mutate.ts) and
// for what tells whether a test could notice them (reach.mjs).
import { Buffer } from "node:buffer";
import { parseSync } from "@swc/core";

// spans are counted in bytes from the first token: one is put before everything
const HEAD = '"";';

/** A source as a tree, and where in the text a node of it begins and ends. */
export function parsed(source, tsx = false) {
  const ast = parseSync(HEAD + source, { syntax: "typescript", tsx, target: "es2022" });
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

/** A statement of the database is told by how it begins; in it conditions are changed, not what is set. */
const STATEMENT = /^[`"']\s*(?:select|insert|update|delete|with)\s/i;
const CONDITIONS = [
  [/(?<=\b(?:where|and|or|on)\s+\(?[\w.]+\s)=(?=\s)/gi, () => "<>"],
  [/(?<=\s)(?:<=|>=|<|>)(?=\s)/g, (o) => SWAP[o]],
  [/(?<=\s)(?:and|or)(?=\s)/gi, (o) => (o.toLowerCase() === "and" ? "or" : "and")],
  [/\bis not null\b/gi, () => "is null"],
  [/\bis null\b/gi, () => "is not null"],
  [/\bnot exists\b/gi, () => "exists"],
  [/(?<=\border by\b[^()]*)\bdesc\b/gi, () => "asc"],
];

/** The changes of one statement: each the whole text with one condition changed. */
function conditionsOf(statement) {
  if (!STATEMENT.test(statement)) return [];
  return CONDITIONS.flatMap(([pattern, to]) =>
    [...statement.matchAll(pattern)].map((m) => {
      const [end, was] = [m.index + m[0].length, to(m[0])];
      return {
        to: statement.slice(0, m.index) + was + statement.slice(end),
        words: `${statement.slice(Math.max(0, m.index - 24), m.index)}${m[0]} → ${was}`,
      };
    }),
  );
}

/**
 * Everything in a source that can be changed for the worse: from where to where, what is put in its place, and by what it
 * is told whether a difference is seen there (`kind`: the operator; `if`: where it is true; `extreme`: where least and
 * greatest differ; `value`: wherever it is computed; `name`: cannot be told). Texts, types and docstrings are left alone,
 * but for the conditions of statements.
 */
export function changesOf(source) {
  const { body, at } = parsed(source);
  const text = (n) => source.slice(at(n).start, at(n).end);
  const out = [];
  const names = new Set();
  const tagged = new Set();
  walk(body, (n) => {
    if (/^Ts(?!As|NonNull|Satisfies|Const)/.test(n.type)) return false;
    // a name is not computed, so nothing can be told there
    if (n.key?.type === "NumericLiteral") names.add(n.key);
    if (n.type === "BinaryExpression") {
      const { left, right, operator } = n;
      const to = SWAP[operator];
      const isText = [left, right].some((s) => s.type === "StringLiteral" || s.type === "TemplateLiteral");
      if (to && !(isText && operator === "+"))
        out.push({
          ...at(n),
          to: `(${text(left)}) ${to} (${text(right)})`,
          kind: operator,
          left: at(left),
          right: at(right),
        });
    }
    if (n.type === "CallExpression" && /^Math\.(min|max)$/.test(text(n.callee))) {
      const other = text(n.callee) === "Math.min" ? "Math.max" : "Math.min";
      if (n.arguments.length > 1 || n.arguments[0]?.spread)
        out.push({ ...at(n), to: other + text(n).slice(8), kind: "extreme", callee: at(n.callee), other });
    }
    // a tag would be handed something else than a text
    if (n.type === "TaggedTemplateExpression") tagged.add(n.template);
    if (n.type === "StringLiteral" || (n.type === "TemplateLiteral" && !tagged.has(n)))
      for (const c of conditionsOf(text(n))) out.push({ ...at(n), ...c, kind: "value" });
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
