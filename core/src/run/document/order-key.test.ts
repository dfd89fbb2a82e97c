import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { findOrder, isOrderOf, ORDER_KINDS, orderKey, orderOf } from "./order-key.ts";

test("a key is taken apart into what it was made of", () => {
  const place = fc.record(
    {
      kind: fc.constantFrom(...ORDER_KINDS),
      party: fc.stringMatching(/^[\w-]{1,80}$/),
      currency: fc.stringMatching(/^[A-Z]{3}$/),
    },
    { requiredKeys: ["kind", "party"] },
  );
  fc.assert(
    fc.property(place, (p) => {
      expect(orderOf(orderKey(p))).toEqual(p);
      expect(ORDER_KINDS.filter((k) => isOrderOf(k, orderKey(p)))).toEqual([p.kind]);
    }),
  );
});

test.each([
  "",
  "parts",
  "parts ",
  "boards a b",
  "boards a usd",
  "house far",
  "parts a1 USD x",
  " parts a1",
  `parts ${"a".repeat(81)}`,
])("“%s” is no order", (key) => {
  expect(findOrder(key)).toBeUndefined();
  expect(() => orderOf(key)).toThrow("none of the run's orders");
  expect(isOrderOf("parts", key)).toBe(false);
});
