import { afterAll, beforeAll, expect, test } from "@jest/globals";
import {
  boardFacts,
  type FabOptionKey,
  type House,
  houseFromQuotation,
  rollUp,
  USUAL_OPTIONS,
} from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";

import { runOf } from "../../test/run-of.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function shop(name: string): Promise<Visitor> {
  const v = new Visitor(server);
  await v.startShop(name);
  return v;
}

test("a house is copied, edited in its own copy, and chosen; a field that is no number is named", async () => {
  const v = await shop("Houses");
  const { id, read } = await runOf(v, strangerFiles());
  const houses = (await v.get("/api/houses")).body as {
    id: string;
    name: string;
    limits: object;
    price: object;
  }[];
  const copy = (await v.post("/api/houses", { copyOf: houses[0]!.id, name: "My house" }))
    .body as (typeof houses)[number];
  const bad = await v.patch(`/api/houses/${copy.id}`, {
    ...copy,
    limits: { ...copy.limits, minTrackMm: "wide" },
  });
  expect(bad).toMatchObject({
    status: 422,
    body: { message: expect.stringContaining("limits.minTrackMm should be a number") },
  });
  expect(
    (await v.patch(`/api/houses/${copy.id}`, { ...copy, limits: { ...copy.limits, minTrackMm: 0.9 } }))
      .status,
  ).toBe(200);
  await v.patch(`/api/runs/${id}`, { version: 1, houseId: copy.id });
  const { document } = await read();
  expect(document.house).toMatchObject({ name: "My house", limits: { minTrackMm: 0.9 } });
  expect(rollUp(document).blockers.map((b) => b.key)).toContain(`house-limit ${copy.id} minTrackMm`);
  expect((await v.get("/api/houses")).body).toContainEqual(
    expect.objectContaining({ id: houses[0]!.id, name: houses[0]!.name, limits: houses[0]!.limits }),
  );
});

test("a house is begun from what it quoted; a limit it did not state can be added, and taken out again", async () => {
  const v = await shop("First house");
  const { id, read } = await runOf(v, strangerFiles());
  const { boards } = (await read()).document;
  const asked = (key: FabOptionKey) => USUAL_OPTIONS[key][0]!;
  const { checkedOn: _, ...profile } = houseFromQuotation({
    name: "Cold Lane Boards",
    currency: "EUR",
    today: "2020-01-01",
    board: boardFacts(boards[0]!.measure),
    options: {
      thickness: asked("thickness"),
      copper: asked("copper"),
      finish: asked("finish"),
      mask: asked("mask"),
      legend: asked("legend"),
    },
    prices: [{ pieces: 20, boards: "44.00" }],
    freight: "9.00",
    handling: "0",
    leadDays: 8,
    transitDays: 3,
    delayDays: 2,
    limits: {},
  });
  const begun = await v.post("/api/houses", { name: "Cold Lane", profile });
  const house = begun.body as House;
  expect([begun.status, house]).toEqual([
    201,
    expect.objectContaining({ name: "Cold Lane", quotedFor: [20], limits: {} }),
  ]);
  // the day is the server's, not the page's
  expect(house.checkedOn > "2026-01-01").toBe(true);
  await v.patch(`/api/runs/${id}`, { version: 1, houseId: house.id });
  const notes = async () =>
    rollUp((await read()).document)
      .notes.map((n) => n.key)
      .filter((k) => k.endsWith(house.id));
  expect(await notes()).toEqual([`house-unstated ${house.id}`, `house-guessed ${house.id}`]);
  const limits = async (next: object) =>
    ((await v.patch(`/api/houses/${house.id}`, { limits: next })).body as House).limits;
  expect(await limits({ minTrackMm: 0.1, minHoleToHoleMm: 0.3 })).toEqual({
    minTrackMm: 0.1,
    minHoleToHoleMm: 0.3,
  });
  expect(await limits({ minTrackMm: 0.1 })).toEqual({ minTrackMm: 0.1 });
  // what was not sent stays
  expect((await read()).document.house).toMatchObject({ name: "Cold Lane", price: { freightBase: "9.00" } });
  for (const body of [{ name: "Neither" }, { name: "Both", copyOf: house.id, profile }])
    expect(await v.post("/api/houses", body)).toMatchObject({ status: 422 });
  // parts that cannot both be true are refused whichever way they come, each named; a sent profile keeps its day
  const layers = { ...profile, layers: [2, 6] };
  for (const r of [
    await v.post("/api/houses", { name: "Six", profile: layers }),
    await v.patch(`/api/houses/${house.id}`, { layers: [2, 6] }),
  ])
    expect([r.status, JSON.stringify(r.body)]).toEqual([
      422,
      expect.stringContaining("layers has 6, and price.setup has no price for it."),
    ]);
  const sent = await v.post("/api/houses", {
    name: "Sent",
    profile: { ...profile, checkedOn: "2025-02-03" },
  });
  expect(sent.body).toMatchObject({ name: "Sent", checkedOn: "2025-02-03" });
  const broken = { ...profile, price: { ...profile.price, step: 0 } };
  expect(await v.post("/api/houses", { name: "Broken", profile: broken })).toMatchObject({
    status: 422,
    body: { message: expect.stringContaining("price.step should be a whole number from 1") },
  });
});

