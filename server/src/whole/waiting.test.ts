import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, WaitingAnswer } from "@kobbin/contract";
import { startServer, type TestServer, Visitor } from "../../test/kit.ts";
import { releasedRun as runIn } from "../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("what is waited for: from the release on, as it is written down, until all came; of no other shop", async () => {
  const r = await runIn(server, "Waiting");
  const waiting = async () => (await r.v.get("/api/waiting")).body as WaitingAnswer;
  const brief = async () =>
    (await waiting()).orders
      .map((o) => `${o.kind}: ${o.waits.on} ${o.waits.what}, ${o.came} of ${o.of}${o.isPaid ? ", paid" : ""}`)
      .sort();
  await server.figures();
  expect((await waiting()).counting).toEqual([]);
  const [boards, parts] = await brief();
  expect([boards, parts]).toEqual([
    expect.stringMatching(/^boards: shop to order it, 0 of \d+$/),
    expect.stringMatching(/^parts: shop to order it, 0 of \d+$/),
  ]);
  // what a run orders stands in this list alone: the bench's is not made longer by it
  const { runs } = (await r.v.get("/api/bench")).body as BenchAnswer;
  expect(runs.find((x) => x.id === r.id)!.summary).not.toHaveProperty("orders");

  const step = (state: string, on = "2026-11-25") =>
    r.v.post(`/api/runs/${r.id}/order-steps`, { order: r.parts, state, on, words: "" });
  expect((await step("sent")).status).toBe(201);
  expect((await brief())[1]).toMatch(/^parts: house to confirm it/);
  // parts are never made, and ordered once
  expect((await step("made")).body).toMatchObject({ code: "NOT_ALLOWED" });
  expect((await step("sent")).body).toMatchObject({ message: "It is ordered already." });
  await step("accepted");
  await step("paid");
  const of = (await waiting()).orders.find((o) => o.kind === "parts")!;
  expect(of).toMatchObject({ state: "paid", isPaid: true, waits: { on: "house", what: "to send it" } });
  expect(of.from! <= of.to!).toBe(true);
  // a piece that is set apart is no piece that came; when all came nothing is waited for
  const arrives = (qty: number, isApart = false) =>
    r.arrives({
      order: r.parts,
      unitCost: "0.05",
      item: r.offer,
      qty,
      isApart,
      because: isApart ? "bent" : "",
    });
  await arrives(1, true);
  expect((await brief())[1]).toContain(", 0 of ");
  await arrives(1);
  expect((await brief())[1]).toContain(", 1 of ");
  await arrives(of.of);
  expect(await brief()).toEqual([boards]);

  // another shop sees nothing of it, and who is not signed in nothing at all
  const other = new Visitor(server);
  expect((await other.get("/api/waiting")).status).toBe(401);
  await other.startShop("Waiting elsewhere");
  expect((await other.get("/api/waiting")).body).toEqual({ orders: [], tests: [], counting: [] });
});

test("a run whose orders are not counted yet is named until they are; a release lists it", async () => {
  const r = await runIn(server, "Waiting anew");
  await server.figures();
  await server.owner.query("update fork set summary = summary - 'orders' where run_id = $1", [r.id]);
  const waiting = async () => (await r.v.get("/api/waiting")).body as WaitingAnswer;
  expect((await waiting()).counting.map((c) => c.runId)).toEqual([r.id]);
  // released anew it is counted anew
  expect((await r.v.call("DELETE", `/api/runs/${r.id}/release`)).status).toBe(204);
  expect((await waiting()).orders).toEqual([]);
  expect((await r.v.post(`/api/runs/${r.id}/release`)).status).toBe(201);
  await server.figures();
  expect((await waiting()).counting).toEqual([]);
  expect((await waiting()).orders).toHaveLength(2);
});

test("boards that were placed at a house are waited for until they are begun: they are never received", async () => {
  const r = await runIn(server, "Waiting placed");
  await server.figures();
  const placing = {
    key: "assembly far",
    kind: "assembly",
    name: "Far",
    currency: "EUR",
    total: "10",
    items: { placing: 5 },
    days: [3, 4],
  };
  await server.owner.query(
    "update fork set summary = jsonb_set(summary, '{orders}', $2::jsonb) where run_id = $1",
    [r.id, JSON.stringify([placing])],
  );
  const came = async () =>
    ((await r.v.get("/api/waiting")).body as WaitingAnswer).orders.map((o) => `${o.came} of ${o.of}`);
  const begin = (started: number) =>
    r.works({ started, good: 0, reworked: 0, scrapped: 0, minutes: 0, note: "" });
  expect(await came()).toEqual(["0 of 5"]);
  expect((await begin(2)).status).toBe(201);
  expect(await came()).toEqual(["2 of 5"]);
  expect((await begin(3)).status).toBe(201);
  expect(await came()).toEqual([]);
});

test("what is tried besides the bench is waited for from its day on, on the boards it is meant for, until it is tried", async () => {
  const plain = { state: "powered", drives: [], reads: [], through: [], expect: "", minutes: 1 };
  const tests = [
    { ...plain, id: "rail", name: "rail" },
    { ...plain, id: "week", name: "after a week", besides: { days: 7, where: "in the cold", boards: 2 } },
    { ...plain, id: "month", name: "after a month", besides: { days: 30 } },
  ];
  const r = await runIn(server, "Tried later", async (v, { id, version }) => {
    expect((await v.patch(`/api/runs/${id}`, { version, assembly: { tests } })).status).toBe(200);
    // what says nothing, or a day that is none
    const { version: now } = (await v.get(`/api/runs/${id}`)).body as { version: number };
    const odd = [{ ...tests[1]!, besides: { days: 0 } }];
    expect((await v.patch(`/api/runs/${id}`, { version: now, assembly: { tests: odd } })).status).toBe(422);
  });
  await server.figures();
  const tried = (unit: number, item: string, on: string) =>
    r.v.post(`/api/runs/${r.id}/tries`, { unit, item, on, says: "yes" });
  const waits = async (item = "week") =>
    ((await r.v.get("/api/waiting")).body as WaitingAnswer).tests
      .filter((t) => t.item === item)
      .map((t) => [t.name, t.units, t.from, t.isDue]);
  expect(await waits()).toEqual([]);
  // each of three passes at the bench: two of them are meant, one may be tried since long, one in days to come
  for (const [unit, on] of [
    [1, "2020-03-02"],
    [2, "2020-03-02"],
    [3, "2020-03-09"],
  ] as const)
    expect((await tried(unit, "rail", on)).status).toBe(201);
  expect(await waits()).toEqual([["after a week", [1, 2], "2020-03-09", true]]);
  expect(((await r.v.get("/api/waiting")).body as WaitingAnswer).tests[0]!.words).toBe(
    "after 7 days, in the cold, on 2 boards",
  );
  // boards of the same day stand together, those of another apart
  expect(await waits("month")).toEqual([
    ["after a month", [1, 2], "2020-04-01", true],
    ["after a month", [3], "2020-04-08", true],
  ]);
  await tried(1, "week", "2020-03-12");
  expect(await waits()).toEqual([["after a week", [2], "2020-03-09", true]]);
  await tried(3, "week", "2020-03-20");
  expect(await waits()).toEqual([]);
  const { runs } = (await r.v.get("/api/bench")).body as BenchAnswer;
  expect(runs.find((x) => x.id === r.id)!.summary).not.toHaveProperty("tests");
});
