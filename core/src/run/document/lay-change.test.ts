import { expect, test } from "@jest/globals";
import type { House } from "../../fab/house.ts";
import { DEFAULT_ASSEMBLY, type RunDocument } from "./document.ts";
import { layChange, layChoices, type RunChange } from "./lay-change.ts";

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

const CHANGES: readonly (readonly [string, RunChange, object])[] = [
  ["a quantity", { goodBoards: 12 }, { goodBoards: 12 }],
  ["a name", { name: "m" }, { name: "m" }],
  ["how certain", { confidence: 0.5 }, { confidence: 0.5 }],
  ["an option never chosen before", { options: { finish: "gold" } }, { options: { finish: "gold" } }],
  ["a house", { houseId: "b" }, { house: house("b") }],
  ["no house", { houseId: null }, { house: undefined }],
  [
    "the way of soldering",
    { assembly: { method: "iron" } },
    { assembly: { ...DEFAULT_ASSEMBLY, method: "iron" } },
  ],
  ["a sum taken back", { assembly: { stencilPrice: null } }, {}],
  ["a pin", { pins: { "1": "S" } }, { choices: { pins: { "1": "S" } } }],
  ["an acceptance", { accepted: { key: "because" } }, { choices: { accepted: { key: "because" } } }],
  ["left-overs", { leftovers: "expense" }, { choices: { leftovers: "expense" } }],
  ["no sheet", { panel: null }, {}],
];

test.each(CHANGES)("%s is laid over the document, and nothing else moves", (_, change, expected) => {
  expect(layChange(doc, change)).toEqual({ ...doc, ...expected });
});

test("of decisions the groups a change says anything of come back whole; what it leaves out stays, null goes", () => {
  const base = {
    options: { finish: "gold", copper: "35" },
    choices: { leftovers: "stock", pins: { "1": "S" } },
  };
  expect(layChoices(base, { options: { finish: null, copper: undefined, mask: "green" } })).toEqual({
    options: { copper: "35", mask: "green" },
  });
  expect(layChoices(base, { leftovers: "expense", panel: null })).toEqual({
    choices: { leftovers: "expense", pins: { "1": "S" } },
  });
  expect(layChoices(base, {})).toEqual({});
});
