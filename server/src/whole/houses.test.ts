import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, HistoryAnswer, HouseRecord, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { demoArchive, startServer, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function begun(name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const { revisionId, productId, boardId } = (
    await v.drop({ "rack-card.zip": demoArchive("rack-card") }, { name: "Card" })
  ).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 })).body as {
    id: string;
  };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const ask = async (start = 12) => {
    expect((await v.post(`/api/runs/${id}/ask-houses`, { start })).status).toBe(202);
    await server.figures();
    return ((await v.get(`/api/runs/${id}/asks`)).body as AskAnswer).houses;
  };
  return { v, id, productId: productId!, boardId: boardId!, read, ask };
}

test("houses answer over the network, a little off their list, for just what was asked; one that fails leaves its older answer", async () => {
  const { v, id, read, ask } = await begun("Asking houses");
  const asked = await ask();
  expect(asked.map((a) => [a.house, a.state, a.tries])).toEqual([
    ["Ninefold Circuit Co-op", "answered", 1],
    ["Plover Lane Boards", "answered", 1],
    ["Gannet & Daughters", "answered", 1],
    ["Tern Yard Works", "answered", 1],
  ]);
  const { document } = await read();
  expect(document.quotes).toHaveLength(4);
  for (const q of document.quotes) {
    const house = document.houses!.find((h) => h.id === q.house)!;
    // within its drift and what a simple list leaves out; never the estimate itself
    const estimate =
      Number(
        rollUp({ ...document, quotes: [], house, options: { ...q.basis!.options, pieces: 12 } }).orders[0]!
          .quote.total,
      ) / 1e6;
    expect(Number(q.total) / estimate).toBeGreaterThan(0.88);
    expect(Number(q.total) / estimate).toBeLessThan(1.12);
    expect(Number(q.total)).not.toBe(estimate);
    expect(q.basis).toMatchObject({ revision: "A", boards: expect.any(Number) });
    expect(q.validUntil! > q.capturedOn).toBe(true);
  }
  // what stands for the run is the chosen house's answer, and it holds for what is ordered
  const start = rollUp(document).start;
  await ask(start);
  const held = (await read()).document;
  expect(rollUp(held).orders[0]!.quoted?.house).toBe(held.house!.id);
  // the same question on the same day has the same answer
  const totals = held.quotes.map((q) => q.total);
  await ask(start);
  expect((await read()).document.quotes.map((q) => q.total)).toEqual(totals);

  server.failing.add("plover");
  const second = await ask(start);
  server.failing.clear();
  expect(second.find((a) => a.house === "Plover Lane Boards")).toMatchObject({
    state: "failed",
    tries: 4,
    reason: "The feed is down for maintenance.",
  });
  expect((await read()).document.quotes.map((q) => q.total)).toEqual(totals);
  // nobody asks for nothing, and what is another shop's is not there
  expect((await v.post(`/api/runs/${id}/ask-houses`, { start: 0 })).status).toBe(422);
  const stranger = new Visitor(server);
  await stranger.startShop("Asking others");
  expect((await stranger.post(`/api/runs/${id}/ask-houses`, { start: 5 })).status).toBe(404);
});

test("a house asks back, the run says so until it is answered, and the answer can be taken back", async () => {
  const { v, id, read, ask } = await begun("Asked back");
  await ask();
  const { document } = await read();
  const asking = document.quotes.filter((q) => q.question);
  expect(asking.map((q) => document.houses!.find((h) => h.id === q.house)!.name)).toEqual([
    "Plover Lane Boards",
  ]);
  expect(asking[0]!.question).toMatch(/^Silkscreen letters of 0.9 mm are below the 1 mm/);
  const house = asking[0]!.house;
  expect(
    (await v.patch(`/api/runs/${id}`, { version: (await read()).version, houseId: house })).status,
  ).toBeLessThan(300);
  await ask(rollUp((await read()).document).start);
  const notes = async () => rollUp((await read()).document).notes.map((n) => n.key);
  expect(await notes()).toContain("quote-question");
  const path = `/api/runs/${id}/quotes/${house}/answer`;
  expect((await v.call("PUT", path, { answer: " " })).status).toBe(422);
  const done = await v.call("PUT", path, { answer: "As they are." });
  expect(done.status).toBe(204);
  expect(await notes()).not.toContain("quote-question");
  expect((await read()).document.quotes.find((q) => q.house === house)).toMatchObject({
    answer: "As they are.",
  });
  expect((await v.post(`/api/changes/${done.headers.get("X-Change")}/undo`)).status).toBe(200);
  expect(await notes()).toContain("quote-question");
  // one that asks nothing is not answered
  const quiet = document.quotes.find((q) => !q.question)!.house;
  expect((await v.call("PUT", `/api/runs/${id}/quotes/${quiet}/answer`, { answer: "x" })).status).toBe(404);
});

