import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, RunAnswer, Shop } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const LINES = [
  { refs: ["R10", "R11"], valueText: "10k", package: "0603", mount: "machine" },
  { refs: ["R12"], valueText: "10k 1%", package: "R_0603", mount: "machine" },
  { refs: ["C10", "C11"], valueText: "100n 50V X7R", package: "0603", mount: "machine" },
  { refs: ["LED9"], valueText: "green", package: "0603", mount: "machine" },
  { refs: ["J9"], valueText: "1x4 header 2.54", mount: "hand" },
  { refs: ["U9"], valueText: "timer", package: "SOIC-8", mount: "machine" },
];

async function shop(name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const run = async (product: string) => {
    const kept = (await v.drop(strangerFiles(), { name: product })).body as { revisionId: string };
    await v.post(`/api/revisions/${kept.revisionId}/lines`, LINES);
    const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: product, goodBoards: 10 }))
      .body as { id: string };
    const ask = async () => {
      await v.post(`/api/runs/${id}/ask`);
      const { asks } = (await v.get(`/api/runs/${id}/asks`)).body as AskAnswer;
      await server.figures();
      return asks;
    };
    const read = async () => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document;
    return { id, ask, read };
  };
  return { v, run };
}
const uncovered = (d: RunAnswer["document"]) => {
  const r = rollUp(d);
  return r.basket.lines
    .filter((l) => l.missing > 0)
    .map((l) => d.lines.find((x) => x.id === l.line)!.refs[0]);
};

test("lines without numbers are asked as rules; nothing counts before its class is confirmed, then only what is known to do", async () => {
  const { v, run } = await shop("Rules");
  const one = await run("first");
  await one.ask();
  const before = await one.read();
  // parts were named, for three suppliers and more than one part a line
  const found = before.library!.filter((p) => p.found);
  expect(new Set(found.map((p) => p.kind))).toEqual(new Set(["resistor", "capacitor", "lamp", "connector"]));
  expect(uncovered(before)).toEqual(expect.arrayContaining(["R10", "C10", "LED9", "J9", "U9"]));
  // one confirmation for the class covers all its lines; what they say themselves still holds
  const rules = { resistor: { tolerance: "5 %" } };
  expect((await v.patch("/api/shop", { rules })).body).toMatchObject({ rules });
  const some = await one.read();
  expect(uncovered(some)).not.toContain("R10");
  expect(uncovered(some)).not.toContain("R12");
  expect(uncovered(some)).toContain("C10");
  const partOf = (d: RunAnswer["document"], ref: string) => {
    const line = d.lines.find((l) => l.refs.includes(ref))!;
    const r = rollUp(d);
    const need = r.needs.findIndex((n) => n.lines.includes(line.id));
    const offer = d.offers.find((o) => o.id === r.basket.lines[need]!.buys[0]!.offer)!;
    return d.library!.find((p) => p.id === offer.part)!;
  };
  expect(["1 %", "0.1 %"]).toContain(partOf(some, "R12").params.tolerance);
  const all = {
    ...rules,
    capacitor: { voltage: "16 V", dielectric: "X5R", tolerance: "20 %" },
    lamp: { pinout: "1 cathode, 2 anode" },
    connector: { family: "pin row", pitch: "2.54 mm", gender: "pins", orientation: "upright" },
  };
  await v.patch("/api/shop", { rules: all });
  const done = await one.read();
  expect(uncovered(done)).toEqual(expect.arrayContaining(["U9"]));
  for (const ref of ["R10", "C10", "LED9", "J9"]) expect(uncovered(done)).not.toContain(ref);
  expect(partOf(done, "C10").params).toMatchObject({ voltage: "50 V", dielectric: "X7R" });
  expect(partOf(done, "LED9").params).toMatchObject({ colour: "green", pinout: "1 cathode, 2 anode" });
  // nothing of it came into the shop's library
  expect(((await v.get("/api/parts")).body as { parts: unknown[] }).parts).toEqual([]);
  // it is remembered: another product of the shop has its prices without a question to a person
  const two = await run("second");
  await two.ask();
  expect(uncovered(await two.read())).toEqual(uncovered(done));
});

test("asked again, what is the same stays the same row; a rule nobody knows and an odd class are refused", async () => {
  const { v, run } = await shop("Again");
  const one = await run("first");
  await one.ask();
  const ids = async () => (await one.read()).offers.map((o) => o.id).sort();
  const was = await ids();
  await one.ask();
  expect(await ids()).toEqual(was);
  for (const rules of [{ chip: {} }, { resistor: { colour: "red" } }, { resistor: "1 %" }])
    expect((await v.patch("/api/shop", { rules })).status).toBe(422);
  expect(((await v.get("/api/session")).body as { shop: Shop }).shop.rules).toEqual({});
  // undone like any change of the shop
  await v.patch("/api/shop", { rules: { lamp: { pinout: "1 cathode, 2 anode" } } });
  const { changes } = (await v.get("/api/history")).body as { changes: unknown[] };
  expect(JSON.stringify(changes[0])).toContain("what lines without a number take");
});

test("a number nobody lists brings parts of the same value and package, which buy nothing; one somebody lists brings none", async () => {
  const v = new Visitor(server);
  await v.startShop("Unlisted");
  const kept = (await v.drop(strangerFiles(), { name: "odd" })).body as { revisionId: string };
  await v.post(`/api/revisions/${kept.revisionId}/lines`, [
    { refs: ["R50"], valueText: "10k", package: "0603", mpn: "NOBODY-10K", mount: "machine" },
    { refs: ["R51"], valueText: "10k", package: "0603", mpn: "OX-R0603-10k", mount: "machine" },
  ]);
  const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: "a", goodBoards: 10 }))
    .body as {
    id: string;
  };
  await v.post(`/api/runs/${id}/ask`);
  await server.figures();
  const { document: d } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const offers = (ref: string) => {
    const line = d.lines.find((l) => l.refs.includes(ref))!;
    return d.offers.filter((o) => o.line === line.id);
  };
  expect(offers("R50").length).toBeGreaterThan(0);
  expect(offers("R50").every((o) => o.part !== undefined)).toBe(true);
  expect(offers("R51").some((o) => o.part === undefined)).toBe(true);
  expect(offers("R51").every((o) => o.part === undefined)).toBe(true);
  // known to be equal is not approved: nothing of it is bought
  expect(uncovered(d)).toContain("R50");
  expect(uncovered(d)).not.toContain("R51");
});
