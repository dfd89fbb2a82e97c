import { describe, expect, test } from "@jest/globals";
import {
  area,
  drill,
  flash,
  layer,
  listedPoint,
  measure,
  netlist,
  rim,
  stroke,
} from "../../test/write-board.ts";
import type { Entry } from "../board/board-file.ts";
import { readPlace } from "../board/measure/place.ts";
import type { Measure } from "../board/measure-document.ts";
import { readBoard } from "../board/read/read.ts";
import { MEASURES } from "../fab/measures.ts";
import { LESSON_SHAPES } from "../shape/lesson.ts";
import { type BoardLesson, judgeOnBoard, type LearnBoard, ON_BOARD } from "./judge-board.ts";
import type { LessonCheck } from "./lesson.ts";
import { lessonWords } from "./lesson.ts";
import { lessonPlaces } from "./lesson-places.ts";
import { proposeLessons, triedInFiles } from "./propose.ts";

/*
 * A board of 30 × 20 at 0/0: D1 and D2 of two pads each, 1.6 mm apart (D1 along x, D2 along y), J1 with one pad the mask
 * lets bare and one it covers; a track, a slot. Each size is given, so that a board may pass or fail by a hair.
 */
interface Sizes {
  readonly trackMm?: number;
  readonly slotMm?: number;
  readonly apartMm?: number;
  readonly maskOpen?: readonly number[];
  readonly without?: readonly string[];
  readonly ink?: string;
}
const pad = (x: number, y: number) =>
  area([x - 0.5, y - 0.5], [x + 0.5, y - 0.5], [x + 0.5, y + 0.5], [x - 0.5, y + 0.5]);

function board({
  trackMm = 0.2,
  slotMm = 1.5,
  apartMm = 1.6,
  maskOpen = [10, 14],
  without = [],
  ink = "",
}: Sizes = {}) {
  const h = apartMm / 2;
  const d1 = [
    [5 - h, 5],
    [5 + h, 5],
  ] as const;
  const d2 = [
    [5, 12 - h],
    [5, 12 + h],
  ] as const;
  const j1 = [
    [10, 5],
    [14, 5],
  ] as const;
  const pads = [...d1, ...d2, ...j1];
  const entries: Entry[] = [
    rim(30, 20),
    layer(
      "b.gtl",
      `%ADD11R,1X1*%\n%ADD12C,${trackMm}*%\nD11*\n${pads.map(([x, y]) => flash(x, y)).join("")}D12*\n${stroke(20, 5, 25, 5)}`,
    ),
    layer("b.gbl", area([1, 1], [2, 1], [2, 2], [1, 2])),
    layer(
      "b.gts",
      [...d1, ...d2, ...maskOpen.map((x) => [x, 5] as const)].map(([x, y]) => pad(x, y)).join(""),
    ),
    layer("b.gto", `%ADD10C,0.15*%\nD10*\n${stroke(25, 15, 28, 15)}${ink}`),
    drill("b-npth.drl", [[3, [[27, 3]]]]),
    {
      path: "slots-npth.drl",
      bytes: new TextEncoder().encode(
        `M48\nMETRIC,TZ\nT1C${slotMm.toFixed(3)}\n%\nT1\nX20.000Y15.000G85X24.000Y15.000\nM30\n`,
      ),
    },
    netlist(
      ...pads.map(([x, y], i) =>
        listedPoint(`N${i}`, ["D1", "D1", "D2", "D2", "J1", "J1"][i]!, String((i % 2) + 1), x, y),
      ),
    ),
  ].filter((e) => !without.some((w) => e.path.startsWith(w)));
  return entries;
}
const asSeen = (entries: Entry[], check: LessonCheck): LearnBoard => {
  const m = measure(entries);
  const set = readBoard(entries);
  const places = lessonPlaces(check, m).map(({ pin, x, y, diameterMm }) => ({
    pin,
    x,
    y,
    reading: readPlace(set, { x, y }, diameterMm),
  }));
  return { measure: m, options: {}, sides: new Map(), ...(check.kind === "place" ? { places } : {}) };
};
const judged = (check: BoardLesson, sizes: Sizes = {}) => judgeOnBoard(check, asSeen(board(sizes), check));

const SLOT = { kind: "slot", at: [22, 15], leastMm: 1.45 } as const;
const TRACK = { kind: "measure", key: "minTrackMm", limit: 0.15 } as const;
const PADS = { kind: "place", what: "solder", side: "top", diameterMm: 0.4, pins: ["J1.1", "J1.2"] } as const;
const LANDS = {
  kind: "pattern",
  letters: "D",
  pins: ["1", "2"],
  at: [
    [-0.8, 0],
    [0.8, 0],
  ],
} as const;
const MARKED = { kind: "marked", letters: "D" } as const;
const BARE_CONTACTS = { kind: "contacts", what: "mask" } as const;

