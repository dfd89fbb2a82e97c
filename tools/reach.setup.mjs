import { createHash } from "node:crypto";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect } from "@jest/globals";

globalThis.__reach = new Set();
const began = Date.now();
afterAll(() => {
  const { testPath } = expect.getState();
  writeFileSync(
    join(
      process.env.KOBBIN_REACH,
      `${createHash("sha256").update(testPath).digest("hex").slice(0, 24)}.json`,
    ),
    JSON.stringify({ test: testPath, ms: Date.now() - began, reached: [...globalThis.__reach] }),
  );
});
