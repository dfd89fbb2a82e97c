import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunDocument } from "@kobbin/core";
import { shopWithRun, startDemoServer, startServer, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const lists = async (v: Visitor) => [
  ((await v.get("/api/suppliers")).body as unknown[]).length,
  ((await v.get("/api/houses")).body as unknown[]).length,
];

test("a shop may begin without anybody: no supplier, no house, and its runs are of nobody's prices", async () => {
  const v = new Visitor(server);
  const made = await v.post("/api/shops", {
    name: "Empty shelf",
    currency: "EUR",
    hourlyRate: "30",
    email: "empty@x",
    password: "a long password",
    partners: "none",
  });
  expect(made.status).toBe(201);
  expect(await lists(v)).toEqual([0, 0]);
  expect((await v.post("/api/shops", { ...{}, partners: "some" })).status).toBe(422);
});

test("made-up partners are marked in what a run is computed from, go with one press, and come back by one", async () => {
  const { v, id, read } = await shopWithRun(server, "Trying");
  const before = (await read()).document as RunDocument;
  const of = (d: RunDocument) => [...(d.houses ?? []), ...d.suppliers].map((x) => x.id).sort();
  expect([...(before.madeUp ?? [])].sort()).toEqual(of(before));
  expect(before.madeUp!.length).toBeGreaterThan(5);
  // a house of one's own stays, whatever it was copied from
  const own = (await v.post("/api/houses", { copyOf: before.houses![0]!.id, name: "Round the corner" }))
    .body as {
    id: string;
  };
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, houseId: before.houses![0]!.id });
  const away = await v.post("/api/made-up/away");
  expect([away.status, away.body]).toEqual([200, { houses: 6, suppliers: 4 }]);
  const after = (await read()).document as RunDocument;
  expect([of(after), after.house, after.madeUp]).toEqual([[own.id], undefined, undefined]);
  expect((await v.post(`/api/changes/${away.headers.get("X-Change")}/undo`)).status).toBe(200);
  const back = (await read()).document as RunDocument;
  expect(of(back)).toEqual([...of(before), own.id].sort());
  expect(back.house?.id).toBe(before.houses![0]!.id);
});

test("in the demo shop, which is made up as a whole, nothing is marked", async () => {
  const demo = await startDemoServer();
  try {
    const v = new Visitor(demo);
    await v.post("/api/session/demo");
    const { runs } = (await v.get("/api/bench")).body as { runs: { id: string }[] };
    const { document } = (await v.get(`/api/runs/${runs[0]!.id}`)).body as { document: RunDocument };
    expect(document.madeUp).toBeUndefined();
  } finally {
    await demo.close();
  }
});
