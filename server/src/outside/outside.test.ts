import { createServer, type RequestListener } from "node:http";
import type { AddressInfo } from "node:net";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { expect, test } from "@jest/globals";
import { HOUSES, SUPPLIERS } from "@kobbin/standins";
import compute from "../jobs/compute.worker.ts";
import type { AnswerRead, Task } from "../jobs/messages.ts";
import { readFeed, readFound, readHouses, readOrder, readQuote, readSuppliers } from "./answers.ts";
import {
  askOutside,
  type Incoming,
  isInner,
  OutsideError,
  plainWords,
  readAnswer,
  readApart,
} from "./index.ts";
import { outerOnly } from "./request.ts";

/** Somebody outside who answers as told, asked once; how it went, and what was asked of it. */
async function met(answer: RequestListener, patienceMs = 20_000, path: readonly string[] = ["a"]) {
  const heard: string[] = [];
  const server = createServer((req, res) => {
    heard.push(`${req.method} ${req.url}`);
    answer(req, res);
  }).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  try {
    const came = await askOutside(base, { method: "GET", path, patienceMs }).catch((e: Error) => e);
    return { came: came instanceof OutsideError ? came.message : came, heard };
  } finally {
    server.closeAllConnections();
    server.close();
  }
}
const json = (value: unknown) => JSON.stringify(value);
const refusalOf = (read: () => unknown): string | undefined => {
  try {
    read();
  } catch (error) {
    return (error as Error).message;
  }
  return undefined;
};

test("an answer comes as it is, packed in any of the usual ways", async () => {
  const said = json({ a: [1, "ü"] });
  for (const [encoding, bytes] of [
    ["identity", Buffer.from(said)],
    ["gzip", gzipSync(said)],
    ["br", brotliCompressSync(said)],
  ] as const) {
    const { came } = await met((_, res) => res.setHeader("Content-Encoding", encoding).end(bytes));
    expect([encoding, came]).toEqual([encoding, { status: 200, text: said }]);
  }
});

const MB = 1024 * 1024;
test.each<[string, RequestListener, string]>([
  [
    "leads elsewhere",
    (_, res) => res.writeHead(302, { Location: "http://127.0.0.1:1/inner" }).end(),
    "It points to another address, which is not followed.",
  ],
  [
    "leads elsewhere for good, with the request",
    (_, res) => res.writeHead(308, { Location: "/b" }).end("{}"),
    "It points to another address, which is not followed.",
  ],
  ["is huge", (_, res) => res.end(json("x".repeat(MB))), "Its answer is larger than 1 MB and was not read."],
  [
    "goes on and on",
    (_, res) => {
      const more = () => !res.destroyed && res.write("x".repeat(64 * 1024), more);
      more();
    },
    "Its answer is larger than 1 MB and was not read.",
  ],
  [
    "unpacks to a thousand times as much",
    (_, res) => res.setHeader("Content-Encoding", "gzip").end(gzipSync("0".repeat(64 * MB))),
    "Its answer is larger than 1 MB and was not read.",
  ],
  [
    "is packed in a way nobody knows",
    (_, res) => res.setHeader("Content-Encoding", "rot13").end("{}"),
    "Its answer is packed in an unknown way.",
  ],
  [
    "is packed otherwise than it says",
    (_, res) => res.setHeader("Content-Encoding", "gzip").end("{}"),
    "Its answer broke off.",
  ],
  ["is no JSON", (_, res) => res.end("<html>"), "Its answer cannot be read."],
  [
    "breaks off",
    (_, res) => {
      res.writeHead(200, { "Content-Length": "100" }).write("{");
      setTimeout(() => res.destroy(), 20);
    },
    "Its answer broke off.",
  ],
  ["hangs up", (req) => req.socket.destroy(), "It cannot be reached."],
])("one whose answer %s is told in words, and asked nothing more", async (_, answer, words) => {
  const { came, heard } = await met(answer);
  const told = typeof came === "string" ? came : refusalOf(() => readAnswer(came as Incoming, "feed"));
  expect([told, heard]).toEqual([words, ["GET /a"]]);
});

test("one that never answers, or drips, is given up when its time is over", async () => {
  expect((await met(() => undefined, 80)).came).toBe("It did not answer in time.");
  const drips: RequestListener = (_, res) => {
    const drip = setInterval(() => (res.destroyed ? clearInterval(drip) : res.write(" ")), 20);
  };
  expect((await met(drips, 200)).came).toBe("It did not answer in time.");
});

test("a piece of a path is one piece, whatever stands in it", async () => {
  const answer: RequestListener = (_, res) => res.end("{}");
  expect((await met(answer, 20_000, ["a/../b?c#d", "é"])).heard).toEqual(["GET /a%2F..%2Fb%3Fc%23d/%C3%A9"]);
  for (const piece of ["..", ".", ""])
    await expect(
      (async () => askOutside("http://127.0.0.1:1", { method: "GET", path: [piece], patienceMs: 100 }))(),
    ).rejects.toThrow("under what name");
});

