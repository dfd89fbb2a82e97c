import { expect, test } from "@jest/globals";
import type { RunDocument } from "@kobbin/core";
import { boardNamed, itemOf, partyOf } from "./items.ts";

const DOC = {
  suppliers: [
    { id: "s1", name: "Corner Shop", currency: "EUR" },
    { id: "s2", name: "Far Shop", currency: "USD" },
  ],
  houses: [{ id: "h1", name: "House", currency: "EUR" }],
  quotes: [
    { house: "h1", kind: "fab", currency: "GBP" },
    { house: "h1", kind: "assembly", currency: "USD" },
    { house: "h2", kind: "fab", currency: "JPY" },
  ],
  boards: [
    { id: "b1", name: "Main" },
    { id: "b2", name: "Side" },
  ],
  guests: [{ id: "g1", name: "Tail A", product: "Probe Tail" }],
  lines: [
    { id: "l1", mpn: "OX-1", valueText: "10k" },
    { id: "l2", mpn: "", valueText: "screw" },
    { id: "l3", mpn: "", valueText: "" },
  ],
  offers: [
    { id: "o1", supplier: "s1", line: "l1", currency: "EUR" },
    { id: "o2", supplier: "s1", line: "l2", currency: "USD", part: "p1" },
    { id: "o3", supplier: "s1", line: "l2", currency: "EUR" },
    { id: "o4", supplier: "s1", line: "l3", currency: "EUR", part: "gone" },
    { id: "o5", supplier: "s1", line: "gone", currency: "EUR" },
  ],
  library: [{ id: "p1", mpn: "QL-9" }],
} as unknown as RunDocument;
const notFound = expect.objectContaining({ code: "NOT_FOUND" });

test.each([
  ["parts s1", "Corner Shop", ["EUR"]],
  ["parts s2", "Far Shop", ["USD"]],
  ["parts s1 USD", "Corner Shop", ["USD"]],
  ["boards h1", "House", ["EUR", "GBP"]],
  ["assembly h1", "House", ["EUR", "USD"]],
])("the order “%s” goes to %s, in %j", (order, name, currencies) => {
  expect(partyOf(DOC, order)).toEqual({ name, currencies });
});

test.each(["parts s3", "boards h2", "s1", "", "parts", "parts s1 usd", "boxes h1"])(
  "“%s” is none of the run's orders",
  (order) => {
    expect(() => partyOf(DOC, order)).toThrow(notFound);
  },
);

test("a house stands alone in a document of one", () => {
  const { houses, ...doc } = DOC;
  expect(partyOf({ ...doc, house: houses![0]! } as RunDocument, "boards h1").name).toBe("House");
  expect(() => partyOf(doc as RunDocument, "boards h1")).toThrow(notFound);
});

test.each([
  ["parts s1", "o1", { label: "OX-1", lot: { mpn: "OX-1", currency: "EUR" } }],
  // the part that was found for a line without a number, else its words
  ["parts s1 USD", "o2", { label: "QL-9", lot: { mpn: "QL-9", currency: "USD" } }],
  ["parts s1", "o3", { label: "screw", lot: { mpn: "screw", currency: "EUR" } }],
  ["parts s1", "o4", { label: "unnamed", lot: { mpn: "unnamed", currency: "EUR" } }],
  ["boards h1", "b2", { label: "Side" }],
  ["boards h1", "guest g1", { label: "Tail A, for Probe Tail" }],
  ["assembly h1", "placing", { label: "assembled boards" }],
])("of the order “%s” the item “%s” is %j", (order, item, is) => {
  expect(itemOf(DOC, order, item)).toEqual(is);
});

test.each([
  ["parts s1", "o9"],
  ["parts s2", "o1"],
  ["parts s1", "o5"],
  ["boards h1", "b3"],
  ["boards h1", "guest g2"],
  ["assembly h1", "b1"],
])("the order “%s” has no item “%s”", (order, item) => {
  expect(() => itemOf(DOC, order, item)).toThrow(notFound);
});

test("a board is named by the key of its orders", () => {
  expect(boardNamed(DOC, "b1")).toBe("Main");
  expect(boardNamed({ ...DOC, guests: undefined } as never, "b2")).toBe("Side");
});
