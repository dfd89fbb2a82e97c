import { describe, expect, test } from "@jest/globals";
import { matchPosts, oddReading, readPosts } from "./points.ts";

/* Posts as people give them, odd ones first, and what they are. */
describe("rows of posts", () => {
  test.each([
    [
      "with decimal commas",
      "0\t0\t3,0\n70,5\t0\t3,0",
      [
        [0, 0, 3],
        [70.5, 0, 3],
      ],
    ],
    [
      "commas between, and blanks after them",
      "0, 0, 3\n70.5, 0, 3",
      [
        [0, 0, 3],
        [70.5, 0, 3],
      ],
    ],
    [
      "commas between",
      "0,0\n70.5,46",
      [
        [0, 0, 2.5],
        [70.5, 46, 2.5],
      ],
    ],
    ["semicolons and decimal commas", "1,5;2,5;3", [[1.5, 2.5, 3]]],
    ["a heading", "X\tY\n1\t2", [[1, 2, 2.5]]],
    ["a typographer's minus and a unit", "−4.5 mm\t2 mm", [[-4.5, 2, 2.5]]],
    [
      "empty rows",
      "\n1 2\n\n3 4\r\n",
      [
        [1, 2, 2.5],
        [3, 4, 2.5],
      ],
    ],
  ])("%s", (_, text, rows) => {
    const r = readPosts(text, 2.5);
    expect(r.wrong).toEqual([]);
    expect(r.posts.map((p) => [p.x, p.y, p.diameterMm])).toEqual(rows);
  });

  test.each([
    ["one number", "1 2\n7", "Row 2, “7”, is no x and y."],
    ["a word", "1 2\n3 far", "Row 2, “3 far”, is no x and y."],
    ["four numbers", "1 2 3 4", "Row 1, “1 2 3 4”, is no x and y."],
    ["a diameter of nothing", "1 2 0", "Row 1 has a diameter of 0."],
  ])("%s is said with its row", (_, text, says) => {
    expect(readPosts(text, 2.5).wrong).toEqual([says]);
  });
  test("and so is a diameter that nobody gave", () => {
    expect(readPosts("1 2", undefined).wrong).toEqual(["Row 1 has no diameter."]);
  });
});

const HOLES = [
  [4, 4],
  [74, 4],
  [4, 50],
  [60, 44],
] as const;
const posts = (of: (x: number, y: number) => readonly [number, number]) =>
  HOLES.map(([x, y]) => of(x, y)).map(([x, y]) => ({ x, y, diameterMm: 2.5 }));

test("each hole gets its post, whatever order, origin and quarter turn they are given in", () => {
  const shuffled = posts((x, y) => [x - 300, y + 9]).reverse();
  const m = matchPosts(HOLES, shuffled)!;
  expect(m).toMatchObject({ offMm: 0, unitMm: 1, isMirrored: false });
  expect(m.posts.map((p) => p.x)).toEqual([-296, -226, -296, -240]);
  expect(
    matchPosts(
      HOLES,
      posts((x, y) => [-y, x]),
    ),
  ).toMatchObject({ offMm: 0, isMirrored: false });
});

test("another unit and the other side are told, not taken for granted", () => {
  const inch = matchPosts(
    HOLES,
    posts((x, y) => [x / 25.4, y / 25.4]),
  )!;
  expect(inch).toMatchObject({ unitMm: 25.4, isMirrored: false });
  expect(inch.posts[1]!.x).toBeCloseTo(74, 4);
  expect(
    matchPosts(
      HOLES,
      posts((x, y) => [x / 0.0254, y / 0.0254]),
    ),
  ).toMatchObject({ unitMm: 0.0254 });
  // a diameter of its own row is in the row's unit, the one for all is in millimetres
  const own = readPosts("0 0 0.1\n2.755906 0\n0 1.811024\n2.204724 1.574803", 2.5).posts;
  expect(matchPosts(HOLES, own)!.posts.map((p) => p.diameterMm)).toEqual([2.54, 2.5, 2.5, 2.5]);
  const below = matchPosts(
    HOLES,
    posts((x, y) => [-x, y]),
  )!;
  expect(below).toMatchObject({ isMirrored: true, offMm: 0 });
  expect(below.posts.map((p) => p.x)).toEqual([4, 74, 4, 60]);
});

test("posts of another pattern are not these holes', and neither is another number of them", () => {
  expect(
    matchPosts(
      HOLES,
      posts(() => [0, 0]),
    ),
  ).toBeUndefined();
  expect(matchPosts(HOLES, posts((x, y) => [x, y]).slice(1))).toBeUndefined();
  expect(
    matchPosts(
      HOLES,
      posts((x, y) => [x === 74 ? 71 : x, y]),
    )!.offMm,
  ).toBeCloseTo(2.25, 1);
});

test("a reading with a slipped mark is found, spread ones are left alone", () => {
  expect(oddReading([1.19, 12.1, 1.2])).toBe(12.1);
  expect(oddReading([1.19, 0.121, 1.2])).toBe(0.121);
  expect(oddReading([1.5, 1.62, 1.55])).toBeUndefined();
  expect(oddReading([1.6])).toBeUndefined();
});
