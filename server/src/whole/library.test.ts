import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, LotRow, PartAnswer, PartsAnswer, RunAnswer, UnknownPart } from "@kobbin/contract";
import { lineKey, rollUp } from "@kobbin/core";
import { demoArchive, startServer, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function shop(name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const drop = async (run: string) => {
    const kept = (await v.drop({ "probe-tail.zip": demoArchive("probe-tail") }, { name: run })).body as {
      revisionId: string;
    };
    const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: run, goodBoards: 40 }))
      .body as { id: string };
    return { id, read: async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer };
  };
  return { v, drop };
}
const lineWith = (a: RunAnswer) => a.document.lines.find((l) => l.mpn !== "" && l.refs.length > 0)!;

test("a substitute is proposed, priced, approved for one run, then for all, and known in another product", async () => {
  const { v, drop } = await shop("Substitute");
  const first = await drop("first");
  const second = await drop("second");
  const line = lineWith(await first.read());
  const unknown = (await v.get("/api/numbers")).body as UnknownPart[];
  const own = unknown.find((p) => p.mpn === line.mpn)!;
  expect(own.uses).toBe(2);
  const { ids } = (
    await v.post("/api/parts", {
      parts: [
        { mpn: own.mpn, kind: own.kind, package: own.package, params: own.params },
        { mpn: "HB-N20-77", maker: "Holloway", kind: own.kind, package: own.package, params: own.params },
      ],
    })
  ).body as { ids: string[] };
  const put = (state: string, runId?: string) =>
    v.put("/api/alternates", {
      original: lineKey(line),
      partId: ids[1],
      state,
      because: "tried on five boards",
      ...(runId ? { runId } : {}),
    });
  expect((await put("proposed", first.id)).status).toBe(200);
  await v.post(`/api/runs/${first.id}/ask`);
  await server.figures();
  const proposed = (await first.read()).document;
  const priced = proposed.offers.filter((o) => o.part === ids[1]);
  expect(priced.length).toBeGreaterThan(0);
  const needOf = (d: RunAnswer["document"]) => rollUp(d).needs.find((n) => n.lines.includes(line.id))!;
  // priced, but not bought before somebody approved it
  expect(needOf(proposed).offers.some((o) => o.part === ids[1])).toBe(false);
  await put("approved", first.id);
  const approved = (await first.read()).document;
  expect(approved.alternates).toMatchObject([
    { part: ids[1], state: "approved", because: "tried on five boards" },
  ]);
  expect((await second.read()).document.alternates).toMatchObject([{ state: "proposed", isElsewhere: true }]);
  await put("approved");
  expect((await second.read()).document.alternates).toMatchObject([
    { state: "approved", isForAllRuns: true },
  ]);
  // taken back, it is approved for the one run only again
  const back = (await put("refused", first.id)).headers.get("X-Change");
  expect((await first.read()).document.alternates).toMatchObject([{ state: "refused" }]);
  await v.post(`/api/changes/${back}/undo`);
  expect((await first.read()).document.alternates).toMatchObject([{ state: "approved" }]);
});

test("a part found bad in one product blocks every run that has it, until it is cleared", async () => {
  const { v, drop } = await shop("Suspicion");
  const first = await drop("first");
  const second = await drop("second");
  const line = lineWith(await first.read());
  const { ids } = (await v.post("/api/parts", { parts: [{ mpn: line.mpn.toLowerCase() }] })).body as {
    ids: string[];
  };
  await v.patch(`/api/parts/${ids[0]}`, { suspectBecause: "cracks after reflow" });
  await server.figures();
  for (const run of [first, second]) {
    const a = await run.read();
    expect(rollUp(a.document).blockers.map((b) => b.key)).toContain(`part-suspect ${line.mpn.toUpperCase()}`);
    expect(a.summary!.blockers).toBe(rollUp(a.document).blockers.length);
  }
  const { uses } = (await v.get(`/api/parts/${ids[0]}`)).body as PartAnswer;
  expect(uses.map((u) => [u.product, u.runs.map((r) => r.id)])).toEqual([
    ["first", [first.id]],
    ["second", [second.id]],
  ]);
  await v.patch(`/api/parts/${ids[0]}`, { suspectBecause: "" });
  expect(rollUp((await second.read()).document).blockers.map((b) => b.key)).not.toContain(
    `part-suspect ${line.mpn.toUpperCase()}`,
  );
});

