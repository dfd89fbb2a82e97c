import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, RunAnswer } from "@kobbin/contract";
import {
  boardFacts,
  costDocument,
  ERROR_CODES,
  type FabOptionKey,
  type House,
  houseFromQuotation,
  microsToNumber,
  type RunDocument,
  rollUp,
  USUAL_OPTIONS,
} from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import { demoArchive, startServer, strangerFiles, type TestServer, Visitor, zipOf } from "../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
}, 60_000);
afterAll(() => server.close(), 30_000);

async function shop(name: string): Promise<Visitor> {
  const v = new Visitor(server);
  await v.startShop(name);
  return v;
}
const counts = async () =>
  (
    await server.owner.query(
      "select (select count(*) from product)::int as products, (select count(*) from board)::int as boards, (select count(*) from blob)::int as blobs, (select count(*) from bom_line)::int as lines",
    )
  ).rows[0];
const runOf = async (v: Visitor, files: Record<string, Uint8Array | string>, goodBoards = 10) => {
  const kept = (await v.drop(files)).body as { revisionId: string; boardId: string };
  const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards }))
    .body as { id: string };
  return { ...kept, id, read: async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer };
};

test("an archive is kept byte for byte and comes back as it was", async () => {
  const v = await shop("Bytes");
  const archive = demoArchive("probe-tail");
  const { boardId } = await runOf(v, { "probe-tail.zip": archive });
  const back = await v.get(`/api/boards/${boardId}/files`);
  expect(sha256Hex(back.bytes)).toBe(sha256Hex(archive));
  expect(back.headers.get("content-disposition")).toContain("thing-a.zip");
}, 60_000);

test("loose files are kept in any mix, measured, and their parts list becomes lines", async () => {
  const v = await shop("Loose");
  const { read } = await runOf(v, strangerFiles());
  const { document } = await read();
  expect(document.boards[0]!.measure).toMatchObject({
    outline: { widthMm: 20, heightMm: 10 },
    copperLayers: 1,
    minTrackMm: 0.3,
    smdPads: { top: 2 },
  });
  expect(document.lines).toEqual([
    expect.objectContaining({ refs: ["R1"], qty: 1, mpn: "ZZ-UNKNOWN-1", mount: "machine" }),
  ]);
  expect(document.placements).toEqual([
    { ref: "R1", xMm: 7, yMm: 5, rotationDeg: 0, side: "top", board: document.boards[0]!.id },
  ]);
});

const whole = zipOf(strangerFiles());
test.each([
  ["a text that calls itself an archive", { "x.zip": "no archive" }, "ARCHIVE_INVALID", "not a zip"],
  [
    "an archive cut off before its first file ends",
    { "x.zip": whole.slice(0, 40) },
    "ARCHIVE_INVALID",
    "cut off",
  ],
  [
    "an archive inside an archive",
    { "x.zip": zipOf({ "inner.zip": "PK\u0003\u0004 nothing here" }) },
    "NO_BOARD_FILE",
    "No file in the drop",
  ],
  [
    "a photograph",
    { "photo.gtl": Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 1, 2, 3) },
    "NO_BOARD_FILE",
    "No file in the drop",
  ],
  ["an empty file", { "top.gtl": "" }, "NO_BOARD_FILE", "No file in the drop"],
])("%s is refused in words and nothing is stored", async (name, files, code, text) => {
  const v = await shop(`Refused ${name}`);
  const before = await counts();
  const r = await v.drop(files as unknown as Record<string, Uint8Array | string>);
  expect(r.status).toBe(422);
  expect(r.body).toMatchObject({ code, message: expect.stringContaining(text), hint: expect.any(String) });
  expect(await counts()).toEqual(before);
});

