import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { unpackZip } from "@kobbin/formats";
import { demoArchive, shopWithRun, startServer, type TestServer } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A shop with the board Probe Tail in a run of ten, and what adds another board to it. */
async function shop(name: string) {
  const made = await shopWithRun(server, name);
  const add = (board: string, fields: Record<string, string>) => {
    const form = new FormData();
    for (const [k, t] of Object.entries(fields)) form.set(k, t);
    form.append("files", new Blob([new Uint8Array(demoArchive(board))]), `${board}.zip`);
    return made.v.call("POST", `/api/revisions/${made.revisionId}/boards`, form);
  };
  return { ...made, add };
}
const message = (a: { body: unknown }) => (a.body as { message: string }).message;

test("a second board joins the product with its lines and places; its references are its own", async () => {
  const { v, read, add, back } = await shop("Boards");
  const one = (await read()).document;
  const done = await add("rack-card", { name: "Rack Card", perProduct: "2" });
  expect([done.status, done.headers.get("X-Change") !== null]).toEqual([201, true]);
  const { document, boardIds, versions } = await read();
  expect(document.boards.map((b) => [b.id, b.name, b.perProduct])).toEqual([
    [boardIds[0], one.boards[0]!.name, 1],
    [boardIds[1], "Rack Card", 2],
  ]);
  expect(versions[boardIds[1]!]).toBe(1);
  const own = document.lines.filter((l) => l.board === boardIds[1]);
  expect(document.lines.slice(0, one.lines.length)).toEqual(one.lines);
  expect(own.length).toBe(document.lines.length - one.lines.length);
  expect(document.placements.some((p) => p.board === boardIds[1])).toBe(true);
  // both have an R1, and neither is missing its place
  const r = rollUp(document);
  expect(document.lines.filter((l) => l.refs.includes("R1")).map((l) => l.board)).toEqual([...boardIds]);
  expect(r.notes.some((n) => n.key.startsWith("part-unplaced"))).toBe(false);
  const r1 = r.parts.find((p) => p.line.board === boardIds[1] && p.line.refs.includes("R1"))!;
  expect(r1.count).toBe(2 * r1.line.refs.length);
  expect(r.orders).toHaveLength(2);
  // the bench tells it, and does not list the revision twice
  const { products } = (await v.get("/api/bench")).body as BenchAnswer;
  expect(products[0]!.revisions.map((x) => x.boards)).toEqual([2]);
  // taken back, the product is as it was
  await back(done.headers);
  expect((await read()).document.lines).toEqual(one.lines);
  expect((await read()).boardIds).toHaveLength(1);
});

test("a drop that is no board, a name that is taken and a product's only board are refused, and nothing is kept", async () => {
  const { v, revisionId, read, add } = await shop("Refused");
  const [first] = (await read()).boardIds;
  const only = await v.call("DELETE", `/api/boards/${first}`);
  expect([only.status, message(only)]).toEqual([403, expect.stringContaining("only board")]);
  const name = (await read()).document.boards[0]!.name;
  const taken = await add("rack-card", { name: name.toUpperCase() });
  expect([taken.status, message(taken)]).toEqual([422, expect.stringContaining("already")]);
  const form = new FormData();
  form.set("name", "Other");
  form.append("files", new Blob(["nothing"]), "notes.txt");
  expect((await v.call("POST", `/api/revisions/${revisionId}/boards`, form)).status).toBe(422);
  expect((await add("rack-card", { name: "Other", perProduct: "0" })).status).toBe(422);
  expect((await read()).boardIds).toEqual([first]);
  // a second one may not take the first one's name later either
  await add("rack-card", { name: "Other" });
  const second = (await read()).boardIds[1]!;
  expect((await v.patch(`/api/boards/${second}`, { name })).status).toBe(422);
  expect((await v.patch(`/api/boards/${second}`, { name: "Card", perProduct: 3 })).status).toBe(204);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes[0]!.sentence).toBe("Card: name Other → Card, in each product 1 → 3");
  expect((await read()).document.boards[1]).toMatchObject({ name: "Card", perProduct: 3 });
});

