import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import type { HistoryAnswer } from "@kobbin/contract";
import pg from "pg";
import { invite } from "../../test/fixture.ts";
import { startServer, type TestServer } from "../../test/kit.ts";
import { releasedRun as runIn, says } from "../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());
const releasedRun = (name: string, before?: Parameters<typeof runIn>[2]) => runIn(server, name, before);

test("an order is written down, comes in two parcels, becomes lots for this run, and is taken back step by step", async () => {
  const r = await releasedRun("Receiving");
  const path = `/api/runs/${r.id}/purchases`;
  const ordered = await r.v.put(path, {
    order: r.parts,
    currency: "EUR",
    orderedOn: "2026-11-27",
    promisedOn: "2026-12-04",
  });
  expect(ordered.status).toBe(204);
  const first = await r.arrives({
    order: r.parts,
    unitCost: "0.05",
    item: r.offer,
    qty: 6,
    place: "drawer 3",
  });
  const apart = await r.arrives({
    order: r.parts,
    unitCost: "0.05",
    item: r.offer,
    qty: 2,
    isApart: true,
    because: "bent",
  });
  expect([first.status, apart.status]).toEqual([201, 201]);
  expect(
    (await r.lots()).map((l) => [l.mpn, l.qty, l.unitCost, l.condition, l.reserved.map((x) => x.qty)]),
  ).toEqual([
    ["ZZ-UNKNOWN-1", 6, "0.05", "new", [6]],
    ["ZZ-UNKNOWN-1", 2, "0.05", "quarantine", []],
  ]);
  // the invoice: 0.48 for eight pieces; what came of them is worth that
  const paid = await r.v.put(path, {
    order: r.parts,
    currency: "EUR",
    paid: { [r.offer]: "0.48" },
    pieces: { [r.offer]: 8 },
    freight: "4",
  });
  expect((await r.lots()).map((l) => l.unitCost)).toEqual(["0.06", "0.06"]);
  const { record, state } = await r.read();
  expect(state).toBe("released");
  expect(record).toMatchObject({
    purchases: [
      {
        order: r.parts,
        orderedOn: "2026-11-27",
        promisedOn: "2026-12-04",
        freight: "4.00",
        paid: { [r.offer]: "0.48" },
      },
    ],
    receipts: [
      { qty: 6, isApart: false },
      { qty: 2, isApart: true, because: "bent" },
    ],
  });
  // each is the lot it became; a board becomes none
  expect(record!.receipts.map((x) => x.lot)).toEqual((await r.lots()).map((l) => l.id));
  const says = ((await r.v.get(`/api/history?run=${r.id}`)).body as HistoryAnswer).changes.map(
    (c) => c.sentence,
  );
  expect(says.slice(0, 4)).toEqual([
    expect.stringMatching(/^order at .*: freight 4 EUR, 1 line as invoiced$/),
    expect.stringMatching(/^came from .*: 2 × ZZ-UNKNOWN-1 set apart \(bent\)$/),
    expect.stringMatching(/^came from .*: 6 × ZZ-UNKNOWN-1$/),
    expect.stringMatching(/^order at .*: ordered on 2026-11-27, promised for 2026-12-04$/),
  ]);
  const board = await r.arrives({ qty: 1 });
  expect((await r.read()).record!.receipts.find((x) => x.order === r.boards)).not.toHaveProperty("lot");
  expect((await r.undo(board.headers)).status).toBe(200);
  for (const done of [paid, apart, first, ordered]) expect((await r.undo(done.headers)).status).toBe(200);
  expect(await r.lots()).toEqual([]);
  expect((await r.read()).record).toEqual({
    purchases: [],
    receipts: [],
    work: [],
    series: { batch: 1, year: expect.any(Number) },
  });
});

test("of a parcel of many kinds three are told and how many more; a note that is removed, and boards that were mended", async () => {
  const r = await releasedRun("Words");
  const came = (n: number) =>
    r.v.post(`/api/runs/${r.id}/receipts`, {
      order: r.parts,
      arrivedOn: "2026-12-01",
      items: Array.from({ length: n }, (_, i) => ({ item: r.offer, qty: i + 1, unitCost: "0.05" })),
    });
  for (const n of [3, 4, 6]) expect((await came(n)).status).toBe(201);
  const path = `/api/runs/${r.id}/purchases`;
  for (const note of ["by post", ""])
    expect((await r.v.put(path, { order: r.parts, currency: "EUR", note })).status).toBe(204);
  await r.arrives({ qty: 6 });
  expect((await r.works({ started: 4, good: 2, reworked: 1, minutes: 7 })).status).toBe(201);
  // one count alone is enough to be written down
  for (const one of [{ started: 1 }, { good: 1 }, { scrapped: 1 }, { minutes: 1 }])
    expect((await r.works(one)).status).toBe(201);
  expect(await says(r)).toEqual([
    "1 min",
    "1 scrapped",
    "1 good",
    "1 started",
    "4 started, 2 good, 1 mended, 7 min",
    expect.stringMatching(/^came from .*: 6 × /),
    expect.stringMatching(/^order at .*: note removed$/),
    expect.stringMatching(/^order at .*: by post$/),
    expect.stringMatching(/^came from .*: 1 × ZZ-UNKNOWN-1, 2 × ZZ-UNKNOWN-1, 3 × ZZ-UNKNOWN-1 and 3 more$/),
    expect.stringMatching(/^came from .*: 1 × ZZ-UNKNOWN-1, 2 × ZZ-UNKNOWN-1, 3 × ZZ-UNKNOWN-1 and 1 more$/),
    expect.stringMatching(/^came from .*: 1 × ZZ-UNKNOWN-1, 2 × ZZ-UNKNOWN-1, 3 × ZZ-UNKNOWN-1$/),
  ]);
});

