import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { LearnedAnswer, UnitOut } from "@kobbin/contract";
import { invite } from "../../../test/fixture.ts";
import { startServer, type TestServer } from "../../../test/kit.ts";
import { releasedRun, says } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.closeUnentangled());

const DAY = "2026-12-04";
type Run = Awaited<ReturnType<typeof releasedRun>>;
const outsOf = async (r: Run) => (await r.v.get(`/api/runs/${r.id}/outs`)).body as UnitOut[];
const goes = (r: Run, units: number[], more: object = {}, by = r.v) =>
  by.put(`/api/runs/${r.id}/outs`, { units, on: DAY, towards: "harvest fair", ...more });
const learned = async (r: Run) => (await r.v.get("/api/learned")).body as LearnedAnswer;

test("boards go out several at once, by whoever packs them, and of a closed run too; none goes that nobody knows of", async () => {
  const r = await releasedRun(server, "Packing");
  expect((await goes(r, [1])).body).toMatchObject({
    code: "OUT_OF_RANGE",
    message: "Nothing is known of board 1: none was started.",
  });
  await r.works({ started: 4, good: 4 });
  const bench = await invite(server, r.v, "packing bench", "bench");
  expect((await goes(r, [3, 1, 3], {}, bench)).status).toBe(204);
  expect((await goes(r, [5])).body).toMatchObject({
    message: "Nothing is known of board 5: the last that was started is 4.",
  });
  expect((await goes(r, [])).status).toBe(422);
  expect(await outsOf(r)).toMatchObject([
    { unit: 1, on: DAY, towards: "harvest fair", holder: "", person: "packing bench" },
    { unit: 3 },
  ]);
  expect((await r.v.put(`/api/runs/${r.id}/closing`, {})).status).toBe(204);
  // it went somewhere else after all: one board stands once
  const again = await goes(r, [3, 4], { towards: "order 1042" });
  expect((await outsOf(r)).map((o) => [o.unit, o.towards])).toEqual([
    [1, "harvest fair"],
    [3, "order 1042"],
    [4, "order 1042"],
  ]);
  expect((await learned(r)).products[0]!.revisions[0]!.out).toBe(3);
  expect(await says(r)).toContain("2 boards went out: order 1042");
  expect((await r.undo(again.headers)).status).toBe(200);
  expect((await outsOf(r)).map((o) => o.towards)).toEqual(["harvest fair", "harvest fair"]);
});

test("who has a board is forgotten for good: in its row, in what was recorded of it, whatever is taken back", async () => {
  const r = await releasedRun(server, "Forgetting");
  await r.works({ started: 2, good: 2 });
  const who = { holder: "Wilma Ferncastle", reach: "3 Otter Lane" };
  await goes(r, [1], { holder: "W. Ferncastle" });
  const second = await goes(r, [1], who);
  await goes(r, [2], { holder: "somebody else" });
  const [out] = await outsOf(r);
  expect(out).toMatchObject(who);
  const all = async () => {
    const { rows } = await server.owner.query<{ said: string }>(
      `select concat(row_to_json(x)::text) as said from change_row as x
       union all select row_to_json(x)::text from change as x union all select row_to_json(x)::text from unit_out as x
       union all select row_to_json(x)::text from audit as x`,
    );
    return rows.filter(({ said }) => /Ferncastle|Otter Lane/.test(said)).length;
  };
  expect(await all()).toBeGreaterThan(1);
  const bench = await invite(server, r.v, "forgetting bench", "bench");
  expect((await bench.call("DELETE", `/api/outs/${out!.id}/holder`)).status).toBe(403);
  const forgotten = await r.v.call("DELETE", `/api/outs/${out!.id}/holder`);
  expect(forgotten.status).toBe(204);
  expect(await all()).toBe(0);
  expect((await r.undo(forgotten.headers)).body).toMatchObject({ code: "NOT_ALLOWED" });
  // the board and where it went stay, and the other's owner
  expect(await outsOf(r)).toMatchObject([
    { unit: 1, towards: "harvest fair", holder: "", reach: "" },
    { unit: 2, holder: "somebody else" },
  ]);
  // what was changed before is taken back without it
  await r.undo(second.headers);
  expect(await all()).toBe(0);
  // who had a board goes with the row, however that goes: nobody could forget it any more
  const third = await goes(r, [2], who);
  const [, other] = await outsOf(r);
  const removed = await r.v.call("DELETE", `/api/outs/${other!.id}`);
  expect(await all()).toBe(0);
  expect((await r.undo(removed.headers)).status).toBe(200);
  expect((await outsOf(r))[1]).toMatchObject({ unit: 2, towards: "harvest fair", holder: "", reach: "" });
  expect(third.status).toBe(204);
  await r.works({ started: 1, good: 1 });
  const fresh = await goes(r, [3], who);
  expect(await all()).toBeGreaterThan(0);
  expect((await r.undo(fresh.headers)).status).toBe(200);
  expect(await all()).toBe(0);
  const gone = await r.v.call("DELETE", `/api/outs/${out!.id}`);
  expect((await r.undo(gone.headers)).status).toBe(200);
  expect((await outsOf(r)).map((o) => [o.unit, o.holder])).toEqual([
    [1, ""],
    [2, ""],
  ]);
});

