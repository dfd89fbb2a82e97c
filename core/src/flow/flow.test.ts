import { expect, test } from "@jest/globals";
import { area, drill, flash, layer, rim, stroke } from "../../test/write-board.ts";
import type { Entry } from "../board/board-file.ts";
import { measureBoard } from "../board/measure.ts";
import { readBoard } from "../board/read/read.ts";
import { wiringOf } from "../meet/wiring.ts";
import type { FlowAsk } from "./ask.ts";
import { ampFor, riseOf, wallOf } from "./copper-facts.ts";
import { flowOf } from "./flow.ts";

const inner = (n: number, body: string): Entry =>
  layer(
    `b.g${n}`,
    `%TF.FileFunction,Copper,L${n},${n === 1 ? "Top" : n === 4 ? "Bot" : "Inr"}*%\n${HEAD}${body}`,
  );
const COPPER = { outerMm: 0.035, innerMm: 0.035, boardMm: 1.6 };
/** A named pad. */
const pad = (ref: string, x: number, y: number, net = "V") =>
  `%TO.P,${ref},1*%\n%TO.N,${net}*%\n${flash(x, y)}`;
const HEAD = "%ADD10C,0.6*%\n%ADD11C,0.25*%\n%ADD12C,0.5*%\n%ADD13C,1*%\n";

/** What is asked of a board: in at one part, out at others, mA each. */
function flow(
  entries: readonly Entry[],
  from: string,
  taps: Readonly<Record<string, number>>,
  copper = COPPER,
) {
  const set = readBoard(entries);
  const pins = wiringOf(measureBoard(set)).flatMap((p) => p.pins.map((q) => ({ ref: p.ref, ...q })));
  const of = (ref: string) => pins.filter((p) => p.ref === ref);
  const ask: FlowAsk = {
    net: of(from)[0]!.net,
    name: "V",
    isReturn: false,
    entry: of(from),
    taps: Object.entries(taps).map(([ref, ma]) => ({ ref, ma, pins: of(ref) })),
  };
  return flowOf(set, [ask], copper)[0]!;
}
const dropOf = (f: ReturnType<typeof flow>, ref: string) => f.drops.find((d) => d.ref === ref)!.mv;
/** Ω of a track: domain.md 2.4. */
const ohm = (mm: number, wide: number) => (1.72e-5 * mm) / (wide * 0.035);

test("worked numbers: what a track takes, what a hole's wall is (EX 2.10, 2.11)", () => {
  expect(ampFor({ mm2: 0.5 * 0.035, isInner: false })).toBeCloseTo(1.447, 3);
  expect(ampFor({ mm2: 0.5 * 0.035, isInner: true })).toBeCloseTo(0.723, 3);
  expect(riseOf({ mm2: 0.3 * 0.035, isInner: false }, 1)).toBeCloseTo(10, 0);
  expect(riseOf({ mm2: 0.781 * 0.035, isInner: true }, 1)).toBeCloseTo(10, 1);
  expect(riseOf({ mm2: 1, isInner: true }, 0)).toBe(0);
  expect((1.72e-5 * 1.6) / wallOf(0.3)).toBeCloseTo(1.078e-3, 6);
  // a slot of 0.6 × 1.6: half a round wall at each end, two flanks of a millimetre
  expect(wallOf(0.6, 1)).toBeCloseTo(0.09909, 5);
});

