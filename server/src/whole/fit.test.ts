import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, RunAnswer } from "@kobbin/contract";
import { type PlaceReading, rollUp, standingOn } from "@kobbin/core";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";
import { withWorkshop } from "../db/tx.ts";
import { upsertPlaces } from "../resources/fit/index.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

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

test("a place is read on every board it is about, again when row or files change, and blocks what the files do not do", async () => {
  const v = new Visitor(server);
  await v.startShop("Places");
  const { productId, revisionId, boardId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const run = async (revision: string) =>
    ((await v.post("/api/runs", { revisionId: revision, name: "one", goodBoards: 5 })).body as { id: string })
      .id;
  const id = await run(revisionId!);
  const read = async (of = id) => {
    await server.figures();
    return (await v.get(`/api/runs/${of}`)).body as RunAnswer;
  };
  const notes = async (of = id) =>
    rollUp((await read(of)).document)
      .notes.filter((n) => n.key.startsWith("fit "))
      .map((n) => [n.level, n.text]);
  const path = `/api/products/${productId}/fits`;
  // a pad of 1 × 1 at 5/5 with paste, bare of mask
  const spec = { kind: "intended", at: [5, 5], diameterMm: 0.8, side: "top", what: "solder" };
  const { id: row } = (await v.post(path, { label: "Ground clip", spec })).body as { id: string };
  expect(await notes()).toEqual([]);
  const { places } = (await read()).document.boards[0]!;
  expect(Object.keys(places!)).toEqual([row]);
  expect(places![row]).toMatchObject({ drilled: 0, board: 1, givenUp: [] });

  const kept = async () =>
    (
      await server.owner.query<{ w: string; readOf: string; reading: PlaceReading }>(
        `select workshop_id as w, read_of as "readOf", reading from place_reading where fit_id = $1`,
        [row],
      )
    ).rows[0]!;
  const before = await kept();

  // meant to be touched it must have no paste; the row changed, so it was read again
  await v.call("PUT", `/api/fits/${row}`, { label: "Ground clip", spec: { ...spec, what: "contact" } });
  expect(await notes()).toEqual([
    [
      "error",
      "Ground clip is not a contact that is touched, as it is meant to be. The files have paste everywhere.",
    ],
  ]);
  // a reading of the row as it was that ends only now is not kept
  const since = await kept();
  await withWorkshop(server.deps.pool, before.w, (tx) =>
    upsertPlaces(tx, boardId!, [{ fitId: row, readOf: before.readOf, reading: before.reading }]),
  );
  expect(await kept()).toEqual(since);
  expect(since.readOf).not.toBe(before.readOf);
  // moved to bare board
  await v.call("PUT", `/api/fits/${row}`, { label: "Ground clip", spec: { ...spec, at: [15, 5] } });
  expect(await notes()).toEqual([["error", expect.stringContaining("copper nowhere, mask open nowhere")]]);
  await v.call("PUT", `/api/fits/${row}`, { label: "Ground clip", spec });

  // the files of the board are read otherwise: its mask is none any more
  await v.post(`/api/boards/${boardId}/corrections`, { roles: { "mine.gts": { role: "drawing" } } });
  expect(await notes()).toEqual([["warning", expect.stringContaining("There is no mask layer for the top")]]);

  // and the next revision is held against it without being asked
  const without = strangerFiles()["mine.gtl"]!.replace("X5000000Y5000000D03*\n", "");
  const next = await v.drop(
    { ...strangerFiles(), "mine.gtl": without },
    { productId: productId!, revision: "B" },
  );
  expect(next.status).toBe(201);
  const { revisionId: nextId } = next.body as { revisionId: string };
  expect(await notes(await run(nextId))).toEqual([["error", expect.stringMatching(/^Ground clip is not/)]]);

  // a row that is gone takes its readings along
  await v.call("DELETE", `/api/fits/${row}`);
  const { rows } = await server.owner.query("select 1 from place_reading where fit_id = $1", [row]);
  expect(rows).toEqual([]);
});

test("a part's body is kept in the library and stands on the board", async () => {
  const v = new Visitor(server);
  await v.startShop("Bodies");
  const { revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const made = (await v.post("/api/parts", { parts: [{ mpn: "ZZ-UNKNOWN-1", kind: "resistor" }] })).body as {
    ids: string[];
  };
  const part = `/api/parts/${made.ids[0]}`;
  expect(
    (await v.call("PATCH", part, { bodyLengthMm: 5.5, bodyWidthMm: 2.25, heightMm: 3 })).status,
  ).toBeLessThan(300);
  const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  expect(standingOn(document, document.boards[0]!).bodies).toMatchObject([
    { ref: "R1", lengthMm: 5.5, widthMm: 2.25, heightMm: 3, sizeFrom: "stated", side: "top" },
  ]);
  expect((await v.call("PATCH", part, { bodyLengthMm: -1 })).status).toBe(422);
  expect((await v.call("PATCH", part, { bodyLengthMm: null })).status).toBeLessThan(300);
});
