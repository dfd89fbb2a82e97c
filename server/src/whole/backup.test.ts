import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AuditRow, BenchAnswer, HistoryAnswer, RunAnswer, SessionAnswer } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import { unzipSync, zipSync } from "fflate";
import { JPEG } from "../../test/jpeg.ts";
import { startServer, strangerFiles, type TestServer, testCompute, Visitor } from "../../test/kit.ts";
import { openBackup } from "../backup/open.ts";
import { restoreBackup } from "../backup/restore.ts";
import { withWorkshop } from "../db/tx.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A shop with a bit of everything: choices, offers, a quotation, remarks, a release, something taken back. */
async function filled(name: string): Promise<Visitor> {
  const v = new Visitor(server);
  await v.startShop(name);
  const kept = (await v.drop(strangerFiles())).body as { revisionId: string };
  const runs = [];
  for (const run of ["released one", "open one"])
    runs.push(
      (await v.post("/api/runs", { revisionId: kept.revisionId, name: run, goodBoards: 5 })).body as {
        id: string;
      },
    );
  const { document } = (await v.get(`/api/runs/${runs[0]!.id}`)).body as RunAnswer;
  const line = document.lines[0]!.id;
  const supplierId = document.suppliers[0]!.id;
  await v.post(`/api/lines/${line}/offers`, {
    supplierId,
    stock: 500,
    currency: "EUR",
    breaks: [
      { qty: 1, price: "0.050001" },
      { qty: 10, price: "0.04" },
    ],
  });
  expect((await v.post(`/api/runs/${runs[0]!.id}/release`)).status).toBe(201);
  // what happened to it since: an order, a parcel, work, and its end
  const released = ((await v.get(`/api/runs/${runs[0]!.id}`)).body as RunAnswer).document;
  const { id: offer, supplier } = released.offers[0]!;
  const order = `parts ${supplier}`;
  for (const [method, what, body] of [
    [
      "PUT",
      "purchases",
      { order, currency: "EUR", orderedOn: "2026-11-25", paid: { [offer]: "0.40" }, freight: "2.5" },
    ],
    [
      "POST",
      "receipts",
      { order, arrivedOn: "2026-11-30", items: [{ item: offer, qty: 8, place: "drawer", unitCost: "0.04" }] },
    ],
    ["POST", "work", { on: "2026-12-01", started: 5, good: 4, scrapped: 1, minutes: 30, note: "slow" }],
    ["POST", "photos", { order, item: offer, on: "2026-11-30", note: "bent", jpeg: JPEG }],
    ["PUT", "closing", { lesson: "count twice" }],
  ] as const)
    expect((await v.call(method, `/api/runs/${runs[0]!.id}/${what}`, body)).status).toBeLessThan(300);
  await v.patch(`/api/runs/${runs[1]!.id}`, { version: 1, goodBoards: 33, pins: { [line]: supplierId } });
  await v.post(`/api/runs/${runs[1]!.id}/remarks`, { stage: "fab", text: "ask about the edge, “soon”" });
  const change = (await v.patch(`/api/lines/${line}`, { maker: "Taken back" })).headers.get("X-Change");
  await v.post(`/api/changes/${change}/undo`);
  await v.patch("/api/shop", { rates: { USD: "0.9215" }, decimalMark: "," });
  return v;
}

/** Everything a person can see of a shop, with ids replaced by the order they appear in. */
async function seen(v: Visitor) {
  const bench = (await v.get("/api/bench")).body as BenchAnswer;
  const runs = [];
  for (const r of [...bench.runs].sort((a, b) => a.name.localeCompare(b.name))) {
    const { summary: _, ...answer } = (await v.get(`/api/runs/${r.id}`)).body as RunAnswer;
    const pack = r.state === "released" ? sha256Hex((await v.get(`/api/runs/${r.id}/package`)).bytes) : "";
    const files = sha256Hex((await v.get(`/api/boards/${answer.boardIds[0]!}/files`)).bytes);
    runs.push({ answer, pack, files });
  }
  const history = ((await v.get("/api/history")).body as HistoryAnswer).changes.map((c) => [
    c.sentence,
    c.state,
    c.at,
    c.person,
  ]);
  const { shop } = (await v.get("/api/session")).body as { shop: Record<string, unknown> };
  const order = new Map<string, string>();
  // which lines and houses there are stands in the document; here only how often each was changed
  for (const r of runs) Object.assign(r.answer, { versions: Object.values(r.answer.versions).sort() });
  const text = JSON.stringify({ runs, history, shop: { ...shop, isDemo: false } }).replace(
    /Round trip, restored [\d-]+/g,
    "Round trip",
  );
  // a released run's document is frozen with the ids it had
  return text.replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => {
    if (!order.has(id)) order.set(id, `id ${order.size}`);
    return order.get(id)!;
  });
}

