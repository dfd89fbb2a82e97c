import { expect, test } from "@jest/globals";
import { drill, flash, layer, rim, stroke } from "../../../../test/write-board.ts";
import { measureBoard } from "../../../board/measure.ts";
import { readBoard } from "../../../board/read/read.ts";
import { flowOf } from "../../../flow/flow.ts";
import { madeMeasure, madeTest } from "../../made-up.fixture.ts";
import { outputPath, pathRatings } from "./output-path.ts";
import { line, part, powered, wired } from "./powered.fixture.ts";

const LOAD = { volts: "24", kind: "direct", amps: "2", ratings: [] };
const item = (more: object) => madeTest("t1", { load: LOAD, ...more } as never);

const withBoards = (measures: readonly object[], more: object = {}) =>
  powered({
    boards: measures.map((measure, i) => ({
      id: `b${i}`,
      name: ["Main", "Tail"][i],
      perProduct: 1,
      measure,
    })),
    ...more,
  } as never);
const nets = (text: string) => madeMeasure({ nets: { count: 9, islands: wired(text) } as never });
const RELAY = nets(`
  HOT: J3.1 K1.3 C9.1 TP4.1
  OUT: J3.2 K1.4 D5.2
  COIL: K1.1 Q1.3 D5.1 J3.3
  GND: Q1.2 J3.4`);
const ways = (doc: ReturnType<typeof powered>, more: object) => {
  const path = outputPath(doc, item(more));
  return (
    path && [
      path.asks.map(
        (a) => `${a.name} ${a.entry.map((p) => `${p.ref}.${p.pin}`)} ${a.taps[0]!.ref} ${a.taps[0]!.ma}`,
      ),
      path.left,
    ]
  );
};

test("an output's current flows from the contacts it names to what it is said to go through, on the nets they share", () => {
  const doc = withBoards([RELAY]);
  expect(ways(doc, { reads: ["J3.1", "J3.2"], through: ["K1", "C9", "TP4"] })).toEqual([
    ["HOT J3.1 K1 2000", "OUT J3.2 K1 2000"],
    [],
  ]);
  // what carries something in its path is in it as well
  expect(
    ways(doc, { reads: ["J3.2"], load: { ...LOAD, ratings: [{ what: "K1 contacts", amps: "5" }] } }),
  ).toEqual([["OUT J3.2 K1 2000"], []]);
  expect(ways(doc, { reads: ["J3.2"] })![1]).toEqual(["what feeds J3.2 is not said: name it under Through"]);
  // a connector named whole is on nets that are none of this output's: nothing of it is taken
  expect(ways(doc, { through: ["J3", "K1"] })).toEqual([
    [],
    ["over which contact it leaves the board is not said: name it where it is driven or read"],
  ]);
  expect(outputPath(doc, item({ reads: ["J9.1"] }))).toBeUndefined();
  expect(outputPath(doc, item({ reads: ["J3.1"], load: undefined }))).toBeUndefined();
});

test("more ways than are followed are told", () => {
  const many = nets(`OUT: J3.1 ${Array.from({ length: 14 }, (_, i) => `Q${i + 1}.1`).join(" ")}
    GND: J3.2 Q1.2`);
  const [asks, left] = ways(withBoards([many]), {
    reads: ["J3.1"],
    through: Array.from({ length: 14 }, (_, i) => `Q${i + 1}`),
  })!;
  expect([asks!.length, left]).toEqual([
    12,
    ["only the first 12 of 14 ways are followed: name fewer parts under Through"],
  ]);
});

test("of several boards it is the one whose parts are named", () => {
  const doc = withBoards([RELAY, RELAY]);
  const path = outputPath(doc, item({ reads: ["J3 of Tail.2"], through: ["K1 of Tail"] }))!;
  expect([path.board.id, path.asks.length]).toEqual(["b1", 1]);
});

// 20 mm of 0.6 with a neck of 0.25 mm between two pads; 35 µm: by hand 0.048 · 10^0.44 · (0.25 · 0.035 / 0.0254²)^0.725 = 0.875 A
const HEAD = "%TF.FileFunction,Copper,L1,Top*%\n%ADD10C,1.8*%\n%ADD11C,0.25*%\n%ADD12C,0.6*%\n";
const pad = (ref: string, pin: string, x: number, y: number, net: string) =>
  `%TO.P,${ref},${pin}*%\n%TO.N,${net}*%\n${flash(x, y)}`;
