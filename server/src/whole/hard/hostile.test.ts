import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import type { AskAnswer, RunAnswer } from "@kobbin/contract";
import { rollUp } from "@kobbin/core";
import { createStandIns, HOUSES, SUPPLIERS } from "@kobbin/standins";
import { demoArchive, startServer, type TestServer, Visitor } from "../../../test/kit.ts";
import { until } from "../../../test/siege.ts";

// Partners who mean no good, or mean well and fail: whatever they answer, it ends in a sentence, nothing of ours is written
// over, and nobody else waits for it.

type Hostile = (req: IncomingMessage, res: ServerResponse) => unknown;
/** What is answered in the place of the stand-ins; false lets them answer. */
let hostile: Hostile = () => false;
const heard: string[] = [];
const honest = createStandIns({ seed: "test", latencyMs: 0 }).callback() as RequestListener;
const partners = createServer((req, res) => {
  if (req.url !== "/suppliers" && req.url !== "/houses") {
    heard.push(`${req.method} ${req.url!.split("?")[0]}`);
    if (hostile(req, res) !== false) return;
  }
  honest(req, res);
});
let server: TestServer;
const defects: string[] = [];
beforeAll(async () => {
  await new Promise<void>((done) => partners.listen(0, "127.0.0.1", done));
  const { port } = partners.address() as AddressInfo;
  server = await startServer(
    { standInsUrl: `http://127.0.0.1:${port}`, feedRetryMs: 5 },
    { patienceMs: 60_000, log: (e) => e.level === "error" && defects.push(JSON.stringify(e).slice(0, 300)) },
  );
});
afterAll(async () => {
  await server.close();
  partners.closeAllConnections();
  partners.close();
});
beforeEach(() => {
  hostile = () => false;
  heard.length = 0;
  defects.length = 0;
});

let shops = 0;
async function shopWithRun() {
  const v = new Visitor(server);
  await v.startShop(`Trusting ${shops++}`);
  const { revisionId } = (await v.drop({ "t.zip": demoArchive("probe-tail") })).body as {
    revisionId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 20 })).body as {
    id: string;
  };
  const asks = async () => (await v.get(`/api/runs/${id}/asks`)).body as AskAnswer;
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  return { v, id, revisionId, asks, read };
}
let trusting: Awaited<ReturnType<typeof shopWithRun>> | undefined;

const json =
  (value: unknown, status = 200): Hostile =>
  (_, res) => {
    res.writeHead(status, { "Content-Type": "application/json" }).end(JSON.stringify(value));
  };
const OFFER = {
  mpn: "x",
  stock: 1,
  moq: 1,
  multiple: 1,
  packaging: "",
  currency: "EUR",
  breaks: [{ qty: 1, price: "1" }],
};

test.each<[string, Hostile, RegExp]>([
  ["NUL in its reason", json({ message: "no\u0000\u0007 thanks" }, 503), /^no thanks$/],
  ["nothing at all", json(null), /^Its answer cannot be used: the document should be an object\.$/],
  [
    "one quantity twice",
    json({ offers: [{ ...OFFER, breaks: [...OFFER.breaks, { qty: 1, price: "2" }] }], notListed: [] }),
    /x has two prices at 1/,
  ],
  [
    "an amount no column holds",
    json({ offers: [{ ...OFFER, breaks: [{ qty: 1, price: "9".repeat(20) }] }], notListed: [] }),
    /price should be an amount/,
  ],
  [
    "a stock below nothing",
    json({ offers: [{ ...OFFER, stock: -5 }], notListed: [] }),
    /stock should be a whole number/,
  ],
  [
    "three megabytes",
    json({ offers: [], notListed: ["y".repeat(3_000_000)] }),
    /^Its answer is larger than 1 MB/,
  ],
  [
    "another address",
    (_, res) => res.writeHead(307, { Location: `${server.url}/health` }).end(),
    /points to another address/,
  ],
  ["a broken line", (req) => req.socket.destroy(), /^It cannot be reached\.$/],
])(
  "suppliers that answer with %s are asked four times, fail with a reason, and can be asked again",
  async (_, answer, reason) => {
    trusting ??= await shopWithRun();
    const { v, id, asks, read } = trusting;
    heard.length = 0;
    const before = (await read()).document.offers;
    hostile = answer;
    await v.post(`/api/runs/${id}/ask`);
    await server.figures();
    const told = (await asks()).asks;
    expect(told.map((a) => [a.state, a.tries])).toEqual(SUPPLIERS.map(() => ["failed", 4]));
    for (const a of told) expect(a.reason).toMatch(reason);
    expect(heard).toHaveLength(4 * SUPPLIERS.length);
    expect([(await read()).document.offers, defects]).toEqual([before, []]);
    hostile = () => false;
    await v.post(`/api/runs/${id}/ask`);
    await server.figures();
    expect((await asks()).asks.map((a) => [a.state, a.reason])).toEqual(
      SUPPLIERS.map(() => ["answered", ""]),
    );
  },
);

