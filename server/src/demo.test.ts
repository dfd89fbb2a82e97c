import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer, RunRow } from "@kobbin/contract";
import { bothWays } from "../../core/test/second/compare.ts";
import { startServer, type TestServer, Visitor } from "../test/kit.ts";
import { loadDemo } from "./demo.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer({ hasDemo: true });
  await loadDemo(server.deps);
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
