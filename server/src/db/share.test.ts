import { expect, jest, test } from "@jest/globals";
import { createShare, person } from "./share.ts";

const LIMITS = { inAll: 3, perShop: 2, perPerson: 1, waitMs: 1000, mostWaiting: 2 };
/** Lets everything that may go on go on. */
const settle = () => new Promise((done) => setImmediate(done));

test("no shop has all of it, and what is given back goes to who waits; given back twice counts once", async () => {
  const share = createShare(LIMITS);
  const [a1, a2] = [await share.take("a"), await share.take("a")];
  const went: string[] = [];
  const take = (shop: string, name: string) =>
    share.take(shop).then((release) => {
      went.push(name);
      return release;
    });
  const a3 = take("a", "a3");
  const b1 = take("b", "b1");
  await settle();
  // two of three are taken: the other shop goes, the same one waits
  expect([went, share.used]).toEqual([["b1"], 3]);
  a1();
  a1();
  await settle();
  expect([went, share.used]).toEqual([["b1", "a3"], 3]);
  for (const release of [a2, await a3, await b1]) release();
  expect(share.used).toBe(0);
});

test("of those who wait the shop with least goes first, then who came first", async () => {
  const share = createShare({ ...LIMITS, perShop: 3, mostWaiting: 5 });
  const held = [await share.take("a"), await share.take("a"), await share.take("b")];
  const went: string[] = [];
  const waits = [
    ["a", "a1"],
    ["b", "b1"],
    ["c", "c1"],
    ["c", "c2"],
  ].map(([shop, name]) =>
    share.take(shop!).then((release) => {
      went.push(name!);
      return release;
    }),
  );
  for (const release of held) {
    release();
    await settle();
  }
  // with one of a and one of b left c has none; then a has none, then b
  expect(went).toEqual(["c1", "a1", "b1"]);
  (await waits[2]!)();
  await settle();
  expect(went.at(-1)).toBe("c2");
});

test("a person has so much only, whatever the shop could have", async () => {
  const share = createShare(LIMITS);
  const one = await person.run("x", () => share.take("a"));
  let went = false;
  const second = person
    .run("x", () => share.take("a"))
    .then((release) => {
      went = true;
      return release;
    });
  const other = await person.run("y", () => share.take("a"));
  await settle();
  expect(went).toBe(false);
  one();
  (await second)();
  other();
  expect(share.used).toBe(0);
});

test("who waits too long, or behind too many of its shop, is told so and takes no turn", async () => {
  jest.useFakeTimers();
  try {
    const share = createShare({ ...LIMITS, perShop: 1 });
    const release = await share.take("a");
    const late = [share.take("a"), share.take("a")];
    const said = late.map((p) => p.catch((e: { code: string }) => e.code));
    await expect(share.take("a")).rejects.toMatchObject({ code: "BUSY" });
    jest.advanceTimersByTime(999);
    jest.advanceTimersByTime(1);
    expect(await Promise.all(said)).toEqual(["BUSY", "BUSY"]);
    release();
    expect(share.used).toBe(0);
    (await share.take("a"))();
  } finally {
    jest.useRealTimers();
  }
});

test("who waits too long makes nobody else lose their turn", async () => {
  jest.useFakeTimers();
  try {
    const share = createShare({ ...LIMITS, perShop: 1 });
    const release = await share.take("a");
    const first = share.take("a").catch((e: { code: string }) => e.code);
    jest.advanceTimersByTime(500);
    const second = share.take("a");
    jest.advanceTimersByTime(500);
    expect(await first).toBe("BUSY");
    release();
    jest.advanceTimersByTime(1000);
    (await second)();
    expect(share.used).toBe(0);
  } finally {
    jest.useRealTimers();
  }
});