test("a supplier's answer says nothing of whose it is: names of ours in it are passed over", async () => {
  const { v, id, read } = await shopWithRun();
  const { lines } = (await read()).document;
  const mpn = lines.find((l) => l.mpn !== "")!.mpn;
  hostile = (req, res) =>
    req.method === "GET" &&
    json({
      offers: [
        {
          ...OFFER,
          mpn,
          id: "x",
          lineId: lines.at(-1)!.id,
          partId: "x",
          supplierId: "x",
          source: "typed",
          workshop_id: "x",
        },
      ],
      notListed: [],
    })(req, res);
  await v.post(`/api/runs/${id}/ask`);
  await server.figures();
  const { offers } = (await read()).document;
  expect(
    new Set(offers.filter((o) => o.line === lines.find((l) => l.mpn === mpn)!.id).map((o) => o.source)),
  ).toEqual(new Set(["feed"]));
  expect(new Set(offers.map((o) => o.supplier)).size).toBe(SUPPLIERS.length);
});

const answering = HOUSES.filter((h) => h.layers.length > 0 && h.bench === undefined).length;
const QUOTE = { total: "99.50", currency: "EUR", days: 7, validUntil: "2027-01-31" };

test("a house's quotation is its own, whatever else it says; one that cannot be kept fails with a reason", async () => {
  const { v, id, asks, read } = await shopWithRun();
  const { houses } = (await read()).document;
  hostile = json({
    ...QUOTE,
    houseId: houses![0]!.id,
    kind: "assembly",
    runId: "x",
    capturedOn: "1999-01-01",
    basis: {},
    answer: "yes",
  });
  await v.post(`/api/runs/${id}/ask-houses`, { start: 22 });
  await server.figures();
  const quotes = (await read()).document.quotes;
  expect(quotes.map((q) => [q.kind, q.total, q.capturedOn])).toEqual(
    Array(answering).fill(["fab", "99.50", "2026-11-24"]),
  );
  expect(new Set(quotes.map((q) => q.house)).size).toBe(answering);
  for (const [over, reason] of [
    [{ question: "which\u0000way" }, /question/],
    [{ total: "1e400" }, /total/],
    [{ days: -4 }, /days/],
  ] as const) {
    hostile = json({ ...QUOTE, total: "1.00", ...over });
    heard.length = 0;
    await v.post(`/api/runs/${id}/ask-houses`, { start: 22 });
    await server.figures();
    const told = (await asks()).houses;
    expect(told.map((a) => [a.state, a.tries])).toEqual(Array(answering).fill(["failed", 4]));
    for (const a of told) expect(a.reason).toMatch(reason);
    expect(heard).toHaveLength(4 * answering);
    // the one that was given before stays
    expect((await read()).document.quotes.map((q) => q.total)).toEqual(Array(answering).fill("99.50"));
  }
  expect(defects).toEqual([]);
});

