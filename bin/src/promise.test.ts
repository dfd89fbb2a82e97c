import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { explainBasket, microsToNumber, type RunDocument, rollUp, suppliersOf } from "@kobbin/core";

const example = JSON.parse(
  readFileSync(new URL("../../docs/examples/probe-tail.run.json", import.meta.url), "utf8"),
) as RunDocument;
const reasonsOf = (run: RunDocument) => {
  const free = rollUp(run);
  return { free, reasons: explainBasket(free.needs, suppliersOf(run), free.basket, {}) };
};

test("choosing fewer suppliers costs what doing without one was said to cost, also where pieces more ship free", () => {
  let lifted = 0;
  for (const goodBoards of [12, 24, 60, 120, 300]) {
    const plain = { ...example, goodBoards };
    for (const { without } of reasonsOf(plain).reasons.suppliers) {
      // thresholds just out of reach: worth a few pieces more
      const run: RunDocument = {
        ...plain,
        suppliers: plain.suppliers.map((s) => {
          const goods = without.basket.partsOf[s.id];
          const isOwn = s.currency === plain.workshop.currency;
          return goods && isOwn && Number(s.shipping) > 1
            ? { ...s, freeFrom: (microsToNumber(goods) + 0.3).toFixed(2) }
            : s;
        }),
      };
      const { free, reasons } = reasonsOf(run);
      for (const said of reasons.suppliers) {
        if (said.onlyHere.length > 0) continue;
        const suppliers = said.without.basket.suppliers;
        const chosen = rollUp({ ...run, choices: { ...run.choices, basket: suppliers } });
        expect([goodBoards, chosen.basket.total]).toEqual([
          goodBoards,
          free.basket.total + said.without.more,
        ]);
        expect(chosen.baskets).toContain(chosen.basket);
        if (chosen.basket.lines.some((l, i) => l.buys.reduce((n, b) => n + b.qty, 0) > free.needs[i]!.need))
          lifted++;
      }
    }
  }
  expect(lifted).toBeGreaterThan(3);
});