const COPPER = layer(
  "b.gtl",
  `${HEAD}D10*\n${pad("J3", "1", 5, 10, "HOT")}${pad("J3", "2", 5, 14, "HOT")}${pad("K1", "3", 25, 12, "HOT")}${pad("J3", "3", 5, 20, "GND")}%TD*%\nD12*\n${stroke(5, 10, 5, 14)}${stroke(5, 12, 12, 12)}${stroke(18, 12, 25, 12)}D11*\n${stroke(12, 12, 18, 12)}`,
);
const files = [COPPER, rim(30, 25), drill("b.drl", [])].flat();

test("copper carries what warms its neck by ten kelvins, contacts what the library says of each; rounded down", () => {
  const set = readBoard(files);
  const doc = withBoards([measureBoard(set)], {
    lines: [line("j3", ["J3"], "", "", "TB-J3"), line("k1", ["K1"], "", "", "TB-K1")],
    library: [
      { ...part("TB-J3"), carriesMa: 2500 },
      { ...part("TB-K1"), carriesMa: 5000 },
    ],
    options: { copper: "35" },
  });
  const path = outputPath(doc, item({ reads: ["J3.1", "J3.2"], through: ["K1"] }))!;
  const found = pathRatings(doc, path, flowOf(set, path.asks, path.copper));
  expect(found.left).toEqual([]);
  expect(Object.fromEntries(found.ratings.map((r) => [r.what, r.amps]))).toEqual({
    "copper J3 to K1": "0.87",
    // the load goes over two contacts, nearly alike
    J3: "4.9",
    K1: "5",
  });
  // what does not say anything of a contact is told, what cannot be followed as well
  const bare = withBoards([measureBoard(set)], { lines: [line("j3", ["J3"], "")], library: [] });
  const again = outputPath(bare, item({ reads: ["J3.1"], through: ["K1"] }))!;
  expect(pathRatings(bare, again, flowOf(set, again.asks, again.copper))).toEqual({
    ratings: [{ what: "copper J3.1 to K1", amps: "0.87" }],
    left: [
      "J3: the library does not say what a contact of it carries",
      "K1: the library does not say what it carries",
    ],
  });
  // followed, and ended nowhere: whatever warmed on the way says nothing
  const lost = { ...flowOf(set, again.asks, again.copper)[0]!, missed: ["K1"] };
  expect(pathRatings(bare, again, [lost])).toEqual({
    ratings: [],
    left: ["copper J3.1 to K1: none of K1’s pads is reached"],
  });
  expect(pathRatings(bare, again, []).ratings).toEqual([]);
  expect(pathRatings(bare, again, []).left[0]).toMatch(/^copper J3\.1 to K1: /);
});

// two such necks side by side, alike in all: each carries half
const TWO = layer(
  "b.gtl",
  `${HEAD}D10*\n${pad("J3", "1", 5, 12, "HOT")}${pad("K1", "3", 25, 12, "HOT")}${pad("J3", "3", 5, 20, "GND")}%TD*%\nD10*\n${stroke(5, 12, 9, 12)}${stroke(9, 10, 9, 14)}${stroke(21, 10, 21, 14)}${stroke(21, 12, 25, 12)}D11*\n${stroke(9, 10, 21, 10)}${stroke(9, 14, 21, 14)}`,
);

test("two ways side by side carry what both do", () => {
  const set = readBoard([TWO, rim(30, 25), drill("b.drl", [])].flat());
  const doc = withBoards([measureBoard(set)], { options: { copper: "35" } });
  const path = outputPath(doc, item({ reads: ["J3.1"], through: ["K1"] }))!;
  const [found] = pathRatings(doc, path, flowOf(set, path.asks, path.copper)).ratings;
  // twice 0.875, rounded down
  expect(found).toEqual({ what: "copper J3.1 to K1", amps: "1.7" });
});
