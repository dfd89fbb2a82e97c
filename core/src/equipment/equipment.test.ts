import { expect, test } from "@jest/globals";
import { aidFor, bestSight, ironVerdict, tipFor } from "./by-hand.ts";
import { boardsOn, type Equipment, mindWords } from "./equipment.ts";
import { heaterVerdict } from "./heater.ts";

const made = (more: Partial<Equipment>): Equipment => ({
  id: "1",
  kind: "plate",
  name: "Plate",
  facts: {},
  can: "",
  cannot: "",
  hours: 0,
  state: "ready",
  ...more,
});
const piece = { sizeMm: [78, 54], word: "board", alloy: "silver", perLoad: 4 } as const;

// worked by hand: n boards and n − 1 gaps of 2 mm
test.each([
  [[200, 150], [78, 54], 4],
  [[100, 100], [78, 54], 1],
  [[78, 54], [78, 54], 1],
  [[54, 78], [78, 54], 1],
  [[77.9, 200], [78, 54], 2],
  [[53.9, 500], [78, 54], 0],
  [[158, 54], [78, 54], 2],
  [[157.9, 54], [78, 54], 1],
] as const)("on %j lie so many of %j: %d", (area, board, many) => {
  expect(boardsOn(area, board)).toBe(many);
});

test("a heater is held to the alloy's peak, its room and what leads it; what is not said decides nothing and is said", () => {
  const full = made({ facts: { mostC: 260, spaceMm: [200, 150], control: "profile" } });
  expect(heaterVerdict(full, piece)).toEqual({
    name: "Plate",
    can: "yes",
    words: ["takes 4 boards at once"],
  });
  // the bound itself will do: 235 °C on the joint
  expect(heaterVerdict({ ...full, facts: { ...full.facts, mostC: 235 } }, piece).can).toBe("yes");
  const cold = heaterVerdict({ ...full, facts: { ...full.facts, mostC: 234 } }, piece);
  expect([cold.can, cold.words[0]]).toEqual([
    "no",
    "gets 234 °C, the joints of tin-silver-copper need 235 °C",
  ]);
  expect(
    heaterVerdict({ ...full, facts: { ...full.facts, mostC: 170 } }, { ...piece, alloy: "bismuth" }).can,
  ).toBe("yes");
  const small = heaterVerdict({ ...full, facts: { ...full.facts, spaceMm: [100, 100] } }, piece);
  expect([small.can, small.words[0]]).toEqual(["no", "takes 1 board of 78 × 54 mm, a load is set to 4"]);
  expect(heaterVerdict(made({}), piece)).toEqual({
    name: "Plate",
    can: "unknown",
    words: ["how hot it gets is not said", "its room is not said"],
  });
  // hot air has no room
  expect(heaterVerdict(made({ kind: "air", facts: { mostC: 450 } }), piece)).toMatchObject({
    can: "yes",
    words: [],
  });
  const oven = made({ kind: "oven", facts: { ...full.facts, heightMm: 30 } });
  expect(heaterVerdict(oven, piece).can).toBe("unknown");
  expect(heaterVerdict(oven, { ...piece, heightMm: 30 }).can).toBe("yes");
  expect(heaterVerdict(oven, { ...piece, heightMm: 30.1 }).can).toBe("no");
  expect(heaterVerdict({ ...full, state: "broken" }, piece)).toMatchObject({
    can: "no",
    words: ["is out of order", "takes 4 boards at once"],
  });
  const eye = heaterVerdict({ ...full, facts: { ...full.facts, control: "eye" } }, piece);
  expect(eye.words.join()).toContain("led by eye");
});

test("hours are told from the last one on, and what it cannot", () => {
  expect(mindWords(made({ hours: 499, lastsHours: 500 }))).toEqual([]);
  expect(mindWords(made({ hours: 500, lastsHours: 500, cannot: "boards over 1.6 mm" }))).toEqual([
    "has worked 500 of the 500 h it lasts",
    "cannot: boards over 1.6 mm",
  ]);
});

const iron = (...tips: NonNullable<Equipment["facts"]["tips"]>) =>
  made({ kind: "iron", name: "Station", facts: { mostC: 450, tips } });

test("the widest tip that suits is taken; what no tip suits is told, what none reaches is not asked", () => {
  const station = iron(
    { shape: "chisel", mm: 1.2 },
    { shape: "chisel", mm: 2 },
    { shape: "chisel", mm: 2.4 },
  );
  expect(tipFor("chip", [station])).toEqual({ words: "chisel 2 mm, as wide as the land", isMissing: false });
  expect(tipFor("through", [station])?.words).toMatch(/^chisel 2.4 mm, /);
  expect(tipFor("gullFine", [station])).toEqual({
    words: "bevel or knife of 1 to 3 mm, drawn along the leads, with much flux",
    isMissing: true,
  });
  // nothing listed: what it should be, and nothing is said to be missing
  expect(tipFor("gullFine", [])?.isMissing).toBe(false);
  expect(tipFor("gullFine", [iron()])?.isMissing).toBe(false);
  expect(tipFor("chip", [{ ...station, state: "broken" }])?.words).toMatch(/ of 1 to 2 mm/);
  expect(tipFor("ball", [station])).toBeUndefined();
  expect(ironVerdict(made({ kind: "iron", facts: { mostC: 330 } }), "silver").can).toBe("no");
  expect(ironVerdict(made({ kind: "iron", facts: { mostC: 340 } }), "silver").can).toBe("yes");
  expect(ironVerdict(made({ kind: "iron" }), "silver").can).toBe("unknown");
});

// domain.md 7.2: smallest part by aid
test.each([
  ["chip", "R-0805", 1],
  ["chip", "R-0603", 2],
  ["chip", "", 2],
  ["chip0402", "R-0402", 5],
  ["chip0201", "R-0201", 7],
  ["gull", "SOIC-8", 1],
  ["gull", "TSSOP-14", 2],
  ["gullFine", "LQFP-48", 5],
  ["leadless", "QFN-16", 5],
  ["ball", "BGA-64", 7],
  ["through", "HDR-4", 1],
] as const)("%s %s is seen from × %d on", (kind, text, times) => {
  expect(aidFor(kind, text).times).toBe(times);
});

test("one sees with the strongest glass that is not out of order; one that says nothing tells nothing", () => {
  const eyes = (name: string, magnifies?: number, more = {}) =>
    made({ kind: "eyes", name, facts: magnifies === undefined ? {} : { magnifies }, ...more });
  expect(bestSight([eyes("lamp", 3), eyes("scope", 20, { state: "broken" }), eyes("lens", 5)])?.name).toBe(
    "lens",
  );
  expect(bestSight([eyes("lens"), made({})])).toBeUndefined();
});
