import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer, LotRow, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { invite } from "../test/fixture.ts";
import { startServer, strangerFiles, type TestServer, Visitor } from "../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A released run of five good boards: one line, one supplier, boards at a house. */
async function releasedRun(name: string, before?: (v: Visitor, run: RunAnswer) => Promise<unknown>) {
  const v = new Visitor(server);
  await v.startShop(name);
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const { document: d } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const offer = (
    await v.post(`/api/lines/${d.lines[0]!.id}/offers`, {
      supplierId: d.suppliers[0]!.id,
      stock: 500,
      currency: "EUR",
      breaks: [{ qty: 1, price: "0.05" }],
    })
  ).body as { id: string };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  await before?.(v, await read());
  expect((await v.post(`/api/runs/${id}/release`)).status).toBe(201);
  const { document } = await read();
  // of one day in the order of their pieces
  const lots = async () => ((await v.get("/api/lots")).body as LotRow[]).sort((a, b) => b.qty - a.qty);
  const undo = (h: Headers, by = v) => by.post(`/api/changes/${h.get("X-Change")}/undo`);
  const parts = `parts ${d.suppliers[0]!.id}`;
  const boards = `boards ${document.house!.id}`;
  const arrives = ({ order = boards, arrivedOn = "2026-12-01", ...item }: Record<string, unknown>, by = v) =>
    by.post(`/api/runs/${id}/receipts`, {
      order,
      arrivedOn,
      items: [{ item: document.boards[0]!.id, ...item }],
    });
  const works = (more: object, by = v) => by.post(`/api/runs/${id}/work`, { on: "2026-12-02", ...more });
  return { v, id, revisionId, offer: offer.id, read, document, lots, undo, parts, boards, arrives, works };
}

/** Sentences of what was written down of a run, the newest first, up to its release. */
async function says(r: { v: Visitor; id: string }): Promise<string[]> {
  const { changes } = (await r.v.get(`/api/history?run=${r.id}`)).body as HistoryAnswer;
  const list = changes.map((c) => c.sentence);
  return list.slice(0, list.indexOf("released and packed"));
}

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
  expect((await r.read()).record).toEqual({ purchases: [], receipts: [], work: [] });
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

test("what is counted while a run is being closed is in its outcome, or the closing is refused", async () => {
  const r = await releasedRun("At once");
  await r.works({ started: 5, good: 1 });
  const [closed, ...counted] = await Promise.all([
    r.v.put(`/api/runs/${r.id}/closing`, {}),
    ...[1, 2, 3].map(() => r.works({ good: 1, minutes: 10 })),
  ]);
  const { record } = await r.read();
  const good = record!.work.reduce((n, w) => n + w.good, 0);
  expect(good).toBe(1 + counted.filter((c) => c.status === 201).length);
  if (closed!.status !== 204)
    expect(closed!.body).toMatchObject({
      code: "STALE_VERSION",
      message: expect.stringContaining("while the run was being closed"),
    });
  expect((await r.v.put(`/api/runs/${r.id}/closing`, {})).status).toBe(closed!.status === 204 ? 403 : 204);
  const { id } = (await r.v.post("/api/runs", { revisionId: r.revisionId, name: "two", goodBoards: 5 }))
    .body as { id: string };
  expect(((await r.v.get(`/api/runs/${id}`)).body as RunAnswer).document.past).toMatchObject([{ good }]);
});

test("boards are conserved whoever counts: by one, by two at once, and by taking back what came", async () => {
  const r = await releasedRun("Conserved");
  const bench = await invite(server, r.v, "conserved bench", "bench");
  expect((await r.works({ started: 2, good: 3 })).body).toMatchObject({
    code: "OUT_OF_RANGE",
    message: "3 good and 0 scrapped are 3 boards, but 2 were begun.",
  });
  const came = await r.arrives({ qty: 6 }, bench);
  expect((await r.works({ started: 7 })).body).toMatchObject({
    message: expect.stringContaining("boards for 6 came"),
  });
  // two people begin the rest at one moment: one of them is told
  expect((await r.works({ started: 4, good: 3, scrapped: 1, minutes: 50 })).status).toBe(201);
  const both = await Promise.all([r.works({ started: 2 }), r.works({ started: 2 }, bench)]);
  expect(both.map((b) => b.status).sort()).toEqual([201, 422]);
  // the parcel cannot go from under them
  expect((await r.undo(came.headers)).body).toMatchObject({ message: expect.stringContaining("boards for") });
  expect((await r.read()).record!.work.reduce((n, w) => n + w.started, 0)).toBe(6);
  expect((await r.works({})).body).toMatchObject({ message: "Nothing was counted." });
});

test("the bench receives, builds and takes back its own; it pays, closes and decides nothing", async () => {
  const r = await releasedRun("Bench");
  const bench = await invite(server, r.v, "bench hand", "bench");
  const came = await r.arrives({ order: r.parts, unitCost: "0.05", item: r.offer, qty: 6 }, bench);
  const built = await r.works({ started: 1, minutes: 5 }, bench);
  expect([came.status, built.status]).toEqual([201, 201]);
  expect((await r.undo(built.headers, bench)).status).toBe(200);
  expect((await r.undo(came.headers, bench)).status).toBe(200);
  expect(await r.lots()).toEqual([]);
  const lot = await r.v.post("/api/lots", { mpn: "X", qty: 5, currency: "EUR" });
  expect((await r.undo(lot.headers, bench)).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: expect.stringContaining("owner’s"),
  });
  for (const [method, path] of [
    ["PUT", "purchases"],
    ["PUT", "closing"],
  ] as const)
    expect(
      (await bench.call(method, `/api/runs/${r.id}/${path}`, { order: r.parts, currency: "EUR" })).status,
    ).toBe(403);
});

