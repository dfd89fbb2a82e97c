import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FoundRow, RunAnswer, SittingBody, TryBody } from "@kobbin/contract";
import { serialOfUnit, type TestItem } from "@kobbin/core";
import { invite } from "../../test/fixture.ts";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";
import { releasedRun as runIn, says } from "../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const at = (more: Partial<SittingBody> = {}): SittingBody => ({
  unit: 1,
  step: 3,
  marks: {},
  lost: {},
  minutes: {},
  isDone: false,
  ...more,
});

test("steps at the bench are kept piece by piece; what two press at one board is laid together", async () => {
  const r = await runIn(server, "Sitting down");
  const put = (body: SittingBody, by = r.v) => by.put(`/api/runs/${r.id}/sittings`, body);
  const kept = async () => (await r.read()).record!.sittings!;
  expect((await put(at({ marks: { R1: "done" }, minutes: { desk: 1 } }))).status).toBe(204);
  const seen = async () => {
    const { versions, record } = await r.read();
    return versions[record!.sittings![0]!.id]!;
  };
  const first = await seen();
  // somebody else at the same board, who saw the same
  const mate = await invite(server, r.v, "Sitting beside", "bench");
  const theirs = at({ version: first, marks: { R1: "done", R3: "doubt" }, minutes: { desk: 1, phone: 0.5 } });
  expect((await put(theirs, mate)).status).toBe(204);
  const mine = at({
    version: first,
    marks: { R1: "done", R2: "done" },
    minutes: { desk: 2.25 },
    isDone: true,
  });
  expect((await put(mine)).status).toBe(204);
  expect(await kept()).toMatchObject([
    {
      unit: 1,
      step: 3,
      marks: { R1: "done", R2: "done", R3: "doubt" },
      minutes: { desk: 2.25, phone: 0.5 },
      isDone: true,
    },
  ]);
  // who begins a step that somebody else began meanwhile takes nothing of it away
  const both = { unit: 9, step: 1, minutes: {}, lost: {}, isDone: false };
  expect((await put({ ...both, marks: { R1: "done" } })).status).toBe(204);
  expect((await put({ ...both, marks: { R2: "done" } }, mate)).status).toBe(204);
  expect((await kept()).find((s) => s.unit === 9)!.marks).toEqual({ R1: "done", R2: "done" });
  // of one piece two different things are told, not laid over each other
  const clash = await put(
    at({ version: first, marks: { R1: "done", R2: "skipped" }, minutes: { desk: 1 } }),
    mate,
  );
  expect(clash.body).toMatchObject({
    code: "STALE_VERSION",
    details: { clashes: [{ path: ["marks", "R2"], mine: "skipped", theirs: "done" }] },
  });
  expect((await kept())[0]!.marks.R2).toBe("done");
  // with what it was done is said beside it; who does not ask for it changes nothing, and nothing else may stand there
  const oven = at({ unit: 4, isDone: true, used: { heater: "Small oven" } });
  expect((await put(oven)).status).toBe(204);
  expect((await put(at({ unit: 4, version: 2, isDone: true }))).status).toBe(204);
  expect((await kept()).find((s) => s.unit === 4)!.used).toEqual({ heater: "Small oven" });
  expect((await put(at({ unit: 5, used: { stove: "x" } as never }))).status).toBe(422);
  expect((await says(r))[0]).toBe("board 4, step 3: done, with Small oven");
  // a look at what may ail a board puts nothing on it
  await put(at({ unit: 6, marks: { "check dead way": "doubt", "check dead gone": "done", R1: "done" } }));
  expect((await says(r))[0]).toBe("board 6, step 3: 1 on, 2 looks at what may ail it");
  // nor does a look at joints
  await put(at({ unit: 7, marks: { "eye a": "doubt", "eye b": "done", "eye c": "skipped" } }));
  expect((await says(r))[0]).toBe("board 7, step 3: 2 kinds of parts looked at, 1 in doubt by eye");
  // what is taken back is gone; another board has a row of its own
  const now = await seen();
  await put(at({ version: now, marks: { R1: "done", R3: "doubt" }, minutes: { desk: 2.25, phone: 0.5 } }));
  await put(at({ unit: 2, isDone: true }));
  expect((await kept()).map((s) => [s.unit, Object.keys(s.marks).sort()])).toEqual([
    [1, ["R1", "R3"]],
    [2, []],
    [4, []],
    [6, ["R1", "check dead gone", "check dead way"]],
    [7, ["eye a", "eye b", "eye c"]],
    [9, ["R1", "R2"]],
  ]);
  expect((await says(r)).slice(0, 2)).toEqual(["board 2, step 3: done", "board 1, step 3: 2 on, 1 in doubt"]);
});

