import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startServer, type TestServer } from "../../test/kit.ts";

let server: TestServer;
const root = mkdtempSync(join(tmpdir(), "kobbin-pages-"));
beforeAll(async () => {
  mkdirSync(join(root, "assets"));
  writeFileSync(join(root, "index.html"), '<script nonce="__NONCE__" src="/assets/a.js"></script>');
  writeFileSync(join(root, "assets", "a.js"), "plain");
  writeFileSync(join(root, "assets", "a.js.gz"), "packed");
  writeFileSync(join(root, "icon.svg"), "<svg/>");
  server = await startServer({ webRoot: root });
});
afterAll(async () => {
  await server.close();
  rmSync(root, { recursive: true });
});

const get = async (path: string, init: RequestInit = {}) => {
  const r = await fetch(`${server.url}${path}`, init);
  const { headers } = r;
  const has = (name: string) => headers.get(name) ?? "";
  return {
    status: r.status,
    cache: has("Cache-Control"),
    policy: has("Content-Security-Policy"),
    has,
    text: await r.text(),
  };
};

test("every path that is no file is the page, with a nonce of its own each time, and is asked for anew", async () => {
  const seen = new Set<string>();
  for (const path of ["/", "/index.html", "/runs/1/board", "/icon.png", "/..%2f..%2fetc/passwd"]) {
    const r = await get(path);
    const nonce = /nonce="([^"]+)"/.exec(r.text)?.[1] ?? "";
    expect([path, r.status, r.cache]).toEqual([path, 200, "no-cache"]);
    expect(Buffer.from(nonce, "base64")).toHaveLength(12);
    expect(r.policy).toContain(`'nonce-${nonce}'`);
    seen.add(nonce);
  }
  expect(seen.size).toBe(5);
});

test("files are sent as they are: what is built for a year, the rest is asked for again", async () => {
  const built = await get("/assets/a.js", { headers: { "Accept-Encoding": "identity" } });
  expect([built.status, built.text, built.cache]).toEqual([200, "plain", "max-age=31536000,immutable"]);
  expect(built.has("Vary")).toContain("Accept-Encoding");
  const icon = await get("/icon.svg");
  expect([icon.status, icon.text, icon.cache]).toEqual([200, "<svg/>", "max-age=0"]);
  expect((await get("/assets/b.js")).status).toBe(404);
});

test("what is asked of the server's own paths, or written, is no page", async () => {
  expect((await get("/api/nothing")).text).not.toContain("nonce");
  expect((await get("/runs/1/board", { method: "POST" })).text).not.toContain("nonce");
  expect(await get("/runs/1/board", { method: "HEAD" })).toMatchObject({ status: 200, text: "" });
});
