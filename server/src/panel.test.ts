import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { type PanelChoice, panelOffers, type RunDocument, rollUp } from "@kobbin/core";
import { demoArchive, startServer, type TestServer, Visitor } from "../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
}, 60_000);
afterAll(() => server.close(), 30_000);

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
