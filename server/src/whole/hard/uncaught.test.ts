import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@jest/globals";
import Koa from "koa";
import { knowRequests, onUncaught } from "../../uncaught.ts";

/** A small server whose only route is what the test gives it, and what it wrote down. */
async function serverOf(route: (ctx: Koa.Context, uncaught: (error: unknown) => void) => void) {
  const logged: Record<string, unknown>[] = [];
  const stopped: string[] = [];
  const uncaught = onUncaught(
    (entry) => logged.push(entry),
    (why) => stopped.push(why),
  );
  const app = knowRequests(new Koa());
  app.use((ctx) => {
    ctx.set("X-Request-Id", "r-7");
    ctx.respond = false;
    route(ctx, uncaught);
  });
  const server = createServer(app.callback()).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  return { url, logged, stopped, uncaught, close: () => server.close() };
}

test("an error nobody caught fails the request it came from, is written down with its number, and ends the process", async () => {
  const s = await serverOf((ctx, uncaught) => {
    ctx.set("Content-Disposition", "attachment");
    // much later, out of the hands of whoever answers
    setTimeout(() => uncaught(new Error("a thread was lost")), 1);
  });
  const response = await fetch(s.url);
  expect([response.status, await response.json()]).toEqual([
    500,
    {
      kind: "error",
      code: "DEFECT",
      message: "Kobbin has a defect here; nothing was changed.",
      hint: "Try once more; if it stays, report it with the number r-7.",
    },
  ]);
  expect(response.headers.get("content-disposition")).toBe(null);
  expect(response.headers.get("x-request-id")).toBe("r-7");
  expect(s.logged).toEqual([
    {
      level: "error",
      message: "uncaught: a thread was lost",
      stack: expect.stringContaining("uncaught.test.ts"),
      request: "r-7",
    },
  ]);
  expect(s.stopped).toEqual(["an uncaught error"]);
  s.close();
});

test("an answer that had begun is cut off and not taken for whole; one that was given stays", async () => {
  const begun = await serverOf((ctx, uncaught) => {
    ctx.res.writeHead(200, { "Content-Length": "100" });
    ctx.res.write("half");
    setTimeout(() => uncaught(new Error("x")), 5);
  });
  await expect(fetch(begun.url).then((r) => r.text())).rejects.toThrow();
  expect(begun.stopped).toHaveLength(1);
  begun.close();
  const given = await serverOf((ctx, uncaught) => {
    ctx.res.end("whole");
    uncaught(new Error("x"));
  });
  expect(await (await fetch(given.url)).text()).toBe("whole");
  given.close();
});

test("what comes from no request, or is no error, is written down as it is", async () => {
  const s = await serverOf(() => undefined);
  s.uncaught("a word");
  expect(s.logged).toEqual([{ level: "error", message: "uncaught: a word", stack: undefined }]);
  expect(s.logged[0]).not.toHaveProperty("request");
  expect(s.stopped).toEqual(["an uncaught error"]);
  s.close();
});
