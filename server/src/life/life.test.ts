import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer, LearnedAnswer, LotRow, RunAnswer } from "@kobbin/contract";
import { loadDemo } from "@kobbin/server";
import { bothWays } from "../../../core/test/second/compare.ts";
import { startServer, type TestServer, Visitor } from "../../test/kit.ts";
import { fillLife } from "./story.ts";

let server: TestServer;
let v: Visitor;
beforeAll(async () => {
  // as at the first start of a server: nobody else works in it yet
  server = await startServer({ hasDemo: true, isDemoLived: true, role: "web" }, { fillLife });
  await loadDemo(server.deps);
  v = new Visitor(server);
  await v.post("/api/session/demo");
});
afterAll(() => server.close());

const bench = async () => ((await v.get("/api/bench")).body as BenchAnswer).runs;
const named = async (name: string) => {
  const { id } = (await bench()).find((r) => r.name === name)!;
  return (await v.get(`/api/runs/${id}`)).body as RunAnswer;
};

test("the demo shop has three runs behind it, three on their way and three before it; each open one comes to the same both ways", async () => {
  const runs = await bench();
  const of = (is: (r: (typeof runs)[number]) => boolean) => runs.filter(is).map((r) => r.name);
  expect(of((r) => r.isClosed === true)).toEqual([
    "for the summer fairs",
    "for the summer market",
    "the first twenty",
  ]);
  expect(of((r) => r.state === "released" && !r.isClosed).sort()).toEqual([
    "for the autumn fairs",
    "for the club",
    "for the winter market",
  ]);
  // whoever comes in at once sees figures of all
  expect(runs.filter((r) => r.summary === undefined)).toEqual([]);
  for (const { id } of runs.filter((r) => r.state === "open")) {
    const { past: _, ...document } = ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
    const { ours, second } = bothWays(document);
    expect(ours).toEqual(second);
  }
});

test("what was built tells the next run its yield and hours; of each closed run every board is accounted for", async () => {
  const next = (await named("for the spring fairs")).document;
  expect(next.past).toMatchObject([
    { name: "the first twenty", scrapped: 2, minutes: 560 },
    { name: "for the summer fairs", scrapped: 1, minutes: 480 },
  ]);
  // bridges, a cold joint and two diodes; in summer two joints, a diode and a regulator; what lifted is the bare board's
  expect(
    next.past!.map(({ faults }) => [
      faults!.looked,
      Object.values(faults!.kinds).reduce((n, k) => n + k.seen, 0),
    ]),
  ).toEqual([
    [21, 5],
    [18, 4],
  ]);
  for (const name of ["the first twenty", "for the summer fairs", "for the summer market"]) {
    const { record } = await named(name);
    const sum = (of: (w: NonNullable<typeof record>["work"][number]) => number) =>
      record!.work.reduce((n, w) => n + of(w), 0);
    expect([name, sum((w) => w.good + w.scrapped)]).toEqual([name, sum((w) => w.started)]);
  }
  expect((await named("for the summer market")).record!.claims).toMatchObject([
    { pieces: 4, state: "settled", credit: "3.20" },
  ]);
});

test("a lesson caught the next revision, boards of the first are worked around, a bag was lost", async () => {
  const { lessons, errata } = (await v.get("/api/learned")).body as LearnedAnswer;
  expect(lessons.find((l) => l.title.startsWith("Every D"))!.caught).toMatchObject([
    { product: "Rack Card", revision: "A", found: expect.stringContaining("D5") },
    { product: "Kiln Watch", revision: "B", on: "2026-07-03", found: expect.stringContaining("D2, D3") },
  ]);
  expect(errata[0]!.reworks).toMatchObject([{ run: "the first twenty", units: { length: 8 } }]);
  const lots = (await v.get("/api/lots")).body as LotRow[];
  expect(lots.filter((l) => l.place === "drawer 9" && l.qty === 0)).not.toEqual([]);
});

test("its history goes on day by day, and the shop can be carried away whole", async () => {
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  const days = changes.map((c) => c.at.slice(0, 10));
  expect(days).toEqual([...days].sort().reverse());
  const backup = await v.get("/api/backup");
  const form = new FormData();
  form.append("file", new Blob([backup.bytes as Uint8Array<ArrayBuffer>]), "shop.zip");
  const restored = await v.call("POST", "/api/restore", form);
  expect([restored.status, restored.body]).toEqual([201, expect.anything()]);
});

test("a life that cannot be told whole leaves the shop as it was before its first run, and says so", async () => {
  const said: string[] = [];
  const broken = await startServer(
    { hasDemo: true, isDemoLived: true, role: "web" },
    {
      log: (entry) => said.push(String(entry.message)),
      fillLife: async (deps, by) => {
        // something of it is there already
        await deps.pool.query("select 1");
        throw new Error(`the story of ${by.person} ends`);
      },
    },
  );
  await loadDemo(broken.deps);
  const guest = new Visitor(broken);
  await guest.post("/api/session/demo");
  const { runs } = (await guest.get("/api/bench")).body as BenchAnswer;
  expect(runs.map((r) => r.name).sort()).toEqual([
    "first try",
    "for the autumn market",
    "for the spring fairs",
  ]);
  expect(said).toContain("the demo shop stands before its first run: the story of demo@ashglaze ends");
  const { rows } = await broken.owner.query("select 1 from workshop");
  expect(rows).toHaveLength(1);
  await broken.close();
});
