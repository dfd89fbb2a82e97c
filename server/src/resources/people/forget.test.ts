import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, LearnedAnswer, PeopleAnswer } from "@kobbin/contract";
import { invite } from "../../../test/fixture.ts";
import { startServer, type TestServer } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.closeUnentangled());

test("the name of somebody who left goes out of all they did; what they did stays, and nobody else's name goes", async () => {
  const r = await releasedRun(server, "Leaving");
  const rosa = await invite(server, r.v, "rosa@leaving", "owner");
  const other = await invite(server, r.v, "other@leaving", "bench");
  await r.works({ started: 5, good: 1 }, rosa);
  await r.works({ good: 1 }, other);
  const fault = { unit: 1, at: "R1", code: "bridge", on: "2026-12-02" };
  const { id } = (await rosa.post(`/api/runs/${r.id}/defects`, fault)).body as { id: string };
  await rosa.patch(`/api/defects/${id}`, { isMended: true });
  await rosa.call("DELETE", `/api/defects/${id}`);
  await rosa.put(`/api/runs/${r.id}/outs`, { units: [1], on: "2026-12-03", towards: "a fair" });
  // a machine that is doubted in somebody's hands
  const { id: plate } = (await rosa.post("/api/equipment", { kind: "plate", name: "Plate" })).body as {
    id: string;
  };
  const check = { kind: "machine", id: plate, name: "Plate", person: "rosa@leaving" };
  expect((await rosa.post("/api/lessons", { title: "not so", check, since: "2026-12-02" })).status).toBe(201);
  // a closed run keeps by whom its parts were put on
  const { id: two } = (await r.v.post("/api/runs", { revisionId: r.revisionId, name: "two", goodBoards: 5 }))
    .body as { id: string };
  expect((await r.v.post(`/api/runs/${two}/release`)).status).toBe(201);
  const sat = {
    unit: 1,
    step: 3,
    marks: { R1: "done" },
    lost: {},
    minutes: {},
    isDone: true,
    used: { heater: "Plate" },
  };
  await rosa.put(`/api/runs/${two}/sittings`, sat);
  await rosa.post(`/api/runs/${two}/defects`, fault);
  await rosa.post(`/api/runs/${two}/work`, { on: "2026-12-02", started: 1, good: 1 });
  expect((await rosa.put(`/api/runs/${two}/closing`, { lesson: "" })).status).toBe(204);
  const putOn = async () =>
    (
      await server.owner.query<{ factors: { kind: string }[] }>(
        "select factors from closing where run_id = $1",
        [two],
      )
    ).rows[0]!.factors.filter((f) => f.kind === "person");
  expect(await putOn()).toEqual([{ kind: "person", name: "rosa@leaving", seen: 1, weight: 1 }]);
  const heated = async () =>
    ((await r.v.get("/api/learned")).body as LearnedAnswer).lessons.flatMap((l) =>
      l.built.map((b) => [b.run, b.units]),
    );
  expect(await heated()).toEqual([["two", 1]]);
  // names that stand within a column: who doubts a part, now and as it was
  const { ids } = (await rosa.post("/api/parts", { parts: [{ mpn: "PART-1" }, { mpn: "PART-2" }] })).body as {
    ids: string[];
  };
  for (const part of ids) await rosa.patch(`/api/parts/${part}`, { suspectBecause: "reads low" });
  await rosa.patch(`/api/parts/${ids[1]}`, { suspectBecause: "" });
  const forget = (person: string, by = r.v) => by.post("/api/people/forget", { person });
  expect((await forget("rosa@leaving")).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: "rosa@leaving is a member of the shop.",
  });
  const people = async () => (await r.v.get("/api/people")).body as PeopleAnswer;
  expect((await people()).left).toEqual([]);
  const member = (await people()).members.find((m) => m.person === "rosa@leaving")!;
  await r.v.call("DELETE", `/api/people/${member.id}`);
  expect((await people()).left).toEqual(["rosa@leaving"]);
  expect((await forget("rosa@leaving", other)).status).toBe(403);
  expect((await forget("Rosa")).status).toBe(404);
  expect((await forget("Kobbin")).status).toBe(404);
  expect((await forget("rosa@leaving")).status).toBe(204);
  expect((await people()).left).toEqual([]);
  // all who left have one name: which boards were in whose hands is not known any more, and not told as if it were
  expect(await heated()).toEqual([["two", undefined]]);
  const { record } = await r.read();
  expect(record!.work.map((w) => w.person).sort()).toEqual(["other@leaving", "somebody who left"]);
  const { changes } = (await r.v.get(`/api/history?run=${r.id}`)).body as HistoryAnswer;
  expect(changes.filter((c) => c.person === "somebody who left").map((c) => c.sentence)).toContain(
    "5 started, 1 good",
  );
  // every table of the shop, whatever is added: the record of who came in keeps it, and accounts, which are of no shop
  const { rows: tables } = await server.owner.query<{ t: string }>(
    `select table_name as t from information_schema.columns where column_name = 'workshop_id' and table_schema = 'public'
     and table_name not in ('audit')`,
  );
  for (const { t } of tables) {
    const { rows } = await server.owner.query(
      `select row_to_json(x)::text as is from "${t}" as x where row_to_json(x)::text like '%rosa@leaving%' limit 1`,
    );
    expect([t, rows]).toEqual([t, []]);
  }
  expect(await putOn()).toEqual([{ kind: "person", name: "somebody who left", seen: 1, weight: 1 }]);
  const suspects = await server.owner.query(
    "select suspect ->> 'by' as by from part where suspect is not null",
  );
  expect(suspects.rows).toEqual([{ by: "somebody who left" }]);
  // taking back what is left of it brings no name back
  const gone = changes.find((c) => c.sentence.includes("R1") && !c.undoneBy)!;
  await r.v.post(`/api/changes/${gone.id}/undo`);
  const { rows } = await server.owner.query("select person from defect where run_id = $1", [r.id]);
  expect(rows).toEqual([{ person: "somebody who left" }]);
  expect((await forget("rosa@leaving")).status).toBe(404);
});
