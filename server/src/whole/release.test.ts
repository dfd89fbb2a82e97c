import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import type { Compute } from "@kobbin/server";
import { startServer, strangerFiles, type TestServer, testCompute, Visitor } from "../../test/kit.ts";

/** What happens elsewhere in the shop while a package is being made. */
let meanwhile: () => Promise<unknown> = async () => undefined;
const real = testCompute((e) => {
  throw e;
});
const compute: Compute = {
  ...real,
  run: async (task, shop) => {
    const answer = await real.run(task, shop);
    if (task.kind === "package") await meanwhile();
    return answer;
  },
};
let server: TestServer;
beforeAll(async () => {
  server = await startServer({}, { compute });
});
afterAll(async () => {
  await server.close();
  await real.close();
});

test("a release holds while others work on their own; what goes into the package and was changed meanwhile refuses it", async () => {
  const v = new Visitor(server);
  await v.startShop("Meanwhile");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  await v.post("/api/lots", { mpn: "ZZ-UNKNOWN-1", qty: 50, currency: "EUR", unitCost: "0.01" });
  const start = async (name: string) =>
    ((await v.post("/api/runs", { revisionId, name, goodBoards: 5 })).body as { id: string }).id;
  const [id, other] = [await start("one"), await start("other")];
  const read = async () => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
  const { lines, suppliers } = await read();
  const offer = (price: string) =>
    v.post(`/api/lines/${lines[0]!.id}/offers`, {
      supplierId: suppliers[0]!.id,
      stock: 500,
      currency: "EUR",
      breaks: [{ qty: 1, price }],
    });
  await offer("0.05");
  meanwhile = () => offer("0.04");
  expect((await v.post(`/api/runs/${id}/release`)).body).toMatchObject({ code: "STALE_VERSION" });
  // nobody counts them at that moment
  await server.figures();
  // another run's figures come to count on the same lot: that is said of the lot, and decides nothing
  meanwhile = async () => {
    const [lot] = (await read()).lots!;
    // in one session: no change stands for it
    await server.owner.query(
      `begin; select set_config('app.change', 'off', true);
       update fork set summary = coalesce(summary, '{}') || jsonb_build_object('shelf', jsonb_build_object('${lot!.id}', 5)) where run_id = '${other}';
       commit`,
    );
    expect((await read()).lots![0]!.alsoIn).toEqual([{ run: "Thing, other", qty: 5 }]);
  };
  const done = await v.post(`/api/runs/${id}/release`);
  expect([done.status, done.body]).toEqual([201, expect.objectContaining({ sha256: expect.any(String) })]);
});

test("a release is taken back while nothing was done of it, and recorded; afterwards it stays, and says what was done", async () => {
  meanwhile = async () => undefined;
  const v = new Visitor(server);
  await v.startShop("Second thoughts");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const url = `/api/runs/${id}/release`;
  await v.post("/api/lots", { mpn: "ZZ-UNKNOWN-1", qty: 50, currency: "EUR", unitCost: "0.01" });
  const { lines, suppliers } = ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
  await v.post(`/api/lines/${lines[0]!.id}/offers`, {
    supplierId: suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  });
  expect((await v.call("DELETE", url)).body).toMatchObject({ message: "The run is not released." });
  const first = (await v.post(url)).body as { sha256: string };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const { version } = await read();
  expect((await v.patch(`/api/runs/${id}`, { version, goodBoards: 6 })).body).toHaveProperty("code");
  expect((await v.call("DELETE", url)).status).toBe(204);
  expect((await v.patch(`/api/runs/${id}`, { version: (await read()).version, goodBoards: 6 })).status).toBe(
    200,
  );
  expect(JSON.stringify((await v.get("/api/audit")).body)).toContain(
    `took back the release of Thing one, package ${first.sha256.slice(0, 12)}`,
  );
  const again = (await v.post(url)).body as { sha256: string };
  expect(again.sha256).not.toBe(first.sha256);
  await v.post(`/api/runs/${id}/work`, {
    on: "2026-11-29",
    started: 1,
    good: 0,
    reworked: 0,
    scrapped: 0,
    minutes: 5,
    note: "",
  });
  expect((await v.call("DELETE", url)).body).toMatchObject({
    message: "The release cannot be taken back any more: boards were begun.",
  });
});