describe("a lesson on boards that pass and fail by a hair", () => {
  test.each<[string, BoardLesson, Sizes, string, RegExp]>([
    ["a slot of the least width", SLOT, { slotMm: 1.45 }, "holds", /1\.45 mm wide and 5\.45/],
    ["one a micrometre narrower", SLOT, { slotMm: 1.449 }, "broken", /1\.449 mm wide/],
    ["a slot somewhere else", { ...SLOT, at: [22, 11.9] }, {}, "not-there", /No slot lies within 3 mm/],
    ["just near enough to be it", { ...SLOT, at: [22, 12.1] }, {}, "holds", /wide/],
    ["no closed outline: no corner", SLOT, { without: ["b.gko"] }, "unknown", /no corner/],
    ["a track of the least width", TRACK, { trackMm: 0.15 }, "holds", /0\.15 mm/],
    ["one a micrometre narrower", TRACK, { trackMm: 0.149 }, "broken", /0\.149 mm/],
    ["a measure the files do not tell", { ...TRACK, key: "minAnnularMm" }, {}, "unknown", /do not tell/],
    [
      "no slot at all to be too narrow",
      { ...TRACK, key: "slots" },
      { without: ["slots"] },
      "not-there",
      /no slot/,
    ],
    ["every slot wide enough", { ...TRACK, key: "slots", limit: 1.5 }, {}, "holds", /1\.5 mm/],
    ["pads the mask leaves bare", PADS, {}, "holds", /so it is/],
    [
      "one of them under mask",
      PADS,
      { maskOpen: [10] },
      "broken",
      /^J1\.2: The files have mask open nowhere/,
    ],
    ["a pin that is gone", { ...PADS, pins: ["J1.1", "J1.9"] }, {}, "not-there", /no J1\.9; the one place/],
    [
      "a pin that is gone and one that is wrong",
      { ...PADS, pins: ["J1.2", "J1.9"] },
      { maskOpen: [10] },
      "broken",
      /J1\.2/,
    ],
    ["all pins gone", { ...PADS, pins: ["K1.1"] }, {}, "not-there", /no K1\.1/],
    ["no file tells pins", PADS, { without: ["b.ipc"] }, "unknown", /which pads/],
    [
      "no mask file: not known",
      PADS,
      { without: ["b.gts"] },
      "unknown",
      /whether it is open there is not known/,
    ],
    ["lands as they were, turned too", LANDS, {}, "broken", /^D1, D2 have it/],
    ["pads a tenth further apart", LANDS, { apartMm: 1.7 }, "holds", /lie otherwise/],
    ["within what pads of one pattern differ by", LANDS, { apartMm: 1.61 }, "broken", /D1/],
    ["parts of other letters", { ...LANDS, letters: "Q" }, {}, "not-there", /no Q/],
    ["pins of other names", { ...LANDS, pins: ["A", "K"] }, {}, "holds", /lie otherwise/],
    ["no file tells pins", LANDS, { without: ["b.ipc"] }, "unknown", /which pads/],
    ["nothing tells the way round", MARKED, {}, "broken", /D1, D2/],
    ["of one it is told", MARKED, { ink: stroke(3.4, 4.4, 3.4, 5.6) }, "broken", /of D2\.$/],
    ["no such parts", { kind: "marked", letters: "U" }, {}, "not-there", /no U/],
    ["no file tells pins", MARKED, { without: ["b.ipc"] }, "unknown", /which pads/],
    ["no contacts at the edge", BARE_CONTACTS, {}, "not-there", /no contacts/],
  ])("%s", (_, check, sizes, verdict, found) => {
    const j = judged(check, sizes);
    expect([j.verdict, j.found]).toEqual([verdict, expect.stringMatching(found)]);
  });

  test("rows of contacts: what is not known of one is no pass, a fault of either is one", () => {
    const row = {
      count: 8,
      pitchMm: 2.54,
      widthMm: 1.5,
      lengthMm: 6,
      setbackMm: 0.3,
      edge: "bottom",
    } as const;
    const on = (top: object, bottom?: object) =>
      judgeOnBoard(BARE_CONTACTS, {
        measure: {
          ...measure(board()),
          edgeContacts: { top: { ...row, ...top }, ...(bottom ? { bottom: { ...row, ...bottom } } : {}) },
        } as Measure,
        options: {},
        sides: new Map(),
      });
    expect(on({ maskBetween: 0 }).verdict).toBe("holds");
    expect(on({ maskBetween: 1 })).toMatchObject({ verdict: "broken", found: "Top: 1 gaps with mask." });
    expect(on({}).verdict).toBe("unknown");
    expect(on({ maskBetween: 0 }, {}).verdict).toBe("unknown");
    expect(on({}, { maskBetween: 2 }).verdict).toBe("broken");
    const set = (leastMm: number) =>
      judgeOnBoard(
        { kind: "contacts", what: "setback", leastMm },
        { measure: { ...measure(board()), edgeContacts: { top: row } }, options: {}, sides: new Map() },
      ).verdict;
    expect([set(0.3), set(0.301)]).toEqual(["holds", "broken"]);
  });

  test("places that are still being read are not judged, and one that was read elsewhere does not count", () => {
    const { places, ...unread } = asSeen(board(), PADS);
    expect(judgeOnBoard(PADS, unread)).toMatchObject({ verdict: "unknown", found: /being read/ });
    const moved = places!.map((p) => ({ ...p, x: p.x + 0.1 }));
    expect(judgeOnBoard(PADS, { ...unread, places: moved }).verdict).toBe("unknown");
  });

  test("of more pads than are looked at the rest is not taken for as wanted; a wrong one among those is still told", () => {
    const m = measure(board());
    const pad = (i: number) => ({ layer: "top", x: i, y: 0, pin: `U1.${i}` });
    const many = Array.from({ length: 250 }, (_, i) => pad(i));
    const big = { ...m, nets: { count: 1, islands: [{ net: 1, pads: many }] } };
    // two hundred names that stand for more pads, as every second pin has two
    const check = { ...PADS, pins: many.slice(0, 200).map((p) => p.pin) };
    const doubled = {
      ...big,
      nets: { count: 1, islands: [{ net: 1, pads: [...many, { ...pad(0), y: 5 }] }] },
    };
    const reading = {
      layers: [
        { role: "copper", side: "top", name: "copper top", share: 1 },
        { role: "mask", side: "top", name: "mask top", share: 1 },
      ],
      board: 1,
      drilled: 0,
      platedShare: 0,
      givenUp: [],
    } as const;
    const seen = (measured: Measure, wrong?: number) => ({
      measure: measured,
      options: {},
      sides: new Map(),
      places: lessonPlaces(check, measured).map(({ pin, x, y }, i) => ({
        pin,
        x,
        y,
        reading: i === wrong ? { ...reading, layers: [] } : reading,
      })),
    });
    expect(judgeOnBoard(check, seen(big)).verdict).toBe("holds");
    expect(judgeOnBoard(check, seen(doubled))).toMatchObject({
      verdict: "unknown",
      found: "200 of 201 pads are as wanted; more are not looked at.",
    });
    expect(judgeOnBoard(check, seen(doubled, 7)).verdict).toBe("broken");
    // and of a part with more pads than that no such check is proposed
    expect(
      proposeLessons(
        { place: "U1", words: "", code: "open" },
        { measure: big, options: {}, sides: new Map() },
      ).some((p) => p.check.kind === "place"),
    ).toBe(false);
  });

  test("a board whose work was given up has not passed for it", () => {
    const seen = asSeen(board({ ink: stroke(3.4, 4.4, 3.4, 5.6) + stroke(4.4, 10.4, 5.6, 10.4) }), MARKED);
    expect(judgeOnBoard(MARKED, seen).verdict).toBe("holds");
    const findings = [
      ...seen.measure.findings,
      { tag: "budget-reached", level: "error", text: "Given up." } as const,
    ];
    expect(judgeOnBoard(MARKED, { ...seen, measure: { ...seen.measure, findings } }).verdict).toBe("unknown");
  });
});