test("lines are put on a board, moved to the other, replaced board by board, and never merged over boards", async () => {
  const { v, revisionId, read, add, back } = await shop("Lines");
  await add("rack-card", { name: "Rack Card" });
  const { boardIds, document } = await read();
  const [tail, card] = boardIds as [string, string];
  const made = await v.post(`/api/revisions/${revisionId}/lines`, [
    { refs: ["R77"], valueText: "1k" },
    { refs: ["R78"], valueText: "1k", board: card },
    { valueText: "screw", qty: 2 },
  ]);
  const ids = (made.body as { ids: string[] }).ids;
  const boardsOf = async () => {
    const { lines } = (await read()).document;
    return ids.map((i) => lines.find((l) => l.id === i)?.board);
  };
  expect(await boardsOf()).toEqual([tail, card, undefined]);
  const merged = await v.post(`/api/lines/${ids[0]}/merge`, { others: [ids[1]] });
  expect([merged.status, message(merged)]).toEqual([403, expect.stringContaining("another board")]);
  expect((await v.patch(`/api/lines/${ids[0]}`, { board: card })).status).toBe(204);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes[0]!.sentence).toBe(`R77: on board ${document.boards[0]!.name} → Rack Card`);
  expect((await v.patch(`/api/lines/${ids[1]}`, { board: null })).status).toBe(204);
  expect(await boardsOf()).toEqual([card, undefined, undefined]);
  const stranger = await shop("Lines, elsewhere");
  const foreign = (await stranger.read()).boardIds[0]!;
  expect((await v.patch(`/api/lines/${ids[0]}`, { board: foreign })).status).toBe(404);
  // the card's list is read anew: the tail's lines and the loose ones stay
  const put = await v.put(`/api/revisions/${revisionId}/lines`, {
    board: card,
    lines: [{ refs: ["R1"], valueText: "33k" }],
  });
  const after = (await read()).document.lines;
  expect(after.filter((l) => l.board === card).map((l) => l.valueText)).toEqual(["33k"]);
  expect(after.filter((l) => l.board === tail)).toEqual(document.lines.filter((l) => l.board === tail));
  expect(after.filter((l) => l.board === undefined)).toHaveLength(2);
  await back(put.headers);
  expect((await read()).document.lines.filter((l) => l.board === card).length).toBeGreaterThan(1);
});

test("a correction of one board reads its own parts list anew and leaves the other's lines", async () => {
  const { v, read, add } = await shop("Corrected");
  await add("rack-card", { name: "Rack Card" });
  const { boardIds, document } = await read();
  const [tail, card] = boardIds as [string, string];
  const file = document.boards[1]!.measure.layers.find((l) => l.role === "bom")!.file;
  const of = async (board: string) => (await read()).document.lines.filter((l) => l.board === board);
  const [ofTail, ofCard] = [await of(tail), await of(card)];
  for (const l of [ofTail[0]!, ofCard[0]!]) await v.patch(`/api/lines/${l.id}`, { maker: "Changed" });
  const again = await v.post(`/api/boards/${card}/corrections`, { roles: { [file]: { role: "bom" } } });
  expect(again.status).toBe(204);
  expect((await of(card)).map((l) => l.maker)).toEqual(ofCard.map((l) => l.maker));
  expect((await of(tail)).map((l) => l.maker)).toEqual(["Changed", ...ofTail.slice(1).map((l) => l.maker)]);
});

test("what lies beside a product's only board stays when its parts list is read anew", async () => {
  const { v, revisionId, read } = await shop("Loose");
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "screw M3", qty: 4 });
  const { boardIds, document } = await read();
  const file = document.boards[0]!.measure.layers.find((l) => l.role === "bom")!.file;
  const again = await v.post(`/api/boards/${boardIds[0]}/corrections`, {
    roles: { [file]: { role: "bom" } },
  });
  expect(again.status).toBe(204);
  const texts = (lines: typeof document.lines) => lines.map((l) => `${l.valueText} ${l.qty}`).sort();
  const after = (await read()).document.lines;
  expect(texts(after)).toEqual(texts(document.lines));
  expect(after.filter((l) => l.board === undefined).map((l) => l.valueText)).toEqual(["screw M3"]);
});

test("a board that is removed takes its lines and files with it, and all of it comes back with one step", async () => {
  const { v, read, add, back } = await shop("Removed");
  await add("rack-card", { name: "Rack Card" });
  const before = await read();
  const gone = await v.call("DELETE", `/api/boards/${before.boardIds[1]}`);
  expect(gone.status).toBe(204);
  expect((await read()).document.lines.every((l) => l.board !== before.boardIds[1])).toBe(true);
  expect((await back(gone.headers)).status).toBeLessThan(300);
  const again = await read();
  expect(again.document.boards).toEqual(before.document.boards);
  expect(again.document.lines).toEqual(before.document.lines);
  const files = await v.get(`/api/boards/${before.boardIds[1]}/files`);
  expect(Object.keys(unpackZip(files.bytes)).length).toBeGreaterThan(3);
});
