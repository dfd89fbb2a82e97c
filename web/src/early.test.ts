import { afterEach, expect, jest, test } from "@jest/globals";
import { askEarly, firstPaths, takeEarly } from "./early.ts";

const RUN = "0b0f2c1e-1111-4222-8333-444455556666";
const was = { fetch: globalThis.fetch, now: performance.now };
afterEach(() => {
  globalThis.fetch = was.fetch;
  performance.now = was.now;
});
const serve = (status: number) => {
  const fetched = jest.fn(async (path: string) => new Response(path, { status }));
  globalThis.fetch = fetched as never;
  return fetched;
};

test.each([
  ["/", ["/api/session"]],
  [`/runs/${RUN}/board`, ["/api/session", `/api/runs/${RUN}`]],
  [`/runs/${RUN}`, ["/api/session", `/api/runs/${RUN}`]],
  ["/runs/../../x", ["/api/session"]],
  ["/settings", ["/api/session"]],
])("the page at %s asks first for %j", (address, paths) => {
  expect(firstPaths(address)).toEqual(paths);
});

test("an early answer is taken once; what was not asked for is asked anew", async () => {
  const fetched = serve(200);
  askEarly("/");
  expect(fetched.mock.calls.map(([p]) => p)).toEqual(["/api/session"]);
  expect(await (await takeEarly("/api/session"))!.text()).toBe("/api/session");
  expect(await takeEarly("/api/session")).toBeUndefined();
  expect(await takeEarly("/api/shelf")).toBeUndefined();
});

test("a refusal, a lost connection and an old answer are not taken: somebody may have signed in since", async () => {
  serve(401);
  askEarly("/");
  expect(await takeEarly("/api/session")).toBeUndefined();
  globalThis.fetch = (async () => {
    throw new TypeError("away");
  }) as never;
  askEarly("/");
  expect(await takeEarly("/api/session")).toBeUndefined();
  serve(200);
  performance.now = () => 1000;
  askEarly("/");
  performance.now = () => 6001;
  expect(await takeEarly("/api/session")).toBeUndefined();
});
