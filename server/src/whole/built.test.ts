import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { invite } from "../../test/fixture.ts";
import { startServer, type TestServer } from "../../test/kit.ts";
import { releasedRun as runIn } from "../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.closeUnentangled());
const releasedRun = (name: string, before?: Parameters<typeof runIn>[2]) => runIn(server, name, before);

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
    message: "3 good and 0 scrapped are 3 boards, but 2 were started.",
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
  // of a lot the run has nothing to do with it says nothing
  const { id: foreign } = (await r.v.post("/api/lots", { mpn: "OTHER-1", qty: 70, currency: "EUR" }))
    .body as { id: string };
  expect((await r.v.put(`/api/runs/${r.id}/closing`, { stays: { [foreign]: 2 } })).body).toMatchObject({
    message: "The run took nothing of that lot.",
  });
  expect((await r.lots())[0]).toMatchObject({ id: foreign, qty: 70 });
  await r.v.call("DELETE", `/api/lots/${foreign}`);
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

test("what a run counts on is told to others until it is closed", async () => {
  const r = await releasedRun("Counts no more", async (v, { document }) => {
    await v.post("/api/lots", { mpn: document.lines[0]!.mpn, qty: 50, unitCost: "0.02", currency: "EUR" });
  });
  const next = (await r.v.post("/api/runs", { revisionId: r.revisionId, name: "two", goodBoards: 5 }))
    .body as { id: string };
  await server.figures();
  const alsoIn = async () =>
    ((await r.v.get(`/api/runs/${next.id}`)).body as RunAnswer).document.lots!.map((l) => l.alsoIn);
  expect(await alsoIn()).toEqual([[{ run: "Thing, one", qty: expect.any(Number) }]]);
  expect((await r.v.put(`/api/runs/${r.id}/closing`, {})).status).toBe(204);
  expect(await alsoIn()).toEqual([undefined]);
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

  // a board the run does not have, a delivery that is not its own, a trial of nothing, more faults than were tried
  expect((await bench.post(path, { ...trial, tried: 1, faults: [fault, fault] })).body).toMatchObject({
    message: "2 do not hold, but 1 were tried.",
  });
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
