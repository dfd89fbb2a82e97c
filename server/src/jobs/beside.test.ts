import { expect, test } from "@jest/globals";
import { createBeside } from "./beside.ts";

/** Work that ends when it is told to. */
function held() {
  const begun: string[] = [];
  const ends = new Map<string, (error?: Error) => void>();
  return {
    begun,
    work: (key: string) => () =>
      new Promise<boolean>((done, fail) => {
        begun.push(key);
        ends.set(key, (error) => (error ? fail(error) : done(true)));
      }),
    end: async (key: string, error?: Error) => {
      ends.get(key)!(error);
      for (let i = 0; i < 10; i++) await Promise.resolve();
    },
  };
}

test("a shop whose questions never end leaves room for the others, and goes on with its own when one ends", async () => {
  const beside = createBeside({ inAll: 4, perShop: 2 });
  const { begun, work, end } = held();
  const ended: string[] = [];
  const start = (shop: string, n: number) =>
    beside.start(`${shop}${n}`, shop, work(`${shop}${n}`), (error) =>
      ended.push(`${shop}${n} ${error?.message ?? ""}`),
    );
  for (let n = 0; n < 20; n++) start("slow", n);
  start("other", 0);
  await Promise.resolve();
  await Promise.resolve();
  expect(begun).toEqual(["slow0", "slow1", "other0"]);
  // begun or waiting, it is not started again
  start("slow", 0);
  start("slow", 7);
  await end("other0");
  await end("slow0", new Error("away"));
  expect(begun).toEqual(["slow0", "slow1", "other0", "slow2"]);
  expect(ended).toEqual(["other0 ", "slow0 away"]);
});

test("at the end what is begun is waited for, and nothing new begins", async () => {
  const beside = createBeside({ inAll: 1, perShop: 1 });
  const { begun, work, end } = held();
  beside.start("a", "s", work("a"), () => undefined);
  beside.start("b", "s", work("b"), () => undefined);
  await Promise.resolve();
  let isOver = false;
  const over = beside.stop().then(() => {
    isOver = true;
  });
  beside.start("c", "s", work("c"), () => undefined);
  await Promise.resolve();
  expect(isOver).toBe(false);
  await end("a");
  await over;
  expect(begun).toEqual(["a"]);
});