// 50 mm between the edges of two pads of 0.6 mm: EX 2.11 is 98.29 mΩ
test.each<[string, number, number]>([
  ["along the grid", 50.6, 0],
  ["across it", 0, 50.6],
  ["at 45 degrees", 50.6 * Math.SQRT1_2, 50.6 * Math.SQRT1_2],
  ["at 17 degrees", 50.6 * Math.cos(0.297), 50.6 * Math.sin(0.297)],
  ["at 71 degrees, downwards", 50.6 * Math.cos(1.239), -50.6 * Math.sin(1.239)],
])("a track of 50 mm × 0.25 mm %s has 98.3 mΩ, and all of it flows there", (_, dx, dy) => {
  const [x, y] = [60.03, 60.07];
  const f = flow(
    [
      rim(120, 120),
      layer(
        "b.gtl",
        `${HEAD}D10*\n${pad("J1", x, y)}${pad("U1", x + dx, y + dy)}%TD*%\nD11*\n${stroke(x, y, x + dx, y + dy)}`,
      ),
    ],
    "J1",
    { U1: 100 },
  );
  // 0.25 into pads of 0.6: the current narrows into the track at both ends, some hundredths of a square
  expect(dropOf(f, "U1") / 100 / 0.09829).toBeGreaterThan(0.99);
  expect(dropOf(f, "U1") / 100 / 0.09829).toBeLessThan(1.012);
  expect(f.stretches).toHaveLength(1);
  expect(f.stretches[0]!.ma).toBeCloseTo(100, 1);
  expect(f.stretches[0]!.riseK).toBeCloseTo(riseOf({ mm2: 0.25 * 0.035, isInner: false }, 0.1), 2);
  expect(f.entries).toEqual([{ ref: "J1", pin: "1", ma: expect.closeTo(100, 3) }]);
});

test("two ways share by what each has in the way, and what branches off later takes its part of both", () => {
  // 0.25 wide over 40 + 20 + 40, 0.5 wide over 40: 100/0.25 = 400 squares beside 80
  const f = flow(
    [
      rim(60, 40),
      layer(
        "b.gtl",
        `${HEAD}D13*\n${pad("J1", 10, 10)}${pad("U1", 50, 10)}%TD*%\nD12*\n${stroke(10, 10, 50, 10)}D11*\n${stroke(10, 10, 10, 30)}${stroke(10, 30, 50, 30)}${stroke(50, 30, 50, 10)}`,
      ),
    ],
    "J1",
    { U1: 600 },
  );
  const short = (40 - 1) / 0.5;
  const long = (20 + 40 + 20 - 1) / 0.25;
  const share = long / (short + long);
  const main = f.stretches.find((s) => s.widthMm === 0.5)!;
  expect(main.ma).toBeGreaterThan(600 * share - 4);
  expect(main.ma).toBeLessThan(600 * share + 4);
  for (const s of f.stretches.filter((x) => x.widthMm === 0.25)) expect(s.ma).toBeCloseTo(600 - main.ma, 1);
  expect(dropOf(f, "U1")).toBeCloseTo(main.ma * ohm(39, 0.5), 0);
});

test("from side to side through two holes: each wall as far as the way to it lets it", () => {
  const tracks = (y: number) => `${stroke(10, y, 30, y)}`;
  const entries = [
    rim(60, 40),
    layer(
      "b.gtl",
      `${HEAD}D10*\n${pad("J1", 10, 10)}%TO.P,*%\n%TD*%\n${flash(30, 10)}${flash(20, 10)}D12*\n${tracks(10)}`,
    ),
    layer(
      "b.gbl",
      `${HEAD}D10*\n${pad("U1", 50, 10)}%TD*%\n${flash(30, 10)}${flash(20, 10)}D12*\n${stroke(20, 10, 50, 10)}`,
    ),
    drill("b-PTH.drl", [
      [
        0.3,
        [
          [20, 10],
          [30, 10],
        ],
      ],
    ]),
  ];
  const f = flow(entries, "J1", { U1: 1000 });
  expect(f.holes).toHaveLength(2);
  // the tracks between them are alike on both sides: half goes up at each
  for (const h of f.holes) expect(h.ma).toBeCloseTo(500, -1);
  expect(f.holes[0]!.riseK).toBeCloseTo(
    riseOf({ mm2: wallOf(0.3), isInner: true }, f.holes[0]!.ma / 1000),
    6,
  );
  const wall = (1.72e-5 * 1.6) / wallOf(0.3);
  const sum = 1000 * (ohm(10, 0.5) + ohm(20, 0.5)) + 500 * ohm(10, 0.5) + 500 * wall;
  expect(dropOf(f, "U1") / sum).toBeGreaterThan(0.93);
  expect(dropOf(f, "U1") / sum).toBeLessThan(1.01);
});

