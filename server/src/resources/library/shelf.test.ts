import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FoundRow, LotRow, PartsAnswer } from "@kobbin/contract";
import { bagCode, type LotMove, type Low } from "@kobbin/core";
import pg from "pg";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function shelf(name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const put = async (mpn: string, qty: number, place = "") =>
    (
      (await v.post("/api/lots", { mpn, qty, place, unitCost: "0.10", currency: "EUR" })).body as {
        id: string;
      }
    ).id;
  const lots = async () => (await v.get("/api/lots")).body as LotRow[];
  const one = async (id: string) => (await lots()).find((l) => l.id === id)!;
  const moves = async (id: string) => (await v.get(`/api/lots/${id}/moves`)).body as LotMove[];
  const undo = (h: Headers) => v.post(`/api/changes/${h.get("X-Change")}/undo`);
  return { v, put, lots, one, moves, undo };
}

test("each lot has a number in its shop that is never given twice, whatever becomes of it, and is found by its label", async () => {
  const { v, put, lots, one, undo } = await shelf("Bags");
  const [a, b] = [await put("A-1", 5, "drawer 1"), await put("B-1", 6)];
  expect([(await one(a)).number, (await one(b)).number]).toEqual([1, 2]);
  const gone = await v.call("DELETE", `/api/lots/${b}`);
  const c = await put("C-1", 7);
  expect((await one(c)).number).toBe(3);
  expect((await undo(gone.headers)).status).toBe(200);
  expect((await one(b)).number).toBe(2);
  // many at once, and another shop counts for itself
  await Promise.all(Array.from({ length: 8 }, (_, i) => put(`D-${i}`, 1)));
  expect((await lots()).map((l) => l.number).sort((x, y) => x - y)).toEqual([
    1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11,
  ]);
  const other = await shelf("Other bags");
  expect((await other.one(await other.put("Z-1", 1))).number).toBe(1);
  const found = async (by: Visitor, q: string) =>
    ((await by.get(`/api/find?q=${encodeURIComponent(q)}`)).body as FoundRow[]).filter(
      (f) => f.kind === "lot",
    );
  expect(await found(v, bagCode(1).toLowerCase())).toEqual([
    expect.objectContaining({
      text: `${bagCode(1)} A-1`,
      more: "5 on the shelf, drawer 1",
      to: `/shelf?lot=${a}`,
    }),
  ]);
  expect((await found(other.v, bagCode(1))).map((f) => f.text)).toEqual([`${bagCode(1)} Z-1`]);
  expect([await found(v, bagCode(400)), await found(v, "A-1")]).toEqual([[], []]);
});

test("lots are counted in one go: what differs moves with its reason, all or nothing, and what moved meanwhile is told", async () => {
  const { v, put, one, moves, undo } = await shelf("Counting");
  const [a, b] = [await put("A-1", 50, "drawer 1"), await put("B-1", 20, "drawer 1")];
  const counted = async (qa: number, qb: number, more = {}) => ({
    counts: [
      { id: a, version: (await one(a)).version, qty: qa },
      { id: b, version: (await one(b)).version, qty: qb },
    ],
    ...more,
  });
  const done = await v.post(
    "/api/lots/count",
    await counted(47, 20, { place: "drawer 1", because: "yearly" }),
  );
  expect([done.status, done.body]).toEqual([200, { differ: 1 }]);
  expect([(await one(a)).qty, (await one(b)).qty]).toEqual([47, 20]);
  const of = (list: LotMove[]) => list.map((m) => [m.by, m.left, m.because]);
  const yearly = "2 lots counted in drawer 1: 1 otherwise than written, yearly";
  expect(of(await moves(a))).toEqual([
    [-3, 47, yearly],
    [50, 50, "50 × A-1 put on the shelf, drawer 1"],
  ]);
  // of what was as written nothing moved
  expect(of(await moves(b))).toEqual([[20, 20, expect.stringContaining("put on the shelf")]]);
  // somebody took pieces while another counted: nothing of it is kept, and both numbers are told
  const late = await counted(40, 19);
  await v.patch(`/api/lots/${b}`, { version: (await one(b)).version, qty: 12 });
  const stale = await v.post("/api/lots/count", late);
  expect([stale.status, (stale.body as { code: string }).code]).toEqual([409, "STALE_VERSION"]);
  expect([(await one(a)).qty, (await one(b)).qty]).toEqual([47, 12]);
  // taken back it is as before, and that is a move too
  await undo(done.headers);
  expect(of(await moves(a)).map(([by, left]) => [by, left])).toEqual([
    [3, 50],
    [-3, 47],
    [50, 50],
  ]);
  for (const [wrong, status] of [
    [{ counts: [] }, 422],
    [{ counts: [{ id: a, version: 1, qty: -1 }] }, 422],
    [{ counts: [{ id: a, version: 1 }] }, 422],
    [{ counts: [{ id: "0f0f0f0f-0000-4000-8000-00000000abcd", version: 1, qty: 1 }] }, 404],
  ] as const)
    expect([(await v.post("/api/lots/count", wrong)).status, wrong]).toEqual([status, wrong]);
  const stranger = await shelf("Counting stranger");
  expect((await stranger.v.post("/api/lots/count", late)).status).toBe(404);
  expect((await stranger.v.get(`/api/lots/${a}/moves`)).status).toBe(404);
});