test("what is readable of a bad drop is kept, each fault named with its file and row", async () => {
  const v = await shop("Kept");
  const bom = "Ref;Qty;Value\r\nR1;1;4k7\r\nR2;-5;1k\r\n";
  const utf16 = Uint8Array.from([0xff, 0xfe, ...[...bom].flatMap((c) => [c.charCodeAt(0), 0])]);
  const { "mine-bom.csv": _, ...layers } = strangerFiles();
  const { read } = await runOf(v, {
    ...layers,
    "mine-bom.csv": utf16,
    "mine.gbl": Uint8Array.of(0x89, 0x50, 0x4e, 0x47),
    "void.gbs": "",
    "evil.zip": zipOf({ "../../evil.gbo": "x" }),
  } as never);
  const { document } = await read();
  const found = document.boards[0]!.measure.findings;
  expect(found).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ tag: "unsafe-path", file: "../../evil.gbo" }),
      expect.objectContaining({ tag: "not-a-layer-file", file: "mine.gbl" }),
      expect.objectContaining({ tag: "empty-file", file: "void.gbs" }),
      expect.objectContaining({ tag: "bom-qty-invalid", file: "mine-bom.csv", row: 3 }),
    ]),
  );
  expect(document.lines.map((l) => l.refs[0])).toEqual(["R1", "R2"]);
  expect((await v.get("/api/bench")).status).toBe(200);
});

test("a correction is kept, changes the measure, and is remembered for the next drop of such names", async () => {
  const v = await shop("Memory");
  const { "mine.gtl": copper, ...rest } = strangerFiles();
  const first = await runOf(v, { ...rest, "weird-lot-1.dat": copper! });
  expect((await first.read()).document.boards[0]!.measure.copperLayers).toBe(0);
  expect(
    (
      await v.post(`/api/boards/${first.boardId}/corrections`, {
        roles: { "weird-lot-1.dat": { role: "copper", side: "top" } },
      })
    ).status,
  ).toBe(204);
  expect((await first.read()).document.boards[0]!.measure.copperLayers).toBe(1);
  const again = (await v.drop({ ...rest, "weird-lot-2.dat": copper! }, { name: "Second" })).body as {
    revisionId: string;
  };
  const revision = (await v.get(`/api/revisions/${again.revisionId}`)).body as {
    boards: { measure: { copperLayers: number; layers: { file: string; because: string }[] } }[];
  };
  expect(revision.boards[0]!.measure.copperLayers).toBe(1);
  expect(revision.boards[0]!.measure.layers.find((l) => l.file === "weird-lot-2.dat")!.because).toBe(
    "corrected",
  );
});

test("moves of a file add up, are not remembered for the next drop, and a move that is none is refused", async () => {
  const v = await shop("Moves");
  const first = await runOf(v, strangerFiles());
  const measured = async () => (await first.read()).document.boards[0]!.measure;
  const move = (dxMm: number) =>
    v.post(`/api/boards/${first.boardId}/corrections`, { moves: { "mine.gts": { dxMm, dyMm: 0 } } });
  // mask openings of 1.1 lie over the middles of pads of 1.0 until they are moved beside them
  expect((await measured()).smdPads.top).toBe(2);
  expect((await move(1.5)).status).toBe(204);
  expect((await measured()).smdPads.top).toBe(0);
  const { revisionId } = (await v.drop(strangerFiles(), { name: "Second" })).body as { revisionId: string };
  const second = (await v.get(`/api/revisions/${revisionId}`)).body as {
    boards: { measure: { smdPads: { top: number } } }[];
  };
  expect(second.boards[0]!.measure.smdPads.top).toBe(2);
  expect((await move(-1.5)).status).toBe(204);
  expect((await measured()).smdPads.top).toBe(2);
  expect((await measured()).minMaskExpansionMm).toBeCloseTo(0.05, 6);
  expect((await move(99_999)).status).toBe(422);
  // nothing said means: measure again, as boards of earlier versions are
  expect((await v.post(`/api/boards/${first.boardId}/corrections`, {})).status).toBe(204);
});