test("a filled area from edge to edge is its squares; what is on no copper of the net is named and not counted", () => {
  const f = flow(
    [
      rim(60, 40),
      layer(
        "b.gtl",
        `%ADD14R,1X20*%\n${HEAD}D14*\n${pad("J1", 10, 20)}${pad("U1", 50, 20)}%TO.N,V*%\n${area([10, 10], [50, 10], [50, 30], [10, 30])}%TO.N,W*%\nD10*\n${pad("U2", 5, 5, "W")}`,
      ),
    ],
    "J1",
    { U1: 1000, U2: 40 },
  );
  expect(dropOf(f, "U1") / (1000 * ohm(39, 20))).toBeCloseTo(1, 2);
  expect(f.missed).toEqual(["U2"]);
  expect(f.ma).toBe(1000);
  expect(f.entries[0]!.ma).toBeCloseTo(1000, 2);
  const { picture } = f;
  // 1 A over 20 mm
  expect(picture!.fullMaPerMm).toBeCloseTo(50, 0);
  expect(picture!.layers.map((l) => l.name)).toEqual(["top"]);
});

test("tracks side by side with a hair between them are two, and together lose half", () => {
  const track = (y: number) => stroke(10, y, 50, y);
  const board = (...ys: number[]) => [
    rim(60, 40),
    layer(
      "b.gtl",
      `${HEAD}D13*\n${pad("J1", 10, 10)}${pad("U1", 50, 10)}%TD*%\nD11*\n${ys.map(track).join("")}`,
    ),
  ];
  const [one, two] = [flow(board(10), "J1", { U1: 100 }), flow(board(9.84, 10.16), "J1", { U1: 100 })];
  expect(dropOf(two, "U1") / dropOf(one, "U1")).toBeGreaterThan(0.485);
  expect(dropOf(two, "U1") / dropOf(one, "U1")).toBeLessThan(0.515);
  expect(two.picture!.layers[0]!.heat[0]).toBe(0);
});

test("over a hole to an inner layer of its own thickness: a third of the wall, and a track that cools worse", () => {
  const set = [
    rim(60, 40),
    inner(
      1,
      `D10*\n${pad("J1", 10, 10)}${pad("U1", 50, 10)}%TD*%\n${flash(20, 10)}${flash(40, 10)}D12*\n${stroke(10, 10, 20, 10)}${stroke(40, 10, 50, 10)}`,
    ),
    inner(2, `%TO.N,V*%\nD10*\n${flash(20, 10)}${flash(40, 10)}%TD*%\nD12*\n${stroke(20, 10, 40, 10)}`),
    inner(3, `D10*\n${flash(5, 5)}`),
    inner(4, `D10*\n${flash(5, 5)}`),
    drill("b-PTH.drl", [
      [
        0.3,
        [
          [20, 10],
          [40, 10],
        ],
      ],
    ]),
  ];
  const f = flow(set, "J1", { U1: 1000 }, { ...COPPER, innerMm: 0.0175 });
  const inside = f.stretches[0]!;
  expect(inside.layer).not.toBe("top");
  expect(inside.riseK).toBeCloseTo(riseOf({ mm2: 0.5 * 0.0175, isInner: true }, inside.ma / 1000), 3);
  expect(inside.takesMa).toBeCloseTo(1000 * ampFor({ mm2: 0.5 * 0.0175, isInner: true }), 3);
  // outside twenty millimetres of 35 µm, inside twenty of half of it, and two walls of 1.6/3; pads take some off
  const sum = 1000 * (ohm(20, 0.5) + 2 * ohm(20, 0.5) + (2 * 1.72e-5 * (1.6 / 3)) / wallOf(0.3));
  expect(dropOf(f, "U1") / sum).toBeGreaterThan(0.93);
  expect(dropOf(f, "U1") / sum).toBeLessThan(1);
  const [thick, thin] = [1.6, 0.8].map((boardMm) =>
    dropOf(flow(set, "J1", { U1: 1000 }, { ...COPPER, boardMm }), "U1"),
  );
  expect(thick! - thin!).toBeCloseTo(1000 * ((2 * 1.72e-5 * (0.8 / 3)) / wallOf(0.3)), 2);
});

