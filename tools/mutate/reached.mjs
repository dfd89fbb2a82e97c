// Which files a test reaches by what it imports. A name taken through a part's door leads to the file that says it, not to
// everything behind the door.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, relative } from "node:path";
import { parseSync } from "@swc/core";
import { PARTS, ROOT } from "../setup.mjs";

const CODE = /\.(ts|tsx|mjs)$/;

/** Every file of source or test, relative to the clone. */
export function sources() {
  const out = [];
  const walk = (dir) => {
    for (const entry of readdirSync(join(ROOT, dir), { withFileTypes: true })) {
      const path = `${dir}/${entry.name}`;
      if (entry.isDirectory() && !["node_modules", "dist", "dist-types"].includes(entry.name)) walk(path);
      else if (CODE.test(entry.name)) out.push(path);
    }
  };
  for (const part of PARTS) walk(part);
  return out;
}

/** @returns a function from a test file to the files it reaches, each with the number of imports between */
export function reachedBy() {
  const modules = new Map();
  const moduleOf = (file) => {
    if (!modules.has(file))
      modules.set(file, CODE.test(file) && existsSync(join(ROOT, file)) ? read(file) : undefined);
    return modules.get(file);
  };
  /** The file that says a name, seen through doors; the door itself where it is not found. */
  const saidBy = (file, name, seen = new Set()) => {
    if (seen.has(file)) return file;
    seen.add(file);
    const m = moduleOf(file);
    const via = m?.passes.get(name);
    if (via) return via.name === undefined ? via.from : saidBy(via.from, via.name, seen);
    if (m && !m.says.has(name))
      for (const from of m.passesAll) {
        const found = saidBy(from, name, seen);
        if (moduleOf(found)?.says.has(name)) return found;
      }
    return file;
  };
  /** A file taken whole, with all it passes on. */
  const whole = (file) => {
    const m = moduleOf(file);
    return m ? [file, ...[...m.passes.values()].map((v) => saidBy(v.from, v.name)), ...m.passesAll] : [file];
  };
  return (test) => {
    const distance = new Map([[test, 0]]);
    const queue = [test];
    for (const file of queue) {
      const m = moduleOf(file);
      // a door that was reached itself was taken whole
      const doors = m && m.says.size === 0 ? [...m.passes.values()].map(({ from }) => ({ from })) : [];
      for (const { from, names } of [...(m?.imports ?? []), ...doors]) {
        for (const next of names === undefined ? whole(from) : new Set(names.map((n) => saidBy(from, n)))) {
          if (distance.has(next)) continue;
          distance.set(next, distance.get(file) + 1);
          queue.push(next);
        }
      }
    }
    return distance;
  };
}

/** What a file imports, passes on and says itself. */
function read(file) {
  const { body } = parseSync(readFileSync(join(ROOT, file), "utf8"), {
    syntax: "typescript",
    tsx: file.endsWith("x"),
    target: "es2022",
  });
  const found = { imports: [], passes: new Map(), passesAll: [], says: new Set() };
  const to = (specifier) => {
    const own = /^@kobbin\/(\w+)$/.exec(specifier);
    if (own) return `${own[1]}/src/index.ts`;
    return specifier.startsWith(".")
      ? relative(ROOT, normalize(join(ROOT, dirname(file), specifier)))
      : undefined;
  };
  for (const node of body) {
    const from = node.source ? to(node.source.value) : undefined;
    if (node.type === "ImportDeclaration" && from) {
      const isWhole = node.specifiers.some((s) => s.type === "ImportNamespaceSpecifier");
      const names = node.specifiers.map((s) => s.imported?.value ?? s.local.value);
      found.imports.push({ from, names: isWhole || names.length === 0 ? undefined : names });
    } else if (node.type === "ExportNamedDeclaration" && from)
      for (const s of node.specifiers)
        found.passes.set(
          s.exported?.value ?? s.name?.value ?? s.orig.value,
          // all of a file under one name has no name of its own there
          { from, name: s.orig?.value },
        );
    else if (node.type === "ExportAllDeclaration" && from) found.passesAll.push(from);
    else if (node.type === "ExportDeclaration") {
      const { declaration: d } = node;
      for (const id of d.declarations?.map((v) => v.id) ?? [d.identifier ?? d.id])
        if (id?.value) found.says.add(id.value);
    } else if (node.type === "ExportNamedDeclaration")
      for (const s of node.specifiers) found.says.add(s.exported?.value ?? s.orig.value);
  }
  // what is imported in the middle, and files named by their place beside this one
  const visit = (node) => {
    if (Array.isArray(node)) return node.forEach(visit);
    if (!node || typeof node !== "object") return;
    if (node.type === "CallExpression" && node.callee.type === "Import") {
      const from = to(node.arguments[0].expression.value ?? "");
      if (from) found.imports.push({ from });
    }
    if (node.type === "NewExpression" && node.callee.value === "URL") {
      const path = node.arguments?.[0]?.expression?.value;
      if (typeof path === "string" && path.startsWith(".")) found.imports.push({ from: to(path) });
    }
    for (const value of Object.values(node)) visit(value);
  };
  visit(body);
  return found;
}
