import { expect, test } from "@jest/globals";
import type { Context } from "koa";
import { startServer, Visitor } from "../../test/kit.ts";
import { limitRequests } from "./limits.ts";

/** Asks at a time of the test's own clock; tells whether it was let through. */
function asking(limits?: Parameters<typeof limitRequests>[0]) {
  let ms = 0;
  const middleware = limitRequests(limits, () => ms);
  const ask = async (who: string, method = "GET", path = "/api/bench") => {
    const state = who.includes(".") ? { client: { address: who } } : { signed: { accountId: who } };
    let isThrough = false;
    await Promise.resolve(
      middleware({ path, method, state } as unknown as Context, async () => {
        isThrough = true;
      }),
    ).catch((e: { code?: string }) => expect(e.code).toBe("TOO_MANY_TRIES"));
    return isThrough;
  };
  return {
    ask,
    wait: (by: number) => {
      ms += by;
    },
    /** How many of so many at once are let through. */
    burst: async (n: number, who: string, method?: string) => {
      let through = 0;
      for (let i = 0; i < n; i++) if (await ask(who, method)) through++;
      return through;
    },
  };
}

test("a burst, then so many a second, of reads and of writes by themselves", async () => {
  const { burst, wait, ask } = asking();
  expect(await burst(500, "ada")).toBe(400);
  expect(await burst(200, "ada", "PATCH")).toBe(150);
  // 60 reads and 15 writes come back in a second, and no more than the burst in an hour
  wait(1000);
  expect(await burst(100, "ada", "HEAD")).toBe(60);
  expect(await burst(100, "ada", "DELETE")).toBe(15);
  wait(60);
  expect(await ask("ada", "POST")).toBe(false);
  wait(10);
  expect(await ask("ada", "POST")).toBe(true);
  wait(3_600_000);
  expect(await burst(500, "ada")).toBe(400);
});

test("one person's haste is not another's; without a session a network is one; pages are not counted", async () => {
  const { burst, ask } = asking({ read: { burst: 2, perSecond: 0 }, write: { burst: 1, perSecond: 0 } });
  expect(await burst(3, "ada")).toBe(2);
  expect(await burst(3, "bob")).toBe(2);
  expect(await burst(2, "192.0.2.1")).toBe(2);
  expect([await ask("192.0.2.200"), await ask("192.0.3.1")]).toEqual([false, true]);
  for (let i = 0; i < 5; i++) expect(await ask("ada", "GET", "/runs/1/board")).toBe(true);
});

test("who has not asked for more than a minute is forgotten where many ask, and nobody sooner", async () => {
  const { ask, wait } = asking({ read: { burst: 1, perSecond: 0 }, write: { burst: 1, perSecond: 0 } });
  expect([await ask("ada"), await ask("ada")]).toEqual([true, false]);
  wait(1);
  for (let i = 1; i < 5000; i++) await ask(`visitor ${i}`);
  wait(60_000);
  // with ada there are 5,000 now: nobody is swept
  expect([await ask("ada"), await ask("visitor 1")]).toEqual([false, false]);
  // one more, and those of more than a minute ago are: not ada, who asked just now, nor who is just a minute old
  wait(0);
  await ask("visitor 5000");
  expect([await ask("ada"), await ask("visitor 2")]).toEqual([false, false]);
  wait(1);
  await ask("visitor 5001");
  expect([await ask("ada"), await ask("visitor 3")]).toEqual([false, true]);
});

test("who is slowed is told so, and when to come again; another person is answered meanwhile", async () => {
  const endless = { burst: 1e9, perSecond: 0 };
  const server = await startServer({}, { limits: { read: endless, write: { burst: 3, perSecond: 0 } } });
  try {
    const [fast, calm] = [new Visitor(server), new Visitor(server)];
    await fast.startShop("Fast");
    await calm.startShop("Calm");
    const page = { page: "11111111-1111-4111-8111-111111111111", place: "" };
    const answers = [];
    for (let i = 0; i < 4; i++) answers.push(await fast.put("/api/presence", page));
    expect(answers.map((a) => a.status)).toEqual([204, 204, 204, 429]);
    expect(answers[3]!.headers.get("Retry-After")).toBe("60");
    expect((await calm.patch("/api/shop", { name: "Calm still" })).status).toBe(200);
  } finally {
    await server.close();
  }
});
