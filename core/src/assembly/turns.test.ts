import { expect, test } from "@jest/globals";
import { angleOf, readTurns, turnedParts, turnedWords, turnFor, turnsText } from "./turns.ts";

const TURNS = { "SOT-23": 180, "QFN-16": -90, "TO 252": 45.5 };

test.each([
  ["SOT-23", 180],
  ["sot23", 180],
  ["SOT 23", 180],
  ["SOT-23-5", 0],
  ["qfn_16", -90],
  ["TO252", 45.5],
  ["0402", 0],
  ["", 0],
])("package %j is turned by %d°", (pkg, degrees) => {
  expect(turnFor(TURNS, pkg)).toBe(degrees);
  expect(turnFor(undefined, pkg)).toBe(0);
});

test.each([
  [0, 0],
  [359.9996, 0],
  [359.9994, 359.999],
  [-90, 270],
  [270 + 180, 90],
  [-720, 0],
])("angle %d is written %d", (given, written) => {
  expect(angleOf(given)).toBe(written);
  expect(Object.is(angleOf(given), -0)).toBe(false);
});

test.each([
  ["SOT-23 180, QFN-16 -90", { "SOT-23": 180, "QFN-16": -90 }],
  ["sot 23: 180°\nTO 252 = +45.5;", { "sot 23": 180, "TO 252": 45.5 }],
  ["", {}],
  [" , ;\n", {}],
])("typed %j is read", (text, turns) => {
  expect(readTurns(text)).toEqual({ turns });
});

test.each([
  ["SOT-23", "“SOT-23” is no package with its degrees, such as SOT-23 180."],
  ["180", "“180” is no package with its degrees, such as SOT-23 180."],
  ["SOT-23 400", "“SOT-23 400” is no package with its degrees, such as SOT-23 180."],
  ["SOT-23 ninety", "“SOT-23 ninety” is no package with its degrees, such as SOT-23 180."],
  ["-- 90", "“-- 90” is no package with its degrees, such as SOT-23 180."],
  ["SOT-23 90, sot23 180", "sot23 is named twice."],
])("typed %j is refused", (text, wrong) => {
  expect(readTurns(text)).toEqual({ wrong });
});

test("what is written is read again, and what is turned is named by package with its parts", () => {
  expect(readTurns(turnsText(TURNS))).toEqual({ turns: TURNS });
  const turned = turnedParts({ ...TURNS, "SOD-123": 360 }, [
    { package: "SOT-23", refs: ["Q1"] },
    { package: "0402", refs: ["R1"] },
    { package: "sot23", refs: ["Q2", "Q3"] },
    { package: "QFN-16", refs: ["U1"] },
    { package: "SOD-123", refs: ["D1"] },
  ]);
  expect(turned.map(turnedWords)).toEqual(["SOT-23 +180°: Q1, Q2, Q3", "QFN-16 −90°: U1"]);
});
