import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { shopWithRun, startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("a run gets another name, alone or with a choice, and has the old one when that is taken back", async () => {
  const { v, id, read, back } = await shopWithRun(server, "Naming");
  const { version } = await read();
  const named = await v.patch(`/api/runs/${id}`, { version, name: "for the fair" });
  expect([named.status, (named.body as RunAnswer).document.name]).toEqual([200, "for the fair"]);
  const both = await v.patch(`/api/runs/${id}`, {
    version: (named.body as RunAnswer).version,
    name: "for two fairs",
    goodBoards: 25,
  });
  expect((both.body as RunAnswer).document).toMatchObject({ name: "for two fairs", goodBoards: 25 });
  expect((await back(both.headers)).status).toBe(200);
  expect((await read()).document).toMatchObject({ name: "for the fair", goodBoards: 10 });
});

test("a run begins with sums for stencil and consumables in the shop's own currency", async () => {
  const first = async (currency: string, rates?: Record<string, string>) => {
    const v = new Visitor(server);
    const name = `begins ${currency} ${Object.keys(rates ?? {})} ${rates ? "own" : ""}`;
    const own = { name, email: name, password: "a long password", hourlyRate: "1", currency };
    expect((await v.post("/api/shops", own)).status).toBe(201);
    const { version } = (await v.get("/api/shop")).body as { version: number };
    if (rates) expect((await v.patch("/api/shop", { version, rates })).status).toBeLessThan(300);
    const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
    const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
      id: string;
    };
    const { assembly } = ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
    return [Number(assembly.stencilPrice), Number(assembly.consumables)];
  };
  // 22.00 and 6.00 euro (core/src/run/document.ts); a new shop has 1 / 0.0061 and 1 / 0.92 to the euro
  expect(await first("EUR")).toEqual([22, 6]);
  expect(await first("JPY")).toEqual([3606, 984]);
  expect(await first("USD", { EUR: "1.1", GBP: "1.3" })).toEqual([24.2, 6.6]);
  // the rate was taken out
  expect(await first("USD", { GBP: "1.3" })).toEqual([23.91, 6.52]);
  // none is known of it
  expect(await first("XTS")).toEqual([22, 6]);
});
