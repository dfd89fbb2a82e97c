import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { startServer, strangerFiles, type TestServer, Visitor } from "../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
}, 60_000);
afterAll(() => server.close(), 30_000);

test("a row of the fit sheet is judged in every run of its product, changed, removed and brought back", async () => {
  const v = new Visitor(server);
  await v.startShop("Fits");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const notes = async () =>
    rollUp((await read()).document)
      .notes.filter((n) => n.key.startsWith("fit "))
      .map((n) => [n.level, n.text]);
  const path = `/api/products/${productId}/fits`;
  const spec = { kind: "edge", allowsMm: [0.7, 0.9] };
  const made = await v.post(path, { label: "Groove", spec });
  expect(made.status).toBe(201);
  const { id: row } = made.body as { id: string };
  expect((await read()).document.fits).toEqual([{ id: row, label: "Groove", spec }]);
  expect(await notes()).toEqual([["error", expect.stringMatching(/^Groove does not fit/)]]);

  const wide = { label: "Groove", spec: { ...spec, allowsMm: [0.7, 2] }, playMm: 2 };
  const changed = await v.call("PUT", `/api/fits/${row}`, wide);
  expect(changed.status).toBe(204);
  expect(await notes()).toEqual([]);
  const gone = await v.call("DELETE", `/api/fits/${row}`);
  expect((await read()).document).not.toHaveProperty("fits");
  expect((await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`)).status).toBe(200);
  expect((await read()).document.fits).toEqual([{ id: row, ...wide }]);
  const said = ((await v.get("/api/history")).body as HistoryAnswer).changes.map((c) => c.sentence);
  expect(said).toContain("need not fit any more: Groove");

  // what contradicts itself is refused with the place; nothing is kept
  for (const [bad, says] of [
    [{ kind: "edge", allowsMm: [2, 1] }, "which is nothing"],
    [{ kind: "slot", at: [1, 1], tabTolMm: 0.1 }, "says its tab not at all"],
    [{ kind: "pattern", holes: [[1, 1]], posts: [], postTolMm: 0.1 }, "posts"],
    [{ kind: "hinge" }, "kind is one of"],
  ] as const) {
    const r = await v.post(path, { label: "Bad", spec: bad });
    expect([r.status, JSON.stringify(r.body)]).toEqual([422, expect.stringContaining(says)]);
  }
  // and what is another shop's is not there
  const stranger = new Visitor(server);
  await stranger.startShop("Fits of others");
  expect((await stranger.post(path, wide)).status).toBe(404);
  expect((await stranger.call("PUT", `/api/fits/${row}`, wide)).status).toBe(404);
  expect((await read()).document.fits).toHaveLength(1);
});
