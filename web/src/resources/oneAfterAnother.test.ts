import { expect, test } from "@jest/globals";
import { oneAfterAnother } from "./oneAfterAnother.ts";

const settle = () => new Promise((done) => setImmediate(done));

/** Work that ends when it is told to. */
function slow() {
  const begun: string[] = [];
  const ends: ((error?: Error) => void)[] = [];
  const fetch = oneAfterAnother((key) => {
    const n = begun.push(key);
    return new Promise<number>((resolve, reject) => ends.push((e) => (e ? reject(e) : resolve(n))));
  });
  return { begun, ends, fetch };
}

test("who asks while one is under way gets the next one, which all who waited share", async () => {
  const { begun, ends, fetch } = slow();
  const [first, second, third] = [fetch("a"), fetch("a"), fetch("a")];
  await settle();
  expect(begun).toEqual(["a"]);
  ends[0]!();
  expect(await first).toBe(1);
  await settle();
  expect(begun).toEqual(["a", "a"]);
  // asked once the second is under way: not that one, but one that begins after it
  const fourth = fetch("a");
  ends[1]!();
  expect(await Promise.all([second, third])).toEqual([2, 2]);
  await settle();
  ends[2]!();
  expect(await fourth).toBe(3);
});

test("keys do not wait for each other, and one that failed holds nobody up", async () => {
  const { begun, ends, fetch } = slow();
  const [a, b, again] = [fetch("a"), fetch("b"), fetch("a")];
  await settle();
  expect(begun).toEqual(["a", "b"]);
  ends[0]!(new Error("away"));
  await expect(a).rejects.toThrow("away");
  await settle();
  expect(begun).toEqual(["a", "b", "a"]);
  ends[2]!();
  ends[1]!();
  expect(await Promise.all([again, b])).toEqual([3, 2]);
  // nothing is under way: it begins at once
  void fetch("a");
  await settle();
  expect(begun).toHaveLength(4);
});
