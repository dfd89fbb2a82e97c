import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { KnownBoard, RunAnswer } from "@kobbin/contract";
import { type PanelChoice, panelOffers, type RunDocument, rollUp } from "@kobbin/core";
import { unpackZip } from "@kobbin/formats";
import { demoArchive, startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("a sheet is kept with the run as it was worked out, told in the history, taken back, and refused where it is none", async () => {
  const v = new Visitor(server);
  await v.startShop("Sheets");
  const { revisionId } = (await v.drop({ "probe-tail.zip": demoArchive("probe-tail") }, { name: "Tail" }))
    .body as {
    revisionId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "on sheets", goodBoards: 24 })).body as {
    id: string;
  };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const first = await read();
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const offers = panelOffers(first.document, roll(first.document), roll);
  const choice = offers.proposals[0]!.choice;
  // the key of the only board is its id
  expect(new Set(choice.places.map((p) => p.board))).toEqual(new Set([first.boardIds[0]]));

  const patch = (panel: unknown, version: number) => v.patch(`/api/runs/${id}`, { version, panel });
  expect((await patch(choice, first.version)).status).toBe(200);
  const kept = await read();
  expect(kept.document.choices.panel).toEqual(choice);
  const planned = rollUp(kept.document).orders[0]!;
  expect(planned.sheet).toMatchObject({ perSheet: choice.places.length });

  for (const wrong of [
    { ...choice, across: "sideways" },
    { ...choice, widthMm: "wide" },
    { ...choice, places: [{ board: first.boardIds[0], xMm: 0, yMm: 0 }] },
    { ...choice, places: Array.from({ length: 401 }, () => choice.places[0]) },
    "a sheet",
  ]) {
    const refused = await patch(wrong, kept.version);
    expect(refused.status).toBe(422);
  }
  expect((await read()).document.choices.panel).toEqual(choice);

  expect((await patch(null, kept.version)).status).toBe(200);
  const single = await read();
  expect(single.document.choices.panel ?? null).toBeNull();
  expect(rollUp(single.document).orders[0]!.sheet).toBeUndefined();
  const back = await v.post(`/api/runs/${id}/undo`, {});
  expect(back.status).toBe(200);
  expect((await read()).document.choices.panel as PanelChoice).toEqual(choice);
  const history = JSON.stringify((await v.get(`/api/history?run=${id}`)).body);
  const size = `${choice.widthMm} × ${choice.heightMm} mm`;
  expect(history).toContain(`"sheet of ${choice.places.length}, ${size}"`);
  expect(history).toContain(`taken back: sheet of ${choice.places.length}, ${size} → nothing`);
  // an undone change leaves no half of it
  expect((await read()).version).toBeGreaterThan(single.version);
});

test("boards of another product share a run's sheets: computed, told, ordered and packed with it; of another shop never", async () => {
  const v = new Visitor(server);
  await v.startShop("Shared");
  // a place whose part no list names is none of the guest's parts
  const design = strangerFiles();
  design["mine-pos.csv"] += "R9,9,5,0,top\n";
  const drop = async (who: Visitor, name: string) =>
    (await who.drop(design, { name })).body as { productId: string; revisionId: string };
  const [mine, theirs] = [await drop(v, "Mine"), await drop(v, "Lid")];
  const { id } = (await v.post("/api/runs", { revisionId: mine.revisionId, name: "one", goodBoards: 10 }))
    .body as { id: string };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const boardOf = async (who: Visitor, revisionId: string) => {
    const run = (await who.post("/api/runs", { revisionId, name: "two", goodBoards: 5 })).body as {
      id: string;
    };
    return ((await who.get(`/api/runs/${run.id}`)).body as RunAnswer).boardIds[0]!;
  };
  const guest = await boardOf(v, theirs.revisionId);
  const other = new Visitor(server);
  await other.startShop("Elsewhere");
  const foreign = await boardOf(other, (await drop(other, "Foreign")).revisionId);

  // what tells them again on a panel: this shop's single boards, the newest first
  const known = (await v.get("/api/boards/known")).body as KnownBoard[];
  expect(known.map((k) => [k.product, k.revision, k.mark.copies])).toEqual([
    ["Lid", "A", 1],
    ["Mine", "A", 1],
  ]);
  expect(known[0]!.mark).toEqual(known[1]!.mark);
  expect(known[0]!.mark.pads).toBeGreaterThan(0);

  const patch = async (what: object) => {
    const done = await v.patch(`/api/runs/${id}`, { version: (await read()).version, ...what });
    expect([done.status, done.body]).toEqual([200, expect.anything()]);
  };
  const [own] = (await read()).boardIds;
  // of another shop, of none, and a board of its own are no guests
  const nowhere = "00000000-0000-4000-8000-000000000000";
  await patch({
    guests: [foreign, nowhere, own, guest].map((board) => ({ board, boards: 12 })),
  });
  const asked = await read();
  expect(asked.guestIds).toEqual([guest]);
  expect(asked.document.guests).toMatchObject([
    { id: guest, product: "Lid", revision: "A", parts: [{ ref: "R1" }] },
  ]);
  await patch({ guests: [{ board: guest, boards: 12 }] });
  const doc = (await read()).document;
  const offers = panelOffers(doc, rollUp(doc), rollUp);
  const { choice } = offers.proposals[0]!;
  await patch({ panel: choice });
  const [line] = doc.lines;
  const offer = { stock: 500, currency: "EUR", breaks: [{ qty: 1, price: "0.05" }] };
  await v.post(`/api/lines/${line!.id}/offers`, { supplierId: doc.suppliers[0]!.id, ...offer });
  const history = JSON.stringify((await v.get(`/api/history?run=${id}`)).body);
  expect(history).toMatch(/boards of other products on the sheet [^"]*12 of /);

  const released = await v.post(`/api/runs/${id}/release`);
  expect([released.status, released.body]).toEqual([201, expect.anything()]);
  const files = unpackZip((await v.get(`/api/runs/${id}/package`)).bytes);
  const paths = files.map((f) => f.path);
  // the sheet goes to the house; the boards' own files are kept beside, each product's its own
  expect(paths.filter((p) => p.startsWith("fabrication/")).length).toBeGreaterThan(5);
  expect(paths.filter((p) => p.startsWith("design/shared-1-")).length).toBeGreaterThan(3);
  const kept = JSON.parse(
    new TextDecoder().decode(files.find((f) => f.path.endsWith("run.json"))!.bytes),
  ) as RunDocument;
  expect(paths.some((p) => p.startsWith(`${kept.guests![0]!.archive}/`))).toBe(true);
  // the guest's parts are in no list of the sheet: nobody sends them
  const list = new TextDecoder().decode(files.find((f) => /assembly\/.*-parts\.csv$/.test(f.path))!.bytes);
  const copies = choice.places.map((p, i) => [p.board, i + 1] as const);
  for (const [board, copy] of copies) expect(list.includes(`R1_${copy}`)).toBe(board === own);
  const order = rollUp(kept).orders[0]!;
  expect(order.sheet!.perSheet).toBe(choice.places.filter((p) => p.board === own).length);
});