test("suppliers answer or say “not listed”; one that fails leaves its older offers; a typed offer stays exact", async () => {
  const v = await shop("Ask");
  const { id, read } = await runOf(v, { "probe-tail.zip": demoArchive("probe-tail") }, 40);
  const ask = async () => {
    expect((await v.post(`/api/runs/${id}/ask`)).status).toBe(202);
    await server.figures();
    return ((await v.get(`/api/runs/${id}/asks`)).body as AskAnswer).asks;
  };
  const asked = await ask();
  expect(asked.map((a) => [a.state, a.tries])).toEqual(Array(4).fill(["answered", 1]));
  expect(asked.reduce((n, a) => n + a.offers, 0)).toBeGreaterThan(8);
  const before = (await read()).document.offers.length;
  // asked again with the same answers: every offer stays as it is, the record is one row each
  const ids = async () => (await read()).document.offers.map((o) => o.id).sort();
  const first = await ids();
  await ask();
  expect(await ids()).toEqual(first);
  const { rows } = await server.owner.query(
    `select r.op, count(*)::int as n from change_row as r
     where r.change_id in (select id from change where run_id = $1 order by id desc limit 4) group by r.op`,
    [id],
  );
  expect(rows).toEqual([{ op: "update", n: 4 }]);
  // one that fails is asked four times, then given up; the others' answers stand
  server.failing.add("fennimore");
  const second = await ask();
  server.failing.clear();
  expect(second.find((a) => a.supplier === "Fennimore Parts")).toMatchObject({
    state: "failed",
    tries: 4,
    reason: "The feed is down for maintenance.",
  });
  expect(second.filter((a) => a.state === "answered")).toHaveLength(3);
  const { document } = await read();
  expect(document.offers).toHaveLength(before);
  const line = document.lines[0]!.id;
  const supplierId = document.suppliers[0]!.id;
  expect(
    (
      await v.post(`/api/lines/${line}/offers`, {
        supplierId,
        stock: 500,
        moq: 1,
        multiple: 1,
        currency: "EUR",
        breaks: [{ qty: 1, price: "0.015501" }],
      })
    ).status,
  ).toBe(201);
  const typed = (await read()).document.offers.find((o) => o.source === "typed")!;
  expect(typed.breaks).toEqual([{ qty: 1, price: "0.015501" }]);
  expect(
    (await v.post(`/api/lines/${line}/offers`, { supplierId, stock: -1, currency: "EUR", breaks: [] }))
      .status,
  ).toBe(422);
  expect((await v.call("DELETE", `/api/offers/${typed.id}`)).status).toBe(204);
}, 60_000);

test("lines of one part become one line with their references and typed offers, and come apart again by undo", async () => {
  const v = await shop("Merge");
  const { id, read } = await runOf(v, { "probe-tail.zip": demoArchive("probe-tail") });
  const before = await read();
  const { revisionId } = before;
  const made = (
    await v.post(`/api/revisions/${revisionId}/lines`, [
      { refs: ["R91", "R90"], valueText: "10k", package: "0603", mount: "machine" },
      { refs: ["R7"], valueText: "10K0", package: "R_0603", mount: "machine" },
    ])
  ).body as { ids: string[] };
  const [keep, other] = made.ids as [string, string];
  const supplier = (
    await v.post("/api/suppliers", {
      name: "Village Electrics",
      currency: "EUR",
      shipping: "4.00",
      daysMin: 2,
      daysMax: 3,
    })
  ).body as { id: string };
  await v.post(`/api/lines/${other}/offers`, {
    supplierId: supplier.id,
    stock: 500,
    moq: 1,
    multiple: 1,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.02" }],
  });
  expect((await v.post(`/api/lines/${keep}/merge`, { others: [other] })).status).toBe(204);
  const merged = (await read()).document;
  expect(merged.lines.find((l) => l.id === keep)).toMatchObject({ refs: ["R7", "R90", "R91"], qty: 3 });
  expect(merged.lines.some((l) => l.id === other)).toBe(false);
  // nobody said yet what kind of source it is
  expect(merged.suppliers.find((s) => s.id === supplier.id)).toMatchObject({ sourceClass: "unknown" });
  expect(merged.offers.filter((o) => o.line === keep).map((o) => o.source)).toEqual(["typed"]);
  expect((await v.post(`/api/runs/${id}/undo`)).status).toBe(200);
  const apart = (await read()).document;
  expect(apart.lines.find((l) => l.id === keep)!.refs).toEqual(["R91", "R90"]);
  expect(apart.lines.find((l) => l.id === other)!.refs).toEqual(["R7"]);
  expect(apart.offers.filter((o) => o.line === other).map((o) => o.source)).toEqual(["typed"]);
  // a line of another bill stays where it is
  const elsewhere = (await v.drop({ "rack-card.zip": demoArchive("rack-card") }, { name: "Elsewhere" }))
    .body as { revisionId: string };
  const bill = async () =>
    ((await v.get(`/api/revisions/${elsewhere.revisionId}`)).body as { lines: { id: string }[] }).lines;
  const foreign = (await bill())[0]!.id;
  expect((await v.post(`/api/lines/${keep}/merge`, { others: [foreign] })).status).toBe(404);
  expect((await bill()).some((l) => l.id === foreign)).toBe(true);
}, 60_000);

