import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, RunAnswer, RunRow } from "@kobbin/contract";
import { firstPowerOf } from "@kobbin/core";
import { expectKept, outline } from "../../../core/test/kept.ts";
import { bothWays } from "../../../core/test/second/compare.ts";
import { startDemoServer, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startDemoServer();
});
afterAll(() => server.close());

test("every run of the demo shop comes to the same by the roll-up and by the formulas alone, to the cent", async () => {
  const v = new Visitor(server);
  expect((await v.post("/api/session/demo")).status).toBe(204);
  const { runs } = (await v.get("/api/bench")).body as { runs: RunRow[] };
  expect(runs.length).toBeGreaterThan(2);
  for (const run of runs) {
    const { document } = (await v.get(`/api/runs/${run.id}`)).body as RunAnswer;
    for (const assembly of [
      document.assembly,
      { ...document.assembly, method: "stencil" as const },
      { ...document.assembly, method: "house" as const, handParts: "house" as const },
    ]) {
      const { ours, second } = bothWays({ ...document, assembly });
      expect({ run: document.product, ...ours }).toEqual({ run: document.product, ...second });
    }
  }
});

const ID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;

/** The same wherever and whenever it was made: ids and moments are marks, lists and tables by id go by what is in them. */
function steady(value: unknown): unknown {
  if (typeof value === "string")
    return value.replace(ID, "#").replace(/\d{4}-\d\d-\d\d[T ]\d\d:\d\d\S*/g, "*");
  if (typeof value !== "object" || value === null) return value;
  const byContent = (list: readonly unknown[]) =>
    list.map((v) => steady(v)).sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
  if (Array.isArray(value))
    return value.every((v) => typeof v !== "object") ? value.map(steady) : byContent(value);
  const entries = Object.entries(value);
  if (entries.some(([key]) => key.match(ID))) return byContent(entries);
  return Object.fromEntries(entries.map(([key, v]) => [key, steady(v)]));
}

test("the demo shop is the one that is kept: its settings, parts, shelf, houses, suppliers, runs and history", async () => {
  const v = new Visitor(server);
  await v.post("/api/session/demo");
  await server.figures();
  const get = async (path: string) => (await v.get(path)).body as unknown;
  const { runs } = (await get("/api/bench")) as { runs: RunRow[] };
  const shop = {
    session: await get("/api/session"),
    bench: await get("/api/bench"),
    parts: await get("/api/parts"),
    lots: await get("/api/lots"),
    suppliers: await get("/api/suppliers"),
    audit: await get("/api/audit"),
    profiles: await get("/api/houses"),
    // in which order the suppliers answered is chance, and so how many offers were proposed for what nobody had listed yet;
    // which of them stay stands in the runs
    history: ((await get("/api/history")) as HistoryAnswer).changes.map(({ id: _, ...c }) => ({
      ...c,
      sentence: c.sentence.replace(/(answered: )\d+ offers?/, "$1some offers"),
    })),
    runs: await Promise.all(runs.map((r) => get(`/api/runs/${r.id}`))),
  };
  const { runs: answers, ...rest } = steady(shop) as { readonly runs: readonly unknown[] };
  // what the boards measure is kept beside their reader, houses once
  const keep = (name: string, value: unknown) =>
    expectKept(
      new URL(`golden/demo-${name}.txt`, import.meta.url),
      "sums and counts of runs, parts or lots that came or went, sentences of the history",
      outline(value, ["measure", "house", "houses"]),
    );
  keep("shop", rest);
  answers.forEach((run, i) => {
    keep(`run-${i}`, run);
  });
});

test("what three demo boards draw when they are first powered, recomputed by hand", async () => {
  const v = new Visitor(server);
  await v.post("/api/session/demo");
  const { runs } = (await v.get("/api/bench")).body as { runs: RunRow[] };
  const card = async (product: string) => {
    const { id } = runs.find((r) => r.product === product)!;
    const c = firstPowerOf(((await v.get(`/api/runs/${id}`)).body as RunAnswer).document, 0)!;
    return Object.fromEntries(
      c.rails.map((r) => [r.name, [r.volts, r.restMa, r.mostMa, r.limitMa, r.leastOhm, r.unknown.join(" ")]]),
    );
  };
  // V33: U1 9, U2 and U3 0.9 each, U5 0.4 at rest; 28, 1.5 each, 45 at the most, two lamps of (3.3 − 2) V / 330 Ω = 3.94 mA,
  // four pull-ups of 10 kΩ = 0.33 mA (R5, R7, R23, R24 and none of R6, which pulls down) and two of 4.7 kΩ = 0.702 mA:
  // 28 + 3 + 45 + 7.88 + 4 × 0.33 + 1.40 = 86.6. V5: the regulator's 0.1 on top. VIN: 5 V / 110 kΩ = 0.0455 on top.
  // Limits: half as much again is 17, ten more is 21.3 and counts: 25. Least ohms: 5 V and 3.3 V / 25 mA
  expect(await card("Kiln Watch")).toEqual({
    VIN: [5, 11.3, 86.7, 25, 200, ""],
    V5: [5, 11.3, 86.7, 25, 200, ""],
    V33: [3.3, 11.2, 86.6, 25, 132, ""],
  });
  // the buffers are not known; the lamp is lit by one of them: (5 − 2) V / 330 Ω = 9.09 mA
  expect(await card("Rack Card")).toEqual({ V5: [5, 0, 9.09, 20, 250, "U1 U2"] });
  // what feeds it is not said, nor how many volts V is
  expect(await card("Probe Tail")).toEqual({ V: [undefined, 0, 0, 20, undefined, "U1 V"] });
});
