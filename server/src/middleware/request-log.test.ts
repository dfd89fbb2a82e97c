import { expect, test } from "@jest/globals";
import type { Context } from "koa";
import { metrics } from "../metrics.ts";
import { requestLog } from "./request-log.ts";

async function pass(more: Record<string, unknown> = {}, given = "") {
  const logged: Record<string, unknown>[] = [];
  const heads: Record<string, string> = {};
  const ctx = {
    path: "/api/runs/7",
    method: "GET",
    status: 200,
    state: {} as Record<string, unknown>,
    _matchedRoute: "/api/runs/:id",
    get: () => given,
    set: (name: string, value: string) => {
      heads[name] = value;
    },
    ...more,
  };
  await requestLog({ log: (e) => logged.push(e) })(ctx as unknown as Context, async () => undefined);
  return { id: ctx.state.requestId, heads, logged };
}

test("a request keeps the number it came with where that is one, else it gets one; it is in the answer's head", async () => {
  for (const id of ["abcd-123", "a".repeat(64)])
    expect(await pass({}, id)).toMatchObject({ id, heads: { "X-Request-Id": id } });
  for (const none of ["", "short", "a".repeat(65), "with space in it", "line\nbreak-in-it"])
    expect((await pass({}, none)).id).toMatch(/^[0-9a-f]{8}$/);
});

test("requests of the interface are written down with their route, others are not", async () => {
  const route = { _matchedRoute: "/api/things/:id" };
  const { logged } = await pass({ ...route, state: { signed: { workshopId: "w" } } }, "abcd-123");
  expect(logged).toEqual([
    {
      level: "info",
      request: "abcd-123",
      method: "GET",
      path: "/api/runs/7",
      status: 200,
      ms: expect.any(Number),
      workshop: "w",
    },
  ]);
  expect((await pass(route)).logged[0]).not.toHaveProperty("workshop");
  expect((await pass({ ...route, path: "/assets/x.js" })).logged).toEqual([]);
  await pass({ _matchedRoute: undefined, status: 404 });
  const text = await metrics.metrics();
  expect(text).toContain('kobbin_request_seconds_count{method="GET",route="/api/things/:id",status="200"} 2');
  expect(text).toContain('kobbin_request_seconds_count{method="GET",route="none",status="404"} 1');
  // seconds, not thousandths
  expect(Number(/kobbin_request_seconds_sum\{[^}]*status="404"\} (\S+)/.exec(text)![1])).toBeLessThan(1);
});
