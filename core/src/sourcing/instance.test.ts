import { expect, test } from "@jest/globals";
import { toInstance } from "./instance.ts";

const offer = (more: object = {}) => ({
  id: "1a",
  supplier: "A",
  stock: 100,
  breaks: [
    { qty: 1, price: "0.9" },
    { qty: 25, price: 0.78 },
  ],
  ...more,
});
const doc = (more: object = {}, line: object = {}, of: object = {}) => ({
  suppliers: [
    { id: "A", shipping: "8", freeFrom: 50, smallOrder: { below: 10, fee: "2.50" }, days: 3 },
    { id: "B", days: 9 },
  ],
  lines: [{ id: "1", need: 30, offers: [offer(of)], ...line }],
  ...more,
});

test("an instance is read key by key: money exact, what is left out as usual", () => {
  const i = toInstance(doc());
  expect(i).toMatchObject({ id: "", currency: "EUR", options: {} });
  expect(i.suppliers).toEqual([
    {
      id: "A",
      name: "A",
      shipping: 8_000_000,
      freeFrom: 50_000_000,
      smallOrder: { below: 10_000_000, fee: 2_500_000 },
      days: 3,
    },
    { id: "B", name: "B", shipping: 0, days: 9 },
  ]);
  expect(i.needs).toMatchObject([
    { id: "1", need: 30, offers: [{ id: "1a", supplier: "A", stock: 100, moq: 1, multiple: 1 }] },
  ]);
  const more = toInstance(
    doc({ id: "x", currency: "USD", maxParcels: 2 }, {}, { fee: "1.2", pool: "p", moq: 5 }),
  );
  expect(more).toMatchObject({ id: "x", currency: "USD", options: { maxParcels: 2 } });
  expect(more.needs[0]!.offers[0]).toMatchObject({ fee: 1_200_000, pool: "p", moq: 5 });
});

test.each<[string, object, number]>([
  ["all may be bought", doc(), 1],
  ["turned down", doc({}, {}, { forbidden: true }), 0],
  ["only another supplier is approved", doc({}, { approved: ["B"] }), 0],
  ["its supplier is approved", doc({}, { approved: ["A"] }), 1],
  ["its supplier is here on the last day", doc({ latestDays: 3 }), 1],
  ["its supplier comes later", doc({ latestDays: 2 }), 0],
])("%s: %j", (_, d, offers) => {
  expect(toInstance(d).needs[0]!.offers).toHaveLength(offers);
});

test.each<[string, unknown, string]>([
  ["no object", null, "has no object at the document"],
  ["a list", [], "has no object at the document"],
  ["no suppliers", { lines: [] }, "needs the list suppliers"],
  ["a supplier twice", { suppliers: [{ id: "A" }, { id: "A" }], lines: [] }, "names the supplier “A” twice"],
  [
    "a line twice",
    {
      suppliers: [],
      lines: [
        { id: 1, need: 1 },
        { id: "1", need: 1 },
      ],
    },
    "names the line “1” twice",
  ],
  ["an offer of nobody", doc({}, {}, { supplier: "Z" }), "has an offer of the supplier “Z”"],
  ["an offer that is a text", doc({}, { offers: ["x"] }), "has no object at lines[0].offers[0]"],
  ["a need of half a piece", doc({}, { need: 0.5 }), "lines[0].need"],
  ["a multiple of none", doc({}, {}, { multiple: 0 }), "lines[0].offers[0].multiple"],
  ["no parcel at all", doc({ maxParcels: 0 }), "maxParcels"],
])("%s is said with its place", (_, d, words) => {
  expect(() => toInstance(d)).toThrow(words);
});