test.each([
  ["127.0.0.1", true],
  ["10.1.2.3", true],
  ["169.254.169.254", true],
  ["172.16.0.1", true],
  ["172.32.0.1", false],
  ["192.168.9.9", true],
  ["100.64.0.1", true],
  ["100.128.0.1", false],
  ["0.0.0.0", true],
  ["224.0.0.1", true],
  ["203.0.113.7", false],
  ["::1", true],
  ["[::1]", true],
  ["::", true],
  ["fd00::1", true],
  ["fe80::1", true],
  ["ff02::1", true],
  ["::ffff:10.0.0.1", true],
  ["::ffff:a00:1", true],
  ["::ffff:203.0.113.7", false],
  ["2001:db8::1", false],
  ["kobbin.example", false],
])("%s lies inside: %s", (address, is) => {
  expect(isInner(address)).toBe(is);
});

test.each([{}, { all: true }])(
  "a name that comes to this machine is not followed there (%j)",
  async (options) => {
    const said = await new Promise((done) =>
      outerOnly("localhost", options, (error) => done(error?.message)),
    );
    expect(said).toBe("localhost lies in the server's own network.");
  },
);

test("refusals are told in the other's words, as far as they are words", () => {
  const refused = (value: unknown) =>
    refusalOf(() => readAnswer({ status: 503, text: json(value) ?? "" }, "quote"));
  expect(refused({ message: "Closed on Sundays." })).toBe("Closed on Sundays.");
  expect(refused({ message: "a\u0000b\u202e\ud800c\n\td" })).toBe("a b c d");
  expect(refused({ message: "x".repeat(5000) })).toHaveLength(200);
  for (const odd of [undefined, null, 5, "text", {}, { message: 7 }, { message: "" }, { message: "\u0000" }])
    expect(refused(odd)).toBe("It answered 503.");
  expect(plainWords("two  words\r\n")).toBe("two words");
});

const OFFER = {
  mpn: "A-1",
  stock: 5,
  moq: 1,
  multiple: 1,
  packaging: "cut",
  currency: "EUR",
  breaks: [{ qty: 1, price: "0.05" }],
};
const feed = (over: object) => readFeed({ offers: [{ ...OFFER, ...over }], notListed: [] });

test("of a supplier's answer what has a name is taken, each offer once, its steps by quantity", () => {
  expect(
    readFeed({
      offers: [
        { ...OFFER, partId: "theirs", lineId: "x", source: "typed", breaks: [...OFFER.breaks].reverse() },
        { ...OFFER },
        {
          ...OFFER,
          packaging: undefined,
          fee: "0",
          breaks: [
            { qty: 10, price: 0.04 },
            { qty: 1, price: "0.05" },
          ],
        },
      ],
      notListed: ["B-1", "B-1"],
      isAdmin: true,
    }),
  ).toEqual({
    offers: [
      OFFER,
      {
        ...OFFER,
        packaging: "",
        breaks: [
          { qty: 1, price: "0.05" },
          { qty: 10, price: "0.04" },
        ],
      },
    ],
    notListed: ["B-1"],
  });
});

test.each<[string, object]>([
  ["a stock below nothing", { stock: -1 }],
  ["a stock that is no number", { stock: null }],
  ["a stock beyond counting", { stock: 1e18 }],
  ["part of a piece", { multiple: 0.5 }],
  ["a least quantity of nothing", { moq: 0 }],
  ["no steps", { breaks: [] }],
  ["a price below nothing", { breaks: [{ qty: 1, price: "-1" }] }],
  ["a price in words", { breaks: [{ qty: 1, price: "free" }] }],
  ["a price the table does not hold", { breaks: [{ qty: 1, price: "1234567890123" }] }],
  ["a price finer than the table holds", { breaks: [{ qty: 1, price: "0.00000001" }] }],
  [
    "two prices at one quantity",
    {
      breaks: [
        { qty: 1, price: "1" },
        { qty: 1, price: "2" },
      ],
    },
  ],
  ["thousands of steps", { breaks: Array.from({ length: 5000 }, (_, i) => ({ qty: i + 1, price: "1" })) }],
  ["a number with NUL", { mpn: "a\u0000b" }],
  ["three megabytes of text", { packaging: "x".repeat(3_000_000) }],
  ["a currency that is none", { currency: "euro" }],
])("an offer with %s is refused whole, with what is wrong", (_, over) => {
  expect(() => feed(over)).toThrow(OutsideError);
  expect(() => feed(over)).toThrow(/^Its answer cannot be used: .{5,150}\.$/s);
});

