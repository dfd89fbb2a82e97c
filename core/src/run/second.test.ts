import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { bothWays } from "../../test/second/compare.ts";
import { madeUpRuns } from "../../test/second/made-up.ts";
import { boardK } from "./board-k.fixture.ts";
import { DEFAULT_ASSEMBLY, type RunDocument, type RunOffer, toRunDocument } from "./document/document.ts";
import { FAR } from "./made-up.fixture.ts";

// a whole run, twice: by the roll-up, and by sums that try everything in exact fractions and know nothing of it
const same = (doc: RunDocument) => {
  const { ours, second } = bothWays(doc);
  expect(ours).toEqual(second);
};

const example = toRunDocument(
  JSON.parse(readFileSync(new URL("../../../docs/examples/probe-tail.run.json", import.meta.url), "utf8")),
);
const place = (ref: string, side: "top" | "bottom") => ({ ref, xMm: 1, yMm: 1, rotationDeg: 0, side });
const both = boardK().lines.flatMap((l) =>
  l.mount === "machine" ? l.refs.map((r) => place(r, r.startsWith("C") ? "bottom" : "top")) : [],
);
const HOUSE = { ...FAR, assembly: { ...FAR.assembly!, leaderMm: 150, perSpecialPart: "3.00" } };
const NEAR = { ...FAR, id: "near", name: "NEAR", currency: "USD" };
const rates = { USD: "0.9215", GBP: "1.1734" };
const inThree = (): Partial<RunDocument> => {
  const k = boardK();
  return {
    workshop: { ...k.workshop, rates, taxRate: 0.2 },
    suppliers: [
      { id: "S", name: "S", currency: "USD", shipping: "8.35", freeFrom: "90.00", daysMin: 2, daysMax: 4 },
      {
        id: "T",
        name: "T",
        currency: "GBP",
        shipping: "5.10",
        daysMin: 2,
        daysMax: 4,
        dutyRate: 0.037,
        handling: "4.99",
      },
    ],
    offers: k.offers.map(
      (o, i): RunOffer =>
        i % 3 === 2 ? { ...o, supplier: "T", currency: "GBP", fee: "1.25" } : { ...o, currency: "USD" },
    ),
    house: NEAR,
    houses: [NEAR],
  };
};

test.each<readonly [string, RunDocument]>([
  ["the manual's example", example],
  [
    "the manual's example, left-overs charged",
    { ...example, choices: { ...example.choices, leftovers: "expense" } },
  ],
  ["Board K", boardK()],
  ["Board K by iron", boardK({ assembly: { ...DEFAULT_ASSEMBLY, method: "iron" } })],
  ["two sides at home", boardK({ placements: both, assembly: DEFAULT_ASSEMBLY })],
  [
    "two sides at a house, hand parts here",
    boardK({
      placements: both,
      houses: [HOUSE],
      assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "far" },
    }),
  ],
  [
    "a house that makes the boards elsewhere and solders all",
    boardK({
      placements: both,
      house: { ...FAR, id: "near" },
      houses: [HOUSE],
      assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "far", handParts: "house" },
    }),
  ],
  ["three currencies, duty, tax, fees", boardK(inThree())],
  [
    "past the stock",
    boardK({ offers: boardK().offers.map((o) => ({ ...o, stock: o.line === "mcu" ? 20 : o.stock })) }),
  ],
  [
    "a lead time and options that cost",
    boardK({ options: { finish: "immersion-gold", mask: "white", thickness: "1.0", leadDays: 3 } }),
  ],
  ["where more boards cost less", boardK({ goodBoards: 44, confidence: 0.5 })],
])("twice the same: %s", (_, doc) => {
  same(doc);
});

test("twice the same: runs nobody thought of", () => {
  for (const doc of madeUpRuns(40, 14)) same(doc);
});
