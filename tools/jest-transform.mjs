// TypeScript for Jest, with the language's own objects bound once at the head of each module. Jest runs tests in a
// context whose globals are looked up through the host at every use, which makes arithmetic several times slower.
// Nothing a test may put something else in the place of (clocks, timers, fetch) is among them.
import { readFileSync } from "node:fs";
import swc from "@swc/jest";
import { watched } from "./mutate/reach.mjs";

const BOUND = [
  "Math",
  "Number",
  "Array",
  "Object",
  "String",
  "Map",
  "Set",
  "WeakMap",
  "Float64Array",
  "Int32Array",
  "Uint32Array",
  "Uint8Array",
  "BigInt",
  "Infinity",
];

/** The head of one module, in its first line so that lines stay where they are, without names it declares itself. */
function headFor(source) {
  const free = BOUND.filter(
    (name) =>
      !new RegExp(`\\b(?:const|let|class|function|as|import)\\s+(?:\\{[^}]*)?\\b${name}\\b`).test(source),
  );
  return free.length > 0 ? `const { ${free.join(", ")} } = globalThis; ` : "";
}

const withHead = (result, source) => ({ ...result, code: headFor(source) + result.code });
const isReach = Boolean(process.env.KOBBIN_REACH);
// read in every run, so that a file that was moved is missed at once
const watch = ["places.mjs", "reach.mjs"]
  .map((f) => readFileSync(new URL(`mutate/${f}`, import.meta.url), "utf8"))
  .join("");
const reach = isReach ? watch : "";
const told = (source, path) => (isReach ? watched(source, path) : source);

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    return {
      ...inner,
      process: (source, path, options) => withHead(inner.process(told(source, path), path, options), source),
      processAsync: async (source, path, options) =>
        withHead(await inner.processAsync(told(source, path), path, options), source),
      getCacheKey: (source, ...rest) => `${inner.getCacheKey(source, ...rest)}-${BOUND.join()}-${reach}`,
    };
  },
};