const send = (v: Visitor, bytes: Uint8Array) => {
  const form = new FormData();
  form.append("files", new Blob([bytes as Uint8Array<ArrayBuffer>]), "backup.zip");
  return v.call("POST", "/api/restore", form);
};

test("a backup read back is the same shop: runs, files, packages, history; beside the old one, and twice", async () => {
  const v = await filled("Round trip");
  const before = await seen(v);
  const backup = await v.get("/api/backup");
  expect(backup.headers.get("content-disposition")).toMatch(/round-trip-\d{4}-\d\d-\d\d\.kobbin\.zip/);
  // the history lies there as it happened
  for (const table of ["change", "change_row"]) {
    const lines = new TextDecoder()
      .decode(unzipSync(backup.bytes)[`tables/${table}.jsonl`])
      .trim()
      .split("\n");
    const ids = lines.map((l) => (JSON.parse(l) as { id: number }).id);
    expect(ids.length).toBeGreaterThan(4);
    expect([table, ids]).toEqual([table, [...ids].sort((a, b) => a - b)]);
  }
  const first = await send(v, backup.bytes);
  expect(first).toMatchObject({
    status: 201,
    body: { name: expect.stringMatching(/^Round trip, restored/) },
  });
  expect(await seen(v)).toBe(before);
  // the shop beside is told apart by its name
  const { shop } = (await v.get("/api/session")).body as SessionAnswer;
  expect(shop).toMatchObject({ name: (first.body as { name: string }).name });
  // it is a shop to work in: figures come, and what was done can be taken back
  await server.figures();
  const bench = (await v.get("/api/bench")).body as BenchAnswer;
  const open = bench.runs.find((r) => r.state === "open")!;
  expect(open.summary?.start).toBeGreaterThan(32);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  const choice = changes.find((c) => c.sentence.includes("good boards 5 → 33"))!;
  expect((await v.post(`/api/changes/${choice.id}/undo`)).status).toBe(200);
  expect(((await v.get(`/api/runs/${open.id}`)).body as RunAnswer).document.goodBoards).toBe(5);
  // into another installation's empty hands, and once more into the same
  const other = new Visitor(server);
  await other.startShop("Empty hands");
  expect((await send(other, backup.bytes)).body).toMatchObject({ name: "Round trip" });
  expect((await send(other, backup.bytes)).status).toBe(201);
  expect(await seen(other)).toBe(before);
});

test.each([
  ["no archive", () => new TextEncoder().encode("hello"), "hello is not"],
  ["a cut-off archive", (b: Uint8Array) => b.slice(0, b.length - 400), "cut off"],
  ["a board's archive", () => zipSync({ "top.gtl": new Uint8Array(3) }), "no manifest"],
  [
    "an altered table",
    (b: Uint8Array) => repack(b, "tables/bom_line.jsonl", (t) => t.replace("4k7", "9k9")),
    "bom_line was altered",
  ],
  ["a missing row", (b: Uint8Array) => repack(b, "tables/bom_line.jsonl", () => ""), "bom_line is cut off"],
  [
    "a newer version",
    (b: Uint8Array) => repack(b, "manifest.json", (t) => t.replace("workshop/1", "workshop/7")),
    "newer Kobbin",
  ],
])("%s is refused in words and nothing is stored", async (_name, spoil, words) => {
  const v = new Visitor(server);
  await v.startShop(`Refuses ${_name}`);
  await v.drop(strangerFiles());
  const { bytes } = await v.get("/api/backup");
  const count = async () => (await server.owner.query("select count(*)::int as n from workshop")).rows[0].n;
  const before = await count();
  const r = await send(v, spoil(bytes));
  expect([r.status, (r.body as { code: string }).code]).toEqual([422, "ARCHIVE_INVALID"]);
  if (_name !== "no archive") expect((r.body as { message: string }).message).toContain(words);
  expect(await count()).toBe(before);
});

