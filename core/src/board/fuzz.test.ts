import { expect, test } from "@jest/globals";
import { fuzzCase, runFuzz } from "../../test/fuzz.ts";
import { often } from "../../test/long.ts";

test("broken and made-up files are read or refused, none throws, hangs or fills the memory", () => {
  const { cases, objects } = runFuzz(often(1_500, 20_000), 1);
  expect(cases).toBe(often(1_500, 20_000));
  expect(objects).toBeGreaterThan(2_000);
});

test("the cases differ and are the same under the same seed", () => {
  const text = (n: number) => new TextDecoder().decode(fuzzCase(n, 7).bytes);
  expect(new Set(Array.from({ length: 200 }, (_, n) => text(n))).size).toBeGreaterThan(190);
  expect(text(5)).toBe(text(5));
});
