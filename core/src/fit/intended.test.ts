import { describe, expect, test } from "@jest/globals";
import { area, drill, flash, layer, rim } from "../../test/write-board.ts";
import type { Entry } from "../board/board-file.ts";
import { type PlaceReading, readPlace } from "../board/measure/place.ts";
import { readBoard } from "../board/read/read.ts";
import { conditionsOf, judgeIntended } from "./intended.ts";
import type { Intended } from "./row.ts";

// a board of 20 × 10 with one place of each kind: what the files have there is known by hand
const square = (x: number, y: number, half: number) =>
  area([x - half, y - half], [x + half, y - half], [x + half, y + half], [x - half, y + half]);
const BOARD: Entry[] = [
  rim(20, 10),
  layer("b.gtl", `${square(3, 5, 1.5)}${square(7, 5, 1.5)}${square(15, 5, 1.5)}`),
  layer("b.gbl", square(3, 5, 1.5)),
  layer("b.gts", `${square(3, 5, 1.5)}${square(11, 5, 1.5)}${area([14, 4], [15, 4], [15, 6], [14, 6])}`),
  layer("b.gbs", square(11, 5, 1.5)),
  layer("b.gtp", square(3, 5, 1)),
  layer("b.gto", `%ADD10C,0.2*%\nD10*\n${flash(7, 5)}`),
  drill("b-npth.drl", [[3, [[18, 8]]]]),
];
const set = readBoard(BOARD);
const at = (x: number, y: number, d = 1.6) => readPlace(set, { x, y }, d);
const share = (r: PlaceReading, name: string) => r.layers.find((l) => l.name === name)!.share;

describe("what the files have at a place", () => {
  test("shares of layers, holes and board", () => {
    const r = at(3, 5);
    expect(r).toMatchObject({ drilled: 0, platedShare: 0, board: 1, givenUp: [] });
    expect(
      ["copper top", "copper bottom", "mask top", "mask bottom", "paste top", "legend top"].map((n) =>
        share(r, n),
      ),
    ).toEqual([1, 1, 1, 0, 1, 0]);
    // half of the opening's square lies over the left of the place
    expect(share(at(15, 5), "mask top")).toBeCloseTo(0.5, 1);
    // a dot of 0.2 in a place of 1.6: (0.1/0.8)² = 1.6 %
    expect(share(at(7, 5), "legend top")).toBeCloseTo(0.0156, 2);
    expect(at(18, 8)).toMatchObject({ drilled: 1, platedShare: 0 });
    // a place that is half beside the board
    expect(at(20, 5).board).toBeCloseTo(0.5, 1);
    expect(at(25, 5).board).toBe(0);
  });

  test("the place is round: what lies in the corners of its square does not count", () => {
    // copper from 5.5 to 8.5: a place of 3 is all of it, one of 4 has (3 × … ) less than all
    expect(share(at(7, 5, 3), "copper top")).toBe(1);
    // a circle of 4.1 over a square of 3: about 9 / (π · 2.05²) = 0.68
    expect(share(at(7, 5, 4.1), "copper top")).toBeCloseTo(0.68, 1);
  });
});

const holds = (what: Intended, x: number, y: number, side: "top" | "bottom" = "top") =>
  conditionsOf({ kind: "intended", at: [x, y], diameterMm: 1.6, side, what }, at(x, y))
    .filter((c) => !c.holds)
    .map((c) => c.asks);

