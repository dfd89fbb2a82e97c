import { expect, test } from "@jest/globals";
import { DEFAULT_ASSEMBLY, type House, type RunDocument } from "@kobbin/core";
import { applyChange, inverseOf, type RunChange } from "./runChange.ts";

const value = (v: string) => ({ value: v, label: v });
const house = (id: string): House =>
  ({
    id,
    options: {
      thickness: [value("1.6"), value("1.0")],
      copper: [value("35")],
      finish: [value("levelled"), value("gold")],
      mask: [value("green")],
      legend: [value("white")],
    },
    price: { lead: [{ days: 5, factor: 1 }] },
  }) as unknown as House;
const doc = {
  name: "n",
  goodBoards: 10,
  confidence: 0.9,
  house: house("a"),
  houses: [house("a"), house("b")],
  options: {},
  assembly: DEFAULT_ASSEMBLY,
  choices: {},
} as unknown as RunDocument;

const CHANGES: readonly (readonly [string, RunChange])[] = [
  ["a quantity", { goodBoards: 12 }],
  ["an option never chosen before", { options: { finish: "gold" } as never }],
  ["a house", { houseId: "b" }],
  ["the way of soldering", { assembly: { method: "iron" } as never }],
  ["a pin", { pins: { "1": "S" } }],
  ["an acceptance", { accepted: { key: "because" } }],
  ["left-overs", { leftovers: "expense" }],
];

test.each(CHANGES)("%s is laid over the document and taken back", (_, change) => {
  const changed = applyChange(doc, change);
  expect(changed).not.toEqual(doc);
  const back = applyChange(changed, inverseOf(doc, change));
  expect(back.goodBoards).toBe(10);
  expect(back.house?.id).toBe("a");
  expect(back.assembly).toEqual(DEFAULT_ASSEMBLY);
  expect(back.options.finish ?? "levelled").toBe("levelled");
  expect([back.choices.pins ?? {}, back.choices.accepted ?? {}, back.choices.leftovers ?? "stock"]).toEqual([
    {},
    {},
    "stock",
  ]);
});
