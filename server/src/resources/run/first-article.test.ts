import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, RunAnswer } from "@kobbin/contract";
import { demoArchive, startServer, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("a first article is a run of its own with sockets, waited for until it came good, and taken back whole", async () => {
  const v = new Visitor(server);
  await v.startShop("First articles");
  const { revisionId } = (
    await v.drop({ "kiln-watch-b.zip": demoArchive("kiln-watch-b") }, { name: "Watch" })
  ).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "forty", goodBoards: 40 })).body as {
    id: string;
  };
  const read = async (run: string) => (await v.get(`/api/runs/${run}`)).body as RunAnswer;
  const lineOf = async (run: string, ref: string) =>
    (await read(run)).document.lines.find((l) => l.refs.includes(ref));
  const u1 = (await lineOf(id, "U1"))!;
  // what was typed unseen of the forty says nothing of the two
  const again = { on: "2026-12-01", said: [{ key: "good", text: "40" }] };
  await v.patch(`/api/runs/${id}`, { version: (await read(id)).version, again });
  const { version } = await read(id);
  const wish = { version, boards: 2, sockets: [{ line: u1.id, mpn: "SK-48", valueText: "" }] };
  const begun = await v.post(`/api/runs/${id}/first-article`, wish);
  expect(begun.status).toBe(201);
  const { id: first } = begun.body as { id: string };
  const article = (await read(first)).document;
  expect([article.name, article.goodBoards, article.choices.first, article.choices.again]).toEqual([
    "forty, first article",
    2,
    undefined,
    undefined,
  ]);
  const variant = article.variants!.find((x) => x.id === article.choices.variant)!;
  const plugged = article.lines.find((l) => l.refs.includes("U1P"))!;
  expect(variant.overrides).toEqual({
    [u1.id]: { mpn: "SK-48", valueText: "socket" },
    [plugged.id]: { dnp: false },
  });
  expect(plugged).toMatchObject({ mpn: u1.mpn, mount: "none", dnp: true });
  // the run itself fits U1 as before, has nothing plugged, and waits
  const own = (await read(id)).document;
  expect(own.choices).toMatchObject({ first, again });
  expect(own.first).toEqual({ name: "forty, first article", state: "open", good: 0, scrapped: 0 });
  // a second one finds the line that is plugged
  const second = await v.post(`/api/runs/${id}/first-article`, {
    ...wish,
    version: (await read(id)).version,
  });
  const names = ((await v.get("/api/bench")).body as BenchAnswer).runs.map((r) => r.name).sort();
  expect(names).toEqual(["forty", "forty, first article", "forty, first article 2"]);
  expect((await read(id)).document.lines.filter((l) => l.refs.includes("U1P"))).toHaveLength(1);
  expect((await v.call("DELETE", `/api/runs/${(second.body as { id: string }).id}`)).status).toBe(204);
  expect((await read(id)).document.first).toBeUndefined();
  for (const [bad, status] of [
    [{ ...wish, sockets: [{ line: revisionId }] }, 404],
    [{ ...wish, boards: 0 }, 422],
  ] as const)
    expect((await v.post(`/api/runs/${id}/first-article`, bad)).status).toBe(status);
});
