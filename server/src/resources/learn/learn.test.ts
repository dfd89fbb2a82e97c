import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer, LearnedAnswer, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import pg from "pg";
import { invite } from "../../../test/fixture.ts";
import { demoArchive, startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A shop with Kiln Watch A and a run of it. */
async function shop(name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const a = (await v.drop({ "kw.zip": demoArchive("kiln-watch-a") }, { name: "Kiln Watch" })).body as {
    productId: string;
    revisionId: string;
  };
  const run = async (revisionId: string) =>
    ((await v.post("/api/runs", { revisionId, name: "run", goodBoards: 10 })).body as { id: string }).id;
  const dropB = async () =>
    (
      (await v.drop({ "kw.zip": demoArchive("kiln-watch-b") }, { productId: a.productId, revision: "B" }))
        .body as { revisionId: string }
    ).revisionId;
  const learned = async () => (await v.get("/api/learned")).body as LearnedAnswer;
  /** Notes of a run whose key begins so, as the page works them out. */
  const notes = async (id: string, key: string) => {
    const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
    return rollUp(document).notes.filter((n) => n.key.startsWith(key));
  };
  return { v, ...a, run, dropB, learned, notes };
}
/** Asks again until something is so: figures and files are read in the background. */
async function until<T>(ask: () => Promise<T>, is: (t: T) => boolean): Promise<T> {
  for (;;) {
    const t = await ask();
    if (is(t)) return t;
    await new Promise((done) => setTimeout(done, 50));
  }
}

test("a lesson learned from one revision stops the next at import, is counted once, and is let off, cleared, taken back", async () => {
  const s = await shop("Learns");
  const lesson = {
    title: "every diode tells which way round it sits",
    check: { kind: "marked", letters: "D" },
    level: "error",
    came: "a defect of the spring run",
    since: "2026-03-01",
    revisionId: s.revisionId,
  };
  const { id } = (await s.v.post("/api/lessons", lesson)).body as { id: string };
  const revisionB = await s.dropB();
  const run = await s.run(revisionB);
  const [note] = await s.notes(run, `learned ${id}`);
  expect(note).toMatchObject({ level: "error", stage: "board", about: ["D2", "D3"] });
  expect(note!.text).toContain("Learned from a defect of the spring run (2026-03-01)");
  const caught = await until(s.learned, (l) => l.lessons[0]!.caught.length * l.lessons[0]!.runs.length > 0);
  expect(caught.lessons[0]).toMatchObject({
    id,
    level: "error",
    sure: "certain",
    caught: [{ product: "Kiln Watch", revision: "B", found: expect.stringContaining("D2, D3") }],
    runs: [
      { id: run, product: "Kiln Watch", revision: "B", is: "broken", found: expect.stringContaining("D2") },
    ],
  });
  expect(caught.uncounted).toBe(0);
  const bench = (await s.v.get("/api/bench")).body as BenchAnswer;
  expect(bench.runs[0]!.summary).not.toHaveProperty("lessons");
  const { changes } = (await s.v.get("/api/history")).body as HistoryAnswer;
  expect(changes[0]).toMatchObject({ person: "Kobbin", sentence: "Kiln Watch B: a lesson does not hold" });
  // counted anew, it is not caught again
  await s.v.patch(`/api/runs/${run}`, { version: 1, goodBoards: 12 });
  await until(s.learned, (l) => l.lessons[0]!.runs.length === 1);
  expect((await s.learned()).lessons[0]!.caught).toHaveLength(1);
  // what is accepted stays open, with the reason; what waits for an answer has not passed
  const { id: asked } = (
    await s.v.post("/api/lessons", { title: "ask", check: { kind: "asked" }, since: "2026-03-02" })
  ).body as { id: string };
  const version = async () => ((await s.v.get(`/api/runs/${run}`)).body as RunAnswer).version;
  const accepted = { [note!.key]: "tried on ten boards" };
  expect((await s.v.patch(`/api/runs/${run}`, { version: await version(), accepted })).status).toBe(200);
  const stands = async () =>
    Object.fromEntries((await s.learned()).lessons.map((l) => [l.id, l.runs.map((r) => [r.is, r.because])]));
  await until(stands, (x) => x[id]![0]?.[1] !== undefined && x[asked]!.length > 0);
  expect(await stands()).toEqual({
    [id]: [["broken", "tried on ten boards"]],
    [asked]: [["ask", undefined]],
  });
  await s.v.call("DELETE", `/api/lessons/${asked}`);
  await server.figures();
  // of a run that is listed to be counted, or was counted by one that held nothing against it, it is not known
  await server.owner.query("update fork set summary = summary - 'lessons' where run_id = $1", [run]);
  expect((await s.learned()).uncounted).toBe(1);
  const relaxed = [{ product: s.productId, because: "the sheet shows it" }];
  expect((await s.v.patch(`/api/lessons/${id}`, { relaxed })).status).toBe(204);
  expect(await s.notes(run, `learned ${id}`)).toEqual([]);
  await until(s.learned, (l) => l.lessons[0]!.runs.length === 0);
  await s.v.patch(`/api/lessons/${id}`, { relaxed: [], clearedOn: "2026-04-01", clearedBy: "marked since" });
  expect(await s.notes(run, `learned ${id}`)).toEqual([]);
  expect((await s.learned()).lessons[0]).toMatchObject({
    clearedOn: "2026-04-01",
    clearedBy: "marked since",
  });
  await s.v.patch(`/api/lessons/${id}`, { clearedOn: null });
  expect(await s.notes(run, `learned ${id}`)).toHaveLength(1);
  const removed = await s.v.call("DELETE", `/api/lessons/${id}`);
  expect((await s.learned()).lessons).toEqual([]);
  expect((await s.v.post(`/api/changes/${removed.headers.get("X-Change")}/undo`, {})).status).toBeLessThan(
    300,
  );
  // and what it caught is back with it
  expect((await s.learned()).lessons[0]!.caught).toHaveLength(1);
});

test("places of a lesson are read in the files, anew when it is another; bad ones are refused by name", async () => {
  const s = await shop("Reads");
  const run = await s.run(s.revisionId);
  const place = { kind: "place", what: "solder", side: "top", diameterMm: 0.3, pins: ["J1.1"] };
  const { id } = (
    await s.v.post("/api/lessons", { title: "J1 takes solder", check: place, since: "2026-03-01" })
  ).body as { id: string };
  const verdicts = async () => (await s.notes(run, `learned ${id}`)).map((n) => n.key.split(" ").at(-1));
  expect(await until(verdicts, (v) => v[0] !== "unknown")).toEqual([]);
  await s.v.patch(`/api/lessons/${id}`, { check: { ...place, what: "window" } });
  expect(await until(verdicts, (v) => v[0] === "broken")).toEqual(["broken"]);
  for (const bad of [
    { title: "x", check: { kind: "measure", key: "nothing", limit: 1 }, since: "2026-03-01" },
    { title: "x", check: { ...place, at: [1, 2] }, since: "2026-03-01" },
    {
      title: "x",
      check: {
        kind: "pattern",
        letters: "D",
        pins: ["1", "1"],
        at: [
          [0, 0],
          [1, 1],
        ],
      },
      since: "2026-03-01",
    },
    { title: "", check: { kind: "asked" }, since: "2026-03-01" },
    { title: "x", check: { kind: "asked" }, since: "yesterday" },
  ])
    expect([(await s.v.post("/api/lessons", bad)).status, bad]).toEqual([422, bad]);
});

test("an erratum stops the next revision until it is decided on; what is said to be mended and is as before is told", async () => {
  const s = await shop("Errs");
  const runA = await s.run(s.revisionId);
  const { document } = (await s.v.get(`/api/runs/${runA}`)).body as RunAnswer;
  const pinned = (m: (typeof document.boards)[number]["measure"]) =>
    m.nets!.islands!.flatMap((n) => n.pads).find((p) => p.pin === "U1.1")!;
  const erratum = {
    revisionId: s.revisionId,
    title: "U1 wants a wire to ground",
    effect: "It does not start in the cold",
    harm: "worse",
    spot: { ref: "U1.1", side: "top", diameterMm: 0.3 },
    way: "wire",
    workaround: "a wire from U1.1 to C5.1",
    minutes: 4,
    planned: "B",
    foundOn: "2026-03-01",
  };
  const { id } = (await s.v.post("/api/errata", erratum)).body as { id: string };
  const [known] = await s.notes(runA, "erratum");
  expect(known).toMatchObject({
    key: `erratum ${id} known`,
    level: "warning",
    at: { x: pinned(document.boards[0]!.measure).x },
    do: "On each board: a wire from U1.1 to C5.1.",
  });
  const revisionB = await s.dropB();
  const runB = await s.run(revisionB);
  const undecided = await until(
    () => s.notes(runB, "erratum"),
    ([n]) => !n?.text.includes("being read"),
  );
  expect(undecided[0]).toMatchObject({ key: `erratum ${id} undecided`, level: "error" });
  const decide = (is: string | null, revisionId = revisionB) =>
    s.v.call("PUT", `/api/errata/${id}/decision`, { revisionId, is, because: "seen", on: "2026-04-01" });
  expect((await decide("fixed", s.revisionId)).status).toBe(403);
  expect((await decide("gone")).status).toBe(204);
  expect(await s.notes(runB, "erratum")).toEqual([]);
  expect((await decide("fixed")).status).toBe(204);
  expect(undecided[0]!.text).toContain("Nothing is changed at its place.");
  expect((await s.notes(runB, "erratum")).map((n) => n.key)).toEqual([`erratum ${id} unchanged`]);
  expect((await decide("stays")).status).toBe(204);
  expect((await s.notes(runB, "erratum"))[0]!.text).toMatch(/^Known since A and left as it is \(seen\)/);
  expect((await decide(null)).status).toBe(204);
  expect((await s.notes(runB, "erratum"))[0]!.key).toBe(`erratum ${id} undecided`);
  // the slot was 1.6 mm wide and is 1.82: of a circle of 2.1 mm that is 87 and 94 % (a strip in a circle, by hand)
  const slot = { ...erratum, title: "slot", spot: { at: [6.5, 34], side: "top", diameterMm: 2.1 } };
  // and D4 has no pads at all in the files of A
  const gone = { ...erratum, title: "D4", spot: { ref: "D4", side: "top", diameterMm: 0.3 } };
  for (const e of [slot, gone]) await s.v.post("/api/errata", e);
  const told = await until(
    async () => (await s.notes(runB, "erratum")).map((n) => n.text),
    (l) => l.length === 3 && !l.some((t) => t.includes("being read")),
  );
  expect(told.find((t) => t.includes("slot"))).toMatch(/Changed at its place: Drilled 8[5-8] → 9[3-6] %\.$/);
  expect(told.find((t) => t.includes("D4"))).toContain("has no such place in its files");
});

test("a board that was built is reworked or given up, put right, taken back; the bench may; other shops see none of it", async () => {
  const v = new Visitor(server);
  await v.startShop("Reworks");
  const kept = (await v.drop(strangerFiles())).body as { productId: string; revisionId: string };
  const made = async (name: string) =>
    ((await v.post("/api/runs", { revisionId: kept.revisionId, name, goodBoards: 5 })).body as { id: string })
      .id;
  await made("open");
  const out = await made("out");
  const { document } = (await v.get(`/api/runs/${out}`)).body as RunAnswer;
  const breaks = [{ qty: 1, price: "0.05" }];
  const offer = { supplierId: document.suppliers[0]!.id, stock: 500, currency: "EUR", breaks };
  for (const l of document.lines) await v.post(`/api/lines/${l.id}/offers`, offer);
  const erratum = {
    revisionId: kept.revisionId,
    title: "slot too narrow",
    harm: "worse",
    spot: { side: "top", diameterMm: 1 },
    foundOn: "2026-03-01",
  };
  const { id } = (await v.post("/api/errata", erratum)).body as { id: string };
  // what is known of a revision is a caution, and does not stop its release
  expect((await v.post(`/api/runs/${out}/release`)).status).toBe(201);
  await v.post(`/api/runs/${out}/work`, { on: "2026-03-02", started: 5, good: 4, minutes: 5 });
  const bench = await invite(server, v, "Reworks bench", "bench");
  const rework = { runId: out, unit: 3, on: "2026-03-04", minutes: 5 };
  const put = async (more: object) => bench.call("PUT", `/api/errata/${id}/reworks`, { ...rework, ...more });
  const { id: one } = (await put({})).body as { id: string };
  await put({ isScrapped: true });
  await put({ unit: 1, minutes: undefined });
  const reworks = async () => ((await v.get("/api/learned")).body as LearnedAnswer).errata[0]!.reworks;
  // of a run that is still open nothing is built
  expect(await reworks()).toEqual([
    {
      runId: out,
      run: "out",
      revision: expect.any(String),
      good: 4,
      units: [
        { id: expect.any(String), unit: 1, isScrapped: false },
        { id: one, unit: 3, isScrapped: true, minutes: 5 },
      ],
    },
  ]);
  expect((await put({ unit: 0 })).status).toBe(422);
  expect((await bench.call("DELETE", `/api/reworks/${one}`)).status).toBe(204);
  expect((await reworks())[0]!.units.map((u) => u.unit)).toEqual([1]);
  // what it all cost: faults by their minutes, one of them without; a board given up has no price while lines lack one
  for (const [code, minutes] of [
    ["bridge", 4],
    ["bridge", undefined],
    ["wrong part", 6.5],
  ] as const)
    await bench.post(`/api/runs/${out}/defects`, {
      unit: 2,
      at: "U1",
      code,
      on: "2026-03-04",
      ...(minutes ? { minutes } : {}),
    });
  await bench.post(`/api/runs/${out}/defects`, {
    unit: 2,
    at: "U1",
    code: "cold",
    on: "2020-03-04",
    minutes: 99,
  });
  await v.post(`/api/runs/${out}/work`, { on: "2026-03-05", scrapped: 1 });
  const { mistakes } = await until(
    async () => (await v.get("/api/learned")).body as LearnedAnswer,
    (l) => l.mistakes.scrapped[0]?.perBoard !== undefined,
  );
  expect(mistakes).toEqual({
    since: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    faults: [
      { code: "bridge", n: 2, minutes: 4, untimed: 1 },
      { code: "wrong part", n: 1, minutes: 6.5, untimed: 0 },
    ],
    scrapped: [{ run: "out", boards: 1, perBoard: expect.any(Number) }],
    reworked: { n: 1, minutes: 0, untimed: 1 },
    claims: 0,
    common: { runs: 0, closed: 0, factors: [] },
  });
  expect((await bench.call("DELETE", `/api/errata/${id}`)).status).toBe(403);
  const elsewhere = (await v.drop({ "kw.zip": demoArchive("rack-card") }, { name: "Card" })).body as {
    revisionId: string;
  };
  const { id: foreign } = (
    await v.post("/api/runs", { revisionId: elsewhere.revisionId, name: "card", goodBoards: 5 })
  ).body as { id: string };
  expect((await put({ runId: foreign })).status).toBe(403);
  const other = new Visitor(server);
  await other.startShop("Elsewhere");
  expect((await other.get("/api/learned")).body).toMatchObject({
    lessons: [],
    errata: [],
    products: [],
    mistakes: { faults: [], scrapped: [] },
  });
  expect((await other.call("PUT", `/api/errata/${id}/reworks`, rework)).status).toBe(404);
  expect((await other.post("/api/errata", erratum)).status).toBe(404);
  expect(
    (
      await other.post("/api/lessons", {
        title: "x",
        check: { kind: "asked" },
        since: "2026-03-01",
        revisionId: kept.revisionId,
      })
    ).status,
  ).toBe(404);
});

test("what was built of a doubted part, house or lot is found: by its number as it was released, by what came of it", async () => {
  const v = new Visitor(server);
  await v.startShop("Recalls");
  const kept = (await v.drop(strangerFiles())).body as { revisionId: string };
  const made = async (name: string) =>
    ((await v.post("/api/runs", { revisionId: kept.revisionId, name, goodBoards: 5 })).body as { id: string })
      .id;
  const [first, second] = [await made("first"), await made("second")];
  const read = async (id: string) => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
  const [line, ...others] = (await read(first)).lines;
  const supplierId = (await read(first)).suppliers[0]!.id;
  const offer = { supplierId, stock: 500, currency: "EUR", breaks: [{ qty: 1, price: "0.05" }] };
  await v.patch(`/api/lines/${line!.id}`, { mpn: "Xy 140" });
  const { id: bought } = (await v.post(`/api/lines/${line!.id}/offers`, offer)).body as { id: string };
  for (const l of others) await v.post(`/api/lines/${l.id}/offers`, offer);
  expect((await v.post(`/api/runs/${first}/release`)).status).toBe(201);
  // what the bill says afterwards changes nothing of what was released; the second run takes another part
  await v.patch(`/api/lines/${line!.id}`, { mpn: "OTHER" });
  expect((await v.post(`/api/runs/${second}/release`)).status).toBe(201);
  await v.post(`/api/runs/${first}/work`, { on: "2026-03-02", started: 6, good: 5, minutes: 5 });
  const order = `parts ${supplierId}`;
  const receipt = { order, arrivedOn: "2026-03-01", items: [{ item: bought, qty: 40, unitCost: "0.05" }] };
  await v.post(`/api/runs/${first}/receipts`, receipt);
  const lot = (
    await server.owner.query<{ id: string }>("select lot_id as id from receipt where run_id = $1", [first])
  ).rows[0]!.id;
  const house = (await read(first)).house!.id;
  const doubt = async (check: object) =>
    (
      (await v.post("/api/lessons", { title: "doubt", check, sure: "suspected", since: "2026-03-05" }))
        .body as { id: string }
    ).id;
  const ids = {
    part: await doubt({ kind: "part", mpn: "xy140" }),
    later: await doubt({ kind: "part", mpn: "OTHER" }),
    none: await doubt({ kind: "part", mpn: "NEVER" }),
    lot: await doubt({ kind: "lot", id: lot, name: "bag" }),
    weeks: await doubt({ kind: "part", mpn: "xy140", made: { from: "2025-09-29", to: "2025-11-09" } }),
    house: await doubt({ kind: "house", id: house, name: "house" }),
  };
  // boards that went through a heater, by the name it had then and by the one it has now; a step of all boards is no board
  const { id: oven } = (await v.post("/api/equipment", { kind: "oven", name: "Big oven" })).body as {
    id: string;
  };
  for (const [unit, heater] of [
    [0, "Big oven"],
    [2, "Old oven"],
    [3, "Big oven"],
    [3, "Big oven"],
    [4, "Plate"],
  ] as const)
    await v.put(`/api/runs/${first}/sittings`, {
      unit,
      step: 5,
      marks: {},
      lost: {},
      minutes: {},
      isDone: true,
      used: { heater },
    });
  const machine = await doubt({ kind: "machine", id: oven, name: "Old oven" });
  const hands = await doubt({ kind: "machine", id: oven, name: "Old oven", person: "somebody else" });
  const { lessons } = (await v.get("/api/learned")).body as LearnedAnswer;
  expect(lessons.find((l) => l.id === machine)!.built).toMatchObject([{ run: "first", begun: 6, units: 2 }]);
  expect(lessons.find((l) => l.id === hands)!.built).toEqual([]);
  expect(lessons.find((l) => l.id === ids.lot)!.built[0]).not.toHaveProperty("units");
  const built = (id: string) =>
    lessons.find((l) => l.id === id)!.built.map((b) => [b.run, b.begun, b.good, b.places]);
  expect(built(ids.part)).toEqual([["first", 6, 5, ["40 came", ...line!.refs].sort()]]);
  // of a part that is doubted in some weeks each bag tells by its date code: missing, within, outside
  const bags = async () =>
    ((await v.get("/api/learned")).body as LearnedAnswer).lessons
      .find((l) => l.id === ids.weeks)!
      .built.map((b) => [b.run, b.bags]);
  expect(await bags()).toEqual([["first", [{ code: "", was: "not known" }]]]);
  for (const [code, was] of [
    ["2541", "within"],
    ["2520", "outside"],
  ]) {
    await server.owner.query(
      "with quiet as (select set_config('app.change', 'off', true)) update lot set made = $2 from quiet where id = $1",
      [lot, code],
    );
    expect(await bags()).toEqual([["first", [{ code, was }]]]);
  }
  expect(built(ids.weeks)).toEqual(built(ids.part));
  // a stretch that is none is refused
  for (const made of [{}, { from: "2025-11-09", to: "2025-09-29" }, { from: "soon" }])
    expect(
      (
        await v.post("/api/lessons", {
          title: "x",
          check: { kind: "part", mpn: "x", made },
          since: "2026-03-05",
        })
      ).status,
    ).toBe(422);
  expect(built(ids.later)).toEqual([["second", 0, 0, [...line!.refs].sort()]]);
  expect(built(ids.none)).toEqual([]);
  expect(built(ids.lot)).toEqual([["first", 6, 5, ["40 came"]]]);
  expect(built(ids.house).map(([run]) => run)).toEqual(["first", "second"]);
  // what was released before such lists were kept is filled in by those who own the tables, whatever shop it is of; and a
  // house places where only one side goes to it
  await server.owner.query("delete from release_use");
  const asOwner = new pg.Client({ connectionString: server.ownerUrl });
  await asOwner.connect();
  const sql = new URL("../../../migrations/0037_uses_by_way.sql", import.meta.url);
  await asOwner.query(`begin; ${readFileSync(sql, "utf8")}; commit`);
  await asOwner.end();
  const { lessons: filled } = (await v.get("/api/learned")).body as LearnedAnswer;
  const runsOf = (id: string) => filled.find((l) => l.id === id)!.built.map((b) => b.run);
  expect([runsOf(ids.later), runsOf(ids.house)]).toEqual([["second"], ["first", "second"]]);
  const usedBy = async (assembly: object) =>
    (
      await server.owner.query<{ places: string[] }>(
        `select u.places from release as r, uses_of_release(jsonb_populate_record(r, jsonb_build_object('document',
           r.document || jsonb_build_object('assembly', $2::jsonb)))) as u where r.run_id = $1 and u.key = 'placer'`,
        [first, JSON.stringify(assembly)],
      )
    ).rows.map((r) => r.places);
  const both = { method: "iron", house: "placer", foilHouse: "placer" };
  expect([
    await usedBy(both),
    await usedBy({ ...both, method: "house" }),
    await usedBy({ ...both, sides: { bottom: "house" } }),
    await usedBy({ ...both, ways: { any: "stencil" }, sides: null }),
  ]).toEqual([[], [["assembly"]], [["assembly"]], [["foil"]]]);
  // whose boards may have a piece of the lot: what came for a run, and what it took of it once it is closed
  const withLot = async () => (await v.get(`/api/lots/${lot}/boards`)).body;
  const boards = { run: "first", product: "Thing", revision: "A", begun: 6, good: 5, came: 40 };
  expect(await withLot()).toEqual([{ ...boards, runId: first, out: 0 }]);
  await v.put(`/api/runs/${first}/outs`, { units: [2, 4], on: "2026-03-04", towards: "a fair" });
  const closed = await v.put(`/api/runs/${first}/closing`, { stays: { [lot]: 13 } });
  const taken = { ...boards, runId: first, taken: 27, out: 2 };
  const closings = async () => ((await v.get("/api/learned")).body as LearnedAnswer).mistakes.common.closed;
  const closedOn = (on: string) =>
    server.owner.query(
      `with quiet as (select set_config('app.change', 'off', true))
       update closing set closed_on = $2 from quiet where run_id = $1`,
      [first, on],
    );
  const { rows: was } = await server.owner.query("select closed_on as on from closing where run_id = $1", [
    first,
  ]);
  expect(await closings()).toBe(1);
  await closedOn("2020-01-01");
  expect(await closings()).toBe(0);
  await closedOn(was[0].on);
  expect(await withLot()).toEqual([taken]);
  const refill = new pg.Client({ connectionString: server.ownerUrl });
  await refill.connect();
  await server.owner.query("delete from lot_taken");
  const fill = new URL("../../../migrations/0045_recall_filled.sql", import.meta.url);
  await refill.query(`begin; ${readFileSync(fill, "utf8")}; commit`);
  await refill.end();
  expect(await withLot()).toEqual([taken]);
  expect(
    ((await v.get("/api/learned")).body as LearnedAnswer).lessons.find((l) => l.id === ids.lot)!.built,
  ).toMatchObject([{ run: "first", places: ["27 taken", "40 came"] }]);
  await v.post(`/api/changes/${closed.headers.get("X-Change")}/undo`);
  expect(await withLot()).toEqual([{ ...boards, runId: first, out: 2 }]);
  const stranger = new Visitor(server);
  await stranger.startShop("Recalls elsewhere");
  expect((await stranger.get(`/api/lots/${lot}/boards`)).status).toBe(404);
  // one that was taken back is none of what was built
  await v.call("DELETE", `/api/runs/${second}/release`);
  const after = (await v.get("/api/learned")).body as LearnedAnswer;
  expect(after.lessons.find((l) => l.id === ids.later)!.built).toEqual([]);
});
