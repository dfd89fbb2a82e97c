import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, RunAnswer } from "@kobbin/contract";
import { costDocument, microsToNumber, type RunDocument, rollUp } from "@kobbin/core";
import { sha256Hex } from "@kobbin/formats";
import { demoArchive, startServer, strangerFiles, type TestServer, Visitor, zipOf } from "../../test/kit.ts";

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
const counts = async () =>
  (
    await server.owner.query(
      "select (select count(*) from product)::int as products, (select count(*) from board)::int as boards, (select count(*) from blob)::int as blobs, (select count(*) from bom_line)::int as lines",
    )
  ).rows[0];

test("an archive is kept byte for byte and comes back as it was", async () => {
  const v = await shop("Bytes");
  const archive = demoArchive("probe-tail");
  const { boardId } = await runOf(v, { "probe-tail.zip": archive });
  const back = await v.get(`/api/boards/${boardId}/files`);
  expect(sha256Hex(back.bytes)).toBe(sha256Hex(archive));
  expect(back.headers.get("content-disposition")).toContain("thing-a.zip");
});

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
});

test("what an offer charges once is kept; a charge of nothing is none", async () => {
  const v = new Visitor(server);
  await v.startShop("Fees");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const read = async () => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
  const { lines, suppliers } = await read();
  const kept = async (fee?: string) => {
    const body = {
      supplierId: suppliers[0]!.id,
      stock: 9,
      currency: "EUR",
      breaks: [{ qty: 1, price: "1" }],
      fee,
    };
    const made = (await v.post(`/api/lines/${lines[0]!.id}/offers`, body)).body as { id: string };
    const offer = (await read()).offers.find((o) => o.id === made.id)!;
    return "fee" in offer ? Number(offer.fee) : "none";
  };
  expect([await kept("6.00"), await kept("0.00"), await kept()]).toEqual([6, "none", "none"]);
});

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
});

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
});

test("two people: the second of two changes from one state is refused and changes nothing", async () => {
  const v = await shop("Versions");
  const { id, read } = await runOf(v, strangerFiles());
  expect((await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12 })).status).toBe(200);
  const late = await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 99, confidence: 0.5 });
  expect([late.status, (late.body as { code: string }).code]).toEqual([409, "STALE_VERSION"]);
  expect((await read()).document).toMatchObject({ goodBoards: 12, confidence: 0.9 });
  expect((await v.patch(`/api/runs/${id}`, { version: 2, goodBoards: 0 })).status).toBe(422);
});
