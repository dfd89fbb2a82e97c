import { expect, test } from "@jest/globals";
import type { LinePart } from "../document/parts.ts";
import { madeLine } from "../made-up.fixture.ts";
import { bothWords, byEye, eyePieces } from "./by-eye.ts";
import { isNoPiece } from "./sitting.ts";

const part = (id: string, refs: string[], kind: LinePart["kind"], joints: number, more = {}) =>
  ({
    line: madeLine(id, refs),
    kind,
    joints,
    isPolarised: false,
    method: "iron",
    count: refs.length,
    ...more,
  }) as LinePart;
const PARTS = [
  part("r", ["R1", "R2"], "chip", 2),
  part("u", ["U1"], "gullFine", 48),
  part("nut", ["H1"], "loose", 0),
  part("c", ["C1"], "chip", 2),
  part("r", ["R3"], "chip", 2, { method: "stencil" }),
];
const PIECES = eyePieces(PARTS);
const steps = [
  { n: 1, kind: "iron" },
  { n: 2, kind: "inspect" },
  { n: 4, kind: "inspect" },
];
const sat = (
  step: number,
  marks: Record<string, "done" | "doubt" | "skipped">,
  isDone = false,
  unit = 1,
) => ({
  unit,
  step,
  marks,
  isDone,
});

test("lines with joints are looked at once, the likeliest bad first; what is marked is no piece of the board", () => {
  expect(PIECES.map((p) => p.name)).toEqual(["eye u", "eye c", "eye r"]);
  expect(PIECES.every((p) => isNoPiece(p.name))).toBe(true);
});

test("a board looks good, in doubt or is not looked at to the end, by its latest look at each line", () => {
  const eye = (...list: ReturnType<typeof sat>[]) => byEye(steps, PIECES, list, 1);
  expect(eye()).toEqual({ stand: "open", doubts: [] });
  expect(eye(sat(2, { "eye u": "done", "eye r": "done" }))).toEqual({ stand: "open", doubts: [] });
  expect(eye(sat(2, { "eye u": "done", "eye r": "done", "eye c": "done" }))!.stand).toBe("good");
  expect(eye(sat(2, { "eye u": "done" }, true))!.stand).toBe("good");
  expect(eye(sat(2, { "eye u": "doubt" }, true))).toEqual({ stand: "doubt", doubts: ["u"] });
  // looked at again at the later gate: the last counts
  expect(eye(sat(4, { "eye u": "done" }, true), sat(2, { "eye u": "doubt" }, true))!.stand).toBe("good");
  expect(eye(sat(4, { "eye u": "skipped" }), sat(2, { "eye u": "done" }, true))!.stand).toBe("open");
  // another board's look, and another step's marks, are none of it
  expect(eye(sat(2, { "eye u": "doubt" }, true, 2), sat(1, { "eye u": "doubt" }, true))!.stand).toBe("open");
  expect(byEye(steps.slice(0, 1), PIECES, [], 1)).toBeUndefined();
});

test("the two verdicts are told where they differ", () => {
  const eye = (stand: "good" | "doubt" | "open") => ({ stand, doubts: [] });
  expect(bothWords("pass", eye("doubt"))).toMatch(/^It works, and does not look/);
  expect(bothWords("pass", eye("open"))).toMatch(/^It works; nobody has looked/);
  expect(bothWords("fail", eye("good"))).toMatch(/^Its joints look good/);
  for (const [t, e] of [
    ["pass", eye("good")],
    ["fail", eye("doubt")],
    ["open", eye("doubt")],
    ["pass", undefined],
  ] as const)
    expect(bothWords(t, e)).toBeUndefined();
});
