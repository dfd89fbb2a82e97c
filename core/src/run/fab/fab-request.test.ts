import { expect, test } from "@jest/globals";
import { FULL } from "../full-house.fixture.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { fabRequest } from "./fab-request.ts";

// hard gold on the contacts is made at FULL beside gold only
const doc = madeRun({
  boards: [{ name: "B", perProduct: 2, measure: madeMeasure({ minLegendTextMm: 0.9, minMaskWebMm: 0.12 }) }],
  house: FAR,
  houses: [FAR, FULL],
  options: { finish: "levelled", contacts: "hard-gold", leadDays: 12 },
});

test("a house is asked for options it can make together, in its own steps, and its answer then holds when it is chosen", () => {
  const asked = fabRequest(doc, FULL, 11);
  // what is made beside another value gives way first
  expect(asked.options).toMatchObject({ finish: "levelled", contacts: "none" });
  expect(asked.boards).toMatchObject([{ name: "B", pieces: 25, legendTextMm: 0.9, maskWebMm: 0.12 }]);
  expect(asked.basis).toEqual({ boards: 25, options: asked.options, revision: doc.revision });
  const quote = {
    house: FULL.id,
    kind: "fab",
    total: "99",
    currency: "EUR",
    days: 9,
    capturedOn: doc.today,
    basis: asked.basis,
  } as const;
  const chosen = {
    ...doc,
    house: FULL,
    options: { ...doc.options, contacts: "none", pieces: 11 },
    quotes: [quote],
  };
  expect(rollUp(chosen).orders[0]!.quoted?.total).toBe("99");
});

test("the chosen house is asked for what is chosen, also where that cannot be", () => {
  const chosen = { ...doc, house: FULL };
  expect(fabRequest(chosen, FULL, 11).options).toMatchObject({ finish: "levelled", contacts: "hard-gold" });
});
