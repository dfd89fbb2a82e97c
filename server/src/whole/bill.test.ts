import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { rollUp } from "@kobbin/core";
import { shopWithRun, startServer, type TestServer } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const shop = (name: string) => shopWithRun(server, name);
const message = (a: { body: unknown }) => (a.body as { message: string }).message;

test("a bill takes another's place as one change, and the old one comes back whole with its offers", async () => {
  const { v, revisionId, read, back } = await shop("Place");
  const { document } = await read();
  await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 5,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.5" }],
  });
  const before = (await read()).document;
  const put = await v.put(`/api/revisions/${revisionId}/lines`, {
    lines: [
      { refs: ["R1", "R2"], valueText: "10k" },
      { valueText: "screw", qty: 4 },
    ],
  });
  expect(put.status).toBe(200);
  const after = (await read()).document;
  expect(after.lines.map((l) => [l.refs.length, l.qty, l.valueText])).toEqual([
    [2, 2, "10k"],
    [0, 4, "screw"],
  ]);
  expect(after.offers).toEqual([]);
  await back(put.headers);
  const again = (await read()).document;
  expect(again.lines).toEqual(before.lines);
  expect(again.offers).toEqual(before.offers);
});

test("many lines change as one act, all or none, and a list that is too long is refused whole", async () => {
  const { v, revisionId, read, back } = await shop("Many");
  const other = await shop("Many, elsewhere");
  const { document } = await read();
  const lines = document.lines.map((l) => ({ id: l.id, maker: "Oxbow" }));
  const changed = await v.patch(`/api/revisions/${revisionId}/lines`, { lines });
  expect(changed.status).toBe(204);
  expect(new Set((await read()).document.lines.map((l) => l.maker))).toEqual(new Set(["Oxbow"]));
  await back(changed.headers);
  expect((await read()).document.lines).toEqual(document.lines);
  // one line of another shop among them: nothing is changed
  const foreign = (await other.read()).document.lines[0]!.id;
  const mixed = await v.patch(`/api/revisions/${revisionId}/lines`, {
    lines: [...lines, { id: foreign, maker: "Oxbow" }],
  });
  expect(mixed.status).toBe(404);
  expect((await read()).document.lines).toEqual(document.lines);
  const long = Array.from({ length: 20_001 }, () => ({ valueText: "x" }));
  const tooLong = await v.post(`/api/revisions/${revisionId}/lines`, long);
  expect([tooLong.status, message(tooLong)]).toEqual([
    422,
    "A bill holds at most 20,000 lines; nothing of it was taken.",
  ]);
  const three = await v.post(`/api/revisions/${revisionId}/lines`, long.slice(0, 3000));
  expect((three.body as { ids: string[] }).ids).toHaveLength(3000);
});

test("an item belongs to another of its own bill only; removed and brought back, the tree stands again", async () => {
  const { v, revisionId, read, back } = await shop("Tree");
  const other = await shop("Tree, elsewhere");
  const { ids } = (
    await v.post(`/api/revisions/${revisionId}/lines`, [
      { valueText: "cable", qty: 2, origin: "made", madeCost: "0.75" },
      { valueText: "plug", qty: 3 },
    ])
  ).body as { ids: [string, string] };
  const [cable, plug] = ids;
  expect((await v.patch(`/api/lines/${plug}`, { parent: cable })).status).toBe(204);
  expect((await v.patch(`/api/lines/${cable}`, { parent: cable })).status).toBe(404);
  const foreign = (await other.read()).document.lines[0]!.id;
  expect((await v.patch(`/api/lines/${plug}`, { parent: foreign })).status).toBe(404);
  const needOf = async (id: string) => rollUp((await read()).document).needs.find((n) => n.id === id)?.whole;
  expect([await needOf(plug), await needOf(cable)]).toEqual([60, undefined]);
  const gone = await v.call("DELETE", `/api/lines/${cable}`);
  expect((await read()).document.lines.find((l) => l.id === plug)!.parent).toBeUndefined();
  expect(await needOf(plug)).toBe(30);
  await back(gone.headers);
  expect((await read()).document.lines.find((l) => l.id === cable)).toMatchObject({
    origin: "made",
    madeCost: "0.75",
  });
  expect(await needOf(plug)).toBe(60);
});

test("a variant is chosen for a run and its figures are stored; two people set different lines of it", async () => {
  const { v, id, revisionId, read } = await shop("Variant");
  const first = await read();
  const [a, b] = first.document.lines.filter((l) => l.refs.length > 0);
  const { id: variant } = (
    await v.post(`/api/revisions/${revisionId}/variants`, {
      name: "timer",
      overrides: { [a!.id]: { dnp: true } },
    })
  ).body as { id: string };
  expect((await v.post(`/api/revisions/${revisionId}/variants`, { name: "timer" })).status).toBe(422);
  await server.figures();
  const before = (await read()).summary!;
  await v.patch(`/api/runs/${id}`, { version: first.version, variant });
  await server.figures();
  const { document, summary } = await read();
  expect(rollUp(document).parts.some((p) => p.line.id === a!.id)).toBe(false);
  expect(summary!.perGood).toBeLessThan(before.perGood);
  // from the same version: what each set joins
  const set = (overrides: object) => v.patch(`/api/variants/${variant}`, { version: 1, overrides });
  await set({ [a!.id]: { dnp: true }, [b!.id]: { dnp: true } });
  await set({ [a!.id]: { dnp: true, valueText: "other" } });
  expect((await read()).document.variants![0]!.overrides).toEqual({
    [a!.id]: { dnp: true, valueText: "other" },
    [b!.id]: { dnp: true },
  });
  const bad = await v.patch(`/api/variants/${variant}`, { overrides: { "not a line": { dnp: true } } });
  expect([bad.status, message(bad)]).toEqual([422, "overrides holds a key it cannot have."]);
});

test("a sum follows its line's value, stored and shown alike; the columns of a list are remembered", async () => {
  const { v, revisionId, read, back } = await shop("Sums");
  const lamp = (await read()).document.lines.find((l) => l.refs[0]?.startsWith("R"))!;
  const made = await v.post(`/api/revisions/${revisionId}/sums`, {
    kind: "lamp",
    given: { supply: "5 V", drop: "2 V", count: "1" },
    lines: { resistor: lamp.id },
    wanted: "9.1 mA",
    withinPct: 5,
  });
  const off = async () =>
    rollUp((await read()).document).notes.filter((n) => n.key.startsWith("sum-off")).length;
  await v.patch(`/api/lines/${lamp.id}`, { valueText: "330R" });
  expect(await off()).toBe(0);
  await v.patch(`/api/lines/${lamp.id}`, { valueText: "470R" });
  expect(await off()).toBe(1);
  await server.figures();
  expect((await read()).summary!.cautions).toBe(
    rollUp((await read()).document).notes.filter((n) => n.level === "warning" && !n.acceptedBecause).length,
  );
  await back(made.headers);
  expect((await read()).document.sums).toBeUndefined();
  await v.put("/api/columns", { source: "where|what", columns: { 0: "refs", 1: "value" } });
  await v.put("/api/columns", { source: "where|what", columns: { 0: "refs", 1: "mpn" } });
  expect((await v.get("/api/columns")).body).toEqual({ "where|what": { 0: "refs", 1: "mpn" } });
});
