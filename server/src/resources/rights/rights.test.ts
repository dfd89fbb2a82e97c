import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { demoArchive, startServer, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("what may be somebody's is written down field by field, judged in every run of the product, and taken back; another shop has none of it", async () => {
  const v = new Visitor(server);
  await v.startShop("Rights");
  const { productId, revisionId } = (
    await v.drop({ "rack-card.zip": demoArchive("rack-card") }, { name: "Card" })
  ).body as Record<string, string>;
  const { id: run } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 })).body as {
    id: string;
  };
  const read = async () => ((await v.get(`/api/runs/${run}`)).body as RunAnswer).document;
  expect((await read()).rights).toBeUndefined();
  const { id } = (await v.post(`/api/products/${productId}/rights`, { kind: "logo", what: "emblem" }))
    .body as {
    id: string;
  };
  // one field after the other, neither takes the other's place
  expect((await v.patch(`/api/rights/${id}`, { owner: "Fair" })).status).toBe(204);
  expect((await v.patch(`/api/rights/${id}`, { state: "granted", evidence: "letter" })).status).toBe(204);
  const whole = {
    id,
    kind: "logo",
    what: "emblem",
    place: "",
    owner: "Fair",
    state: "granted",
    evidence: "letter",
    facts: {},
  };
  expect((await read()).rights).toEqual([whole]);
  const { version } = (await v.get(`/api/runs/${run}`)).body as RunAnswer;
  expect((await v.patch(`/api/runs/${run}`, { version, use: "private" })).status).toBeLessThan(300);
  expect((await read()).choices.use).toBe("private");
  for (const bad of [{ state: "maybe" }, { what: "" }, { facts: { built: "perhaps" } }])
    expect([(await v.patch(`/api/rights/${id}`, bad)).status, bad]).toEqual([422, bad]);
  expect((await v.post(`/api/products/${productId}/rights`, { kind: "song", what: "x" })).status).toBe(422);
  const other = new Visitor(server);
  await other.startShop("Rights elsewhere");
  expect((await other.patch(`/api/rights/${id}`, { owner: "me" })).status).toBe(404);
  expect((await other.post(`/api/products/${productId}/rights`, { kind: "logo", what: "x" })).status).toBe(
    404,
  );
  const gone = await v.call("DELETE", `/api/rights/${id}`);
  expect((await read()).rights).toBeUndefined();
  await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`, {});
  expect((await read()).rights).toEqual([whole]);
});