test("what is stored is what the core computes, and the exported document gives the same cost", async () => {
  const v = await shop("Same");
  const { id, read } = await runOf(v, { "probe-tail.zip": demoArchive("probe-tail") }, 40);
  await v.post(`/api/runs/${id}/ask`);
  await server.figures();
  const answer = await read();
  const r = rollUp(answer.document);
  expect(answer.summary).toMatchObject({
    perGood: microsToNumber(r.perGood),
    cashNeeded: microsToNumber(r.cashNeeded),
    start: r.start,
    blockers: r.blockers.length,
  });
  const exported = (await v.get(`/api/runs/${id}/document`)).body as RunDocument;
  expect(costDocument(exported).perGoodBoard).toBe(answer.summary!.perGood);
}, 60_000);

test("two people: the second of two changes from one state is refused and changes nothing", async () => {
  const v = await shop("Versions");
  const { id, read } = await runOf(v, strangerFiles());
  expect((await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12 })).status).toBe(200);
  const late = await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 99, confidence: 0.5 });
  expect([late.status, (late.body as { code: string }).code]).toEqual([409, "STALE_VERSION"]);
  expect((await read()).document).toMatchObject({ goodBoards: 12, confidence: 0.9 });
  expect((await v.patch(`/api/runs/${id}`, { version: 2, goodBoards: 0 })).status).toBe(422);
});

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
}, 60_000);

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

test("the page of errors names every code", () => {
  const text = readFileSync(new URL("../../docs/errors.md", import.meta.url), "utf8");
  for (const code of Object.keys(ERROR_CODES)) expect(text).toContain(`\`${code}\``);
});

test("the page of errors names every tag of a finding, and none that nothing says", () => {
  const listed = readFileSync(new URL("../../docs/errors.md", import.meta.url), "utf8")
    .split("## Findings")[1]!
    .match(/(?<=^\| `)[a-z-]+/gm)!;
  const roots = ["../../core/src/", "../../formats/src/", "../../bin/src/", "../../packing/src/"].map((r) =>
    fileURLToPath(new URL(r, import.meta.url)),
  );
  const source = roots
    .flatMap((root) => readdirSync(root, { recursive: true, encoding: "utf8" }).map((f) => join(root, f)))
    .filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts"))
    .map((f) => readFileSync(f, "utf8"))
    .join("\n");
  const said = [...source.matchAll(/\b(?:tag: |say\(\s*)"([a-z]+-[a-z-]+)"/g)].map((m) => m[1]!);
  expect(said.length).toBeGreaterThan(80);
  expect(said.filter((t) => !listed.includes(t))).toEqual([]);
  expect(listed.filter((t) => !source.includes(`"${t}"`))).toEqual([]);
});
