import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { type BasketCache, type RunDocument, rollUp, toRunDocument } from "@kobbin/core";
import { proveBaskets } from "@kobbin/solver";
import { rollUpProven } from "./proven.ts";

const doc: RunDocument = toRunDocument(
  JSON.parse(readFileSync(new URL("../../../docs/examples/probe-tail.run.json", import.meta.url), "utf8")),
);

/** The same run where what is changed of it has other prices, in ways a basket's key alone does not tell. */
const WAYS: readonly (readonly [string, (d: RunDocument) => RunDocument])[] = [
  ["as it is", (d) => d],
  [
    "every price double",
    (d) => ({
      ...d,
      offers: d.offers.map((o) => ({
        ...o,
        breaks: o.breaks.map((b) => ({ ...b, price: String(Number(b.price) * 2) })),
      })),
    }),
  ],
  ["parcels dear", (d) => ({ ...d, suppliers: d.suppliers.map((s) => ({ ...s, shipping: "95.00" })) })],
  [
    "little in stock",
    (d) => ({ ...d, offers: d.offers.map((o) => ({ ...o, stock: Math.ceil(o.stock / 50) })) }),
  ],
  ["more boards", (d) => ({ ...d, goodBoards: d.goodBoards + 7 })],
  ["as it is, once more", (d) => d],
];

test("figures on a basket that was proven before are those of one that is proven anew, whatever changed of the run", async () => {
  const all = new Set<string>();
  for (const [way, changed] of WAYS) {
    const of = changed(doc);
    const cache: BasketCache = new Map();
    await proveBaskets(of, cache, 10);
    const fresh = rollUp(of, { cache });
    expect([way, await rollUpProven(of)]).toEqual([way, fresh]);
    expect([way, await rollUpProven(of)]).toEqual([way, fresh]);
    all.add(
      JSON.stringify([fresh.baskets, fresh.needs], (_, v: unknown) =>
        typeof v === "bigint" ? String(v) : v,
      ),
    );
  }
  // each of them is another basket
  expect(all.size).toBe(WAYS.length - 1);
});