test("what came and what a closed run took are moves of the lot", async () => {
  const { v, id, offer, parts, lots } = await releasedRun(server, "Moves");
  await v.post(`/api/runs/${id}/receipts`, {
    order: parts,
    arrivedOn: "2026-12-01",
    items: [{ item: offer, qty: 9, unitCost: "0.1" }],
  });
  const [lot] = await lots();
  await v.put(`/api/runs/${id}/closing`, { lesson: "", stays: { [lot!.id]: 4 } });
  const moves = (await v.get(`/api/lots/${lot!.id}/moves`)).body as LotMove[];
  expect(moves.map((m) => [m.by, m.left])).toEqual([
    [-5, 4],
    [9, 9],
  ]);
});

test("what is to lie on the shelf is told when fewer are free: reserved and locked pieces are none", async () => {
  const { v, put, one } = await shelf("Least");
  const { ids } = (await v.post("/api/parts", { parts: [{ mpn: "A-1" }, { mpn: "B-1" }, { mpn: "C-1" }] }))
    .body as { ids: string[] };
  const least = (i: number, keepLeast: number | null) => v.patch(`/api/parts/${ids[i]}`, { keepLeast });
  const low = async () =>
    ((await v.get("/api/low")).body as Low[]).map((l) => [l.mpn, l.here, l.free, l.order]);
  for (const i of [0, 1]) expect((await least(i, 10)).status).toBe(204);
  expect(await low()).toEqual([
    ["A-1", 0, 0, 10],
    ["B-1", 0, 0, 10],
  ]);
  // written another way it is the same number
  const [a, more] = [await put("a-1", 6), await put("A-1", 4)];
  expect(await low()).toEqual([["B-1", 0, 0, 10]]);
  await v.patch(`/api/lots/${more}`, { version: (await one(more)).version, condition: "quarantine" });
  expect(await low()).toEqual([
    ["B-1", 0, 0, 10],
    ["A-1", 6, 6, 4],
  ]);
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 2 })).body as {
    id: string;
  };
  await v.put(`/api/runs/${id}/reservations`, { lotId: a, qty: 5 });
  expect((await low()).at(-1)).toEqual(["A-1", 6, 1, 9]);
  for (const wrong of [-1, "10"]) expect((await least(2, wrong as number)).status).toBe(422);
  await least(0, null);
  await least(1, 0);
  expect(await low()).toEqual([]);
});

test("lots that lay there before are numbered, of every shop, in the order they came", async () => {
  const { put, lots } = await shelf("Before");
  for (const mpn of ["M-3", "M-1", "M-2"]) await put(mpn, 1);
  const before = await lots();
  const owner = new pg.Client({ connectionString: server.ownerUrl });
  await owner.connect();
  try {
    await owner.query(`begin;
      drop trigger number_lot on lot; drop function number_lot(); alter table lot drop column number;
      drop table lot_counter; alter table part drop column keep_least`);
    await owner.query(readFileSync(new URL("../../../migrations/0040_bags.sql", import.meta.url), "utf8"));
    await owner.query("alter table lot no force row level security");
    const { rows } = await owner.query<{ mpn: string; number: number; version: number }>(
      "select mpn, number, version from lot where id = any($1) order by number",
      [before.map((l) => l.id)],
    );
    expect(rows).toEqual(["M-1", "M-2", "M-3"].map((mpn, i) => ({ mpn, number: i + 1, version: 1 })));
    const { rows: shops } = await owner.query<{ all: boolean }>(
      "select bool_and(number is not null) as all, count(distinct workshop_id) > 1 as several from lot",
    );
    expect(shops).toEqual([{ all: true, several: true }]);
  } finally {
    await owner.query("rollback");
    await owner.end();
  }
});