test("through a board of four layers from top to bottom: the whole wall, and the bottom cools as the top does", () => {
  const set = [
    rim(60, 40),
    inner(1, `D10*\n${pad("J1", 10, 10)}%TD*%\n${flash(20, 10)}D12*\n${stroke(10, 10, 20, 10)}`),
    inner(2, `D10*\n${flash(5, 5)}`),
    inner(3, `D10*\n${flash(5, 5)}`),
    inner(4, `D10*\n${pad("U1", 50, 10)}%TD*%\n${flash(20, 10)}D11*\n${stroke(20, 10, 50, 10)}`),
    drill("b-PTH.drl", [[0.3, [[20, 10]]]]),
  ];
  const of = (boardMm: number) => flow(set, "J1", { U1: 1000 }, { ...COPPER, boardMm });
  const [thick, thin] = [of(1.6), of(0.8)];
  expect(dropOf(thick, "U1") - dropOf(thin, "U1")).toBeCloseTo(1000 * ((1.72e-5 * 0.8) / wallOf(0.3)), 2);
  const [bottom] = thick.stretches;
  expect(bottom!.widthMm).toBe(0.25);
  expect(bottom!.takesMa).toBeCloseTo(1000 * ampFor({ mm2: 0.25 * 0.035, isInner: false }), 3);
});

test("a plug whose pad goes through the board feeds the other side over its wall; tracks of one width and current are one", () => {
  const f = flow(
    [
      rim(60, 40),
      layer("b.gtl", `${HEAD}D13*\n${pad("J1", 10, 10)}%TD*%\n`),
      layer(
        "b.gbl",
        `${HEAD}D13*\n${pad("J1", 10, 10)}D10*\n${pad("U1", 20, 30)}${pad("U2", 10, 5)}%TD*%\nD12*\n${stroke(10, 10, 10, 30)}${stroke(10, 30, 20, 30)}D11*\n${stroke(10, 10, 10, 5)}`,
      ),
      drill("b-PTH.drl", [[0.6, [[10, 10]]]]),
    ],
    "J1",
    { U1: 500, U2: 1 },
  );
  expect(f.entries).toEqual([{ ref: "J1", pin: "1", ma: expect.closeTo(501, 3) }]);
  expect(f.drops.map((d) => d.ref)).toEqual(["U1", "U2"]);
  // the one with a five-hundredth of it is told nowhere; of the other the longer stretch stands for both
  expect(f.stretches).toHaveLength(1);
  expect(f.stretches[0]).toMatchObject({ layer: "bottom", x1: 10, y1: 10, x2: 10, y2: 30, lengthMm: 30 });
});

test("contacts that feed side by side share by the copper behind each", () => {
  const f = flow(
    [
      rim(60, 40),
      layer(
        "b.gtl",
        `${HEAD}D13*\n%TO.P,J1,1*%\n%TO.N,V*%\n${flash(10, 10)}%TO.P,J1,2*%\n${flash(20, 10)}${pad("U1", 50, 10)}%TD*%\nD12*\n${stroke(10, 10, 50, 10)}`,
      ),
    ],
    "J1",
    { U1: 300 },
  );
  // the nearer of two in a row takes it all
  expect(f.entries.map((e) => [e.pin, Math.round(e.ma)])).toEqual([
    ["1", 0],
    ["2", 300],
  ]);
});

test("a net that is not there, and an entry on other copper, have a reason and no figure", () => {
  const entries = [
    rim(20, 20),
    layer("b.gtl", `${HEAD}D10*\n${pad("J1", 5, 5)}${pad("U1", 15, 5)}%TD*%\nD11*\n${stroke(5, 5, 15, 5)}`),
  ];
  const set = readBoard(entries);
  const ask = { name: "V", isReturn: false, entry: [], taps: [] };
  const [gone, away] = flowOf(
    set,
    [
      { ...ask, net: 99 },
      { ...ask, net: 1 },
    ],
    COPPER,
  );
  expect(gone!.reason).toMatch(/no such net/);
  expect(away!.reason).toMatch(/no copper/);
  expect(away!.drops).toEqual([]);
});
