import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import type { LotBefore } from "@kobbin/core";
import { JPEG } from "../../../test/jpeg.ts";
import { startServer, type TestServer, Visitor } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());
const on = "2026-12-01";

test("bare boards are put by and taken back; no more than came, and what is put by is not built", async () => {
  const { v, id, read, document, boards, undo } = await releasedRun(server, "Kept");
  const item = document.boards[0]!.id!;
  const kept = async () => (await read()).record!.kept ?? [];
  const put = (body: object) => v.post(`/api/runs/${id}/kept`, { item, on, ...body });
  const two = {
    boards: [
      { purpose: "reference", pieces: 1 },
      { purpose: "spare", pieces: 2 },
    ],
    place: " B2 ",
  };
  // none came yet
  expect((await put(two)).status).toBe(422);
  await v.post(`/api/runs/${id}/receipts`, {
    order: boards,
    arrivedOn: on,
    items: [
      { item, qty: 12 },
      { item, qty: 2, isApart: true, because: "scratched" },
    ],
  });
  for (const [wrong, status] of [
    [{ ...two, boards: [] }, 422],
    [{ ...two, boards: [{ purpose: "nothing", pieces: 1 }] }, 422],
    [{ ...two, boards: [{ purpose: "gift", pieces: 0 }] }, 422],
    [{ ...two, boards: [{ purpose: "gift", pieces: 13 }] }, 422],
    [{ ...two, boards: [{ purpose: "gift", pieces: 3 }], isApart: true }, 422],
    [{ ...two, item: "nobody" }, 404],
  ] as const)
    expect([(await put(wrong)).status, wrong]).toEqual([status, wrong]);
  expect(await kept()).toEqual([]);
  expect((await put(two)).status).toBe(201);
  const same = { id: expect.any(String), item, isApart: false, place: "B2", on, person: expect.any(String) };
  expect(await kept()).toEqual([
    { ...same, purpose: "reference", pieces: 1 },
    { ...same, purpose: "spare", pieces: 2 },
  ]);
  // twelve came: eleven may be begun, the spare ones among them
  const begin = (started: number) => v.post(`/api/runs/${id}/work`, { on, started, minutes: 1 });
  expect((await begin(12)).status).toBe(422);
  expect((await begin(11)).status).toBe(201);
  const more = await put({ boards: [{ purpose: "gift", pieces: 1 }], place: "" });
  expect([more.status, (more.body as { message: string }).message]).toEqual([
    422,
    expect.stringMatching(/11 boards were started, but boards for 10 came/),
  ]);
  // taken back as the one change it was
  const [, spare] = await kept();
  const moved = await v.patch(`/api/kept/${spare!.id}`, { place: "shelf" });
  expect([moved.status, (await kept())[1]!.place]).toEqual([204, "shelf"]);
  await undo(moved.headers);
  expect((await kept())[1]!.place).toBe("B2");
  expect((await v.call("DELETE", `/api/kept/${spare!.id}`)).status).toBe(204);
  expect((await kept()).map((k) => k.purpose)).toEqual(["reference"]);
  // the parcel they are of does not go while they are put by
  const receipts = (await read()).record!.receipts;
  const apart = receipts.find((r) => r.isApart)!;
  expect((await put({ boards: [{ purpose: "tray", pieces: 2 }], isApart: true })).status).toBe(201);
  expect((await v.call("DELETE", `/api/receipts/${apart.id}`)).status).toBe(422);
  const stranger = new Visitor(server);
  await stranger.startShop("Kept stranger");
  const mine = (await kept())[0]!.id;
  expect((await stranger.call("DELETE", `/api/kept/${mine}`)).status).toBe(404);
  expect((await stranger.get(`/api/runs/${id}/lots-before`)).status).toBe(404);
});

test("lots that came for other runs stand beside this one: sizes, what is kept back, photos at agreed spots", async () => {
  const { v, id, read, document, boards } = await releasedRun(server, "Before");
  const item = document.boards[0]!.id!;
  await v.post(`/api/runs/${id}/receipts`, {
    order: boards,
    arrivedOn: on,
    items: [
      { item, qty: 9 },
      { item, qty: 1, isApart: true, because: "bent" },
    ],
  });
  await v.post(`/api/runs/${id}/measured`, { item, label: "1", on, readings: { width: [20.1] }, looks: {} });
  await v.post(`/api/runs/${id}/kept`, {
    item,
    on,
    boards: [{ purpose: "reference", pieces: 1 }],
    place: "B2",
  });
  const photo = { order: boards, item, on, jpeg: JPEG };
  expect((await v.post(`/api/runs/${id}/photos`, { ...photo, spot: "whole top" })).status).toBe(201);
  // a spot is of a board that came of an order
  for (const wrong of [
    { ...photo, order: undefined, item: undefined, unit: 1, spot: "whole top" },
    { ...photo, spot: "" },
    { ...photo, spot: "x".repeat(81) },
  ])
    expect((await v.post(`/api/runs/${id}/photos`, wrong)).status).toBe(422);
  await v.post(`/api/runs/${id}/photos`, photo);
  expect((await read()).record!.photos!.map((p) => p.spot)).toEqual(["whole top", undefined]);

  const { revisionId } = await read();
  const next = (await v.post("/api/runs", { revisionId, name: "next", goodBoards: 5 })).body as RunAnswer;
  const lots = (await v.get(`/api/runs/${next.id}/lots-before`)).body as LotBefore[];
  const m = document.boards[0]!.measure;
  expect(lots).toEqual([
    {
      run: id,
      runName: "one",
      product: document.product,
      revision: document.revision,
      board: document.boards[0]!.name,
      boards: 1,
      isSame: true,
      item,
      house: { id: document.house!.id, name: document.house!.name },
      on,
      came: 10,
      apart: 1,
      measured: 1,
      sizes: [
        {
          key: "width",
          kind: "outline",
          what: "width",
          mm: m.outline!.widthMm,
          tolMm: expect.any(Number),
          values: [20.1],
        },
      ],
      kept: [expect.objectContaining({ purpose: "reference", place: "B2" })],
      photos: [expect.objectContaining({ spot: "whole top", on })],
    },
  ]);
  // of itself a run is none before
  expect((await v.get(`/api/runs/${id}/lots-before`)).body).toEqual([]);
});
