import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { LearnedAnswer, RunAnswer } from "@kobbin/contract";
import { startServer, type TestServer } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const on = "2026-12-01";
const plain = {
  file: "",
  from: "",
  tool: "",
  wires: [],
  settings: "",
  command: "",
  expect: "",
  fits: [],
  values: [],
};
const IMAGES = [
  {
    ...plain,
    id: "w",
    at: "J1",
    name: "watch",
    version: "1.5",
    sha256: "ab".repeat(32),
    expect: "verified",
    fits: [
      { versions: "all", revision: "A", is: "yes", why: "" },
      { versions: "all", revision: "A + 1 rework", is: "no", why: "pins moved" },
    ],
    values: [
      { name: "number", isWiped: false },
      { name: "network key", isWiped: true },
    ],
  },
  { ...plain, id: "s", at: "J1", name: "start-up", version: "" },
];
const withImages = (name: string, images: object[] = IMAGES) =>
  releasedRun(server, name, async (v, { id, version }: RunAnswer) => {
    const r = await v.patch(`/api/runs/${id}`, { version, assembly: { programAt: ["J1"], images } });
    expect(r.status).toBe(200);
  });

test("what is loaded is what was released; the tool's words count, secrets are not kept, what is wiped has its day", async () => {
  const { v, id, read, undo } = await withImages("Loads");
  const load = (more: object) =>
    v.post(`/api/runs/${id}/loads`, { unit: 1, image: "w", on, isRight: true, ...more });
  const loads = async () => (await read()).record!.loads ?? [];
  const first = await load({
    said: "writing\nVerified",
    given: { number: "0007", "network key": "attic" },
    socket: 2,
  });
  expect([first.status, first.body]).toMatchObject([201, { isRight: true }]);
  // the tool says otherwise than the person
  expect((await load({ unit: 2, said: "no answer" })).body).toMatchObject({ isRight: false });
  expect((await load({ unit: 2, isRight: false, said: "verified" })).body).toMatchObject({ isRight: false });
  expect((await load({ unit: 2, image: "s" })).body).toMatchObject({ isRight: true });
  const same = { at: "J1", on, person: expect.any(String), id: expect.any(String) };
  const w = { ...same, image: "w", name: "watch", version: "1.5", sha256: "ab".repeat(32) };
  expect(await loads()).toEqual([
    {
      ...w,
      unit: 1,
      isRight: true,
      said: "writing\nVerified",
      given: { number: "0007", "network key": "" },
      socket: 2,
    },
    { ...w, unit: 2, isRight: false, said: "no answer", given: { number: "", "network key": "" } },
    { ...w, unit: 2, isRight: false, said: "verified", given: { number: "", "network key": "" } },
    { ...same, image: "s", name: "start-up", version: "", unit: 2, isRight: true, said: "", given: {} },
  ]);
  // the key is nowhere: not in the record, not in its history
  const { rows } = await server.owner.query(
    "select 1 from change_row where (was::text || became::text) like '%attic%'",
  );
  expect(rows).toEqual([]);

  const [one] = await loads();
  const wiped = await v.patch(`/api/loads/${one!.id}`, { on: "2026-12-03" });
  expect([wiped.status, (await loads())[0]!.wipedOn]).toEqual([204, "2026-12-03"]);
  await v.patch(`/api/loads/${one!.id}`, { on: null });
  expect((await loads())[0]!.wipedOn).toBeUndefined();
  const gone = await v.call("DELETE", `/api/loads/${one!.id}`);
  expect([gone.status, (await loads()).length]).toEqual([204, 3]);
  await undo(gone.headers);
  expect((await loads()).map((l) => l.id)).toContain(one!.id);

  for (const [wrong, status] of [
    [{ unit: 0 }, 422],
    [{ image: "nothing" }, 404],
    [{ isRight: undefined }, 422],
    [{ given: { other: "1" } }, 404],
    [{ given: { number: 7 } }, 422],
    [{ socket: 0 }, 422],
  ] as const)
    expect([(await load(wrong)).status, wrong]).toEqual([status, wrong]);
  for (const wrong of [{}, { on: "soon" }])
    expect((await v.patch(`/api/loads/${one!.id}`, wrong)).status).toBe(422);
  await v.put(`/api/runs/${id}/closing`, { lesson: "" });
  // boards of a closed run are loaded anew, and wiped before they are shipped
  expect((await load({ unit: 3 })).status).toBe(201);
  expect((await v.patch(`/api/loads/${one!.id}`, { on: "2026-12-09" })).status).toBe(204);
});

