import { expect, test } from "@jest/globals";
import { inHand, lifeOf } from "./consumable.ts";
import type { Equipment, EquipmentFacts } from "./equipment.ts";

const TODAY = "2026-12-01";
const tub = (name: string, facts: EquipmentFacts = {}, more: Partial<Equipment> = {}): Equipment => ({
  id: name,
  kind: "paste",
  name,
  facts,
  can: "",
  cannot: "",
  hours: 0,
  state: "ready",
  ...more,
});
const life = (facts: EquipmentFacts, today = TODAY) => lifeOf(tub("a", facts), today);

test.each<[EquipmentFacts, string, string | undefined]>([
  // by its label, its last day counted in; three weeks before it is told
  [{ keepsUntil: "2026-12-23" }, "good", "2026-12-23"],
  [{ keepsUntil: "2026-12-22" }, "soon", "2026-12-22"],
  [{ keepsUntil: "2026-12-01" }, "soon", "2026-12-01"],
  [{ keepsUntil: "2026-11-30" }, "spent", "2026-11-30"],
  // thirty days from 10 November end on 10 December, whatever its label says of a closed tub
  [{ keepsUntil: "2027-06-30", openedOn: "2026-11-10", openDays: 30 }, "soon", "2026-12-10"],
  [{ keepsUntil: "2026-12-05", openedOn: "2026-11-20", openDays: 90 }, "soon", "2026-12-05"],
  [{ openedOn: "2026-10-31", openDays: 30 }, "spent", "2026-11-30"],
  [{ openedOn: "2026-11-01", openDays: 30 }, "soon", "2026-12-01"],
  // days that say nothing alone
  [{ openDays: 30 }, "unknown", undefined],
  [{ openedOn: "2026-11-01" }, "unknown", undefined],
  [{ openDays: 30, keepsUntil: "2027-01-31" }, "good", "2027-01-31"],
  [{}, "unknown", undefined],
  // a slip of the hand
  [{ openedOn: "2027-11-01", openDays: 30 }, "unknown", "2027-12-01"],
])("%j on 1 December is %s until %s", (facts, is, until) =>
  expect([life(facts).is, life(facts).until]).toEqual([is, until]),
);

test("why it is good until then is said; one that is used up is no more", () => {
  expect(life({ keepsUntil: "2026-11-30" }).words).toBe("was good until 2026-11-30, by its label");
  expect(life({ openedOn: "2026-11-10", openDays: 30 }).words).toBe(
    "good until 2026-12-10, opened on 2026-11-10, good for 30 days",
  );
  // where both end on one day its label is enough
  expect(life({ keepsUntil: "2026-12-10", openedOn: "2026-11-10", openDays: 30 }).words).toBe(
    "good until 2026-12-10, by its label",
  );
  expect(life({ openedOn: "2026-11-01" }).words).toBe("opened on 2026-11-01, good for how long is not said");
  expect(lifeOf(tub("a", { keepsUntil: "2030-01-01" }, { state: "broken" }), TODAY).is).toBe("spent");
});

test("of several the one that is good longest is taken, of the run's alloy; of none nothing is said", () => {
  const list = [
    tub("old", { keepsUntil: "2026-01-31", alloy: "silver" }),
    tub("next year", { keepsUntil: "2027-01-31", alloy: "silver" }),
    tub("longest", { keepsUntil: "2027-08-31", alloy: "silver" }),
    tub("lead", { keepsUntil: "2029-08-31", alloy: "lead" }),
    tub("wire", { keepsUntil: "2031-08-31" }, { kind: "wire" }),
  ];
  const best = (alloy?: string, from = list) => {
    const found = inHand(from, "paste", TODAY, alloy === undefined ? {} : { alloy });
    return found && [found.name, found.is];
  };
  expect([best("silver"), best("lead"), best()]).toEqual([
    ["longest", "good"],
    ["lead", "good"],
    ["lead", "good"],
  ]);
  expect(inHand(list, "paste", TODAY, { alloy: "bismuth" })).toEqual({
    kind: "paste",
    is: "other",
    words: "none of it is what this run takes: old, next year, longest, lead",
  });
  expect(best("silver", [list[0]!])).toEqual(["old", "spent"]);
  // one of which nothing is said may be it, and is better than one that is past its day
  expect(best("bismuth", [tub("unlabelled"), tub("old", { keepsUntil: "2026-01-01" })])).toEqual([
    "unlabelled",
    "unknown",
  ]);
  expect(inHand(list, "flux", TODAY)).toBeUndefined();
  const bath = (cleans?: "water" | "solvent" | "both") => [
    tub("bath", cleans ? { cleans } : {}, { kind: "cleaner" }),
  ];
  const of = (cleans: "water" | "solvent" | "both" | undefined, wish: string) =>
    inHand(bath(cleans), "cleaner", TODAY, { cleans: wish })!.is;
  expect([
    of("water", "solvent"),
    of("both", "solvent"),
    of(undefined, "water"),
    of("water", "water"),
  ]).toEqual(["other", "unknown", "unknown", "unknown"]);
});