test("every check has words that say what is wanted", () => {
  const checks: LessonCheck[] = [
    ...MEASURES.map((m) => ({ kind: "measure", key: m.key, limit: 0.2 }) as const),
    SLOT,
    PADS,
    { ...PADS, pins: undefined, at: [1, 2] } as never,
    LANDS,
    MARKED,
    BARE_CONTACTS,
    { kind: "part", mpn: "X-1" },
    { kind: "part", mpn: "X-1", made: { from: "2025-09-29" } },
    { kind: "lot", id: "l", name: "L1" },
    { kind: "house", id: "h", name: "FAR" },
    { kind: "machine", id: "m", name: "Plate" },
    { kind: "program", name: "watch", version: "1.4" },
    { kind: "asked" },
  ];
  for (const c of checks) expect(lessonWords(c)).toMatch(/^[a-zA-Z0-9].{6,}[^.]$/);
  expect(new Set(checks.map((c) => c.kind)).size).toBe(ON_BOARD.length + 6);
});

describe("checks that are proposed would have caught it", () => {
  const seen = () => asSeen(board(), MARKED);
  test("a part the wrong way round: its mark, its lands, and a question last", () => {
    const list = proposeLessons({ code: "wrong way round", place: "D1", words: "D1 put on turned" }, seen());
    expect(list.map((p) => [p.check.kind, p.here?.verdict])).toEqual([
      ["marked", "broken"],
      ["pattern", "broken"],
      ["asked", undefined],
    ]);
    expect(list[1]!.check).toEqual(LANDS);
    expect(list.at(-1)!.title).toBe("D1 put on turned");
  });
  test("what held on the board is not proposed: marked parts, a measure the files do not tell", () => {
    const marked = asSeen(board({ ink: stroke(3.4, 4.4, 3.4, 5.6) + stroke(4.4, 10.4, 5.6, 10.4) }), MARKED);
    const kinds = proposeLessons({ code: "wrong way round", place: "D1", words: "" }, marked).map(
      (p) => p.check.kind,
    );
    expect(kinds).toEqual(["pattern", "asked"]);
  });
  test("a measure's limit is the next step above what it was, and fails there", () => {
    for (const [trackMm, limit] of [
      [0.149, 0.15],
      [0.15, 0.2],
      [0.2, 0.25],
      [0.201, 0.25],
    ] as const) {
      const b = asSeen(board({ trackMm }), MARKED);
      const [first] = proposeLessons({ place: "", words: "torn", measure: "minTrackMm" }, b);
      expect(first).toMatchObject({
        check: { kind: "measure", key: "minTrackMm", limit },
        here: { verdict: "broken" },
      });
    }
  });
  test("a part that was dead is doubted, one joint is looked at by its pin, nothing is made up for a board", () => {
    const of = (e: Parameters<typeof proposeLessons>[0]) => proposeLessons(e, seen()).map((p) => p.check);
    expect(of({ code: "dead", place: "D1", mpn: "SB-140", words: "dead" })).toEqual([
      { kind: "part", mpn: "SB-140" },
      { kind: "asked" },
    ]);
    expect(of({ code: "not wetted", place: "J1.2", words: "" })).toContainEqual({
      ...PADS,
      pins: ["J1.2"],
    });
    // two pads are every diode's: a bad joint on them is no lesson against them, a footprint is
    const kinds = (code: "cold" | "footprint") => of({ code, place: "D1", words: "" }).map((c) => c.kind);
    expect(kinds("cold")).toEqual(["place", "asked"]);
    expect(kinds("footprint")).toEqual(["pattern", "place", "asked"]);
    expect(of({ code: "handling", place: "", words: "dropped" })).toEqual([{ kind: "asked" }]);
    expect(of({ code: "footprint", place: "Z9", words: "?" })).toEqual([{ kind: "asked" }]);
  });
  test("a place is tried in the files before it is proposed: what holds there is left out, what would have caught it comes first", () => {
    const left = (sizes: Sizes, isRead = true) => {
      const entries = board(sizes);
      const b = asSeen(entries, MARKED);
      const list = proposeLessons({ code: "not wetted", place: "J1.2", mpn: "SB-2W", words: "dull" }, b);
      return triedInFiles(list, b, (c) => (isRead ? asSeen(entries, c).places : undefined)).map((p) => [
        p.check.kind,
        p.here?.verdict,
      ]);
    };
    // its mask is closed over J1.2
    expect(left({ maskOpen: [10] })).toEqual([
      ["place", "broken"],
      ["part", undefined],
      ["asked", undefined],
    ]);
    expect(left({ maskOpen: [10, 14] })).toEqual([
      ["part", undefined],
      ["asked", undefined],
    ]);
    expect(left({ maskOpen: [10] }, false).map(([kind]) => kind)).toContain("place");
  });
  test("what is proposed can be kept: a long story is cut between two letters, a number no part has is left out", () => {
    const words = `${"x".repeat(198)}\u{1F525} and so on`;
    const list = proposeLessons({ code: "dead", place: "D1", mpn: "M".repeat(121), words }, seen());
    expect(list.map((p) => [p.check.kind, p.title])).toEqual([["asked", `${"x".repeat(198)}…`]]);
    for (const p of list) expect(LESSON_SHAPES.title(p.title, "title")).toBeUndefined();
  });
});
