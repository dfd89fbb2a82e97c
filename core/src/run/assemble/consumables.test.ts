import { expect, test } from "@jest/globals";
import type { Equipment, EquipmentFacts } from "../../equipment/equipment.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { consumablesOf } from "./consumables.ts";

const of = (kind: Equipment["kind"], facts: EquipmentFacts): Equipment => ({
  id: kind,
  kind,
  name: `our ${kind}`,
  facts,
  can: "",
  cannot: "",
  hours: 0,
  state: "ready",
});
const LIST = [
  of("paste", { alloy: "silver", keepsUntil: "2026-11-30" }),
  of("wire", { alloy: "lead", keepsUntil: "2030-01-31" }),
  of("flux", { keepsUntil: "2030-01-31" }),
  of("cleaner", { cleans: "water" }),
];
const kinds = (assembly: object, step?: Parameters<typeof consumablesOf>[4]) => {
  const doc = twoSided(assembly);
  return consumablesOf(doc, rollUp(doc), LIST, "2026-12-01", step).map((c) => `${c.kind} ${c.is}`);
};

test("a run is told of what it uses: paste where it prints, wire and flux where it is soldered by hand, fluid where it is washed", () => {
  expect(kinds({ method: "iron" })).toEqual(["wire other", "flux good"]);
  expect(kinds({ method: "iron", wire: "lead", cleaner: "solvent" })).toEqual([
    "wire good",
    "flux good",
    "cleaner other",
  ]);
  const printed = kinds({ method: "stencil", cleaner: "water" });
  expect(printed).toContain("paste spent");
  expect(printed).toContain("cleaner unknown");
  expect(kinds({ method: "stencil", alloy: "lead" })).toContain("paste other");
  expect(kinds({ method: "stencil", cleaner: "water" }, "print")).toEqual(["paste spent"]);
  expect(kinds({ method: "stencil", cleaner: "water" }, "clean")).toEqual(["cleaner unknown"]);
  expect(kinds({ method: "stencil" }, "place")).toEqual([]);
});

test("paste that is past its day, or of another alloy, is told in the margin with its name; what the shop lists none of is not", () => {
  const notes = (equipment: Equipment[], assembly: object = { method: "stencil" }) => {
    const doc = { ...twoSided(assembly), today: "2026-12-01", equipment };
    return rollUp(doc).notes.filter((n) => n.key.startsWith("consumable"));
  };
  const [paste, ...others] = notes([LIST[0]!]);
  expect([paste?.key, paste?.level, paste?.text, others.length]).toEqual([
    "consumable paste",
    "warning",
    "Solder paste: our paste was good until 2026-11-30, by its label.",
    0,
  ]);
  expect(notes([LIST[0]!], { method: "stencil", alloy: "lead" })[0]?.text).toContain(
    "none of it is what this run takes",
  );
  expect(notes([LIST[2]!])).toEqual([]);
  expect(notes([of("paste", { keepsUntil: "2026-12-01" })])).toEqual([]);
});
