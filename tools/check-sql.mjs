// No name and no value is ever joined into a statement from data. Into the text of a query may stand: literals,
// constants written in capitals, and what ident() and the few functions made of it give. In migrations a statement that
// is put together is put together by format(), with %I and %L. And a resource's statements stand in its queries.ts.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseSync } from "@swc/core";

/** Give text made of looked-up names only: schema/ident.ts, schema/talks.ts, and what is made of that. */
const SAFE_CALLS = new Set([
  "ident",
  "idents",
  "where",
  "insertRows",
  "backupRows",
  "talkIdent",
  "talkColumns",
]);
/** Text that is handed through by a file, and why that is right. */
const HANDED_ON = new Map([["server/src/jobs/patient-db.ts text", "the queue's own statements"]]);

/** Migrations whose %s is a text of the file's own, not of any data. */
const SAID = new Set(["server/migrations/0011_walls.sql"]);
/** Functions a later migration gave its search path: what has landed is not edited. */
const LATER = new Set(["invited"]);

const under = (folder, pattern) =>
  readdirSync(folder, { recursive: true })
    .map((f) => join(folder, String(f)).replaceAll("\\", "/"))
    .filter((f) => pattern.test(f) && !/\.test\.ts$/.test(f));

const problems = [];
let queries = 0;

function checkFile(file) {
  const text = readFileSync(file, "utf8");
  const bytes = Buffer.from(text);
  const ast = parseSync(text, { syntax: "typescript", target: "es2022" });
  const lineOf = (span) =>
    bytes
      .subarray(0, Math.max(0, span.start - ast.span.start))
      .toString()
      .split("\n").length;
  const each = (node, see) => {
    if (Array.isArray(node)) for (const n of node) each(n, see);
    else if (node && typeof node === "object") {
      see(node);
      for (const v of Object.values(node)) each(v, see);
    }
  };
  /** Locals that are a list of looked-up names, joined, or one of two constants. */
  const lists = new Set();
  const isSafe = (e) => {
    switch (e?.type) {
      case "StringLiteral":
      case "NumericLiteral":
        return true;
      case "Identifier":
        return /^[A-Z][A-Z0-9_]*$/.test(e.value) || lists.has(e.value) || HANDED_ON.has(`${file} ${e.value}`);
      case "TemplateLiteral":
        return e.expressions.every(isSafe);
      case "BinaryExpression":
        return isSafe(e.left) && isSafe(e.right);
      case "ConditionalExpression":
        return isSafe(e.consequent) && isSafe(e.alternate);
      case "ParenthesisExpression":
        return isSafe(e.expression);
      case "CallExpression":
        return e.callee.type === "Identifier" && SAFE_CALLS.has(e.callee.value);
      case "MemberExpression":
        // how many there are: the number of a parameter
        return e.property.value === "length";
      default:
        return false;
    }
  };
  each(ast.body, (n) => {
    if (n.type !== "VariableDeclarator" || n.init?.type !== "CallExpression") return;
    const map = n.init.callee.property?.value === "join" ? n.init.callee.object : undefined;
    const made = map?.callee?.property?.value === "map" ? map.arguments[0]?.expression?.body : undefined;
    if (made?.type === "TemplateLiteral" && isSafe(made)) lists.add(n.id.value);
  });
  // one of two constants
  each(ast.body, (n) => {
    if (n.type === "VariableDeclarator" && n.init?.type === "ConditionalExpression" && isSafe(n.init))
      lists.add(n.id.value);
  });
  each(ast.body, (n) => {
    if (
      n.type !== "CallExpression" ||
      n.callee.type !== "MemberExpression" ||
      n.callee.property.value !== "query"
    )
      return;
    queries++;
    if (/^server\/src\/resources\//.test(file) && !/(^|\/|-)queries\.ts$/.test(file))
      problems.push(`${file}:${lineOf(n.span)}: a statement outside of the resource's queries.ts`);
    let text = n.arguments[0]?.expression;
    if (text?.type === "ObjectExpression") text = text.properties.find((p) => p.key?.value === "text")?.value;
    if (text && !isSafe(text))
      problems.push(`${file}:${lineOf(n.span)}: a statement is joined from what is not looked up`);
  });
}

for (const file of under("server/src", /\.ts$/)) checkFile(file);
if (queries < 50) throw new Error(`only ${queries} statements found: the check looks in the wrong place`);

let executed = 0;
for (const file of under("server/migrations", /\.sql$/)) {
  const text = readFileSync(file, "utf8");
  for (const m of text.matchAll(/\bexecute\s+(?!on\b|function\b|format\b)(\S+)/gi)) {
    // a plain text between quotes
    if (!/^'/.test(m[1])) problems.push(`${file}: execute ${m[1]} is not put together by format()`);
  }
  for (const m of text.matchAll(/\bexecute\s+format\s*\(\s*('(?:[^']|'')*')/gi)) {
    executed++;
    if (/%s/.test(m[1]) && !SAID.has(file))
      problems.push(`${file}: %s in ${m[1].slice(0, 60)}; %I is for names, %L for values`);
  }
  // a function with its owner's rights says where it looks for names, and looks last in what a session could make
  for (const m of text.matchAll(/create (?:or replace )?function (\w+)[\s\S]*?\bas \$\$/gi))
    if (
      /security definer/i.test(m[0]) &&
      !/set search_path = public, pg_temp/i.test(m[0]) &&
      !LATER.has(m[1])
    )
      problems.push(
        `${file}: the function ${m[1]} has its owner's rights and no search path that ends in pg_temp`,
      );
}
for (const p of problems) console.error(p);
console.log(`${queries} statements, ${executed} put together in migrations, ${problems.length} wrong`);
process.exitCode = problems.length ? 1 : 0;
