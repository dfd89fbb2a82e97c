import { expect, test } from "@jest/globals";
import type { DiffPlace, FigureChange, PartChange, StencilVerdict } from "@kobbin/core";
import { figureWords, partGroups, placeWords, stencilWords } from "./words.ts";

const place = (more: Partial<DiffPlace>): DiffPlace => ({
  x: 1,
  y: 2,
  widthMm: 4.26,
  heightMm: 1,
  kind: "changed",
  ...more,
});
test.each([
  [{ kind: "resized", wasMm: 1.6, nowMm: 1.82 }, "1.6 → 1.82 mm"],
  [{ kind: "moved", byMm: 0.25 }, "moved 0.25 mm"],
  // of several that moved together only their extent is known
  [{ kind: "moved" }, "moved, 4.3 mm"],
  [{ kind: "added", nowMm: 0.3 }, "added, 0.3 mm"],
  [{ kind: "gone" }, "gone, 4.3 mm"],
] as const)("a place %j: %s", (more, words) => expect(placeWords(place(more))).toBe(words));

const stencil = (says: StencilVerdict["says"], more: Partial<StencilVerdict> = {}) =>
  stencilWords({ says, of: 12, matched: 12, changed: 0, missing: 0, extra: 0, harmful: 0, ...more });
test("what a stencil is worth is said with its counts", () => {
  expect(stencil("reuse")).toBe("serves again: all 12 openings are in it");
  expect(stencil("tape", { extra: 1 })).toBe("serves again with tape over 1 opening it has too many");
  expect(stencil("dispense", { missing: 1, extra: 2 })).toBe(
    "serves again where a run is placed by hand: 1 opening of 12 is missing, paste it with a syringe; tape over 2 openings too many",
  );
  expect(stencil("new", { changed: 3, missing: 5, harmful: 1 })).toBe(
    "is needed anew: 3 openings moved or of another size, 5 openings missing, 1 would put paste on bare copper",
  );
});

const part = (
  ref: string,
  kind: PartChange["kind"],
  by: readonly [number, number] = [0, 0],
  turnDeg = 0,
) => ({
  ref,
  kind,
  by,
  turnDeg,
  at: { layer: "top", x: 0, y: 0 },
});
test("parts that changed alike are told once", () => {
  const groups = partGroups([
    part("C1", "moved", [0.5, 0]),
    part("D4", "added"),
    part("C2", "moved", [0.5, 0]),
    part("U1", "turned", [0, 0], 44.98),
    part("U2", "turned", [1, 0], -90),
  ]);
  expect(groups.map((g) => `${g.parts.map((p) => p.ref).join(", ")} ${g.words}`)).toEqual([
    "C1, C2 moved by 0.50 / 0.00 mm",
    "D4 new",
    "U1 turned by 45°",
    "U2 turned by -90°, moved by 1.00 / 0.00 mm",
  ]);
});

test("a figure says which way it went, and what the house makes of it only where that changed", () => {
  const figure = (more: Partial<FigureChange>) =>
    figureWords({ key: "k", label: "track", unit: "mm", was: 0.2, now: 0.1, is: "worse", ...more });
  expect(figure({ levelWas: "fine", levelNow: "cannot" })).toBe("0.2 → 0.1 mm, worse: fine → cannot");
  expect(figure({ levelWas: "fine", levelNow: "fine" })).toBe("0.2 → 0.1 mm, worse");
  const { was: _, ...fresh } = { key: "k", label: "layers", unit: "layers" as const, was: 0, now: 4 };
  expect(figureWords(fresh)).toBe("none → 4");
  const ratio = { key: "r", label: "thickness to hole", unit: "ratio" as const, was: 5.3334, now: 8 };
  expect(figureWords(ratio)).toBe("5.3334 → 8");
});
