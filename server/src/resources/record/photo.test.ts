import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { shapes } from "@kobbin/core";
import { JPEG } from "../../../test/jpeg.ts";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const PLAIN = Buffer.from(JPEG, "base64");
/** The same with what a phone writes before the picture, and something behind it. */
const TOLD = Buffer.concat([
  PLAIN.subarray(0, 2),
  Buffer.from([0xff, 0xfe, 0, 16]),
  Buffer.from("taken at home."),
  PLAIN.subarray(2),
  Buffer.from("and more"),
]).toString("base64");
const on = "2026-12-01";

test("photos of what came, of a board and of a fault are kept without what the camera wrote, taken back, and gone with nothing else", async () => {
  const { v, id, read, document, boards, undo } = await releasedRun(server, "Photos");
  const item = document.boards[0]!.id!;
  const take = (of: object) => v.post(`/api/runs/${id}/photos`, { on, jpeg: TOLD, ...of });
  const photos = async () => (await read()).record!.photos ?? [];
  const { id: defect } = (
    await v.post(`/api/runs/${id}/defects`, { unit: 2, at: "U1.4", code: "bridge", on })
  ).body as { id: string };
  for (const shows of [{ order: boards, item }, { unit: 1, note: " from above " }, { defect }])
    expect((await take(shows)).status).toBe(201);
  const same = { id: expect.any(String), widthPx: 12, heightPx: 8, on, note: "", person: expect.any(String) };
  expect(await photos()).toEqual([
    { ...same, order: boards, item },
    { ...same, unit: 1, note: "from above" },
    { ...same, unit: 2, defect },
  ]);
  const [ofBoards, , ofFault] = await photos();
  const shown = await v.get(`/api/photos/${ofBoards!.id}`);
  expect([Buffer.from(shown.bytes).equals(PLAIN), shown.headers.get("Content-Type")]).toEqual([
    true,
    "image/jpeg",
  ]);
  // as a browser asks for what it has
  const again = { "If-None-Match": shown.headers.get("ETag")!, "Cache-Control": "max-age=0" };
  const seen = await v.call("GET", `/api/photos/${ofBoards!.id}`, undefined, again);
  expect([seen.status, seen.bytes.length]).toEqual([304, 0]);
  const stranger = new Visitor(server);
  await stranger.startShop("Photos stranger");
  expect((await stranger.get(`/api/photos/${ofBoards!.id}`)).status).toBe(404);

  // what is no photo of anything, or none at all
  for (const [wrong, status] of [
    [{}, 422],
    [{ order: boards }, 422],
    [{ item }, 422],
    [{ order: boards, item, unit: 1 }, 422],
    [{ order: boards, item, defect }, 422],
    [{ unit: 1, item }, 422],
    [{ unit: 1, defect }, 422],
    [{ order: boards, item: "nothing" }, 404],
    [{ order: "boards nobody", item }, 404],
    [{ defect: id }, 404],
    [{ unit: 0 }, 422],
    [{ unit: 1, jpeg: "" }, 422],
    [{ unit: 1, jpeg: "no base 64!" }, 422],
    [{ unit: 1, jpeg: Buffer.from("<svg/>").toString("base64") }, 422],
    [{ unit: 1, jpeg: "A".repeat(2_000_001) }, 422],
  ] as const)
    expect([(await take(wrong)).status, wrong]).toEqual([status, wrong]);
  expect(await photos()).toHaveLength(3);

  // it says what it shows; a fault that is none leaves the photo at its board, and has it again
  expect((await v.patch(`/api/photos/${ofFault!.id}`, { note: "bridge" })).status).toBe(204);
  const captionOf = async () => (await photos()).find((x) => x.id === ofFault!.id)!.note;
  await v.patch(`/api/photos/${ofFault!.id}`, { note: "" });
  expect(await captionOf()).toBe("");
  expect((await v.patch(`/api/photos/${ofFault!.id}`, {})).status).toBe(422);
  await v.patch(`/api/photos/${ofFault!.id}`, { note: "bridge" });
  const gone = await v.call("DELETE", `/api/defects/${defect}`);
  expect((await photos()).at(-1)).toEqual({ ...same, unit: 2, note: "bridge", id: ofFault!.id });
  expect((await undo(gone.headers)).status).toBe(200);
  expect((await photos()).at(-1)).toMatchObject({ defect, id: ofFault!.id });
  const removed = await v.call("DELETE", `/api/photos/${ofFault!.id}`);
  expect([removed.status, await photos()]).toMatchObject([204, { length: 2 }]);
  expect((await v.get(`/api/photos/${ofFault!.id}`)).status).toBe(404);
  expect((await undo(removed.headers)).status).toBe(200);
  expect(Buffer.from((await v.get(`/api/photos/${ofFault!.id}`)).bytes).equals(PLAIN)).toBe(true);
  // a closed run still takes photos
  await v.put(`/api/runs/${id}/closing`, { lesson: "" });
  expect((await take({ unit: 1 })).status).toBe(201);
});

test("nothing is photographed of a run that is not released, and nothing beyond the shop's room", async () => {
  const v = new Visitor(server);
  await v.startShop("Photos early");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as RunAnswer;
  expect((await v.post(`/api/runs/${id}/photos`, { unit: 1, on, jpeg: JPEG })).status).toBe(403);
  // so many of a run, and no more
  const full = await releasedRun(server, "Photos full");
  const one = () => full.v.post(`/api/runs/${full.id}/photos`, { unit: 1, on, jpeg: JPEG });
  await one();
  const owner = await server.owner.connect();
  try {
    await owner.query("begin; select set_config('app.change', 'off', true)");
    await owner.query(
      `insert into photo (workshop_id, run_id, unit, sha256, width_px, height_px, on_day, person)
       select workshop_id, run_id, unit, sha256, width_px, height_px, on_day, person
       from photo, generate_series(2, $2) where run_id = $1`,
      [full.id, shapes.MOST.photos],
    );
    await owner.query("commit");
  } finally {
    owner.release();
  }
  const more = await one();
  expect([more.status, (more.body as { message: string }).message]).toEqual([
    422,
    expect.stringContaining("photos of a run"),
  ]);
  const small = await startServer({ shopQuotaBytes: 1024 * 1024 });
  try {
    const { v, id } = await releasedRun(small, "Photos small");
    // a photo whose tables take most of a megabyte
    const large = (n: number) =>
      Buffer.concat([
        PLAIN.subarray(0, 2),
        ...Array.from({ length: 12 }, () =>
          Buffer.concat([Buffer.from([0xff, 0xdb, 0xea, 0x62]), Buffer.alloc(60_000, n)]),
        ),
        PLAIN.subarray(2),
      ]).toString("base64");
    const take = (n: number) => v.post(`/api/runs/${id}/photos`, { unit: 1, on, jpeg: large(n) });
    expect((await take(1)).status).toBe(201);
    const beyond = await take(2);
    expect([beyond.status, (beyond.body as { code: string }).code]).toEqual([413, "SHOP_FULL"]);
    expect((await v.get(`/api/runs/${id}`)).body).toMatchObject({ record: { photos: { length: 1 } } });
  } finally {
    await small.close();
  }
});