test("a parcel of many kinds is as many statements as one of few, and so is taking it back and bringing it again", async () => {
  const r = await releasedRun("Many");
  const sent = jest.spyOn(pg.Client.prototype, "query");
  // what is written of parcels, lots and what they are kept for; beside it the worker has statements of its own
  const isWrite = (q: unknown) =>
    /(insert into|update|delete from) "?(receipt|lot|reservation)\b/.test(
      typeof q === "string" ? q : String((q as { text?: unknown } | null)?.text),
    );
  const statements = async (work: () => Promise<{ status: number; headers: Headers }>) => {
    sent.mockClear();
    const { status, headers } = await work();
    expect(status).toBeLessThan(300);
    return [sent.mock.calls.filter(([q]) => isWrite(q)).length, headers] as const;
  };
  const counts: number[][] = [];
  for (const n of [3, 400]) {
    const items = Array.from({ length: n }, () => ({ item: r.offer, qty: 1, unitCost: "0.05" }));
    const body = { order: r.parts, arrivedOn: "2026-12-01", items };
    const [came, change] = await statements(() => r.v.post(`/api/runs/${r.id}/receipts`, body));
    const [gone, back] = await statements(() => r.undo(change));
    const [again] = await statements(() => r.undo(back));
    counts.push([came, gone, again]);
  }
  sent.mockRestore();
  expect(counts).toEqual([
    [3, 3, 3],
    [3, 3, 3],
  ]);
  expect((await r.read()).record!.receipts).toHaveLength(403);
  expect(await r.lots()).toHaveLength(403);
});

test("a lot's price is said with it: how many came in a parcel does not decide what a piece cost", async () => {
  const r = await releasedRun("Price");
  const bare = await r.arrives({ order: r.parts, item: r.offer, qty: 6 });
  expect(bare.body).toMatchObject({ message: "What a piece of ZZ-UNKNOWN-1 cost is missing." });
  expect(await r.lots()).toEqual([]);
  await r.arrives({ order: r.parts, item: r.offer, qty: 6, unitCost: "0.031" });
  expect((await r.lots())[0]!.unitCost).toBe("0.031");
});

test("sums are in the currency the order is in: a quotation that does not hold leaves the house's own", async () => {
  const r = await releasedRun("Money", (v, { id, document }) =>
    v.put(`/api/runs/${id}/quotes`, {
      houseId: document.house!.id,
      kind: "fab",
      total: "70",
      currency: "GBP",
      days: 9,
      basis: { boards: 999, options: {}, revision: document.revision },
    }),
  );
  expect(r.document.quotes).toMatchObject([{ currency: "GBP" }]);
  const pay = (currency: string, order = r.boards) =>
    r.v.put(`/api/runs/${r.id}/purchases`, { order, currency, freight: "5" });
  const own = r.document.house!.currency;
  expect((await pay("CHF")).body).toMatchObject({
    code: "OUT_OF_RANGE",
    message: expect.stringContaining(`is in ${own} or GBP, not in CHF`),
  });
  expect((await pay(own)).status).toBe(204);
  expect((await r.read()).record!.purchases).toMatchObject([{ currency: own, freight: "5.00" }]);
  // what stands there in one currency is not read as another's
  expect((await pay("GBP")).status).toBe(422);
  expect((await pay("USD", r.parts)).status).toBe(422);
});

