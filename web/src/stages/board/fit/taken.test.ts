import { expect, test } from "@jest/globals";
import { circleGroups, holeGroups, postsText } from "./taken.ts";

test("circles of a drawing by size, the smallest first, in millimetres: an inch is 25.4", () => {
  const groups = circleGroups(
    {
      kind: "drawing",
      notes: [],
      circles: [
        { x: 2, y: 0, diameter: 0.5 },
        { x: 0, y: 0, diameter: 0.1 },
        { x: 1, y: -1, diameter: 0.1004 },
      ],
    },
    25.4,
  );
  expect(groups.map((g) => [g.diameterMm, g.spots.length])).toEqual([
    [2.54, 2],
    [12.7, 1],
  ]);
  expect(postsText(groups[0]!.spots)).toBe("0\t0\t2.54\n25.4\t-25.4\t2.55");
});

test("holes of another board give places without a diameter: what goes through is thinner", () => {
  const hole = (x: number, diameterMm: number) => ({
    kind: "hole" as const,
    x,
    y: 1,
    diameterMm,
    plated: false,
  });
  const groups = holeGroups([hole(1, 3.2), hole(2, 3.2), hole(3, 3.23)]);
  expect(groups.map((g) => g.spots.length)).toEqual([2, 1]);
  expect(postsText(groups[0]!.spots.map(({ x, y }) => ({ x, y })))).toBe("1\t1\n2\t1");
});