test("the shop's own record of a house: nothing before an order, then days promised and real and what was set apart", async () => {
  const { v, id, read, ask } = await begun("Own record");
  const record = async () => {
    const house = (await read()).document.house!.id;
    return ((await v.get("/api/house-records")).body as HouseRecord[]).find((r) => r.houseId === house)!;
  };
  expect(await record()).toMatchObject({ orders: 0, boards: 0, apart: 0, questions: 0 });
  expect(await record()).not.toHaveProperty("realDays");
  await ask();
  const { document } = await read();
  const accepted = Object.fromEntries(rollUp(document).blockers.map((b) => [b.key, "known"]));
  const lines = document.lines.map((l) => ({ id: l.id, dnp: true }));
  await v.call("PATCH", `/api/revisions/${(await read()).revisionId}/lines`, { lines });
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, accepted });
  expect((await v.post(`/api/runs/${id}/release`)).status).toBe(201);
  const order = `boards ${document.house!.id}`;
  const item = document.boards[0]!.id!;
  const currency = document.house!.currency;
  expect(
    (
      await v.put(`/api/runs/${id}/purchases`, {
        order,
        currency,
        orderedOn: "2026-11-10",
        promisedOn: "2026-11-20",
      })
    ).status,
  ).toBe(204);
  const came = (qty: number, arrivedOn: string, more = {}) =>
    v.post(`/api/runs/${id}/receipts`, { order, arrivedOn, items: [{ item, qty, ...more }] });
  expect((await came(12, "2026-11-21")).status).toBe(201);
  expect((await came(3, "2026-11-23", { isApart: true, because: "scratched" })).status).toBe(201);
  expect(await record()).toMatchObject({ orders: 1, promisedDays: 10, realDays: 13, boards: 15, apart: 3 });
});

test("a foil is kept, written on, used again, and taken off the list; another shop's is not there", async () => {
  const { v, id, productId, read } = await begun("Foils");
  const body = {
    name: "card foil",
    board: (await read()).document.boards[0]!.name,
    foilMm: 0.12,
    form: "loose",
    openings: { top: [1, 1, 0.3, 0.5] },
    price: "22.00",
    currency: "EUR",
    madeOn: "2026-11-20",
  };
  const made = await v.post(`/api/products/${productId}/foils`, body);
  expect(made.status).toBe(201);
  const { id: foil } = made.body as { id: string };
  const kept = async () => (await read()).document.foils;
  expect(await kept()).toEqual([
    { ...body, id: foil, without: [], prints: 0, place: "", state: "ready", note: "" },
  ]);
  expect(
    (await v.patch(`/api/foils/${foil}`, { prints: 12, cleanedOn: "2026-11-25", place: "drawer" })).status,
  ).toBe(204);
  expect(await kept()).toMatchObject([
    { prints: 12, cleanedOn: "2026-11-25", place: "drawer", state: "ready" },
  ]);
  expect((await v.patch(`/api/foils/${foil}`, { cleanedOn: null })).status).toBe(204);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes.slice(0, 2).map((c) => c.sentence)).toEqual([
    expect.not.stringContaining("printed"),
    `foil ${body.name}: 12 boards printed`,
  ]);
  expect((await kept())![0]).not.toHaveProperty("cleanedOn");
  const version = (await read()).version;
  expect((await v.patch(`/api/runs/${id}`, { version, assembly: { foil } })).status).toBeLessThan(300);
  expect((await read()).document.assembly.foil).toBe(foil);
  for (const bad of [
    { ...body, openings: {}, foilMm: 3 },
    { ...body, openings: { top: [1, 2, 3] } },
    { ...body, form: "bent" },
  ])
    expect((await v.post(`/api/products/${productId}/foils`, bad)).status).toBe(422);
  const gone = await v.call("DELETE", `/api/foils/${foil}`);
  expect(gone.status).toBe(204);
  expect(rollUp((await read()).document).notes.map((n) => n.key)).toContain("foil-missing");
  expect((await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`)).status).toBe(200);
  expect(await kept()).toHaveLength(1);
  const stranger = new Visitor(server);
  await stranger.startShop("Foils of others");
  expect((await stranger.patch(`/api/foils/${foil}`, { prints: 99 })).status).toBe(404);
  expect((await stranger.post(`/api/products/${productId}/foils`, body)).status).toBe(404);
});
