import { expect, test } from "@jest/globals";
import { chance } from "../../../test/random.ts";
import type { PieceMark } from "../document/sitting.ts";
import {
  isWalked,
  kitLines,
  kitPieces,
  lostOf,
  minutesOf,
  nextPiece,
  notCounted,
  type Piece,
  pieceBefore,
  piecesOf,
  spareByHand,
  stepOfUnit,
  stepStand,
  unitOfStep,
  workedMinutes,
} from "./sitting.ts";

const STEP = {
  lines: [
    { line: "r", refs: ["R1", "R2", "R3"] },
    { line: "u", refs: ["U1"] },
  ],
};
const pieces = piecesOf(STEP);
const name = (p: Piece | undefined) => p?.name;

test("pieces come in the order of the step, each with its how-manieth", () => {
  expect(pieces.map((p) => `${p.name} ${p.nth}/${p.of}`)).toEqual(["R1 1/3", "R2 2/3", "R3 3/3", "U1 1/1"]);
  expect(piecesOf({ lines: [{ line: "screw", refs: [] }] })).toEqual([]);
});

test("pieces of a step by what was done with them", () => {
  const marks = { R1: "done", R2: "doubt", R3: "skipped" } as const;
  expect(stepStand(pieces, marks)).toEqual({ on: 2, doubts: 1, skipped: 1, left: 1, of: 4 });
  expect(stepStand(pieces, {})).toEqual({ on: 0, doubts: 0, skipped: 0, left: 4, of: 4 });
});

test("next is the first that was not taken up, then what was left; before is what was taken up last", () => {
  const at = (marks: Record<string, PieceMark>) => [
    name(nextPiece(pieces, marks)),
    name(pieceBefore(pieces, marks)),
  ];
  expect(at({})).toEqual(["R1", undefined]);
  expect(at({ R1: "done", R2: "skipped" })).toEqual(["R3", "R2"]);
  expect(at({ R1: "done", R2: "skipped", R3: "doubt", U1: "done" })).toEqual(["R2", "U1"]);
  expect(at({ R1: "done", R2: "done", R3: "doubt", U1: "done" })).toEqual([undefined, "U1"]);
  // resumed at exactly the piece where one stopped, also when another one took later ones meanwhile
  expect(at({ R1: "done", U1: "done" })).toEqual(["R2", "R1"]);
});

test("whatever is pressed, taken back and left for later: pieces add up, each is asked for until it is on, and it ends", () => {
  const { pick, is } = chance(42);
  for (let run = 0; run < 200; run++) {
    const marks: Record<string, PieceMark> = {};
    let presses = 0;
    for (;;) {
      const stand = stepStand(pieces, marks);
      expect(stand.on + stand.skipped + stand.left).toBe(stand.of);
      expect(stand.doubts).toBeLessThanOrEqual(stand.on);
      const next = nextPiece(pieces, marks);
      expect(next === undefined).toBe(stand.on === stand.of);
      if (!next) break;
      expect(["done", "doubt"]).not.toContain(marks[next.name]);
      if (presses < 30 && is(0.25)) {
        const before = pieceBefore(pieces, marks);
        if (before) delete marks[before.name];
      } else {
        // what was left for later is not left for ever
        const may: PieceMark[] =
          marks[next.name] === "skipped" || presses > 30 ? ["done", "doubt"] : ["done", "doubt", "skipped"];
        marks[next.name] = pick(may);
      }
      presses++;
    }
    expect(presses).toBeLessThan(100);
  }
});

test("a board stands at its first step that is not done; what is done once is done for all", () => {
  const steps = [
    { n: 1, kind: "kit" },
    { n: 2, kind: "print" },
    { n: 3, kind: "place" },
  ];
  const done = (unit: number, step: number) => ({ unit, step, isDone: true });
  const at = (unit: number, ...sittings: ReturnType<typeof done>[]) => stepOfUnit(steps, sittings, unit)?.n;
  expect([at(1), at(1, done(0, 1)), at(2, done(0, 1), done(1, 2)), at(1, done(0, 1), done(1, 2))]).toEqual([
    1, 2, 2, 3,
  ]);
  expect(at(1, done(0, 1), done(1, 2), done(1, 3))).toBeUndefined();
  // a step that was begun is not done
  expect(stepOfUnit(steps, [{ unit: 0, step: 1, isDone: false }], 1)?.n).toBe(1);
  expect([unitOfStep("kit", 4), unitOfStep("place", 4)]).toEqual([0, 4]);
});