test("a run is released only when nothing blocks; then its package is whole and it is frozen, also after a restart", async () => {
  const v = await shop("Release");
  const { id, revisionId, read } = await runOf(v, strangerFiles(), 5);
  const blocked = await v.post(`/api/runs/${id}/release`);
  expect([blocked.status, (blocked.body as { code: string }).code]).toEqual([409, "BLOCKED"]);
  expect((await read()).state).toBe("open");
  const { document } = await read();
  await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  });
  const released = await v.post(`/api/runs/${id}/release`);
  expect(released.status).toBe(201);
  const zip = (await v.get(`/api/runs/${id}/package`)).bytes;
  expect(sha256Hex(zip)).toBe((released.body as { sha256: string }).sha256);
  const files = unpackZip(zip);
  for (const [path, text] of Object.entries(strangerFiles()).filter(([p]) => p.startsWith("mine.g")))
    expect(new TextDecoder().decode(files.find((f) => f.path.endsWith(`/${path}`))!.bytes)).toBe(text);
  const manifest = JSON.parse(
    new TextDecoder().decode(files.find((f) => f.path === "manifest.json")!.bytes),
  ) as { files: { path: string; sha256: string }[] };
  for (const f of manifest.files)
    expect(sha256Hex(files.find((x) => x.path === f.path)!.bytes)).toBe(f.sha256);
  expect((await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 99 })).status).toBe(403);
  expect((await v.post(`/api/runs/${id}/release`)).status).toBe(403);
  // bill, quotation and offers stand as they were ordered; a remark may be left and taken back
  const refused = async (method: string, path: string, body: object) =>
    (await v.call(method, path, body)).status;
  const lineId = document.lines[0]!.id;
  expect([
    await refused("POST", `/api/revisions/${revisionId}/lines`, { refs: ["R9"], valueText: "later" }),
    await refused("PATCH", `/api/lines/${lineId}`, { version: 1, valueText: "other" }),
    await refused("PUT", `/api/runs/${id}/quotes`, {
      houseId: document.house!.id,
      kind: "fab",
      total: "1",
      currency: "EUR",
      days: 1,
    }),
  ]).toEqual([403, 403, 403]);
  const noted = await v.post(`/api/runs/${id}/remarks`, { stage: "order", text: "sent on Friday" });
  expect(noted.status).toBeLessThan(300);
  const [first] = (
    (await v.get(`/api/history?run=${id}`)).body as { changes: { id: string; state: string }[] }
  ).changes;
  expect(first!.state).toBe("stands");
  expect((await v.post(`/api/changes/${first!.id}/undo`)).status).toBeLessThan(300);
  expect((await read()).remarks).toEqual([]);
  // what the shop and the suppliers say later changes nothing of it
  const frozen = (await v.get(`/api/runs/${id}/document`)).bytes;
  expect(sha256Hex(frozen)).toBe(manifest.files.find((f) => f.path === "run.json")!.sha256);
  const figures = async () => (await read()).summary?.perGood;
  const computed = async () => {
    for (let tries = 0; tries < 200; tries++) {
      const { rows } = await server.owner.query("select 1 from figures_due where run_id = $1", [id]);
      if (rows.length === 0) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error("the figures were not computed");
  };
  await computed();
  const was = await figures();
  expect(was).toBeGreaterThan(0);
  expect((await v.patch("/api/shop", { hourlyRate: "99" })).status).toBeLessThan(300);
  const offer = await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "9.99" }],
  });
  expect(offer.status).toBe(403);
  await server.restart();
  const after = await read();
  expect(after.state).toBe("released");
  expect(after.document.lines).toHaveLength(1);
  expect(after.document.workshop.hourlyRate).toBe(document.workshop.hourlyRate);
  expect(sha256Hex((await v.get(`/api/runs/${id}/document`)).bytes)).toBe(sha256Hex(frozen));
  await computed();
  expect(await figures()).toBe(was);
  expect(sha256Hex((await v.get(`/api/runs/${id}/package`)).bytes)).toBe(sha256Hex(zip));
});

test("a quotation counts for its run, and its removal brings the estimate back", async () => {
  const v = await shop("Quotes");
  const { id, read } = await runOf(v, strangerFiles());
  const houseId = (await read()).document.house!.id;
  const put = await v.call("PUT", `/api/runs/${id}/quotes`, {
    houseId,
    kind: "fab",
    total: "123.45",
    currency: "EUR",
    days: 9,
    validUntil: "2026-12-24",
  });
  expect(put.status).toBe(204);
  expect(rollUp((await read()).document).orders[0]!.micros).toBe(123_450_000);
  await v.call("DELETE", `/api/runs/${id}/quotes/${houseId}/fab`);
  const estimate = rollUp((await read()).document).orders[0]!;
  expect(estimate.quoted).toBeUndefined();

  // one that says what it was for counts while that is what is ordered, and again when it is once more
  const r = rollUp((await read()).document);
  const basis = {
    boards: estimate.quote.pieces,
    options: r.options!,
    revision: (await read()).document.revision,
  };
  const quote = { houseId, kind: "fab", total: "50", currency: "EUR", days: 9 };
  const odd = await v.call("PUT", `/api/runs/${id}/quotes`, { ...quote, basis: { ...basis, boards: 0 } });
  expect([odd.status, (await read()).document.quotes]).toEqual([422, []]);
  expect((await v.call("PUT", `/api/runs/${id}/quotes`, { ...quote, basis })).status).toBe(204);
  expect((await read()).document.quotes[0]).toMatchObject({ basis });
  const counts = async (goodBoards: number) => {
    await v.patch(`/api/runs/${id}`, { version: (await read()).version, goodBoards });
    return rollUp((await read()).document).orders[0]!.quoted !== undefined;
  };
  const { goodBoards } = (await read()).document;
  expect(await counts(goodBoards * 20)).toBe(false);
  expect(await counts(goodBoards)).toBe(true);
});
