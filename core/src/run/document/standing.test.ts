import { expect, test } from "@jest/globals";
import { madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import type { Note } from "./note.ts";
import { clashWords, moveWords, standingNotes, standingOn } from "./standing.ts";

const pads = (ref: string, x: number, y: number) => [
  { layer: "top", x: x - 0.75, y, pin: `${ref}.1` },
  { layer: "top", x: x + 0.75, y, pin: `${ref}.2` },
];
/** Two resistors 1.2 mm apart, where 1.6 long: 0.4 mm in each other; and a terminal whose size only the library knows. */
const measure = madeMeasure({
  extentMm: [0, 0, 50, 40],
  outline: { widthMm: 50, heightMm: 40, cutouts: 0, closed: true, rings: [[0, 0, 50, 0, 50, 40, 0, 40]] },
  nets: {
    count: 1,
    islands: [{ net: 1, pads: [...pads("R1", 10, 10), ...pads("R2", 11.2, 10), ...pads("J1", 25, 38)] }],
  },
});
const doc = (more: Parameters<typeof madeRun>[0] = {}) =>
  madeRun({
    boards: [{ id: "m", name: "Main", perProduct: 1, measure }],
    lines: [
      madeLine("r", ["R1", "R2"]),
      madeLine("j", ["J1"], { mpn: "hb-t2", package: "TERM-2", mount: "hand" }),
      madeLine("s", ["H1"], { mount: "none" }),
    ],
    library: [
      {
        id: "p",
        mpn: "HB-T2",
        maker: "",
        description: "",
        kind: "connector",
        package: "",
        params: {},
        direction: "",
        moisture: "",
        state: "unknown",
        sheet: "",
        measured: "",
        tried: "",
        bodyLengthMm: 10,
        bodyWidthMm: 8,
        heightMm: 12,
      },
    ],
    ...more,
  });
const on = (d: ReturnType<typeof doc>) => standingOn(d, d.boards[0]!);
const notes = (d: ReturnType<typeof doc>): Partial<Note>[] => {
  const out: Partial<Note>[] = [];
  standingNotes(d, (stage, key, level, text, more) => out.push({ stage, key, level, text, ...more }));
  return out;
};

test("lines become bodies with the library's sizes; what is not on the board does not", () => {
  const { bodies, unknown } = on(doc());
  expect(bodies.map((b) => [b.ref, b.lengthMm, b.heightMm])).toEqual([
    ["R1", 1.6, 0.55],
    ["R2", 1.6, 0.55],
    ["J1", 10, 12],
  ]);
  expect(unknown).toEqual([]);
  expect(on(doc({ library: [] })).unknown.map((u) => u.ref)).toEqual(["J1"]);
});

test("a variant that leaves a part out takes its body away, and the last answer is not another document's", () => {
  const d = doc();
  expect(on(d).clashes.filter((c) => c.kind === "parts")).toHaveLength(1);
  const variant = { id: "v", name: "bare", overrides: { r: { dnp: true } } };
  const bare = { ...d, variants: [variant], choices: { ...d.choices, variant: "v" } };
  expect(on(bare).bodies.map((b) => b.ref)).toEqual(["J1"]);
  expect(on(d).bodies).toHaveLength(3);
  expect(on(d)).toBe(on({ ...d, goodBoards: 99 }));
});

test("what lies in something else is a caution with the smallest move; a connector over the edge is meant", () => {
  // J1 reaches from 34 to 42, two over the edge
  expect(on(doc()).clashes.map((c) => c.kind)).toEqual(["parts", "edge"]);
  expect(notes(doc())).toEqual([
    {
      stage: "board",
      key: "body-parts R1 R2",
      level: "warning",
      text: "The bodies of R1 and R2 lie 0.4 mm in each other as drawn. Sizes are taken from the library and from package names.",
      do: "Move R2 0.6 mm to the right: the smallest move that clears it.",
      at: { layer: "top", x: 10.6, y: 10 },
      about: ["R1", "R2"],
    },
  ]);
});

test("clashes and moves in words", () => {
  const clash = { tolMm: 0.155, side: "top", x: 0, y: 0, refs: ["A", "B"], kind: "parts" } as const;
  expect(clashWords({ ...clash, gapMm: 0.1, verdict: "may-touch" }).text).toBe(
    "The bodies of A and B are 0.1 mm apart as drawn; placing and moulding may differ by 0.155 mm.",
  );
  expect(clashWords({ ...clash, gapMm: -0.1, verdict: "may-touch" }).text).toBe(
    "The bodies of A and B lie 0.1 mm in each other as drawn, within what placing and moulding may differ.",
  );
  expect(clashWords({ ...clash, gapMm: -1, verdict: "may-touch", byPads: ["A"] }).text).toBe(
    "B stands between the pads of A, whose body is not known.",
  );
  expect(clashWords({ ...clash, refs: ["A"], kind: "screw", gapMm: -0.5, verdict: "collides" }).text).toBe(
    "A reaches 0.5 mm under the head of a screw in the hole beside it.",
  );
  expect(clashWords({ ...clash, refs: ["A"], kind: "screw", gapMm: 0.05, verdict: "may-touch" }).text).toBe(
    "A stands 0.05 mm from the head of a screw in the hole beside it.",
  );
  expect(clashWords({ ...clash, refs: ["A"], kind: "edge", gapMm: -0.5, verdict: "collides" }).text).toBe(
    "A reaches 0.5 mm over the edge of the board.",
  );
  expect(moveWords({ ref: "A", dx: -0.35, dy: 0.2 })).toBe("A 0.35 mm to the left and 0.2 mm up");
  expect(moveWords({ ref: "A", dx: 0, dy: -0.2 })).toBe("A 0.2 mm down");
});