test("a lot is free for one run only as far as no other reserved it", async () => {
  const { v, drop } = await shop("Shelf");
  const first = await drop("first");
  const second = await drop("second");
  const line = lineWith(await first.read());
  const { id: lotId } = (
    await v.post("/api/lots", {
      mpn: line.mpn,
      qty: 50,
      place: "drawer 3",
      unitCost: "0.02",
      currency: "EUR",
    })
  ).body as { id: string };
  const free = async (run: typeof first) => (await run.read()).document.lots?.map((l) => l.qty);
  expect([await free(first), await free(second)]).toEqual([[50], [50]]);
  // both take it, nobody reserved it: each is told of the other, under its product's run
  await server.figures();
  const alsoIn = async (run: typeof first) => (await run.read()).document.lots?.[0]?.alsoIn;
  const taken = rollUp((await first.read()).document).needs.flatMap((n) => n.shelf)[0]!.qty;
  expect(taken).toBeGreaterThan(0);
  expect(await alsoIn(second)).toEqual([{ run: expect.any(String), qty: taken }]);
  expect(rollUp((await second.read()).document).notes.map((n) => n.key.split(" ")[0])).toContain(
    "shelf-twice",
  );
  expect((await v.put(`/api/runs/${first.id}/reservations`, { lotId, qty: 30 })).status).toBe(204);
  expect(await alsoIn(second)).toBeUndefined();
  expect([await free(first), await free(second)]).toEqual([[50], [20]]);
  const tooMany = await v.put(`/api/runs/${second.id}/reservations`, { lotId, qty: 21 });
  expect([tooMany.status, (tooMany.body as { message: string }).message]).toEqual([
    422,
    `20 of ${line.mpn} are free in this lot, not 21.`,
  ]);
  // giving one's own free leaves what another has
  expect((await v.put(`/api/runs/${second.id}/reservations`, { lotId, qty: 20 })).status).toBe(204);
  expect((await v.put(`/api/runs/${first.id}/reservations`, { lotId, qty: 0 })).status).toBe(204);
  const reserved = ((await v.get("/api/lots")).body as LotRow[])[0]!.reserved;
  expect(reserved.map((x) => x.qty)).toEqual([20]);
  await v.put(`/api/runs/${second.id}/reservations`, { lotId, qty: 0 });
  await v.put(`/api/runs/${first.id}/reservations`, { lotId, qty: 30 });
  // two at once cannot both have the rest
  const both = await Promise.all(
    [first, second].map((r) => v.put(`/api/runs/${r.id}/reservations`, { lotId, qty: 40 })),
  );
  expect(both.map((b) => b.status).sort()).toEqual([204, 422]);
  const [lot] = (await v.get("/api/lots")).body as LotRow[];
  expect(lot!.reserved.reduce((n, r) => n + r.qty, 0)).toBeLessThanOrEqual(50);
});

test("a supplier that fails at first is asked again and its answer kept; a lost worker's question is not lost", async () => {
  const { v, drop } = await shop("Retry");
  const run = await drop("first");
  server.failing.add("brindle");
  await v.post(`/api/runs/${run.id}/ask`);
  const asks = async () => ((await v.get(`/api/runs/${run.id}/asks`)).body as AskAnswer).asks;
  for (let i = 0; i < 100 && !(await asks()).some((a) => a.tries >= 2); i++)
    await new Promise((done) => setTimeout(done, 10));
  server.failing.delete("brindle");
  await server.figures();
  const found = await asks();
  expect(found.map((a) => a.state)).toEqual(Array(4).fill("answered"));
  expect(found.find((a) => a.supplier.startsWith("Brindle"))!.tries).toBeGreaterThan(1);
  // taken up by a worker that went: found again when its time is over
  await server.owner.query(
    "update feed_ask set state = 'asking', since = now() - interval '1 hour' where run_id = $1",
    [run.id],
  );
  await server.owner.query("insert into feed_due select id, workshop_id from feed_ask where run_id = $1", [
    run.id,
  ]);
  await server.figures();
  expect((await asks()).map((a) => a.state)).toEqual(Array(4).fill("answered"));
});

