import { createHash } from "node:crypto";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect } from "@jest/globals";

globalThis.__reach = new Set();
const places = new Map();
globalThis.__seenIn = (file) => {
  if (!places.has(file)) places.set(file, new Uint8Array(10_000));
  return places.get(file);
};
const began = Date.now();
afterAll(() => {
  const { testPath } = expect.getState();
  // of each file the numbers of the places, as changesOf counts them
  const seen = Object.fromEntries(
    [...places].map(([file, list]) => [file, [...list.keys()].filter((i) => list[i])]),
  );
  const ran = { test: testPath, ms: Date.now() - began, reached: [...globalThis.__reach], seen };
  const name = createHash("sha256").update(testPath).digest("hex").slice(0, 24);
  writeFileSync(join(process.env.KOBBIN_REACH, `${name}.json`), JSON.stringify(ran));
});