test("what an owner says stands with its board, is answered, and becomes a fault that is known", async () => {
  const r = await releasedRun(server, "Listening");
  await r.works({ started: 2, good: 2 });
  const { productId } = (await r.v.get(`/api/runs/${r.id}`)).body as { productId: string };
  const report = { productId, on: DAY, says: "the lamp fades", conditions: "below freezing" };
  expect((await r.v.post("/api/reports", { ...report, unit: 2 })).body).toMatchObject({
    message: expect.stringContaining("A board is said by its run and its number."),
  });
  const { id } = (await r.v.post("/api/reports", { ...report, runId: r.id, unit: 2 })).body as { id: string };
  await r.v.post("/api/reports", { ...report, on: "2026-12-05", says: "of another, a stranger" });
  const { id: erratum } = (
    await r.v.post("/api/errata", {
      revisionId: r.revisionId,
      title: "the lamp's resistor is too large",
      harm: "looks",
      spot: { ref: "R1", side: "top", diameterMm: 0.4 },
      foundOn: DAY,
    })
  ).body as { id: string };
  const other = await releasedRun(server, "Listening elsewhere");
  expect((await other.v.patch(`/api/reports/${id}`, { answer: "x" })).status).toBe(404);
  expect((await r.v.patch(`/api/reports/${id}`, { erratumId: erratum, answer: "turn it up" })).status).toBe(
    204,
  );
  const { reports } = await learned(r);
  expect(reports).toMatchObject([
    { says: "of another, a stranger", product: "Thing" },
    { says: "the lamp fades", unit: 2, run: "one", revision: "A", erratumId: erratum, answer: "turn it up" },
  ]);
  expect(reports[0]).not.toHaveProperty("unit");
  // that nothing is to be mended in a next revision is decided too, once a product, and taken back
  const plan = { isNeeded: false, because: "one lamp of two", on: DAY };
  const decide = (body: object) => r.v.put(`/api/products/${productId}/next-revision`, body);
  expect((await decide({ ...plan, isNeeded: true, begins: "after 40" })).status).toBe(204);
  const again = await decide(plan);
  expect((await learned(r)).plans).toMatchObject([
    { productId, isNeeded: false, because: "one lamp of two", begins: "" },
  ]);
  await r.undo(again.headers);
  expect((await learned(r)).plans).toMatchObject([{ isNeeded: true, begins: "after 40" }]);
  await decide({ ...plan, isNeeded: null });
  expect((await learned(r)).plans).toEqual([]);
  expect((await other.v.put(`/api/products/${productId}/next-revision`, plan)).status).toBe(404);
  // the fault is none after all: what was said stays
  await r.v.call("DELETE", `/api/errata/${erratum}`);
  expect((await learned(r)).reports.find((x) => x.id === id)).not.toHaveProperty("erratumId");
});
