import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, RunAnswer } from "@kobbin/contract";
import type { Equipment } from "@kobbin/core";
import { invite } from "../../../test/fixture.ts";
import { demoArchive, startServer, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const plate = {
  kind: "plate",
  name: "Tile plate",
  facts: { spaceMm: [220, 170], mostC: 280, control: "eye" },
  cannot: "boards with parts below",
  hours: 120,
  lastsHours: 1500,
} as const;

test("a machine is written down, judged in every run, out of order, taken off the list and brought back; another shop has none of it", async () => {
  const v = new Visitor(server);
  await v.startShop("Machines");
  const { revisionId } = (await v.drop({ "rack-card.zip": demoArchive("rack-card") }, { name: "Card" }))
    .body as {
    revisionId: string;
  };
  const { id: run } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 })).body as {
    id: string;
  };
  const ofRun = async () => ((await v.get(`/api/runs/${run}`)).body as RunAnswer).document.equipment;
  const listed = async () => ((await v.get("/api/equipment")).body as { equipment: Equipment[] }).equipment;
  expect(await ofRun()).toBeUndefined();
  const made = await v.post("/api/equipment", plate);
  expect(made.status).toBe(201);
  const { id } = made.body as { id: string };
  await v.post("/api/equipment", { kind: "eyes", name: "Lens" });
  const whole = { ...plate, id, can: "", state: "ready" };
  expect(await listed()).toEqual([
    whole,
    {
      id: expect.any(String),
      kind: "eyes",
      name: "Lens",
      facts: {},
      can: "",
      cannot: "",
      hours: 0,
      state: "ready",
    },
  ]);
  expect((await ofRun())?.[0]).toEqual(whole);
  expect(
    (await v.patch(`/api/equipment/${id}`, { state: "broken", lastsHours: null, hours: 121.5 })).status,
  ).toBe(204);
  const { lastsHours: _, ...endless } = whole;
  expect((await listed())[0]).toEqual({ ...endless, state: "broken", hours: 121.5 });
  for (const bad of [
    { ...plate, kind: "laser" },
    { ...plate, facts: { spaceMm: [0, 170] } },
    { ...plate, facts: { tips: [{ shape: "round", mm: 2 }] } },
    { ...plate, name: "" },
    { ...plate, hours: -1 },
  ])
    expect([(await v.post("/api/equipment", bad)).status, bad]).toEqual([422, bad]);
  expect((await v.call("DELETE", `/api/equipment/${id}`)).status).toBe(204);
  expect((await listed()).map((e) => e.name)).toEqual(["Lens"]);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes.slice(0, 2).map((c) => c.sentence)).toEqual([
    "Tile plate is no longer in the shop",
    expect.stringContaining("Tile plate is out of order"),
  ]);
  expect((await v.post(`/api/changes/${changes[0]!.id}/undo`, {})).status).toBeLessThan(300);
  expect((await listed()).map((e) => e.name)).toEqual(["Tile plate", "Lens"]);
  const other = new Visitor(server);
  await other.startShop("Others");
  expect((await other.get("/api/equipment")).body).toEqual({ equipment: [] });
  expect((await other.patch(`/api/equipment/${id}`, { hours: 1 })).status).toBe(404);
});

test("a meter that is asked over the network shows what it shows; what it cannot is said in words, and nothing is kept of it", async () => {
  const v = new Visitor(server);
  await v.startShop("Meters");
  const add = async (more: object) =>
    ((await v.post("/api/equipment", { kind: "meter", name: "Hand meter", ...more })).body as { id: string })
      .id;
  const asked = await add({ facts: { asked: "hand" } });
  const read = async (id: string, body: object = { unit: "mA", near: "12" }, by = v) => {
    const r = await by.post(`/api/equipment/${id}/reading`, body);
    return { status: r.status, ...(r.body as { shows?: string; refused?: string }) };
  };
  const first = await read(asked);
  expect(first).toMatchObject({ status: 200, unit: "mA" });
  expect(Math.abs(Number(first.shows) - 12)).toBeLessThanOrEqual(0.121);
  const { standInsUrl } = server.deps.config;
  await fetch(`${standInsUrl}/control?unplugged=hand`, { method: "POST" });
  expect(await read(asked)).toMatchObject({ status: 200, refused: "The meter is not plugged in." });
  await fetch(`${standInsUrl}/control?unplugged=`, { method: "POST" });
  expect(await read(await add({}))).toMatchObject({ refused: expect.stringContaining("under what name") });
  expect(await read(await add({ facts: { asked: "hand" }, state: "broken" }))).toMatchObject({ status: 404 });
  expect(await read(asked, { unit: "parsec" })).toMatchObject({ status: 422 });
  expect(await read(asked, { unit: "V", near: "3,3" })).toMatchObject({ status: 422 });
  expect(
    (await v.post("/api/equipment", { kind: "meter", name: "x", facts: { asked: "../houses" } })).status,
  ).toBe(422);
  const other = new Visitor(server);
  await other.startShop("Other meters");
  expect(await read(asked, { unit: "V" }, other)).toMatchObject({ status: 404 });
  const bench = await invite(server, v, "Meters beside", "bench");
  expect(await read(asked, { unit: "V", near: "3" }, bench)).toMatchObject({ status: 200 });
});