function repack(bytes: Uint8Array, path: string, change: (text: string) => string): Uint8Array {
  const files = Object.fromEntries(unpackZip(bytes).map((f) => [f.path, f.bytes]));
  files[path] = new TextEncoder().encode(change(new TextDecoder().decode(files[path])));
  return zipSync(files);
}

test("every row of a backup is counted on its way back in, the last one last", async () => {
  const v = await filled("Counted");
  const { bytes } = await v.get("/api/backup");
  const folder = mkdtempSync(join(tmpdir(), "kobbin-counted-"));
  writeFileSync(join(folder, "b.zip"), bytes);
  const opened = await openBackup(join(folder, "b.zip"), folder);
  const told: (readonly [number, number])[] = [];
  await withWorkshop(server.deps.pool, opened.workshopId, (tx) =>
    restoreBackup(tx, opened, "Counted again", (done, of) => told.push([done, of])),
  );
  rmSync(folder, { recursive: true });
  const rows = Object.values(opened.manifest.tables).reduce((a, b) => a + b, 0) - 1;
  expect(told.at(-1)).toEqual([rows, rows]);
  expect(told.every(([n], i) => n > (told[i - 1]?.[0] ?? 0))).toBe(true);
});

test("an archive of the first version stays readable", async () => {
  const golden = new URL("../../test/golden/workshop-1.kobbin.zip", import.meta.url);
  if (process.env.KOBBIN_GOLDEN === "write" && !existsSync(golden)) {
    mkdirSync(new URL(".", golden), { recursive: true });
    writeFileSync(golden, (await (await filled("Golden shop")).get("/api/backup")).bytes);
  }
  const v = new Visitor(server);
  await v.startShop("Reads old");
  const archive = new Uint8Array(readFileSync(golden));
  expect((await send(v, archive)).body).toMatchObject({ name: "Golden shop" });
  // who restored what of which day is on record
  const { createdAt } = JSON.parse(new TextDecoder().decode(unzipSync(archive)["manifest.json"]!)) as {
    createdAt: string;
  };
  const audit = (await v.get("/api/audit")).body as AuditRow[];
  expect(audit.map((a) => a.what)).toContain(`restored a backup of ${createdAt.split("T")[0]}`);
  const bench = (await v.get("/api/bench")).body as BenchAnswer;
  expect(bench.runs.map((r) => [r.name, r.state, r.goodBoards]).sort()).toEqual([
    ["open one", "open", 33],
    ["released one", "released", 5],
  ]);
  // it was written before lines knew their board
  const open = bench.runs.find((r) => r.state === "open")!;
  const { document, boardIds } = (await v.get(`/api/runs/${open.id}`)).body as RunAnswer;
  expect(document.lines.length).toBeGreaterThan(0);
  expect(document.lines.map((l) => l.board)).toEqual(document.lines.map(() => boardIds[0]));
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes.map((c) => c.sentence)).toContain("taken back: R1: maker nothing → Taken back");
});

test("a run that cannot be computed makes a backup refused; one that a person can mend, or a busy moment, does not", async () => {
  const compute = testCompute();
  let answers: Error | undefined;
  const own = await startServer(
    {},
    {
      compute: {
        run: (task, shop) =>
          task.kind === "summary" && answers ? Promise.reject(answers) : compute.run(task, shop),
        close: async () => undefined,
      },
    },
  );
  try {
    const v = new Visitor(own);
    await v.startShop("Cannot");
    const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
    await v.post("/api/runs", { revisionId, name: "the one", goodBoards: 5 });
    const { bytes } = await v.get("/api/backup");
    for (const [error, status] of [
      [new AppError("OUT_OF_RANGE", "", ""), 201],
      [new AppError("BUSY", "", ""), 201],
      [new AppError("TOO_MUCH_WORK", "", ""), 422],
      [new TypeError("no such key"), 422],
    ] as const) {
      answers = error;
      const r = await send(v, bytes);
      expect([error.message, r.status]).toEqual([error.message, status]);
      if (status === 422)
        expect((r.body as { message: string }).message).toContain("its run “the one” cannot be computed");
    }
  } finally {
    await own.close();
    await compute.close();
  }
});