test("a supplier has so many ways to sell one number; twenty thousand copies of one are one", () => {
  const copies = Array.from({ length: 4000 }, () => OFFER);
  expect(readFeed({ offers: copies, notListed: [] }).offers).toHaveLength(1);
  const ways = Array.from({ length: 21 }, (_, i) => ({ ...OFFER, packaging: `way ${i}` }));
  expect(() => readFeed({ offers: ways, notListed: [] })).toThrow("A-1 in more than 20 ways");
  for (const odd of [undefined, null, [], "x", { offers: {} }, { offers: [null], notListed: [] }])
    expect(() => readFeed(odd)).toThrow(OutsideError);
});

test("what a supplier has for a question is taken by name; an offer in it is judged like any other", () => {
  const part = { mpn: "A-1", maker: "M", description: "", kind: "resistor", package: "0603", params: {} };
  const found = (over: object) => ({
    found: [{ id: "q", parts: [{ part: { ...part, print: "theirs" }, offers: [{ ...OFFER, ...over }] }] }],
  });
  expect(readFound(found({}))).toEqual({ found: [{ id: "q", parts: [{ part, offers: [OFFER] }] }] });
  expect(() => readFound(found({ stock: -1 }))).toThrow("stock");
  expect(
    readFound({ found: [{ id: "q", parts: [{ part: { ...part, mpn: 7 }, offers: [] }] }] }).found[0]!.parts,
  ).toEqual([]);
});

const QUOTE = { total: "12.50", currency: "EUR", days: 9, validUntil: "2026-12-24" };
test("a quotation is a sum, days and a day: whose it is and of what kind is not for the house to say", () => {
  expect(readQuote({ ...QUOTE, houseId: "another", kind: "assembly", question: "" })).toEqual(QUOTE);
  expect(readQuote({ ...QUOTE, total: 12.5, question: "Which way?" })).toEqual({
    ...QUOTE,
    total: "12.5",
    question: "Which way?",
  });
  for (const [over, what] of [
    [{ total: "-1" }, "total"],
    [{ total: "NaN" }, "total"],
    [{ total: "99999999999999" }, "total"],
    [{ days: 1e9 }, "days"],
    [{ validUntil: "2026-02-31" }, "validUntil"],
    [{ question: "a\u0000" }, "question"],
    [{ question: "x".repeat(501) }, "question"],
  ] as const)
    expect(() => readQuote({ ...QUOTE, ...over })).toThrow(
      new RegExp(`^Its answer is no quotation: ${what} `),
    );
});

test("what a house says of an order stands once under its key", () => {
  const said = { key: "1", state: "accepted", on: "2026-11-25", words: "fine" };
  const answer = { number: "P-1", said: [said, { ...said, person: "me" }], source: "x" };
  expect(readOrder(answer)).toEqual({ number: "P-1", said: [said] });
  expect(() => readOrder({ number: "P-1", said: [said, { ...said, words: "not fine" }] })).toThrow(
    "two things",
  );
  expect(() => readOrder({ number: "P-1", said: [{ ...said, state: "paid" }] })).toThrow("state");
});

test("the partners that ship are read as they are, and one that is made up is refused", () => {
  const sent = JSON.parse(JSON.stringify({ SUPPLIERS, HOUSES }));
  expect(readSuppliers(sent.SUPPLIERS)).toEqual(SUPPLIERS);
  expect(readHouses(sent.HOUSES)).toEqual(sent.HOUSES);
  expect(() => readSuppliers([{ ...SUPPLIERS[0], key: "../admin" }])).toThrow("key");
  expect(() => readHouses([{ ...sent.HOUSES[0], price: {} }])).toThrow("price");
});

test("what is long is read in a thread, and ends in the same words; a long refusal is not read at all", async () => {
  const asked: Task[] = [];
  const read = readApart(async (answer, as) => {
    const task: Task = { kind: "answer", answer, as };
    asked.push(task);
    return (await compute(task)) as AnswerRead;
  });
  const many = Array.from({ length: 400 }, (_, i) => ({ ...OFFER, mpn: `A-${i}` }));
  const long = json({ offers: many, notListed: [], pad: "x".repeat(30_000) });
  expect((await read({ status: 200, text: long }, "feed")).offers).toHaveLength(400);
  const wrong = long.replace('"stock":', '"stock":-');
  const words = refusalOf(() => readAnswer({ status: 200, text: wrong }, "feed"));
  await expect(read({ status: 200, text: wrong }, "feed")).rejects.toEqual(new OutsideError(words));
  expect(asked.map((t) => t.kind)).toEqual(["answer", "answer"]);
  await expect(read({ status: 500, text: long }, "feed")).rejects.toThrow("It answered 500.");
  expect((await read({ status: 200, text: json({ offers: [], notListed: [] }) }, "feed")).offers).toEqual([]);
  expect(asked).toHaveLength(2);
});
