import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { chance } from "../../test/random.ts";
import { bothWays } from "../../test/second/compare.ts";
import { boardK } from "./board-k.fixture.ts";
import { DEFAULT_ASSEMBLY, type RunDocument, type RunOffer, toRunDocument } from "./document.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "./made-up.fixture.ts";

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
  const { next, pick, below } = chance(14);
  const int = (a: number, b: number) => a + below(b - a + 1);
  for (let k = 0; k < 40; k++) {
    const lines = Array.from({ length: int(1, 7) }, (_, i) =>
      madeLine(
        `l${i}`,
        Array.from({ length: int(1, 9) }, (_, j) => `${pick(["R", "C"])}${100 * i + j}`),
        {
          package: pick(["0402", "0603", "0805", "SOT-23", "SOD-123", "QFN-32", "HDR-1x4"]),
          mpn: next() < 0.8 ? `OX-${pick([1, 2, 3, 4, 5, 6, 7, 8, 9])}` : "",
          mount: "machine",
          ...(next() < 0.2 ? { board: "two" } : { board: "one" }),
        },
      ),
    );
    const sides = lines.flatMap((l) =>
      l.refs.map((r) => ({ ...place(r, pick(["top", "top", "bottom"])), board: l.board! })),
    );
    const method = pick(["iron", "stencil", "house"] as const);
    const currency = pick(["EUR", "USD"]);
    const house = { ...HOUSE, currency };
    same(
      madeRun({
        goodBoards: int(1, 60),
        confidence: pick([0.5, 0.9, 0.95]),
        workshop: {
          name: "w",
          currency: "EUR",
          hourlyRate: pick(["0", "24.00", "31.37"]),
          taxRate: pick([0, 0.2]),
          rates,
          hoursPerDay: 5,
        },
        boards: [
          { id: "one", name: "One", perProduct: 1, measure: madeMeasure() },
          ...(next() < 0.5
            ? [{ id: "two", name: "Two", perProduct: int(1, 3), measure: madeMeasure() }]
            : []),
        ],
        lines,
        placements: sides,
        suppliers: [
          {
            id: "a",
            name: "A",
            currency: "EUR",
            shipping: "4.90",
            freeFrom: pick(["20", "60"]),
            daysMin: 1,
            daysMax: 2,
          },
          {
            id: "b",
            name: "B",
            currency: "USD",
            shipping: "3.20",
            daysMin: 1,
            daysMax: 2,
            dutyRate: pick([0, 0.037]),
            smallOrder: { below: "15", fee: "3.00" },
          },
        ],
        offers: lines.flatMap((l, i) =>
          ["a", "b"].flatMap((supplier) =>
            next() < 0.8
              ? [
                  madeOffer(`${supplier}${i}`, l.id, `0.${int(10, 99)}${int(0, 9)}`, {
                    supplier,
                    currency: supplier === "a" ? "EUR" : "USD",
                    stock: pick([30, 400, 100_000]),
                    multiple: pick([1, 1, 10]),
                    breaks: [
                      { qty: 1, price: `0.${int(10, 99)}${int(0, 9)}` },
                      { qty: 100, price: `0.0${int(10, 99)}${int(0, 9)}` },
                    ],
                  }),
                ]
              : [],
          ),
        ),
        house,
        houses: [house],
        options: { finish: pick(["immersion-gold", "levelled-lead-free"]), leadDays: pick([12, 3]) },
        assembly: {
          ...DEFAULT_ASSEMBLY,
          method,
          house: "far",
          handParts: pick(["here", "house"]),
          reworkReserve: pick([0, 2.5]),
        },
      }),
    );
  }
});