test("nothing is kept of a run that is not released, of strange lines or marks; a run that was begun stays released", async () => {
  const r = await runIn(server, "Sitting right");
  const put = (body: object) => r.v.put(`/api/runs/${r.id}/sittings`, body);
  const line = r.document.lines[0]!.id;
  expect((await put(at({ lost: { "11111111-1111-4111-8111-111111111111": 1 } }))).body).toMatchObject({
    code: "NOT_FOUND",
  });
  for (const bad of [
    { marks: { R1: "perhaps" } },
    { lost: { [line]: -1 } },
    { lost: { R1: 1 } },
    { minutes: { "no device": 1 } },
    { unit: -1 },
    { step: 0 },
  ])
    expect([bad, (await put({ ...at(), ...bad })).status]).toEqual([bad, 422]);
  expect((await r.read()).record!.sittings).toBeUndefined();
  expect((await put(at({ lost: { [line]: 2 } }))).status).toBe(204);
  expect((await r.v.call("DELETE", `/api/runs/${r.id}/release`)).body).toMatchObject({ code: "NOT_ALLOWED" });
  const { id: open } = (
    await r.v.post("/api/runs", { revisionId: r.revisionId, name: "open", goodBoards: 1 })
  ).body as { id: string };
  expect((await r.v.put(`/api/runs/${open}/sittings`, at())).status).toBe(403);
});

const item = (id: string, more: Partial<TestItem> = {}): TestItem => ({
  id,
  name: `item ${id}`,
  state: "powered",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 1,
  ...more,
});
const PLAN = [
  item("rail", { unit: "V", min: "3.2", max: "3.4", guard: "0.01", absent: ["J5"], because: "3.3 V ± 3 %" }),
  item("lamp"),
];
const planned = (v: Visitor, run: RunAnswer) =>
  v.patch(`/api/runs/${run.id}`, { version: run.version, assembly: { tests: PLAN } });
const tryOf = (more: Partial<TryBody> = {}) => ({
  unit: 1,
  item: "rail",
  on: "2026-11-30",
  words: "",
  ...more,
});

test("every try is kept with the limits of that day, and what it comes to is the server's to say", async () => {
  const r = await runIn(server, "Trying it", planned);
  const put = (more: Partial<TryBody>, by = r.v) => by.post(`/api/runs/${r.id}/tries`, tryOf(more));
  expect((await put({ value: "2.95", words: "2,95 V" })).body).toMatchObject({ verdict: "fail" });
  expect((await put({ says: "error" })).body).toMatchObject({ verdict: "error" });
  const mate = await invite(server, r.v, "At the meter", "bench");
  expect((await put({ value: "3.31" }, mate)).body).toMatchObject({ verdict: "pass" });
  expect((await put({ value: "3.3", bound: ">" })).body).toMatchObject({ verdict: "error" });
  expect((await put({ item: "lamp", says: "yes" })).body).toMatchObject({ verdict: "pass" });
  const limits = { unit: "V", min: "3.2", max: "3.4", guard: "0.01" };
  const kept = (await r.read()).record!.tries!;
  expect(kept.map(({ id: _, ...t }) => t)).toMatchObject([
    { unit: 1, item: "rail", name: "item rail", value: "2.95", limits, verdict: "fail", words: "2,95 V" },
    { verdict: "error", limits },
    { value: "3.31", verdict: "pass", person: "at the meter" },
    { value: "3.3", bound: ">", verdict: "error" },
    { item: "lamp", verdict: "pass", limits: {} },
  ]);
  expect((await says(r)).slice(0, 2)).toEqual([
    "board 1, item lamp: passed",
    "board 1, item rail: >3.3 V, nothing could be read",
  ]);
  // a slip of the hand goes, and comes again by undo
  expect((await mate.call("DELETE", `/api/tries/${kept[2]!.id}`)).status).toBe(204);
  expect((await r.read()).record!.tries).toHaveLength(4);
  expect((await mate.post(`/api/runs/${r.id}/undo`, {})).status).toBe(200);
  expect((await r.read()).record!.tries!.map((t) => t.value)).toContain("3.31");
  // tried, it cannot be opened again
  expect((await r.v.call("DELETE", `/api/runs/${r.id}/release`)).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: expect.stringContaining("begun"),
  });
});

test("a strange item, an answer of another kind, numbers that are none and a run that is open are refused", async () => {
  const r = await runIn(server, "Trying badly", planned);
  const status = async (more: object, run = r.id) => {
    const { status: code, body: said } = await r.v.post(`/api/runs/${run}/tries`, { ...tryOf(), ...more });
    return `${code} ${(said as { message?: string }).message}`;
  };
  expect(await status({ item: "nobody", value: "1" })).toMatch(
    /^404 The released test plan has no such item/,
  );
  expect(await status({ says: "yes" })).toMatch(/a reading in V/);
  expect(await status({ item: "lamp", value: "1" })).toMatch(/yes or no/);
  expect(await status({ value: "3,3" })).toMatch(/^422 /);
  expect(await status({ value: "NaN" })).toMatch(/^422 /);
  expect(await status({ unit: 0, value: "3.3" })).toMatch(/^422 /);
  expect((await r.read()).record!.tries).toBeUndefined();
  const other = await runIn(server, "Another shop's trial", planned);
  expect(await status({ value: "3.3" }, other.id)).toMatch(/^404 /);
});