test("what an order costs beside its goods is stored with the supplier and counted", async () => {
  const { v, drop } = await shop("Terms");
  const run = await drop("first");
  const { document } = await run.read();
  const supplier = document.suppliers[0]!;
  const patch = (body: object) => v.patch(`/api/suppliers/${supplier.id}`, { version: 1, ...body });
  expect((await patch({ smallOrderFee: "3" })).status).toBe(422);
  expect(
    (await patch({ smallOrderBelow: "25", smallOrderFee: "3", handling: "1.5", dutyRate: 0.037 })).status,
  ).toBe(204);
  const line = document.lines.find((l) => l.refs.length > 0)!;
  await v.post(`/api/lines/${line.id}/offers`, {
    supplierId: supplier.id,
    stock: 100_000,
    currency: supplier.currency,
    breaks: [{ qty: 1, price: "0.01" }],
  });
  const after = (await run.read()).document;
  expect(after.suppliers.find((s) => s.id === supplier.id)).toMatchObject({
    smallOrder: { below: "25.00", fee: "3.00" },
    handling: "1.50",
    dutyRate: 0.037,
  });
  const { basket } = rollUp(after);
  const goods = basket.partsOf[supplier.id]!;
  expect(basket.shippingOf[supplier.id]).toBe((Number(supplier.shipping) + 3 + 1.5) * 1e6);
  expect(basket.duty).toBe(Math.round(goods * 0.037));
});

test("what was measured on a lot stays with it, dated, can be taken back, and nonsense is refused", async () => {
  const { v } = await shop("Samples");
  await v.post("/api/lots", { mpn: "OX-1", qty: 50, currency: "EUR" });
  const lot = async () => ((await v.get("/api/lots")).body as LotRow[])[0]!;
  const { id, version } = await lot();
  const sample = { parameter: "resistance", low: "4.6k", high: "4.8k", readings: ["4.68k", "4.71k"] };
  const done = await v.patch(`/api/lots/${id}`, { version, sample });
  expect(done.status).toBe(204);
  expect((await lot()).sample).toEqual({ ...sample, on: expect.stringMatching(/^\d{4}-\d{2}-\d{2}$/) });
  for (const bad of [{ ...sample, readings: [] }, { ...sample, parameter: " " }, { readings: ["1"] }])
    expect((await v.patch(`/api/lots/${id}`, { version: version + 1, sample: bad })).status).toBe(422);
  expect((await v.post(`/api/changes/${done.headers.get("X-Change")}/undo`)).status).toBeLessThan(300);
  expect((await lot()).sample).toBeUndefined();
});

test("parts are found by every word, else by what comes near; nobody finds another shop's", async () => {
  const { v } = await shop("Finds");
  const other = await shop("Finds nothing");
  await v.post("/api/parts", {
    parts: [
      { mpn: "OX-R0603-10k", maker: "Oxbow", kind: "resistor", package: "0603" },
      { mpn: "OX-R0805-10k", maker: "Oxbow", kind: "resistor", package: "0805" },
      { mpn: "TB-TH11-23", maker: "Tarnbeck", kind: "chip", description: "temperature sensor 100%_sure" },
    ],
  });
  const find = async (q: string, who = v) => {
    const a = (await who.get(`/api/parts?q=${encodeURIComponent(q)}`)).body as PartsAnswer;
    return [a.isNear, a.parts.map((p) => p.mpn)];
  };
  expect(await find("0603 oxbow")).toEqual([false, ["OX-R0603-10k"]]);
  expect(await find("resistor")).toEqual([false, ["OX-R0603-10k", "OX-R0805-10k"]]);
  // one typing error
  expect(await find("temprature")).toEqual([true, ["TB-TH11-23"]]);
  // a word typed wrong beside one typed right; where they name no part together, what the right one names
  expect(await find("temprature tarnbeck")).toEqual([true, ["TB-TH11-23"]]);
  expect(await find("resitor 0805")).toEqual([true, ["OX-R0805-10k"]]);
  expect(await find("resitor TH11")).toEqual([true, ["TB-TH11-23"]]);
  // signs of patterns are letters like others
  expect(await find("100%_s")).toEqual([false, ["TB-TH11-23"]]);
  expect(await find("%")).toEqual([false, ["TB-TH11-23"]]);
  // a list shows sixty rows; who wants others types a word more
  const many = Array.from({ length: 61 }, (_, i) => ({ mpn: `MANY-${i}`, maker: "Manifold" }));
  await v.post("/api/parts", { parts: many });
  expect((await find("manifold"))[1]).toHaveLength(60);
  expect(await find("oxbow", other.v)).toEqual([false, []]);
  expect(await find("temprature", other.v)).toEqual([false, []]);
});

