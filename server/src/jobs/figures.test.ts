import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, RunAnswer } from "@kobbin/contract";
import { shopWithRun, startServer, type TestServer } from "../../test/kit.ts";
import { until } from "../../test/siege.ts";
import { computeFigures } from "./figures.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("figures that were started before a change and end after the next ones do not take their place", async () => {
  const { v, id } = await shopWithRun(server, "Overtaken");
  await server.figures();
  const { rows } = await server.owner.query<{ w: string }>("select workshop_id as w from run where id = $1", [
    id,
  ]);
  const due = { workshopId: rows[0]!.w, runId: id };
  // listed, as a change does it, and taken up by somebody slow, who has read the run as it was
  await server.owner.query(
    "insert into figures_due (run_id, workshop_id, since) values ($1, $2, clock_timestamp()) on conflict (run_id) do update set since = clock_timestamp()",
    [id, due.workshopId],
  );
  let isReading = false;
  let go: () => void = () => undefined;
  const gate = new Promise<void>((done) => {
    go = done;
  });
  const slow = computeFigures(
    {
      ...server.deps,
      compute: {
        ...server.deps.compute,
        run: async (task, shop) => {
          const answer = await server.deps.compute.run(task, shop);
          isReading = true;
          await gate;
          return answer;
        },
      },
    },
    due,
  );
  await until(() => isReading, "the slow one computes");
  const { version } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  await v.patch(`/api/runs/${id}`, { version, goodBoards: 77 });
  await server.figures();
  const summary = async () =>
    ((await v.get("/api/bench")).body as BenchAnswer).runs.find((r) => r.id === id)!.summary!;
  const fresh = await summary();
  expect(fresh.start).toBeGreaterThanOrEqual(77);
  go();
  await slow;
  expect(await summary()).toEqual(fresh);
});