test("a closed run gives the next one its yield and hours, takes nothing more, and is opened again by one step", async () => {
  let chosen = new Headers();
  const r = await releasedRun("Closing", async (v, { id, version }) => {
    chosen = (await v.patch(`/api/runs/${id}`, { version, accepted: { a: "seen" } })).headers;
  });
  const came = await r.arrives({ order: r.parts, unitCost: "0.05", item: r.offer, qty: 8 });
  await r.works({ started: 5, good: 4, scrapped: 1, minutes: 90 });
  const next = (await r.v.post("/api/runs", { revisionId: r.revisionId, name: "two", goodBoards: 5 }))
    .body as { id: string };
  const before = rollUp(((await r.v.get(`/api/runs/${next.id}`)).body as RunAnswer).document);
  const [lot] = await r.lots();
  const closed = await r.v.put(`/api/runs/${r.id}/closing`, {
    lesson: "R1 is turned",
    stays: { [lot!.id]: 2 },
    counted: [lot!.id],
  });
  expect(closed.status).toBe(204);
  // the bench tells which runs are put away
  const runs = ((await r.v.get("/api/bench")).body as BenchAnswer).runs;
  expect(runs.filter((x) => x.isClosed).map((x) => x.id)).toEqual([r.id]);
  expect(await r.lots()).toMatchObject([{ qty: 2, reserved: [] }]);
  const { record } = await r.read();
  // eight came, two were counted
  expect(record).toMatchObject({
    closedOn: expect.any(String),
    lesson: "R1 is turned",
    taken: { [lot!.id]: { pieces: 6, isCounted: true } },
  });
  const { document } = (await r.v.get(`/api/runs/${next.id}`)).body as RunAnswer;
  expect(document.past).toEqual([
    expect.objectContaining({
      name: "one",
      method: document.assembly.method,
      good: 4,
      scrapped: 1,
      minutes: 90,
    }),
  ]);
  expect(document.past![0]!.modelMinutes).toBeCloseTo((before.ownMinutes * 5) / before.start, 6);
  const after = rollUp(document);
  // twenty boards of the model, and four of five
  expect(after.yield.final).toBeCloseTo((20 * before.yield.final + 4) / 25, 9);
  expect(after.start).toBeGreaterThan(before.start);
  // the run itself was released without it, and stays so
  expect((await r.read()).document.past).toBeUndefined();
  expect((await r.works({ started: 1 })).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: expect.stringContaining("closed"),
  });
  expect(
    (await r.v.post(`/api/runs/${r.id}/remarks`, { stage: "build", text: "later thought" })).status,
  ).toBe(201);
  // what came can be taken back once the closing is, what was decided not even then
  expect((await r.undo(came.headers)).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: expect.stringMatching(/cannot be taken back: the run is closed\.$/),
    hint: "Take the closing back first.",
  });
  const stays = {
    code: "NOT_ALLOWED",
    message: expect.stringMatching(/cannot be taken back: what was ordered stays as it was\.$/),
    hint: "Start a new run to change something.",
  };
  expect((await r.undo(chosen)).body).toMatchObject(stays);
  expect((await r.undo(closed.headers)).status).toBe(200);
  expect((await r.undo(chosen)).body).toMatchObject(stays);
  expect(await r.lots()).toMatchObject([{ qty: 8, reserved: [{ qty: 8 }] }]);
  expect((await r.works({ started: 1 })).status).toBe(201);
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

test("a bare board's trial is kept with its delivery, by whoever is at the bench, and taken back", async () => {
  const r = await releasedRun("Bare");
  const item = r.document.boards[0]!.id;
  const { ids } = (await r.arrives({ qty: 5 })).body as { ids: string[] };
  const fault = { nets: ["GND", "VCC"], at: "J1.2 – J1.1", expect: "apart" } as const;
  const trial = { item, receipt: ids[0], label: "3", on: "2026-12-02", tried: 27, faults: [fault] };
  const path = `/api/runs/${r.id}/bare-tests`;
  const bench = await invite(server, r.v, "needle hand", "bench");
  const kept = await bench.post(path, trial);
  expect(kept.status).toBe(201);
  expect((await r.read()).record!.bareTests).toEqual([
    { ...trial, id: (kept.body as { id: string }).id, note: "", person: expect.any(String) },
  ]);
  const said = ((await r.v.get(`/api/history?run=${r.id}`)).body as HistoryAnswer).changes[0]!.sentence;
  expect(said).toMatch(/ 3 tried bare: 1 of 27 do not hold$/);

  // a board the run does not have, a delivery that is not its own, a trial of nothing
  expect((await bench.post(path, { ...trial, item: r.id })).body).toMatchObject({ code: "NOT_FOUND" });
  expect((await bench.post(path, { ...trial, receipt: r.id })).body).toMatchObject({
    message: "That delivery holds no such boards.",
  });
  expect((await bench.post(path, { ...trial, tried: 0 })).status).toBe(422);
  expect((await bench.post(path, { ...trial, label: " " })).status).toBe(422);

  // what came did not come after all: the trial stays, and comes back to its delivery with it
  const gone = await r.v.call("DELETE", `/api/receipts/${ids[0]}`);
  expect((await r.read()).record!.bareTests![0]).not.toHaveProperty("receipt");
  expect((await r.undo(gone.headers)).status).toBe(200);
  expect((await r.read()).record!.bareTests![0]).toMatchObject({ receipt: ids[0], label: "3" });
  expect((await r.undo(kept.headers, bench)).status).toBe(200);
  expect((await r.read()).record).not.toHaveProperty("bareTests");
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