test("an answer there is no room for is no fault of the supplier's: the question stays and is answered later", async () => {
  const { v, drop } = await shop("Storing");
  const run = await drop("first");
  const { owner } = server;
  await owner.query(
    "create function refuse_offers() returns trigger language plpgsql as $$ begin raise exception 'no room' using errcode = '53100'; end $$",
  );
  await owner.query(
    "create trigger refuse_offers before insert on offer for each row execute function refuse_offers()",
  );
  const asks = async () => ((await v.get(`/api/runs/${run.id}/asks`)).body as AskAnswer).asks;
  try {
    await v.post(`/api/runs/${run.id}/ask`);
    for (let i = 0; i < 100 && (await asks()).some((a) => a.tries === 0); i++)
      await new Promise((done) => setTimeout(done, 20));
    // asked more often than a supplier would be that fails, and not given up
    for (let i = 0; i < 30; i++) {
      expect((await asks()).map((a) => a.state)).not.toContain("failed");
      await new Promise((done) => setTimeout(done, 20));
    }
    expect((await asks()).map((a) => a.reason)).toContain(
      "The disk of the database is full; nothing was changed.",
    );
  } finally {
    await owner.query("drop trigger refuse_offers on offer");
    await owner.query("drop function refuse_offers()");
  }
  await server.figures();
  expect((await asks()).map((a) => a.state)).toEqual(Array(4).fill("answered"));
});

test("what decides when a part's turn is: kept, in the run's document, and taken back; a reason that is none is refused", async () => {
  const { v, drop } = await shop("Turns");
  const run = await drop("turns");
  const line = lineWith(await run.read());
  const { ids } = (await v.post("/api/parts", { parts: [{ mpn: line.mpn }] })).body as { ids: string[] };
  const url = `/api/parts/${ids[0]}`;
  const facts = { wettedMm2: 4.5, peakC: 235, fitAfter: "wash", opensOnce: true, covers: ["J1", "TP 2"] };
  expect((await v.patch(url, { version: 1, ...facts })).status).toBe(204);
  expect(((await v.get(url)).body as PartAnswer).part).toMatchObject(facts);
  const before = await run.read();
  expect(before.document.library!.find((p) => p.mpn === line.mpn)).toMatchObject(facts);
  expect(rollUp(before.document).minutes.cleaning).toBeGreaterThan(0);
  expect((await v.patch(url, { version: 2, fitAfter: "lunch" })).status).toBe(422);
  expect((await v.patch(url, { version: 2, covers: null, fitAfter: null, opensOnce: null })).status).toBe(
    204,
  );
  const { part } = (await v.get(url)).body as PartAnswer;
  expect([part.covers, part.fitAfter, part.opensOnce, part.peakC]).toEqual([
    undefined,
    undefined,
    undefined,
    235,
  ]);

  const { version } = before;
  const patched = await v.patch(`/api/runs/${run.id}`, {
    version,
    assembly: { programAt: ["J4"], heater: "oven", covers: { [line.id]: ["J4"] } },
    steps: { school: "cheap", own: [line.id] },
  });
  expect(patched.status).toBe(200);
  const after = (await run.read()).document;
  expect(after.assembly).toMatchObject({ programAt: ["J4"], heater: "oven", covers: { [line.id]: ["J4"] } });
  expect(after.choices.steps).toEqual({ school: "cheap", own: [line.id] });
  // the next run of the revision is built as the last one was, and a decision is taken back by nothing in its place
  const { revisionId } = (await v.get(`/api/runs/${run.id}`)).body as RunAnswer;
  const next = (await v.post("/api/runs", { revisionId, name: "next", goodBoards: 5 })).body as {
    id: string;
  };
  const begun = (await v.get(`/api/runs/${next.id}`)).body as RunAnswer;
  expect(begun.document.assembly).toMatchObject({ programAt: ["J4"], heater: "oven" });
  expect(begun.document.choices.steps).toEqual({ school: "cheap", own: [line.id] });
  await v.patch(`/api/runs/${next.id}`, { version: begun.version, assembly: { heater: null } });
  expect(((await v.get(`/api/runs/${next.id}`)).body as RunAnswer).document.assembly.heater).toBeUndefined();
});
