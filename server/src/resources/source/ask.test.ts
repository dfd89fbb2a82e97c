import { createServer, type IncomingMessage, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FeedPart } from "@kobbin/contract";
import type { RunLine } from "@kobbin/core";
import { askSupplier, rulesWanted, searchSupplier, type Wanted, type WantedRule } from "./ask.ts";
import type { SupplierRow } from "./queries.ts";

// a supplier that answers as the test says
type Said = { status?: number; body?: unknown };
let answer: (url: string, body: string) => Said;
const asked: { url: string; body: string }[] = [];
let server: Server;
let url = "";
const textOf = async (req: IncomingMessage) => {
  let text = "";
  for await (const c of req) text += c;
  return text;
};
beforeAll(async () => {
  server = createServer(async (req, res) => {
    const body = await textOf(req);
    asked.push({ url: req.url!, body });
    const { status = 200, body: said } = answer(req.url!, body);
    res.writeHead(status, { "Content-Type": "application/json" });
    res.end(typeof said === "string" ? said : JSON.stringify(said ?? {}));
  }).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
});

const supplier = { id: "s1", feedKey: "north" } as SupplierRow;
const PATIENCE = 8000;
const part = (mpn: string, more: Partial<FeedPart> = {}): FeedPart => ({ mpn, maker: "Oxbow", kind: "resistor", package: "0603", description: "", params: { value: "10k" }, ...more }); // biome-ignore format: short
const offer = (mpn: string) => ({ mpn, stock: 5, moq: 1, multiple: 1, currency: "EUR", breaks: [{ qty: 1, price: "0.1" }] }); // biome-ignore format: short
const rule = (id: string, lines = [`line ${id}`]): WantedRule =>
  ({
    id,
    facts: { kind: "resistor", package: "0603", params: { value: "10k" } },
    lines,
  }) as unknown as WantedRule;
const search = (wanted: readonly WantedRule[]) =>
  searchSupplier(url, supplier, wanted, "2026-11-28", PATIENCE);

test("of the parts a supplier names for a rule the first twelve are kept that are of its class, for each line of it", async () => {
  const parts = (list: readonly FeedPart[]) => list.map((p) => ({ part: p, offers: [offer(p.mpn)] }));
  answer = () => ({
    body: {
      found: [
        {
          id: "a",
          parts: parts([
            part("A1"),
            part("C1", { kind: "capacitor" }),
            { ...part("A2"), mpn: 7 as unknown as string },
          ]),
        },
        { id: "b", parts: parts(Array.from({ length: 13 }, (_, i) => part(`B${i}`))) },
        { id: "nobody asked", parts: parts([part("D1")]) },
      ],
    },
  });
  const found = await search([rule("a", ["l1", "l2"]), rule("b")]);
  expect(found.map((o) => `${o.lineId} ${o.candidate!.mpn}`)).toEqual(["l1 A1", "l2 A1", ...Array.from({ length: 12 }, (_, i) => `line b B${i}`)]); // biome-ignore format: one list
  expect(found[0]).toMatchObject({ supplierId: "s1", source: "feed", capturedOn: "2026-11-28", stock: 5 });
  expect(found[0]).not.toHaveProperty("mpn");
});

test("rules are asked fifty at a time; a supplier that cannot be asked so says nothing, another answer is told", async () => {
  answer = () => ({ body: { found: [] } });
  asked.length = 0;
  expect(await search(Array.from({ length: 101 }, (_, i) => rule(`r${i}`)))).toEqual([]);
  expect(asked.map((a) => [a.url, (JSON.parse(a.body) as { rules: object[] }).rules.length])).toEqual([
    ["/suppliers/north/search", 50],
    ["/suppliers/north/search", 50],
    ["/suppliers/north/search", 1],
  ]);
  expect(JSON.parse(asked[2]!.body)).toEqual({ rules: [{ id: "r100", kind: "resistor", package: "0603", params: { value: "10k" } }] }); // biome-ignore format: short
  answer = () => ({ status: 404, body: { message: "no such door" } });
  expect(await search([rule("a")])).toEqual([]);
  for (const [said, why] of [
    [{ status: 503 }, "It answered 503."],
    [{ status: 503, body: { message: "Closed on Sundays." } }, "Closed on Sundays."],
    [{ status: 200, body: {} }, "Its answer cannot be used: found should be a list."],
    [{ status: 200, body: "<html>" }, "Its answer cannot be read."],
  ] as const) {
    answer = () => said;
    await expect(search([rule("a")])).rejects.toThrow(why);
  }
});

test("numbers are asked two hundred at a time; what is not listed is told of a line's own number only", async () => {
  const wanted: Wanted[] = Array.from({ length: 201 }, (_, i) => ({
    mpn: `N ${i}`,
    lines: [{ lineId: `l${i}` }],
  }));
  wanted[0] = { mpn: "N 0", lines: [{ lineId: "l0" }, { lineId: "m0", partId: "p0" }] };
  answer = (u) =>
    u.includes("mpn=N+200")
      ? { body: { offers: [], notListed: [] } }
      : { body: { offers: [offer("n 1"), offer("nobody's")], notListed: ["N 0", "other"] } };
  asked.length = 0;
  const said = await askSupplier(url, supplier, wanted, "2026-11-28", PATIENCE);
  expect(asked.map((a) => (a.url.match(/mpn=/g) ?? []).length)).toEqual([200, 1]);
  expect(said.notListed).toEqual(["l0"]);
  expect(said.offers).toMatchObject([
    { lineId: "l1", supplierId: "s1", source: "feed", capturedOn: "2026-11-28" },
  ]);
  expect(said.offers[0]).not.toHaveProperty("partId");
  answer = () => ({ body: { offers: [offer("N 0")], notListed: [] } });
  const two = await askSupplier(url, supplier, wanted.slice(0, 1), "2026-11-28", PATIENCE);
  expect(two.offers.map((o) => [o.lineId, o.partId])).toEqual([
    ["l0", undefined],
    ["m0", "p0"],
  ]);
  answer = () => ({ body: { offers: [] } });
  await expect(askSupplier(url, supplier, wanted.slice(0, 1), "2026-11-28", PATIENCE)).rejects.toThrow(
    "Its answer cannot be used: notListed should be a list.",
  );
});

test("a line whose number is not listed is asked for by its value and package; others by their number alone", () => {
  const line = (id: string, mpn: string, more: object = {}) =>
    ({
      id,
      refs: [`R${id}`],
      qty: 1,
      valueText: "10k",
      package: "0603",
      mpn,
      maker: "",
      description: "",
      dnp: false,
      mount: "machine",
      ...more,
    }) as RunLine;
  const lines = [line("1", "OX-10K"), line("2", "OX-10K-B"), line("3", ""), line("4", "XX", { dnp: true })];
  const ids = (unlisted: readonly string[]) =>
    rulesWanted(lines, {}, new Set(unlisted))
      .flatMap((w) => w.lines)
      .sort();
  expect(ids([])).toEqual(["3"]);
  expect(ids(["2", "4"])).toEqual(["2", "3"]);
  const [rule] = rulesWanted([lines[0]!], {}, new Set(["1"]));
  expect(rule!.facts).toMatchObject({ kind: "resistor", package: "0603" });
});