test("an order of which nobody heard what became is asked about, not sent again; its files go there once", async () => {
  const { v, id, revisionId, read, asks } = await shopWithRun();
  const { houses } = (await read()).document;
  const houseId = houses!.find((h) => h.name === "Plover Lane Boards")!.id;
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, houseId });
  const { document } = await read();
  const lines = document.lines.map((l) => ({ id: l.id, dnp: true }));
  await v.patch(`/api/revisions/${revisionId}/lines`, { lines });
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, accepted: await blockersOf(read) });
  expect((await v.post(`/api/runs/${id}/release`)).status).toBe(201);
  // it takes the order, and its answer breaks off
  const taken = new Set<string>();
  hostile = (req, res) => {
    if (req.method !== "PUT") return false;
    expect(req.headers["idempotency-key"]).toBe(req.url!.split("/").at(-1));
    taken.add(req.url!);
    const through = Object.assign(Object.create(res), { end: () => res.destroy() });
    return honest(req, through);
  };
  await v.post(`/api/runs/${id}/send-order`, { order: `boards ${houseId}` });
  await server.figures();
  expect(heard.filter((h) => h.startsWith("PUT"))).toHaveLength(1);
  expect(heard.map((h) => h.split(" ")[0])).toEqual(["POST", "PUT", "POST"]);
  expect(taken.size).toBe(1);
  const [told] = (await asks()).orders;
  expect(told).toMatchObject({ state: "answered", number: expect.stringMatching(/^P-\d{4}$/) });
  // it says more and more: so much is kept, and no more
  for (const from of [0, 200, 400]) {
    const said = Array.from({ length: 200 }, (_, i) => ({
      key: `k${from + i}`,
      state: "asked",
      on: "2026-11-25",
      words: `${i}`,
    }));
    hostile = json({ number: "P-1", said });
    await v.post(`/api/runs/${id}/look-order`, { order: `boards ${houseId}` });
    await until(
      async () =>
        (await read()).record!.steps!.length > from + 200 || (await asks()).orders[0]!.state === "failed",
      "kept or given up",
    );
  }
  expect((await asks()).orders[0]!.reason).toBe("It says more of this order than is kept: 500 steps.");
  // what it says is nonsense from now on: it ends in a sentence, and what it said before stands
  const steps = (await read()).record!.steps!.length;
  hostile = json({ number: "P-1", said: [{ key: "z", state: "paid", on: "2026-11-25", words: "" }] });
  await v.post(`/api/runs/${id}/look-order`, { order: `boards ${houseId}` });
  await until(async () => (await asks()).orders[0]!.state === "failed", "given up");
  expect((await asks()).orders[0]!.reason).toMatch(
    /^What it says of the order cannot be read: said\[0\]\.state/,
  );
  expect((await read()).record!.steps).toHaveLength(steps);
  expect(heard.filter((h) => h.startsWith("PUT"))).toHaveLength(1);
  expect(defects).toEqual([]);
});

async function blockersOf(read: () => Promise<RunAnswer>): Promise<Record<string, string>> {
  return Object.fromEntries(rollUp((await read()).document).blockers.map((b) => [b.key, "known"]));
}

test("houses that never answer one shop keep no other shop waiting", async () => {
  const slow = await shopWithRun();
  const other = await shopWithRun();
  const { houses } = (await slow.read()).document;
  const copyOf = houses!.find((h) => h.name === "Plover Lane Boards")!.id;
  const mine: string[] = [];
  for (let i = 0; i < 16; i++)
    mine.push(((await slow.v.post("/api/houses", { name: `slow ${i}`, copyOf })).body as { id: string }).id);
  await server.owner.query("select set_config('app.change', 'off', false)");
  await server.owner.query(
    "begin; set local app.change = 'off'; update house set feed_key = 'never' where id in ('".concat(
      mine.join("','"),
      "'); commit",
    ),
  );
  const open = new Set<ServerResponse>();
  hostile = (req, res) => req.url!.includes("/never/") && open.add(res);
  await slow.v.post(`/api/runs/${slow.id}/ask-houses`, { start: 22 });
  await until(() => open.size >= 4, "some of them are asked");
  await other.v.post(`/api/runs/${other.id}/ask-houses`, { start: 22 });
  await other.v.post(`/api/runs/${other.id}/ask`);
  await until(async () => {
    const { asks, houses } = await other.asks();
    return [...asks, ...houses].every((a) => a.state === "answered");
  }, "the other shop has its answers");
  // no more of them at once than a shop's share, and none has answered meanwhile
  expect(open.size).toBeLessThanOrEqual(6);
  for (const res of open) res.destroy();
  hostile = (req, res) => req.url!.includes("/never/") && json({ message: "gone" }, 500)(req, res);
  await server.figures();
  expect((await slow.asks()).houses.filter((h) => h.state !== "failed" && h.state !== "answered")).toEqual(
    [],
  );
});