describe("whether they make it what it is meant to be", () => {
  test.each([
    // copper, open, with paste: for solder, and nothing that is touched
    ["solder", 3, 5, "top", []],
    ["contact", 3, 5, "top", ["no solder paste"]],
    ["copper", 3, 5, "top", ["no solder paste"]],
    ["solder", 3, 5, "bottom", ["the mask open"]],
    // under mask
    ["solder", 7, 5, "top", ["the mask open"]],
    // nothing but mask openings: light goes through
    ["window", 11, 5, "top", []],
    ["window", 3, 5, "top", ["no copper top", "no copper bottom", "the mask open on the bottom"]],
    // half open: a drawing, and no place to solder to
    ["drawing", 15, 5, "top", []],
    ["drawing", 11, 5, "top", ["something drawn on the top"]],
    ["copper", 15, 5, "top", ["the mask open"]],
    // a hole of 3 mm
    ["cutout", 18, 8, "top", []],
    ["window", 18, 8, "top", ["the mask open on the top", "the mask open on the bottom", "no hole in it"]],
    ["solder", 18, 8, "top", ["copper on the top", "the mask open", "no unplated hole in it"]],
    ["cutout", 3, 5, "top", ["no board there"]],
    // beside the board there is nothing at all
    ["cutout", 25, 5, "top", []],
    ["solder", 25, 5, "top", ["board there", "copper on the top", "the mask open"]],
  ] as const)("%s at %d/%d on the %s", (what, x, y, side, missed) => {
    expect(holds(what, x, y, side)).toEqual(missed);
  });

  test("a plated hole may be a part of what is soldered to, a contact has none", () => {
    const plated = readBoard([...BOARD.slice(0, 7), drill("b-pth.drl", [[0.6, [[3, 5]]]])]);
    const r = readPlace(plated, { x: 3, y: 5 }, 1.6);
    expect(r.drilled).toBe(0);
    expect(r.platedShare).toBeCloseTo(0.14, 1);
    const missed = (what: Intended) =>
      conditionsOf({ kind: "intended", at: [3, 5], diameterMm: 1.6, side: "top", what }, r)
        .filter((c) => !c.holds)
        .map((c) => c.asks);
    expect(missed("solder")).toEqual([]);
    expect(missed("copper")).toEqual(["no solder paste", "no hole in it"]);
  });

  test("the verdict with what the files have instead; open while they are read or could not be", () => {
    const spec = { kind: "intended", at: [7, 5], diameterMm: 1.6, side: "top", what: "solder" } as const;
    expect(judgeIntended(spec, at(7, 5))).toMatchObject({
      settled: "does-not-fit",
      because: "The files have mask open nowhere.",
    });
    expect(judgeIntended({ ...spec, at: [3, 5] }, at(3, 5))).toMatchObject({ settled: "fits" });
    expect(judgeIntended(spec, undefined)).toEqual({
      board: "1.6 mm around 7 / 5",
      because: "The files are being read at this place.",
    });
    expect(judgeIntended(spec, { ...at(3, 5), givenUp: ["copper top"] })).toMatchObject({
      because: "copper top could not be read at this place.",
    });
  });

  test("each inner layer is asked by itself", () => {
    const clear = at(11, 5);
    const inner = (name: string, share: number) => ({ role: "copper", side: "inner", name, share }) as const;
    const r = { ...clear, layers: [...clear.layers, inner("copper inner 1", 0), inner("copper inner 2", 1)] };
    const spec = { kind: "intended", at: [11, 5], diameterMm: 1.6, side: "top", what: "window" } as const;
    expect(judgeIntended(spec, r)).toMatchObject({
      settled: "does-not-fit",
      because: "The files have copper inner 2 everywhere.",
    });
  });

  test("without a mask layer nobody knows whether it is open: what fails otherwise fails, the rest is open", () => {
    const bare = readBoard(BOARD.filter((e) => !/\.gt?[bt]?s$/.test(e.path)));
    const judged = (what: Intended, x: number) =>
      judgeIntended(
        { kind: "intended", at: [x, 5], diameterMm: 1.6, side: "top", what },
        readPlace(bare, { x, y: 5 }, 1.6),
      );
    expect(judged("solder", 3)).not.toHaveProperty("settled");
    expect(judged("solder", 3).because).toBe(
      "There is no mask layer for the top: whether it is open there is not known.",
    );
    expect(judged("window", 11).because).toContain("for the top and the bottom");
    expect(judged("contact", 3)).toMatchObject({
      settled: "does-not-fit",
      because: "The files have paste everywhere.",
    });
    expect(judged("drawing", 7)).toHaveProperty("settled");
  });
});