test("what is not counted yet is what the bench has beyond it, and never less than nothing", () => {
  const sat = [
    { unit: 0, minutes: { desk: 4 } },
    { unit: 1, minutes: { desk: 10.4, phone: 2 } },
    { unit: 1, minutes: {} },
    { unit: 2, minutes: { desk: 5 } },
  ];
  const rest = (started: number, minutes: number) => notCounted(sat, { started, minutes });
  expect([rest(0, 0), rest(1, 20), rest(2, 21), rest(9, 90)]).toEqual([
    { started: 2, minutes: 21 },
    { started: 1, minutes: 1 },
    { started: 0, minutes: 0 },
    { started: 0, minutes: 0 },
  ]);
});

test("time in which nobody pressed is no work; two devices add up (three minutes are the most between two presses)", () => {
  expect([0, 60_000, 180_000, 180_001, -5].map(workedMinutes)).toEqual([0, 1, 3, 0, 0]);
  expect(minutesOf([{ minutes: { desk: 2.5, phone: 1 } }, { minutes: {} }, { minutes: { desk: 4 } }])).toBe(
    7.5,
  );
});

test("pieces lost are counted over all boards; spare ones are told where this hand alone may lose them", () => {
  const sat = [{ lost: { r: 1 } }, { lost: { r: 2, u: 4 } }, { lost: {} }];
  expect([lostOf(sat, "r"), lostOf(sat, "u"), lostOf(sat, "none")]).toEqual([3, 4, 0]);
  const term = (by: "hand" | "machine") => ({ line: "r", net: 10, kind: "chip" as const, by });
  const spare = (lines: string[], ...by: ("hand" | "machine")[]) =>
    spareByHand({ lines, terms: by.map(term), lost: 5 });
  expect([spare(["r"], "hand"), spare(["r"], "hand", "hand")]).toEqual([5, 5]);
  expect([spare(["r", "q"], "hand"), spare(["r"], "hand", "machine"), spareByHand(undefined)]).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});

test("pieces are walked where they are put on, and nowhere else", () => {
  expect(["kit", "print", "place", "heat", "iron", "mechanical", "test"].filter(isWalked)).toEqual([
    "place",
    "iron",
    "mechanical",
  ]);
});

test("the kit is walked along the shelf, a line once however many steps take of it; what has no place comes last", () => {
  const line = (id: string, refs: string[], pieces: number, lies?: string[]) => ({
    line: id,
    refs,
    pieces,
    ...(lies ? { lies } : {}),
  });
  const steps = [
    { lines: [line("a", ["R1", "R2"], 2, ["box 10"]), line("b", ["C1"], 1)] },
    {
      lines: [
        line("c", ["U1"], 1),
        line("a", ["R9"], 1, ["box 10"]),
        line("d", ["J1"], 1, ["box 2", "drawer"]),
      ],
    },
  ];
  const kit = kitLines(steps, (id) => (id === "c" ? ["", "Box 3"] : []));
  expect(kit.map((l) => [l.line, l.pieces, l.refs.join(" "), l.places])).toEqual([
    ["d", 1, "J1", ["box 2", "drawer"]],
    ["c", 1, "U1", ["Box 3"]],
    ["a", 3, "R1 R2 R9", ["box 10"]],
    ["b", 1, "C1", []],
  ]);
  const pieces = kitPieces(kit);
  expect(new Set(pieces.map((p) => p.name)).size).toBe(4);
  expect(nextPiece(pieces, { "kit d": "done", "kit c": "skipped" })?.line).toBe("a");
  expect(stepStand(pieces, { "kit d": "done" })).toMatchObject({ on: 1, left: 3, of: 4 });
});
