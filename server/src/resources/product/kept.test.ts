import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BoardDiff } from "@kobbin/core";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** What begins as a picture of this kind and size does. */
function png(widthPx: number, heightPx: number): Buffer {
  const head = Buffer.alloc(40);
  head.write("89504e470d0a1a0a0000000d49484452", "hex");
  head.writeUInt32BE(widthPx, 16);
  head.writeUInt32BE(heightPx, 20);
  return head;
}
const PNG = png(84, 56);
const key = (c: string) => c.repeat(64);
const picture = (more: object = {}) => ({
  key: key("a"),
  box: [0, 0, 20, 10],
  png: PNG.toString("base64"),
  under: {},
  ...more,
});

/** The corrections a board is read under, as a page has them with its files. */
async function under(v: Visitor, boardId: string): Promise<object> {
  const r = await v.stream(`/api/boards/${boardId}/files`);
  await r.body!.cancel();
  return JSON.parse(decodeURIComponent(r.headers.get("x-corrections")!));
}

test("a small picture is kept as it was painted, for its shop, as long as the board is read as it was then", async () => {
  const v = new Visitor(server);
  await v.startShop("Pictures");
  const { boardId } = (await v.drop(strangerFiles())).body as { boardId: string };
  const path = `/api/boards/${boardId}/picture`;
  const get = async (by: Visitor, k = key("a")) => {
    const r = await by.stream(`${path}?key=${k}`);
    const bytes = Buffer.from(await r.arrayBuffer());
    return [r.status, r.headers.get("x-box"), bytes.toString("base64")];
  };
  expect((await get(v))[0]).toBe(204);
  const before = { under: await under(v, boardId) };
  expect((await v.put(path, picture(before))).status).toBe(204);
  expect(await get(v)).toEqual([200, "[0,0,20,10]", PNG.toString("base64")]);
  expect((await get(v, key("b")))[0]).toBe(204);
  expect((await get(v, "no key"))[0]).toBe(204);
  for (const wrong of [
    { png: Buffer.from("<svg/>").toString("base64") },
    { png: "%%%" },
    { png: png(30_000, 56).toString("base64") },
    { png: png(84, 0).toString("base64") },
    { png: PNG.subarray(0, 24).toString("base64") },
    { key: "a" },
    { box: [0, 0, 20] },
    { box: [0, 0, 20, "10"] },
    { under: undefined },
  ])
    expect([wrong, (await v.put(path, picture(wrong))).status]).toEqual([wrong, 422]);
  const stranger = new Visitor(server);
  await stranger.startShop("Other pictures");
  expect((await get(stranger))[0]).toBe(404);
  expect((await stranger.put(path, picture({ png: PNG.toString("base64") }))).status).toBe(404);
  // read otherwise, it would show another board
  const moved = { moves: { "mine.gts": { dxMm: 1, dyMm: 0 } } };
  expect((await v.post(`/api/boards/${boardId}/corrections`, moved)).status).toBe(204);
  expect((await get(v))[0]).toBe(204);
  // a page that painted before does not bring its picture after
  await v.put(path, picture({ ...before, key: key("c") }));
  expect((await get(v, key("c")))[0]).toBe(204);
  await v.put(path, picture({ under: await under(v, boardId), key: key("d") }));
  expect((await get(v, key("d")))[0]).toBe(200);
});

test("of very many pictures of a board the oldest go", async () => {
  const v = new Visitor(server);
  await v.startShop("Many pictures");
  const { boardId } = (await v.drop(strangerFiles())).body as { boardId: string };
  const of = (i: number) => String(i).padStart(64, "0");
  const read = { under: await under(v, boardId) };
  for (let i = 0; i < 43; i++)
    await v.put(`/api/boards/${boardId}/picture`, picture({ ...read, key: of(i) }));
  const status = async (i: number) => (await v.stream(`/api/boards/${boardId}/picture?key=${of(i)}`)).status;
  expect([await status(2), await status(3), await status(42)]).toEqual([204, 200, 200]);
  // and of very many of a shop, whichever board they are of
  const second = (await v.drop(strangerFiles(), { name: "Other" })).body as { boardId: string };
  await server.owner.query(
    `insert into board_picture (workshop_id, board_id, key, read_of, box, png, at)
     select workshop_id, id, lpad(n::text, 64, '0'), '', '{0,0,1,1}', '', now() - interval '1 day'
     from board, generate_series(1, 2000) as n where id = $1`,
    [second.boardId],
  );
  await v.put(`/api/boards/${boardId}/picture`, picture({ ...read, key: of(50) }));
  const { rows } = await server.owner.query<{ n: number }>(
    "select count(*)::int as n from board_picture where workshop_id = (select workshop_id from board where id = $1)",
    [boardId],
  );
  expect([rows[0]!.n, await status(50), await status(42)]).toEqual([2000, 200, 200]);
});

test("what two boards differ in is worked out once and asked for by each page; another reading is worked out anew", async () => {
  const v = new Visitor(server);
  await v.startShop("Differences");
  const first = (await v.drop(strangerFiles())).body as { boardId: string; productId: string };
  const files = strangerFiles();
  const wider = { ...files, "mine.gtp": files["mine.gtp"]!.replace("R,1X1", "R,1.4X1") };
  const next = (await v.drop(wider, { productId: first.productId, revision: "B" })).body as {
    boardId: string;
  };
  const difference = (a: string, b: string, by = v) => by.get(`/api/boards/${a}/difference?against=${b}`);
  const [one, two] = await Promise.all([
    difference(next.boardId, first.boardId),
    difference(next.boardId, first.boardId),
  ]);
  const diff = one.body as BoardDiff;
  expect(two.body).toEqual(diff);
  expect(diff.changed).toEqual(["paste-top"]);
  expect(diff.places["paste-top"]).toMatchObject([{ kind: "resized" }, { kind: "resized" }]);
  // it is kept: what stands there is what is answered
  await server.owner.query(
    "with quiet as (select set_config('app.change','off',true)) update board_difference set difference = jsonb_set(difference, '{changed}', '[\"kept\"]') from quiet",
  );
  expect(((await difference(next.boardId, first.boardId)).body as BoardDiff).changed).toEqual(["kept"]);
  const as = { roles: { "mine.gtp": { role: "drawing" } } };
  expect((await v.post(`/api/boards/${first.boardId}/corrections`, as)).status).toBe(204);
  const read = ((await difference(next.boardId, first.boardId)).body as BoardDiff).changed;
  expect(read).toEqual(["paste-top"]);
  expect((await difference(next.boardId, "nothing")).status).toBe(204);
  const stranger = new Visitor(server);
  await stranger.startShop("Other differences");
  const theirs = (await stranger.drop(strangerFiles())).body as { boardId: string };
  expect((await difference(theirs.boardId, first.boardId, stranger)).status).toBe(404);
  expect((await difference(first.boardId, theirs.boardId)).status).toBe(404);
});
