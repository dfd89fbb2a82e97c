import { describe, expect, test } from "@jest/globals";
import { emptyMeasure } from "../board/measure/measure-keys.ts";
import type { Measure } from "../board/measure-document.ts";
import type { Bodies, Body } from "../bodies/body.ts";
import { fitSpecShape } from "../shape/fit-row.ts";
import type { FitSpec } from "./row.ts";
import { judgeRow } from "./sheet.ts";

const board = (w: number, h: number, dx = 0): Measure =>
  ({
    ...emptyMeasure([]),
    findings: [],
    extentMm: [dx, 0, dx + w, h],
    outline: { widthMm: w, heightMm: h, cutouts: 0, closed: true },
  }) as Measure;
const body = (
  ref: string,
  x: number,
  y: number,
  heightMm: number | undefined,
  more: Partial<Body> = {},
): Body => ({
  ref,
  side: "top",
  x,
  y,
  turnDeg: 0,
  lengthMm: 4,
  widthMm: 2,
  sizeFrom: "package",
  lies: "row",
  tolMm: 0.1,
  heightTolMm: 0,
  ...(heightMm === undefined ? {} : { heightMm }),
  ...more,
});
const judge = (
  spec: FitSpec,
  bodies: readonly Body[],
  {
    unknown = [] as Bodies["unknown"],
    other,
    dx = 0,
  }: {
    unknown?: Bodies["unknown"];
    dx?: number;
    other?: { w: number; h: number; bodies: Body[]; unknown?: Bodies["unknown"] };
  } = {},
) =>
  judgeRow(
    { id: "r", label: "It", spec },
    {
      measure: board(50, 40, dx),
      bodies: () => ({ bodies, unknown }),
      other: (name) =>
        other && name === "Face"
          ? {
              measure: board(other.w, other.h),
              bodies: { bodies: other.bodies, unknown: other.unknown ?? [] } satisfies Bodies,
            }
          : undefined,
    },
  );

describe("under a lid", () => {
  const lid = (roomMm: number, area?: [number, number, number, number]): FitSpec => ({
    kind: "lid",
    side: "top",
    roomMm,
    roomTolMm: 0.3,
    ...(area ? { area } : {}),
  });
  const two = [
    body("J1", 10, 10, 10, { heightTolMm: 0.1 }),
    body("U1", 30, 20, 2),
    body("B1", 5, 5, 20, { side: "bottom" }),
  ];

  test("the tallest of the side in the room: 10.8 ± 0.3 over 10 ± 0.1 leaves 0.4 to 1.2", () => {
    expect(judge(lid(10.8), two)).toMatchObject({
      verdict: "fits",
      board: "J1, 10 mm high ± 0.1",
      at: { x: 10, y: 10 },
      result: { nominalMm: 0.8, worstMm: [0.4, 1.2] },
    });
    // 0.1 missing at worst: 10.4 are needed, told in twentieths
    expect(judge(lid(10.3), two)).toMatchObject({
      verdict: "may-not-fit",
      mend: "room of 10.4 mm instead of 10.3",
      result: { missingMm: 0.1 },
    });
    expect(judge(lid(9), two)).toMatchObject({ verdict: "does-not-fit" });
  });

  test("in a field only what reaches into it counts, from the board's corner wherever that is", () => {
    const moved = two.map((b) => ({ ...b, x: b.x + 100 }));
    expect(judge(lid(3, [20, 0, 50, 40]), moved, { dx: 100 })).toMatchObject({
      verdict: "fits",
      board: "U1, 2 mm high at most",
    });
    // J1 reaches to 12: a field from 11.9 on has a part of it, one from 12 on has none
    expect(judge(lid(3, [11.9, 0, 20, 40]), two)).toMatchObject({ verdict: "does-not-fit" });
    expect(judge(lid(3, [12, 0, 20, 40]), two)).toMatchObject({
      verdict: "unknown",
      because: "Nothing stands there: there is nothing to judge.",
    });
  });

  test("a part of no known height leaves it open where the others fit, and changes nothing where one does not", () => {
    const blind = [...two, body("K1", 40, 30, undefined)];
    expect(judge(lid(12), blind, { unknown: [{ ref: "L9" }] })).toMatchObject({
      verdict: "unknown",
      because: expect.stringContaining("The height of K1, L9 is not known"),
    });
    // one without a size that stands elsewhere, or on the other side, is none of a field; one that may be in it is
    const field = (more: object) =>
      judge(lid(12, [20, 10, 35, 25]), blind, { unknown: [{ ref: "L9", ...more }] }).verdict;
    expect(field({ at: { x: 5, y: 5 } })).toBe("fits");
    expect(field({ side: "bottom" })).toBe("fits");
    expect(field({ at: { x: 30, y: 20 }, side: "top" })).toBe("unknown");
    expect(field({})).toBe("unknown");
    expect(judge(lid(9), blind)).toMatchObject({ verdict: "does-not-fit" });
  });
});