test("each release of a shop has a number of its own, whoever releases at once; a board is found by its serial number", async () => {
  const v = new Visitor(server);
  await v.startShop("Numbered");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const ids = await Promise.all(
    ["one", "two", "three"].map(
      async (name) =>
        ((await v.post("/api/runs", { revisionId, name, goodBoards: 2 })).body as { id: string }).id,
    ),
  );
  const read = async (id: string) => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const first = await read(ids[0]!);
  for (const line of first.document.lines)
    await v.post(`/api/lines/${line.id}/offers`, {
      supplierId: first.document.suppliers[0]!.id,
      stock: 500,
      currency: "EUR",
      breaks: [{ qty: 1, price: "0.05" }],
    });
  expect(first.record?.series).toBeUndefined();
  // a rule that makes no numbers is refused; of several at once each gets the next
  expect((await v.patch("/api/shop", { version: 1, serialRule: "{batch}" })).status).toBe(422);
  const shop = ((await v.get("/api/session")).body as { shop: { version: number } }).shop;
  expect((await v.patch("/api/shop", { version: shop.version, serialRule: "ZZ-{batch}{n}" })).status).toBe(
    200,
  );
  const released = await Promise.all(ids.map((id) => v.post(`/api/runs/${id}/release`)));
  expect(released.map((r) => r.status)).toEqual([201, 201, 201]);
  const batches = await Promise.all(ids.map(async (id) => (await read(id)).record!.series!.batch));
  expect([...batches].sort()).toEqual([1, 2, 3]);
  // opened again it keeps its number
  await v.call("DELETE", `/api/runs/${ids[1]}/release`);
  expect((await v.post(`/api/runs/${ids[1]}/release`)).status).toBe(201);
  const second = await read(ids[1]!);
  expect(second.record!.series!.batch).toBe(batches[1]);
  const serial = serialOfUnit(second.document, second.record!, 2)!;
  expect(serial).toMatch(/^ZZ-00[123]0002.$/);
  const find = async (q: string) => (await v.get(`/api/find?q=${encodeURIComponent(q)}`)).body as FoundRow[];
  expect((await find(serial.toLowerCase().replace("-", " ")))[0]).toMatchObject({
    kind: "board",
    more: expect.stringContaining("board 2 of two"),
    to: `/runs/${ids[1]}/build?view=board&unit=2`,
  });
  expect(
    (await find(`${serial.slice(0, -1)}${serial.endsWith("0") ? "1" : "0"}`)).filter(
      (f) => f.kind === "board",
    ),
  ).toEqual([]);
  const other = new Visitor(server);
  await other.startShop("Numbered otherwise");
  expect((await other.get(`/api/find?q=${serial}`)).body).toEqual([]);
});

test("what is found wrong is written down, mended, taken back; codes and boards that are none are refused", async () => {
  const r = await runIn(server, "Faulty");
  const mate = await invite(server, r.v, "Finding faults", "bench");
  const put = (more: object, by = r.v) =>
    by.post(`/api/runs/${r.id}/defects`, { unit: 2, at: "U1.4", code: "bridge", on: "2026-11-30", ...more });
  const kept = async () => (await r.read()).record!.defects ?? [];
  const first = (await put({ step: 3 }, mate)).body as { id: string };
  await put({ unit: 1, at: "", code: "warped" });
  expect(await kept()).toMatchObject([
    { unit: 2, at: "U1.4", code: "bridge", step: 3, isMended: false, person: "finding faults" },
    { unit: 1, at: "", code: "warped" },
  ]);
  expect((await mate.patch(`/api/defects/${first.id}`, { isMended: true, minutes: 2.5 })).status).toBe(204);
  expect((await kept())[0]).toMatchObject({ isMended: true, minutes: 2.5, note: "" });
  expect((await mate.patch(`/api/defects/${first.id}`, { minutes: null })).status).toBe(204);
  expect((await kept())[0]!.minutes).toBeUndefined();
  expect((await says(r)).slice(0, 4)).toEqual([
    expect.any(String),
    "board 2, U1.4: bridge: mended",
    "board 1: warped",
    "board 2, U1.4: bridge",
  ]);
  for (const bad of [{ code: "gremlin" }, { unit: 0 }, { minutes: -1 }, { at: "x".repeat(81) }])
    expect((await put(bad)).status).toBe(422);
  expect((await mate.call("DELETE", `/api/defects/${first.id}`)).status).toBe(204);
  expect(await kept()).toHaveLength(1);
  expect((await mate.post(`/api/runs/${r.id}/undo`, {})).status).toBe(200);
  expect(await kept()).toHaveLength(2);
  const other = await runIn(server, "Faultless");
  expect((await other.v.patch(`/api/defects/${first.id}`, { isMended: true })).status).toBe(404);
});