test("an image that is refused for a board as it is by now is not written down as loaded", async () => {
  const { v, id, document } = await withImages("Loads refused");
  const load = (unit: number) => v.post(`/api/runs/${id}/loads`, { unit, image: "w", on, isRight: true });
  const erratum = await v.post("/api/errata", {
    revisionId: await v.get(`/api/runs/${id}`).then((r) => (r.body as RunAnswer).revisionId),
    title: "pins swapped",
    harm: "worse",
    spot: { at: [1, 1], side: "top", diameterMm: 1 },
    foundOn: on,
  });
  expect([erratum.status, document.revision]).toEqual([201, "A"]);
  const { id: erratumId } = erratum.body as { id: string };
  const rework = (unit: number, isScrapped = false) =>
    v.put(`/api/errata/${erratumId}/reworks`, { runId: id, unit, on, isScrapped });
  await rework(2);
  await rework(3, true);
  const refused = await load(2);
  expect([refused.status, (refused.body as { message: string }).message]).toEqual([
    403,
    "watch 1.5 is not for A + 1 rework: pins moved.",
  ]);
  expect([(await load(1)).status, (await load(3)).status]).toEqual([201, 201]);
});

test("a program that is doubted is traced to the boards that have it: by name and version, what was loaded last", async () => {
  const { v, id } = await withImages("Doubted program");
  const load = (unit: number, more: object = {}) =>
    v.post(`/api/runs/${id}/loads`, { unit, image: "w", on, isRight: true, ...more });
  for (const unit of [1, 2, 3]) expect((await load(unit)).status).toBe(201);
  await load(4, { isRight: false });
  // the second was loaded with something newer since, as a later release of the run would have it
  await server.owner.query(
    `with quiet as (select set_config('app.change', 'off', true))
     insert into image_load (workshop_id, run_id, unit, image, name, version_text, place, is_right, on_day, person)
     select workshop_id, run_id, 2, 'w', 'Watch', '1.6', place, true, on_day, person from image_load, quiet where run_id = $1 and unit = 2`,
    [id],
  );
  const doubt = async (check: object) => {
    const made = await v.post("/api/lessons", { title: "doubt", check, since: on });
    const lesson = (made.body as { id: string }).id;
    const { lessons } = (await v.get("/api/learned")).body as LearnedAnswer;
    return lessons.find((l) => l.id === lesson)!.built.map((b) => [b.run, b.units]);
  };
  expect(await doubt({ kind: "program", name: "WATCH", version: "1.5 " })).toEqual([["one", 2]]);
  expect(await doubt({ kind: "program", name: "watch", version: "1.6" })).toEqual([["one", 1]]);
  expect(await doubt({ kind: "program", name: "watch", version: "" })).toEqual([["one", 3]]);
  expect(await doubt({ kind: "program", name: "watch", version: "1" })).toEqual([]);
  // of a chip that is loaded before it goes on, nobody knows on which board it went
  const loose = await releasedRun(server, "Loose program", async (w, { id: run, version }: RunAnswer) => {
    const images = [{ ...IMAGES[0]!, fits: [], values: [], expect: "" }];
    await w.patch(`/api/runs/${run}`, {
      version,
      assembly: { programAt: ["J1"], programLoose: ["J1"], images },
    });
  });
  expect(
    (await loose.v.post(`/api/runs/${loose.id}/loads`, { unit: 1, image: "w", on, isRight: true })).status,
  ).toBe(201);
  await loose.v.post("/api/lessons", {
    title: "x",
    check: { kind: "program", name: "watch", version: "" },
    since: on,
  });
  const { lessons } = (await loose.v.get("/api/learned")).body as LearnedAnswer;
  expect(lessons[0]!.built).toEqual([expect.not.objectContaining({ units: expect.anything() })]);
});
