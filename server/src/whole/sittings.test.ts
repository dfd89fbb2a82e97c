import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { SittingBody } from "@kobbin/contract";
import { invite } from "../../test/fixture.ts";
import { startServer, type TestServer } from "../../test/kit.ts";
import { releasedRun as runIn, says } from "../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const at = (more: Partial<SittingBody> = {}): SittingBody => ({
  unit: 1,
  step: 3,
  marks: {},
  lost: {},
  minutes: {},
  isDone: false,
  ...more,
});

test("steps at the bench are kept piece by piece; what two press at one board is laid together", async () => {
  const r = await runIn(server, "Sitting down");
  const put = (body: SittingBody, by = r.v) => by.put(`/api/runs/${r.id}/sittings`, body);
  const kept = async () => (await r.read()).record!.sittings!;
  expect((await put(at({ marks: { R1: "done" }, minutes: { desk: 1 } }))).status).toBe(204);
  const seen = async () => {
    const { versions, record } = await r.read();
    return versions[record!.sittings![0]!.id]!;
  };
  const first = await seen();
  // somebody else at the same board, who saw the same
  const mate = await invite(server, r.v, "Sitting beside", "bench");
  const theirs = at({ version: first, marks: { R1: "done", R3: "doubt" }, minutes: { desk: 1, phone: 0.5 } });
  expect((await put(theirs, mate)).status).toBe(204);
  const mine = at({
    version: first,
    marks: { R1: "done", R2: "done" },
    minutes: { desk: 2.25 },
    isDone: true,
  });
  expect((await put(mine)).status).toBe(204);
  expect(await kept()).toMatchObject([
    {
      unit: 1,
      step: 3,
      marks: { R1: "done", R2: "done", R3: "doubt" },
      minutes: { desk: 2.25, phone: 0.5 },
      isDone: true,
    },
  ]);
  // who begins a step that somebody else began meanwhile takes nothing of it away
  const both = { unit: 9, step: 1, minutes: {}, lost: {}, isDone: false };
  expect((await put({ ...both, marks: { R1: "done" } })).status).toBe(204);
  expect((await put({ ...both, marks: { R2: "done" } }, mate)).status).toBe(204);
  expect((await kept()).find((s) => s.unit === 9)!.marks).toEqual({ R1: "done", R2: "done" });
  // of one piece two different things are told, not laid over each other
  const clash = await put(
    at({ version: first, marks: { R1: "done", R2: "skipped" }, minutes: { desk: 1 } }),
    mate,
  );
  expect(clash.body).toMatchObject({
    code: "STALE_VERSION",
    details: { clashes: [{ path: ["marks", "R2"], mine: "skipped", theirs: "done" }] },
  });
  expect((await kept())[0]!.marks.R2).toBe("done");
  // what is taken back is gone; another board has a row of its own
  const now = await seen();
  await put(at({ version: now, marks: { R1: "done", R3: "doubt" }, minutes: { desk: 2.25, phone: 0.5 } }));
  await put(at({ unit: 2, isDone: true }));
  expect((await kept()).map((s) => [s.unit, Object.keys(s.marks).sort()])).toEqual([
    [1, ["R1", "R3"]],
    [2, []],
    [9, ["R1", "R2"]],
  ]);
  expect((await says(r)).slice(0, 2)).toEqual(["board 2, step 3: done", "board 1, step 3: 2 on, 1 in doubt"]);
});

test("nothing is kept of a run that is not released, of strange lines or marks; a run that was begun stays released", async () => {
  const r = await runIn(server, "Sitting right");
  const put = (body: object) => r.v.put(`/api/runs/${r.id}/sittings`, body);
  const line = r.document.lines[0]!.id;
  expect((await put(at({ lost: { "11111111-1111-4111-8111-111111111111": 1 } }))).body).toMatchObject({
    code: "NOT_FOUND",
  });
  for (const bad of [
    { marks: { R1: "perhaps" } },
    { lost: { [line]: -1 } },
    { lost: { R1: 1 } },
    { minutes: { "no device": 1 } },
    { unit: -1 },
    { step: 0 },
  ])
    expect([bad, (await put({ ...at(), ...bad })).status]).toEqual([bad, 422]);
  expect((await r.read()).record!.sittings).toBeUndefined();
  expect((await put(at({ lost: { [line]: 2 } }))).status).toBe(204);
  expect((await r.v.call("DELETE", `/api/runs/${r.id}/release`)).body).toMatchObject({ code: "NOT_ALLOWED" });
  const { id: open } = (
    await r.v.post("/api/runs", { revisionId: r.revisionId, name: "open", goodBoards: 1 })
  ).body as { id: string };
  expect((await r.v.put(`/api/runs/${open}/sittings`, at())).status).toBe(403);
});
