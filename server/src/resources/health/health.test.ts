import { expect, test } from "@jest/globals";
import type { Context } from "koa";
import type { Deps } from "../../deps.ts";
import { health } from "./health.ts";

test("whether the database answers is asked at most once in two seconds, and again at once where it did not", async () => {
  let asked = 0;
  let isAway = false;
  let at = 1_000_000;
  const pool = {
    query: async () => {
      asked++;
      if (isAway) throw Object.assign(new Error("no"), { code: "ECONNREFUSED" });
      return { rows: [] };
    },
  };
  const middleware = health({ pool, config: {} } as unknown as Deps, () => at);
  const ready = async () => {
    const ctx = { path: "/ready", set: () => undefined } as unknown as Context & { body: { status: string } };
    await middleware(ctx, async () => undefined);
    return [ctx.status, ctx.body.status, asked];
  };
  expect(await ready()).toEqual([200, "ready", 1]);
  at += 1999;
  expect(await ready()).toEqual([200, "ready", 1]);
  at += 1;
  expect(await ready()).toEqual([200, "ready", 2]);
  isAway = true;
  at += 2000;
  expect(await ready()).toEqual([503, "the database does not answer", 3]);
  expect(await ready()).toEqual([503, "the database does not answer", 4]);
  isAway = false;
  expect(await ready()).toEqual([200, "ready", 5]);
  expect(await ready()).toEqual([200, "ready", 5]);
});
