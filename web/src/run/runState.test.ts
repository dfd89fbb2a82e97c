import { expect, test } from "@jest/globals";
import { DEFAULT_ASSEMBLY, type House, type RunDocument } from "@kobbin/core";
import { applyChange, type RunChange } from "./runChange.ts";

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

test.each(CHANGES)("%s is laid over the document, and nothing else moves", (_, change) => {
  const changed = applyChange(doc, change);
  expect(changed).not.toEqual(doc);
  const touched = new Set(
    Object.keys(change).map((k) =>
      k === "houseId" ? "house" : ["pins", "accepted", "leftovers", "basket"].includes(k) ? "choices" : k,
    ),
  );
  for (const key of Object.keys(doc) as (keyof RunDocument)[])
    expect([
      key,
      changed[key] === doc[key] || touched.has(key) || ["options", "assembly", "choices"].includes(key),
    ]).toEqual([key, true]);
  expect(changed.assembly.testMinutes).toBe(DEFAULT_ASSEMBLY.testMinutes);
});