describe("another board over it", () => {
  const face = (more: Partial<Extract<FitSpec, { kind: "facing" }>> = {}): FitSpec => ({
    kind: "facing",
    other: "Face",
    side: "top",
    faces: "bottom",
    gapMm: 11,
    gapTolMm: 0.2,
    at: [10, 10],
    turnDeg: 0,
    ...more,
  });
  // the other board is 20 × 10: over 10 … 30 and 10 … 20
  const other = (...bodies: Body[]) => ({ w: 20, h: 10, bodies });

  test("bodies that lie over each other share the gap; those beside each other have it alone", () => {
    const own = [body("C1", 15, 15, 6)];
    const under = body("U9", 5, 5, 4, { side: "bottom" });
    // both at 15/15: 11 − 6 − 4
    expect(judge(face(), own, { other: other(under) })).toMatchObject({
      verdict: "fits",
      board: "C1 under U9 of Face, 6 mm high at most",
      result: { nominalMm: 1, worstMm: [0.8, 1.2] },
    });
    // 10 mm to the side each has only the other's board over it: 11 − 6
    expect(judge(face(), own, { other: other({ ...under, x: 15 }) })).toMatchObject({
      result: { nominalMm: 5 },
      board: "C1, 6 mm high at most",
    });
    // what does not lie under the other board does not count
    expect(judge(face(), [body("C2", 45, 35, 30)], { other: other(under) })).toMatchObject({
      result: { nominalMm: 7 },
    });
    // nor what is on the side that looks away
    expect(judge(face(), [], { other: other({ ...under, side: "top" }) })).toMatchObject({
      verdict: "unknown",
    });
  });

  test("turned and face to face: where the other's parts come to lie", () => {
    // the other's U9 at its 18/2. Turned by 90° its box is 10 × 20: 18/2 comes to −2/18, so to 8/18 of the box
    const at = { ...body("U9", 18, 2, 4, { side: "bottom" }), lengthMm: 1, widthMm: 1 };
    const own = (x: number, y: number) => [{ ...body("C1", x, y, 6), lengthMm: 1, widthMm: 1 }];
    expect(judge(face({ turnDeg: 90 }), own(18, 28), { other: other(at) })).toMatchObject({
      result: { nominalMm: 1 },
    });
    expect(judge(face({ turnDeg: 90 }), own(12, 28), { other: other(at) })).toMatchObject({
      result: { nominalMm: 5 },
    });
    // top to top it is mirrored: 18/2 comes to 2/2
    const top = { ...at, side: "top" as const };
    expect(judge(face({ faces: "top" }), own(12, 12), { other: other(top) })).toMatchObject({
      result: { nominalMm: 1 },
    });
    expect(judge(face({ faces: "top" }), own(28, 12), { other: other(top) })).toMatchObject({
      result: { nominalMm: 5 },
    });
  });

  test("connectors that join the two are left out; a button under the other board is named", () => {
    const own = [body("J1", 15, 15, 12), body("SW1", 20, 15, 3)];
    expect(judge(face({ joinedBy: ["J1"] }), own, { other: other() })).toMatchObject({
      verdict: "fits",
      board: "SW1, 3 mm high at most; it hangs over SW1",
    });
    expect(judge(face(), own, { other: other() })).toMatchObject({ verdict: "does-not-fit" });
  });

  test("a part without a size, on either board, leaves it open", () => {
    const own = [body("C1", 15, 15, 6)];
    const said = (mine: Bodies["unknown"], theirs: Bodies["unknown"]) =>
      judge(face({ joinedBy: ["J9"] }), own, { unknown: mine, other: { ...other(), unknown: theirs } });
    expect(said([{ ref: "J9" }], [{ ref: "J9" }]).verdict).toBe("fits");
    expect(said([{ ref: "L1" }], [])).toMatchObject({
      verdict: "unknown",
      because: expect.stringContaining("The height of L1 is"),
    });
    // beside the other board it does not matter
    expect(said([{ ref: "L1", at: { x: 45, y: 35 } }], []).verdict).toBe("fits");
    expect(said([], [{ ref: "L2" }]).because).toContain("The height of L2 of Face is");
    expect(said([], [{ ref: "L2", side: "top" }]).verdict).toBe("fits");
  });

  test("a board nobody knows is said", () => {
    expect(judge(face({ other: "Nope" }), [], {})).toMatchObject({
      verdict: "unknown",
      because: "The product has no board called Nope whose size is known.",
    });
  });
});

test("what cannot be meant is refused: a field of no size, a turn that is none, a place without a diameter", () => {
  expect(
    fitSpecShape({ kind: "lid", side: "top", roomMm: 3, roomTolMm: 0, area: [5, 0, 5, 9] }, "spec"),
  ).toBe("spec is about a field of no size");
  expect(
    fitSpecShape({ kind: "lid", side: "top", roomMm: 3, roomTolMm: 0, area: [0, 0, 5, 9] }, "spec"),
  ).toBeUndefined();
  const facing = {
    kind: "facing",
    other: "Face",
    side: "top",
    faces: "top",
    gapMm: 1,
    gapTolMm: 0,
    at: [0, 0],
  };
  expect(fitSpecShape({ ...facing, turnDeg: 45 }, "spec")).toMatch(/turnDeg/);
  expect(fitSpecShape({ ...facing, turnDeg: 270 }, "spec")).toBeUndefined();
  expect(
    fitSpecShape({ kind: "intended", at: [0, 0], diameterMm: 0, side: "top", what: "solder" }, "spec"),
  ).toMatch(/diameterMm/);
});