test("nothing is ordered, comes or is built before the release, and no order or item is made up", async () => {
  const r = await releasedRun("Made up");
  const { id: open } = (await r.v.post("/api/runs", { revisionId: r.revisionId, name: "two", goodBoards: 5 }))
    .body as { id: string };
  for (const [method, what, body] of [
    ["PUT", "purchases", { order: r.parts, currency: "EUR" }],
    [
      "POST",
      "receipts",
      { order: r.parts, arrivedOn: "2026-12-01", items: [{ item: r.offer, qty: 1, unitCost: "1" }] },
    ],
    ["POST", "work", { on: "2026-12-01", started: 1 }],
    ["PUT", "closing", {}],
  ] as const)
    expect((await r.v.call(method, `/api/runs/${open}/${what}`, body)).body).toMatchObject({
      code: "NOT_ALLOWED",
      message: expect.stringContaining("not released"),
    });
  const strange = "11111111-1111-4111-8111-111111111111";
  expect((await r.arrives({ order: `parts ${strange}`, unitCost: "1", item: r.offer, qty: 1 })).status).toBe(
    404,
  );
  expect((await r.arrives({ item: strange, qty: 1 })).status).toBe(404);
  expect((await r.arrives({ order: "parts x; drop table run", qty: 1 })).status).toBe(422);
  expect((await r.arrives({ qty: 0 })).status).toBe(422);
  expect(
    (
      await r.v.put(`/api/runs/${r.id}/purchases`, {
        order: r.parts,
        currency: "EUR",
        paid: { [strange]: "1" },
      })
    ).status,
  ).toBe(404);
  expect(
    (
      await r.v.put(`/api/runs/${r.id}/purchases`, {
        order: r.parts,
        currency: "EUR",
        paid: { [r.offer]: "-1" },
      })
    ).status,
  ).toBe(422);
});

test("two people write of one order: what they set apart joins, what they set alike is told with both values", async () => {
  const r = await releasedRun("Two");
  const path = `/api/runs/${r.id}/purchases`;
  await r.v.put(path, { order: r.parts, currency: "EUR", orderedOn: "2026-11-27" });
  const { record, versions } = await r.read();
  const version = versions[record!.purchases[0]!.id];
  expect(version).toBeGreaterThan(0);
  expect(
    (await r.v.put(path, { order: r.parts, currency: "EUR", version, promisedOn: "2026-12-04" })).status,
  ).toBe(204);
  expect((await r.v.put(path, { order: r.parts, currency: "EUR", version, freight: "3.50" })).status).toBe(
    204,
  );
  const clash = await r.v.put(path, { order: r.parts, currency: "EUR", version, promisedOn: "2026-12-09" });
  expect(clash.status).toBe(409);
  expect((await r.read()).record!.purchases[0]).toMatchObject({ promisedOn: "2026-12-04", freight: "3.50" });
});

test("a slip of the hand at the bench stays off the shelf, and whatever a shop has counted, its pages add it up", async () => {
  const r = await releasedRun("Slipping");
  const bench = await invite(server, r.v, "slips", "bench");
  // a hundred times five boards, and whole reels beside
  const slip = await r.arrives({ qty: 20_501 }, bench);
  expect([slip.status, (slip.body as { message: string }).message]).toEqual([
    422,
    expect.stringMatching(/^20501 × .* is more than a hundred times what a run of 5 boards needs\.$/),
  ]);
  expect((await r.arrives({ order: r.parts, item: r.offer, qty: 10_000_000 }, bench)).status).toBe(422);
  expect((await r.arrives({ qty: 20_500 }, bench)).status).toBe(201);
  // whoever says that it is right is believed, as far as a number goes
  const meant = await r.arrives({ qty: 20_501, isMeant: true }, bench);
  expect(meant.status).toBe(201);
  expect((await r.arrives({ qty: 10_000_001, isMeant: true }, bench)).status).toBe(422);
  expect((await r.undo(meant.headers, bench)).status).toBe(200);
  // as an older Kobbin took it: more than a whole number of the database's holds
  for (let i = 0; i < 25; i++)
    await r.v.post("/api/lots", { mpn: "ZZ-UNKNOWN-1", qty: 1e8, currency: "EUR" });
  await r.v.put(`/api/runs/${r.id}/purchases`, { order: r.boards, currency: "EUR", orderedOn: "2026-11-24" });
  const old = await server.owner.connect();
  await old.query("begin");
  await old.query("select set_config('app.change', 'off', true)");
  await old.query(
    `insert into receipt (workshop_id, run_id, order_key, item, label, arrived_on, qty)
     select workshop_id, id, $2, 'x', 'x', '2026-11-25', 10000000 from run, generate_series(1, 300) where id = $1`,
    [r.id, r.boards],
  );
  await old.query("commit");
  old.release();
  for (const path of ["/api/lots", "/api/parts", "/api/houses", "/api/bench", `/api/runs/${r.id}`])
    expect([path, (await r.v.get(path)).status]).toEqual([path, 200]);
  const houses = (await r.v.get("/api/house-records")).body as { houseId: string; boards: number }[];
  expect(houses.find((h) => r.boards.endsWith(h.houseId))!.boards).toBe(3_000_020_500);
});
