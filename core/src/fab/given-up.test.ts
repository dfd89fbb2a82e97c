import { expect, test } from "@jest/globals";
import { FAR, madeMeasure, madeRun } from "../run/made-up.fixture.ts";
import { rollUp } from "../run/roll-up.ts";
import { whatIf } from "../run/what-if.ts";
import { fitOptions, givenUp, optionOf } from "./fit-options.ts";
import type { House } from "./house.ts";

const values = (...list: string[]) => list.map((value) => ({ value, label: value }));
const house = (options: Partial<House["options"]>, leads = [12, 3]): House => ({
  ...FAR,
  options: { ...FAR.options, ...options },
  price: { ...FAR.price, lead: leads.map((days) => ({ days, factor: 1 })) },
});

test.each([
  ["a thickness it has", { thickness: values("1.6", "1.0") }, { thickness: "1.0" }, "thickness", "1.0"],
  [
    "the nearest thickness",
    { thickness: values("1.6", "0.8", "1.0") },
    { thickness: "1.2" },
    "thickness",
    "1.0",
  ],
  [
    "a colour is no number, though its name begins with one",
    { mask: values("9-grey", "6-grey") },
    { mask: "5-grey" },
    "mask",
    "9-grey",
  ],
  [
    "gold for gold",
    { finish: values("levelled-lead-free", "immersion-gold") },
    { finish: "hard-gold" },
    "finish",
    "immersion-gold",
  ],
  [
    "flat for flat",
    { finish: values("levelled-lead-free", "organic") },
    { finish: "immersion-silver" },
    "finish",
    "organic",
  ],
  [
    "never a leaded one for another",
    { finish: values("levelled-leaded", "organic") },
    { finish: "levelled-lead-free" },
    "finish",
    "organic",
  ],
  [
    "its first where nothing is alike",
    { mask: values("green", "black") },
    { mask: "purple" },
    "mask",
    "green",
  ],
  ["its first where nothing was wished", { mask: values("black", "green") }, {}, "mask", "black"],
] as const)("a house takes %s", (_, has, wish, key, got) => {
  expect(fitOptions(house(has), wish)[key]).toBe(got);
});

test("the nearest lead time, not the first", () => {
  expect(fitOptions(house({}, [12, 6, 3]), { leadDays: 4 }).leadDays).toBe(3);
  expect(fitOptions(house({}, [12, 6, 3]), { leadDays: 20 }).leadDays).toBe(12);
});

test("what had to give is said before the change and after it, under the names people know", () => {
  const other: House = {
    ...house({ mask: [{ value: "green", label: "green" }] }),
    id: "other",
    name: "OTHER",
  };
  const doc = madeRun({
    boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }],
    house: FAR,
    houses: [FAR, other],
    options: { mask: "white" },
  });
  const r = rollUp(doc);
  expect(r.notes.some((n) => n.key.startsWith("option-gave"))).toBe(false);
  const gives = whatIf(doc, r).houses.map((h) => h.gives);
  expect(gives).toEqual([[], [{ key: "mask", wished: "white", got: "green" }]]);
  const after = rollUp({ ...doc, house: other }).notes.find((n) => n.key === "option-gave mask");
  expect(after).toMatchObject({
    level: "warning",
    text: "OTHER has no mask colour white: green is taken in its place.",
  });
  // what nobody wished gives nothing
  expect(givenUp(other, {})).toEqual([]);
});

test.each([
  ["levelled-lead-free", ["contacts-finish", "contacts-bevel"]],
  ["immersion-gold", ["contacts-wear", "contacts-bevel"]],
  ["hard-gold", ["contacts-bevel"]],
])("edge contacts in %s: %j is said", (finish, keys) => {
  const gold = house({ finish: values("immersion-gold", "levelled-lead-free", "hard-gold") });
  const contacts = {
    edgeContacts: {
      top: { count: 8, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm: 0.5, edge: "bottom" as const },
    },
  };
  const said = (measure: object) =>
    rollUp(
      madeRun({
        boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure(measure) }],
        house: gold,
        houses: [gold],
        options: { finish },
      }),
    ).notes.flatMap((n) => (n.key.startsWith("contacts-") ? [n.key] : []));
  expect(said(contacts)).toEqual(keys);
  expect(said({})).toEqual([]);
});

test.each([
  ["levelled by its name", { value: "h1", label: "HASL, leaded" }, ["leaded-finish", "castellation-finish"]],
  ["lead-free", { value: "h2", label: "levelled, lead-free" }, ["castellation-finish"]],
  ["flat", { value: "f1", label: "immersion gold" }, []],
])("half holes in a finish that is %s", (_, finish, keys) => {
  const its = house({ finish: [finish] });
  const measure = madeMeasure({ castellatedHoles: { count: 4, pitchMm: 2, sides: ["left"] } as never });
  const r = rollUp(
    madeRun({
      boards: [{ id: "b", name: "B", perProduct: 1, measure }],
      house: its,
      houses: [its],
      options: { finish: finish.value },
    }),
  );
  expect(r.notes.flatMap((n) => (/leaded-finish|castellation-finish/.test(n.key) ? [n.key] : []))).toEqual(
    keys,
  );
});

test("a value the house has is that option; one it lacks is its first", () => {
  const labels = (value: string) => optionOf(FAR, "mask", value).label;
  expect([labels("white"), labels("pink")]).toEqual(["white", FAR.options.mask[0]!.label]);
});