test("a dry bag is opened and closed, each once however often it is said; what cannot have happened is refused", async () => {
  const { v, put, one, undo } = await shelf("Dry bags");
  await v.post("/api/parts", { parts: [{ mpn: "M-3" }, { mpn: "M-1" }] });
  for (const [mpn, moisture] of [
    ["M-3", "3"],
    ["M-1", "1"],
  ] as const) {
    const { parts } = (await v.get("/api/parts")).body as PartsAnswer;
    const part = parts.find((p) => p.mpn === mpn)!;
    await v.patch(`/api/parts/${part.id}`, { version: part.version, moisture });
  }
  const id = await put("m-3", 20);
  const say = (body: object, lot = id) => v.post(`/api/lots/${lot}/air`, body);
  expect(await one(id)).toMatchObject({ moisture: "3" });
  const ago = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
  expect((await say({ is: "dry", at: ago(300) })).status).toBe(204);
  // two phones at once
  const both = await Promise.all([say({ is: "out", at: ago(200) }), say({ is: "out", at: ago(199) })]);
  expect(both.map((a) => a.status)).toEqual([204, 204]);
  const events = async () => (await one(id)).air!.events.map((e) => e.is);
  expect(await events()).toEqual(["dry", "out"]);
  expect((await say({ floorHours: 72 })).status).toBe(204);
  expect((await one(id)).air).toMatchObject({ floorHours: 72 });
  for (const wrong of [
    { is: "damp" },
    { is: "plain" },
    { is: "dry", at: ago(250) },
    { is: "dry", at: ago(-10) },
    { is: "dry", at: "2026-11-24" },
    { is: "dry", at: "2026-11-24T08:00:00+05:00" },
    { is: "lost" },
    { floorHours: 0 },
    {},
  ])
    expect([wrong, (await say(wrong)).status]).toEqual([wrong, 422]);
  expect(await events()).toEqual(["dry", "out"]);
  const dried = await say({ is: "dry" });
  expect(await events()).toEqual(["dry", "out", "dry"]);
  expect((await undo(dried.headers)).status).toBe(200);
  expect(await events()).toEqual(["dry", "out"]);
  expect((await say({ floorHours: null })).status).toBe(204);
  expect((await one(id)).air!.floorHours).toBeUndefined();
  expect((await say({ is: "out" }, await put("M-1", 5))).status).toBe(422);
});

test("a lot keeps the date code that came with it; it is said otherwise, taken away, found, and undone", async () => {
  const { v, id: run, offer, parts, lots, undo } = await releasedRun(server, "Dates");
  const one = async (id: string) => (await lots()).find((l) => l.id === id)!;
  const came = (made: string) =>
    v.post(`/api/runs/${run}/receipts`, {
      order: parts,
      arrivedOn: "2026-12-02",
      items: [{ item: offer, qty: 1, unitCost: "0.10", made }],
    });
  expect((await came("2".repeat(21))).status).toBe(422);
  expect((await came(" 2639 ")).status).toBe(201);
  const [lot] = await lots();
  expect(lot!.made).toBe("2639");
  const said = async (made: string | null) =>
    v.patch(`/api/lots/${lot!.id}`, { version: (await one(lot!.id)).version, made });
  expect((await said("  ")).status).toBe(422);
  const gone = await said(null);
  expect((await one(lot!.id)).made).toBeUndefined();
  expect((await undo(gone.headers)).status).toBe(200);
  expect((await one(lot!.id)).made).toBe("2639");
  // what says nothing of it leaves it as it is
  await v.patch(`/api/lots/${lot!.id}`, { version: (await one(lot!.id)).version, place: "drawer 2" });
  expect(await one(lot!.id)).toMatchObject({ made: "2639", place: "drawer 2" });
});

test("no figure of a run stands on a dry bag or a date code; on the pieces of a lot they do", async () => {
  // nobody takes what is due away
  const web = await startServer({ role: "web" });
  try {
    const v = new Visitor(web);
    await v.startShop("Bags and figures");
    const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
    await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 });
    const lot = { mpn: "M-3", qty: 20, currency: "EUR" };
    const { id } = (await v.post("/api/lots", lot)).body as { id: string };
    const due = async () => {
      const { rowCount } = await web.owner.query("delete from figures_due returning run_id");
      return rowCount;
    };
    await due();
    expect((await v.post(`/api/lots/${id}/air`, { is: "out" })).status).toBe(204);
    expect(await due()).toBe(0);
    expect((await v.patch(`/api/lots/${id}`, { version: 2, made: "2639" })).status).toBe(204);
    expect(await due()).toBe(0);
    expect((await v.patch(`/api/lots/${id}`, { version: 3, qty: 5 })).status).toBe(204);
    expect(await due()).toBe(1);
  } finally {
    await web.close();
  }
});
