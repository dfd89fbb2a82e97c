import { expect, test } from "@jest/globals";
import { EQUIPMENT } from "@kobbin/core";
import { setFormats } from "../../ui/text/format.ts";
import { CHOSEN_FACTS, TYPED_FACTS, withFact } from "./equipmentFacts.ts";

test("every fact of every kind has a field of its own", () => {
  for (const { facts } of Object.values(EQUIPMENT))
    for (const key of facts)
      expect([key in TYPED_FACTS, key in CHOSEN_FACTS].filter(Boolean)).toEqual([true]);
});

test("a fact is said anew alone, taken back by nothing, and refused in words; what is shown is read as the same", () => {
  const facts = { spaceMm: [200, 150.5] as const, mostC: 260, control: "eye" as const };
  expect(withFact(facts, "mostC", "500 F")).toEqual({ value: { ...facts, mostC: 260 } });
  expect(withFact(facts, "mostC", " ")).toEqual({ value: { spaceMm: [200, 150.5], control: "eye" } });
  expect(withFact(facts, "control", "profile")).toEqual({ value: { ...facts, control: "profile" } });
  expect(withFact(facts, "control", "")).toEqual({ value: { spaceMm: [200, 150.5], mostC: 260 } });
  expect(withFact(facts, "spaceMm", "wide")).toEqual({ wrong: "Write two lengths, as 200 × 150 mm." });
  const all = {
    ...facts,
    heightMm: 60.5,
    tips: [
      { shape: "chisel" as const, mm: 2.4 },
      { shape: "cone" as const, mm: 0.5 },
    ],
    magnifies: 1.75,
    trueUntil: "2026-12-31",
  };
  for (const decimalMark of [".", ","] as const) {
    setFormats({ decimalMark });
    for (const [key, { show }] of Object.entries(TYPED_FACTS))
      expect(withFact(all, key as keyof typeof TYPED_FACTS, show(all))).toEqual({ value: all });
  }
  setFormats({ decimalMark: "." });
  expect(TYPED_FACTS.tips.show(all)).toBe("chisel 2.4; cone 0.5");
});
