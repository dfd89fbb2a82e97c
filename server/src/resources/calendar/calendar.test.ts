import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer, WaitingAnswer, WaitingRow } from "@kobbin/contract";
import { invite } from "../../../test/fixture.ts";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";
import { eventsOf } from "./events.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const row = (more: Partial<WaitingRow>): WaitingRow => ({
  runId: "r",
  run: "spring",
  product: "Watch",
  order: "boards h",
  kind: "boards",
  name: "FAR",
  currency: "EUR",
  total: "99.00",
  state: "accepted",
  waits: { on: "house", what: "to make them", since: "2026-11-20" },
  isLate: false,
  from: "2026-12-10",
  to: "2026-12-14",
  isPromised: false,
  came: 0,
  of: 10,
  isPaid: false,
  questions: [],
  ...more,
});

test("an order is a range of days, open until somebody promised it; one without a day is none; nothing of prices", () => {
  const [one] = eventsOf([row({ came: 3, questions: ["which green?"] })], [], "https://k.example");
  expect(one).toEqual({
    id: "r boards h@kobbin",
    from: "2026-12-10",
    to: "2026-12-14",
    title: "bare boards from FAR",
    about: expect.stringMatching(/^for Watch, spring\n.+\n3 of 10 came\nasked: which green\?$/),
    url: "https://k.example/runs/r/receive",
    isOpen: true,
  });
  expect(JSON.stringify(one)).not.toMatch(/99|EUR/);
  expect(eventsOf([row({ isPromised: true, isLate: true })], [], "")[0]).toMatchObject({
    isOpen: false,
    title: "late: bare boards from FAR",
  });
  expect(eventsOf([row({ isPromised: true })], [], "")[0]).not.toHaveProperty("url");
  const { from: _, to: _t, ...dayless } = row({});
  expect(eventsOf([dayless], [], "")).toEqual([]);
  expect(eventsOf([{ ...dayless, to: "2026-12-14" }], [], "")[0]).toMatchObject({
    from: "2026-12-14",
    to: "2026-12-14",
  });
});

test("what is to be tried besides the bench stands on its day, board by board", () => {
  const week = {
    runId: "r",
    run: "spring",
    product: "Watch",
    item: "week",
    name: "reads after a week",
    words: "after 7 days, in the cold",
    units: [1, 4],
    from: "2026-12-08",
    isDue: false,
  };
  expect(eventsOf([], [week], "https://k.example")).toEqual([
    {
      id: "r test week 2026-12-08@kobbin",
      from: "2026-12-08",
      to: "2026-12-08",
      title: "try reads after a week: boards 1, 4",
      about: "of Watch, spring\nafter 7 days, in the cold",
      url: "https://k.example/runs/r/build?view=tests",
      isOpen: false,
    },
  ]);
});

test("a calendar fetches by its secret alone, what the shop waits for; a new address or none closes the one before", async () => {
  const v = new Visitor(server);
  await v.startShop("Calendars");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id: run } = (await v.post("/api/runs", { revisionId, name: "spring", goodBoards: 5 })).body as {
    id: string;
  };
  const { document } = (await v.get(`/api/runs/${run}`)).body as RunAnswer;
  const offer = {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  };
  for (const l of document.lines) await v.post(`/api/lines/${l.id}/offers`, offer);
  expect((await v.post(`/api/runs/${run}/release`)).status).toBe(201);
  let orders: WaitingAnswer["orders"] = [];
  while (orders.length === 0) orders = ((await v.get("/api/waiting")).body as WaitingAnswer).orders;
  for (const o of orders)
    expect(
      (
        await v.call("PUT", `/api/runs/${run}/purchases`, {
          order: o.order,
          currency: o.currency,
          orderedOn: "2026-11-24",
          promisedOn: "2026-12-08",
        })
      ).status,
    ).toBeLessThan(300);
  expect((await v.get("/api/calendar")).body).toEqual({});
  const { path } = (await v.post("/api/calendar")).body as { path: string };
  expect((await v.get("/api/calendar")).body).toEqual({
    person: expect.any(String),
    madeAt: expect.any(String),
  });
  // whoever has it is nobody
  const fetched = (at: string) => fetch(`${server.url}${at}`);
  const answer = await fetched(path);
  expect([answer.status, answer.headers.get("content-type"), answer.headers.get("cache-control")]).toEqual([
    200,
    "text/calendar; charset=utf-8",
    "private, no-store",
  ]);
  const text = await answer.text();
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(orders.length);
  expect(text).toContain("DTSTART;VALUE=DATE:20261208");
  expect(text).not.toMatch(/EUR|0\.05/);
  const { path: second } = (await v.post("/api/calendar")).body as { path: string };
  expect([(await fetched(path)).status, (await fetched(second)).status]).toEqual([404, 200]);
  const bench = await invite(server, v, "Calendars bench", "bench");
  expect([
    (await bench.post("/api/calendar")).status,
    (await bench.call("DELETE", "/api/calendar")).status,
  ]).toEqual([403, 403]);
  // another shop's address shows another shop's orders
  const other = new Visitor(server);
  await other.startShop("Other calendars");
  const { path: theirs } = (await other.post("/api/calendar")).body as { path: string };
  expect(await (await fetched(theirs)).text()).not.toContain("BEGIN:VEVENT");
  await other.call("DELETE", "/api/calendar");
  expect([(await fetched(theirs)).status, (await fetched(second)).status]).toEqual([404, 200]);
  expect((await fetched("/api/calendars/guessed")).status).toBe(404);
  // only its hash is kept, and no backup has it
  const { rows } = await server.owner.query<{ hash: Buffer }>(
    "select token_hash as hash from calendar_address",
  );
  expect(rows.some((r) => r.hash.toString("base64url") === second.split("/").at(-1))).toBe(false);
});
