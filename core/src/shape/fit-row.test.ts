import { expect, test } from "@jest/globals";
import { fitSpecShape } from "./fit-row.ts";

const slot = { kind: "slot", at: [1, 2], tabTolMm: 0.1 };
const post = { x: 0, y: 0, diameterMm: 3 };

// what a board must go with: what contradicts itself is said, `undefined` is right
test.each<[string, unknown, string | undefined]>([
  [
    "nothing",
    null,
    "spec.kind is one of slot, edge, outline, pattern, pin, contacts, intended, lid, facing, stack",
  ],
  ["a text", "slot", expect.stringContaining("spec.kind is one of") as unknown as string],
  [
    "a kind nobody knows",
    { kind: "toString" },
    expect.stringContaining("spec.kind is one of") as unknown as string,
  ],
  [
    "a kind that is a number",
    { kind: 7 },
    expect.stringContaining("spec.kind is one of") as unknown as string,
  ],
  ["a slot with its tab", { ...slot, tabMm: 1.6 }, undefined],
  ["a slot with readings of its tab", { ...slot, tabReadingsMm: [1.6, 1.61] }, undefined],
  ["a slot without a tab", slot, "spec says its tab not at all"],
  [
    "a slot with its tab and readings",
    { ...slot, tabMm: 1.6, tabReadingsMm: [1.6] },
    "spec says its tab twice",
  ],
  ["an edge of one thickness", { kind: "edge", allowsMm: [1.6, 1.6] }, undefined],
  [
    "an edge of none",
    { kind: "edge", allowsMm: [1.7, 1.6] },
    "spec takes from 1.7 to 1.6 mm, which is nothing",
  ],
  ["as many posts as holes", { kind: "pattern", holes: [[0, 0]], posts: [post], postTolMm: 0 }, undefined],
  [
    "a post too many",
    { kind: "pattern", holes: [[0, 0]], posts: [post, post], postTolMm: 0 },
    "spec has 2 posts for 1 holes",
  ],
  ["a lid over all", { kind: "lid", side: "top", roomMm: 3, roomTolMm: 0 }, undefined],
  [
    "a lid over a line",
    { kind: "lid", side: "top", roomMm: 3, roomTolMm: 0, area: [0, 5, 9, 5] },
    "spec is about a field of no size",
  ],
])("%s", (_, spec, wrong) => {
  if (wrong === undefined) expect(fitSpecShape(spec, "spec")).toBeUndefined();
  else expect(fitSpecShape(spec, "spec")).toEqual(wrong);
});
