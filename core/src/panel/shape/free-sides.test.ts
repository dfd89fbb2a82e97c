import { expect, test } from "@jest/globals";
import type { PanelDesign, SheetSide } from "../spec.ts";
import { withFreeSides } from "./free-sides.ts";

const own = { box: [1, 1, 2, 2] as const, why: "a connector", tabMm: 1 };
const design = (box: PanelDesign["box"]) => ({ name: "b", box, bans: [own] }) as unknown as PanelDesign;

test("the strip of a free side reaches from half a millimetre outside to 0.3 mm inside, over the whole of it", () => {
  const sides: readonly SheetSide[] = ["left", "right", "bottom", "top"];
  const one = design([10, 20, 40, 60]);
  const two = design([0, 0, 5, 5]);
  const [kept, other] = withFreeSides([one, two], { free: [sides] });
  expect(kept!.bans).toEqual([
    own,
    { box: [9.5, 20, 10.3, 60], why: "its left edge is kept free of tabs", tabMm: 0 },
    { box: [39.7, 20, 40.5, 60], why: "its right edge is kept free of tabs", tabMm: 0 },
    { box: [10, 19.5, 40, 20.3], why: "its bottom edge is kept free of tabs", tabMm: 0 },
    { box: [10, 59.7, 40, 60.5], why: "its top edge is kept free of tabs", tabMm: 0 },
  ]);
  // what has none is the same object: what was worked out of it stays known
  expect(other).toBe(two);
  for (const spec of [{}, { free: [] }, { free: [[], []] }]) {
    const list = [one, two];
    expect(withFreeSides(list, spec)).toBe(list);
  }
});
