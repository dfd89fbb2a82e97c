import { expect, test } from "@jest/globals";
import type { PlanOfRun, RunDocument, RunRecord } from "@kobbin/core";
import { type PassportOf, passportRows } from "./passportRows.ts";

const doc = {
  product: "Kiln Watch",
  name: "one",
  assembly: {
    tests: [
      { id: "rail", name: "rail", unit: "V", min: "3.2", max: "3.4" },
      ...["0", "2"].map((applied) => ({
        id: `at${applied}`,
        name: `at ${applied}`,
        unit: "V",
        point: { of: "input", applied, unit: "V", worst: "0.1" },
      })),
    ],
    images: [
      {
        id: "i",
        values: [
          { name: "number", isWiped: false },
          { name: "key", isWiped: true },
        ],
      },
    ],
  },
} as unknown as RunDocument;
const by = { on: "2026-03-02", person: "M" };
const of = (unit: number) => ({ id: "x", unit, ...by });
const record = {
  tries: [
    { ...of(2), item: "rail", name: "rail", value: "3.5", limits: { unit: "V" }, verdict: "fail", words: "" },
    {
      ...of(2),
      item: "rail",
      name: "rail",
      value: "3.31",
      limits: { unit: "V" },
      verdict: "pass",
      words: "",
    },
    ...["1", "5"].map((value, i) => ({
      ...of(2),
      item: `at${2 * i}`,
      name: "",
      value,
      limits: { unit: "V" },
      verdict: "pass",
      words: "",
    })),
    { ...of(3), item: "rail", name: "rail", value: "1", limits: { unit: "V" }, verdict: "fail", words: "" },
  ],
  loads: [
    {
      ...of(2),
      image: "i",
      name: "watch",
      version: "1.4",
      at: "U1",
      isRight: true,
      said: "",
      given: { number: "7", key: "s3cret" },
    },
  ],
  defects: [
    { ...of(2), at: "U1.4", code: "bridge", isMended: true, note: "" },
    { ...of(1), at: "R1", code: "open" },
  ],
  sittings: [
    { ...of(0), step: 1, marks: {}, lost: {}, minutes: { a: 9 }, isDone: true },
    { ...of(2), step: 2, marks: {}, lost: {}, minutes: { a: 2.25, b: 1 }, isDone: false },
    { ...of(2), step: 4, marks: {}, lost: {}, minutes: {}, isDone: true, used: { heater: "Small oven" } },
    { ...of(3), step: 3, marks: {}, lost: {}, minutes: { a: 1 }, isDone: true },
  ],
} as unknown as RunRecord;
const plan = {
  sheet: {
    steps: [
      { n: 1, kind: "kit", words: "lay out the parts" },
      { n: 2, kind: "place", words: "place", side: "top" },
      { n: 3, kind: "iron", words: "solder by iron" },
      { n: 4, kind: "heat", words: "heat", side: "top" },
    ],
  },
} as unknown as PlanOfRun;

test("every kind of thing that is known of the board is a row of its own, of no other board, and nobody is named who has it", () => {
  const errata = [
    {
      title: "slot",
      workaround: "file it",
      reworks: [{ runId: "r", units: [{ unit: 2, isScrapped: false }] }],
    },
    { title: "pads", workaround: "", reworks: [] },
  ] as unknown as PassportOf["errata"];
  const rows = passportRows({
    doc,
    record,
    plan,
    run: "r",
    unit: 2,
    serial: "KW2",
    revision: "B + 1 rework",
    errata,
    eye: { stand: "doubt", refs: "R3 U1" },
    out: {
      id: "o",
      unit: 2,
      on: "2026-03-09",
      towards: "a fair",
      holder: "Wilma",
      reach: "Otter Lane",
      person: "M",
    },
    reports: [
      { says: "fades", conditions: "cold", answer: "", on: "2026-04-01" },
    ] as unknown as PassportOf["reports"],
    came: [
      { key: "1", what: "R1", from: "Fen", qty: 40, on: "2026-02-20" },
      { key: "2", what: "U1", from: "Fen", qty: 9, on: "2026-02-20", bag: 12, made: "2541" },
      { key: "3", what: "C1", from: "the shelf", on: "2025-01-02", bag: 3 },
    ],
  });
  expect(rows.slice(1)).toEqual([
    ["board", "number", "KW2", "", "", "", ""],
    ["board", "product", "Kiln Watch B + 1 rework", "", "", "", ""],
    ["board", "run", "one, 2", "", "", "", ""],
    ["read", "rail", "3.5 V", "3.2 to 3.4 V", "fail", "2026-03-02", "M"],
    ["read", "rail", "3.31 V", "3.2 to 3.4 V", "pass", "2026-03-02", "M"],
    ["read", "at 0", "1 V", "0 V applied", "pass", "2026-03-02", "M"],
    ["read", "at 2", "5 V", "2 V applied", "pass", "2026-03-02", "M"],
    // 1 V and 5 V for 0 and 2: two a volt, one beside it
    ["constants", "input", "true V = 0.5 × read V − 0.5", "at most 0.1 V off", "pass", "2026-03-02", ""],
    ["seen", "joints", "R3 U1", "", "in doubt", "", ""],
    ["loaded", "watch at U1", "1.4", "", "right", "2026-03-02", "M"],
    ["given", "number", "7", "", "", "2026-03-02", "M"],
    ["known wrong", "slot", "file it", "", "worked around", "", ""],
    ["known wrong", "pads", "", "", "as it is", "", ""],
    ["found wrong", "U1.4", "bridge", "", "mended", "2026-03-02", "M"],
    ["heated", "top", "Small oven", "", "", "", ""],
    ["step", "1 lay out the parts", "for all", "", "done", "", "M"],
    ["step", "2 place, top", "3.3 min", "", "begun", "", "M"],
    ["step", "4 heat, top", "0.0 min", "", "done", "", "M"],
    ["with", "4 heater", "Small oven", "", "", "", "M"],
    ["may have", "R1", "40", "", "", "2026-02-20", "Fen"],
    ["may have", "U1", "9", "", expect.stringMatching(/^B0012-.*, date code 2541$/), "2026-02-20", "Fen"],
    ["may have", "C1", "", "", expect.stringMatching(/^B0003-.$/), "2025-01-02", "the shelf"],
    ["went", "a fair", "", "", "", "2026-03-09", ""],
    ["owner says", "fades", "cold", "", "", "2026-04-01", ""],
  ]);
  expect(new Set(rows.map((r) => r.length))).toEqual(new Set([7]));
});
