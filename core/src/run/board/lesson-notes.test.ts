import { expect, test } from "@jest/globals";
import type { RunLesson } from "../../learn/lesson.ts";
import type { RunDocument, RunLine } from "../document/document.ts";
import type { Note } from "../document/note.ts";
import { FAR, madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { judgeLessons, type LearnFrom } from "../stage/lessons.ts";
import { lessonNotes, openLessons } from "./lesson-notes.ts";

const lesson = (check: RunLesson["check"], more: Partial<RunLesson> = {}): RunLesson => ({
  id: "l",
  title: "Never that again",
  check,
  level: "error",
  sure: "certain",
  came: "a claim",
  evidence: "",
  since: "2026-03-01",
  ...more,
});
const line = (more: Partial<RunLine>) => madeLine("a", ["D1", "D2"], { mpn: "SB-140", ...more });
const from = (doc: Partial<RunDocument>, more: Partial<LearnFrom> = {}): LearnFrom => ({
  doc: madeRun({ lines: [line({})], ...doc }),
  needs: [],
  goes: new Set(["stencil", "iron"]),
  ...more,
});
const verdict = (check: RunLesson["check"], doc: Partial<RunDocument> = {}, more: Partial<LearnFrom> = {}) =>
  judgeLessons(from({ ...doc, lessons: [lesson(check)] }, more)).map((s) => [
    s.verdict,
    s.found,
    s.lines ?? [],
  ]);
function notes(f: LearnFrom): Partial<Note>[] {
  const out: Partial<Note>[] = [];
  lessonNotes(f, (stage, key, level, text, more) => out.push({ stage, key, level, text, ...more }));
  return out;
}

const PART = { kind: "part", mpn: "sb-140 " } as const;
const spare = { id: "p9", mpn: "SB-140", maker: "", description: "", kind: "diode", package: "" } as never;
test.each<[string, Partial<RunDocument>, string, RegExp, string[]]>([
  ["written otherwise, still it", {}, "broken", /in the bill: D1, D2/, ["a"]],
  ["not fitted", { lines: [line({ dnp: true })] }, "holds", /No line/, []],
  [
    "not fitted in this variant",
    { variants: [{ id: "v", name: "v", overrides: { a: { dnp: true } } }], choices: { variant: "v" } },
    "holds",
    /No line/,
    [],
  ],
  [
    "taken by this variant",
    {
      lines: [line({ mpn: "X-1" })],
      variants: [{ id: "v", name: "v", overrides: { a: { mpn: "SB-140" } } }],
      choices: { variant: "v" },
    },
    "broken",
    /D1/,
    ["a"],
  ],
  [
    "another part, which it may stand in for",
    {
      lines: [line({ mpn: "X-1" })],
      library: [spare],
      alternates: [{ original: "X-1", part: "p9", state: "approved", because: "", by: "", at: "2026-01-01" }],
    },
    "broken",
    /in place of X-1/,
    ["a"],
  ],
  [
    "it was refused for that",
    {
      lines: [line({ mpn: "X-1" })],
      library: [spare],
      alternates: [{ original: "X-1", part: "p9", state: "refused", because: "", by: "", at: "2026-01-01" }],
    },
    "holds",
    /No line/,
    [],
  ],
  [
    "a line without a number may be it",
    { lines: [line({ mpn: "X-1" }), line({ id: "b", mpn: "" })] },
    "unknown",
    /one line has none/,
    [],
  ],
])("a part that is doubted: %s", (_, doc, want, found, lines) => {
  expect(verdict(PART, doc)).toEqual([[want, expect.stringMatching(found), lines]]);
});

test("a lot counts where something is taken of it, not where it lies", () => {
  const lot = {
    id: "l7",
    mpn: "SB-140",
    qty: 9,
    place: "A",
    receivedOn: "2026-01-01",
    unitCost: 1,
    currency: "EUR",
    condition: "new",
  } as const;
  const LOT = { kind: "lot", id: "l7", name: "bag of May" } as const;
  const need = (id: string, qty: number) => ({
    lines: ["a"],
    need: 0,
    shelf: [{ lot: { ...lot, id }, qty, cost: 0 as never }],
  });
  expect(verdict(LOT, { lots: [lot] })).toEqual([["holds", "Nothing of it is taken.", []]]);
  expect(verdict(LOT)).toEqual([["holds", "It is not among what this run finds.", []]]);
  expect(verdict(LOT, {}, { needs: [need("l7", 4), need("l8", 5)] })).toEqual([
    ["broken", "4 pieces of it would be taken from the shelf.", ["a"]],
  ]);
});

test("of a part that is doubted in some weeks the bags tell, by their date codes", () => {
  const check = { kind: "part", mpn: "SB-140", made: { from: "2025-09-29", to: "2025-11-09" } } as const;
  const lines = [madeLine("a", ["D1"], { mpn: "sb-140" })];
  const bag = (made: string | undefined, qty: number, mpn = "SB-140") => ({
    lot: {
      id: `l${made}`,
      mpn,
      qty: 9,
      place: "A",
      receivedOn: "2026-01-01",
      unitCost: 1,
      currency: "EUR",
      condition: "new",
      ...(made === undefined ? {} : { made }),
    } as const,
    qty,
    cost: 0 as never,
  });
  const of = (need: number, ...shelf: ReturnType<typeof bag>[]) =>
    verdict(check, { lines }, { needs: [{ lines: ["a"], need, shelf }] })[0]!.slice(0, 2);
  expect(of(0, bag("2539", 4), bag("2541", 3), bag("2545", 1))).toEqual([
    "broken",
    "Of what would be taken from the shelf, 4 pieces were made then.",
  ]);
  expect(of(0, bag("2539", 4), bag("2546", 1))).toEqual([
    "holds",
    "What is taken from the shelf was made on other days.",
  ]);
  expect(of(0, bag("2539", 4), bag(undefined, 1), bag("Sep 2025", 2))).toEqual([
    "unknown",
    "Not known of 3 pieces on the shelf without a date code that tells.",
  ]);
  expect(of(2, bag("2539", 4))).toEqual([
    "unknown",
    "Not known of 2 pieces to be bought, which tell it when they come.",
  ]);
  // a bag of what stands in for it says nothing of it
  expect(of(5, bag("2541", 4, "OTHER-1"))[0]).toBe("unknown");
  // and where that is all there is, nothing of it is taken
  expect(of(0, bag("2541", 4, "OTHER-1"))).toEqual(["holds", "Nothing of it is taken."]);
  expect(of(0, bag("2541", 1))[1]).toBe("Of what would be taken from the shelf, 1 piece was made then.");
  // where the part is not used at all, no bag matters
  const other = [madeLine("a", ["D1"], { mpn: "ELSE-1" })];
  expect(verdict(check, { lines: other }, { needs: [] })[0]![0]).toBe("holds");
});

test("a house counts for what is ordered there, a machine for what the run is made with", () => {
  const HOUSE = { kind: "house", id: FAR.id, name: "FAR" } as const;
  expect(verdict(HOUSE, { house: FAR })[0]).toEqual(["broken", "It is chosen for the boards.", []]);
  expect(verdict({ ...HOUSE, id: "other" }, { house: FAR })[0]![0]).toBe("holds");
  const assembly = { ...madeRun({}).assembly, house: FAR.id, foilHouse: FAR.id };
  const goes = (...ways: ("stencil" | "house" | "iron")[]) =>
    verdict(HOUSE, { assembly }, { goes: new Set(ways) })[0]![1];
  expect([goes(), goes("iron"), goes("stencil"), goes("house"), goes("house", "stencil")]).toEqual([
    "Nothing is ordered there.",
    "Nothing is ordered there.",
    "It is chosen for the foil.",
    "It is chosen for the parts that are placed.",
    "It is chosen for the parts that are placed and the foil.",
  ]);
  const plate = {
    id: "m",
    kind: "plate",
    name: "Tile",
    facts: {},
    can: "",
    cannot: "",
    hours: 0,
    state: "ready",
  } as const;
  const MACHINE = { kind: "machine", id: "m", name: "Tile" } as const;
  const on = (more: object, heater?: "plate" | "oven", goes: LearnFrom["goes"] = new Set(["stencil"])) =>
    verdict(
      MACHINE,
      {
        equipment: [{ ...plate, ...more }],
        assembly: { ...madeRun({}).assembly, ...(heater ? { heater } : {}) },
      },
      { goes },
    )[0]![0];
  expect([
    on({}, "plate"),
    on({}, "oven"),
    on({}),
    on({ state: "broken" }, "plate"),
    on({}, "plate", new Set(["iron"])),
    on({ kind: "iron" }, undefined, new Set(["iron"])),
    on({ kind: "washer" }),
    verdict(MACHINE)[0]![0],
  ]).toEqual(["broken", "holds", "unknown", "holds", "holds", "broken", "unknown", "not-there"]);
  // doubted in somebody's hands alone: who will sit at it nobody knows yet
  const hands = { ...MACHINE, person: "Ida" };
  const assembly2 = { ...madeRun({}).assembly, heater: "plate" as const };
  const inHands = (more: object) =>
    verdict(
      hands,
      { equipment: [{ ...plate, ...more }], assembly: assembly2 },
      { goes: new Set(["stencil"]) },
    )[0]!;
  expect(inHands({}).slice(0, 2)).toEqual([
    "ask",
    "It melts the paste of this run. Who sits at it is not written down.",
  ]);
  expect(inHands({ state: "broken" })[0]).toBe("holds");
});

test("a program is doubted by its name and version; of an image without one nobody can tell", () => {
  const loaded = (version: string, of: { name?: string; version?: string } = {}) =>
    verdict(
      { kind: "program", name: "watch", version: "1.4", ...of },
      {
        assembly: {
          ...madeRun({}).assembly,
          images: [{ id: "i", at: "U1", name: "Watch", version }] as never,
        },
      },
    )[0]!.slice(0, 2);
  expect(loaded("1.4")).toEqual(["broken", "It is loaded at U1."]);
  expect(loaded(" 1.4 ")[0]).toBe("broken");
  expect(loaded("1.5")).toEqual(["holds", "Another is loaded: 1.5."]);
  expect(loaded("1.5", { version: "" })[0]).toBe("broken");
  expect(loaded("")).toEqual(["unknown", "Which version of watch is loaded is not said."]);
  expect(loaded("1.4", { name: "clock" })).toEqual(["holds", "It is not loaded."]);
  expect(verdict({ kind: "program", name: "watch", version: "1.4" })[0]![0]).toBe("holds");
});

test("what does not hold blocks or wants a look as it was said, where something can be done; with its origin, its place, its board", () => {
  const boards = [
    {
      id: "b1",
      name: "Main",
      perProduct: 1,
      measure: madeMeasure({ minTrackMm: 0.12, minTrackAt: [{ layer: "top", x: 1, y: 2 }] }),
    },
    { id: "b2", name: "Side", perProduct: 1, measure: madeMeasure() },
  ];
  const TRACK = { kind: "measure", key: "minTrackMm", limit: 0.15 } as const;
  const lessons = [lesson(TRACK, { sure: "likely" }), lesson(PART, { id: "p", level: "warning" })];
  expect(notes(from({ boards, lessons, lines: [line({ board: "b1" })] }))).toEqual([
    {
      stage: "board",
      key: "learned l b1 broken",
      level: "error",
      text: "Learned from a claim (2026-03-01): Never that again. Likely, not certain. Here it is not so: Measured: 0.12 mm.",
      do: "Mend it, or accept it with the reason why it may be so here.",
      at: { layer: "top", x: 1, y: 2 },
      board: "b1",
    },
    expect.objectContaining({ stage: "parts", key: "learned p broken", level: "warning", lines: ["a"] }),
  ]);
});

test("what cannot be told or is not there is never silent and never a pass; what this product is let off is", () => {
  const SLOT = { kind: "slot", at: [6, 34], leastMm: 1.45 } as const;
  const boards = [{ name: "Main", perProduct: 1, measure: madeMeasure() }];
  const say = (check: RunLesson["check"], more: Partial<RunLesson> = {}) =>
    notes(from({ boards, lessons: [lesson(check, more)] })).map((n) => [n.level, n.key]);
  expect(say(SLOT)).toEqual([["warning", "learned l not-there"]]);
  expect(say({ kind: "marked", letters: "D" })).toEqual([["warning", "learned l unknown"]]);
  expect(say({ kind: "asked" })).toEqual([["error", "learned l ask"]]);
  // a rule about contacts says nothing of a board without any
  expect(say({ kind: "contacts", what: "bars" })).toEqual([]);
  expect(say({ kind: "asked" }, { relaxedBecause: "never sold" })).toEqual([]);
});

test("of a lesson that is open on several boards stands what nobody accepted, the worst of it; what holds or is let off stands nowhere", () => {
  const narrow = madeMeasure({ minTrackMm: 0.12 });
  const { minTrackMm: _, ...untold } = madeMeasure();
  const boards = [
    { id: "b1", name: "Main", perProduct: 1, measure: narrow },
    { id: "b2", name: "Side", perProduct: 1, measure: untold },
    { id: "b3", name: "Tail", perProduct: 1, measure: madeMeasure({ minTrackMm: 0.3 }) },
  ];
  const TRACK = { kind: "measure", key: "minTrackMm", limit: 0.15 } as const;
  const lessons = [
    lesson(TRACK),
    lesson({ kind: "asked" }, { id: "q" }),
    lesson({ ...TRACK, limit: 0.1 }, { id: "fine", relaxedBecause: "its own rule" }),
    lesson({ kind: "contacts", what: "bars" }, { id: "none" }),
  ];
  const f = from({ boards, lessons });
  const open = (accepted: Record<string, string> = {}) =>
    openLessons(
      f.doc,
      judgeLessons(f),
      notes(f).map(({ key }) => ({
        key: key!,
        ...(accepted[key!] ? { acceptedBecause: accepted[key!]! } : {}),
      })),
    );
  const q = { is: "ask", found: "It cannot be measured: somebody has to look." };
  expect(open()).toEqual({ l: { is: "broken", found: "Measured: 0.12 mm." }, q });
  expect(open({ "learned l b1 broken": "tried" })).toMatchObject({ l: { is: "unknown" }, q });
  expect(open({ "learned l b1 broken": "tried", "learned l b2 unknown": "looked" })).toEqual({
    l: { is: "broken", found: "Measured: 0.12 mm.", because: "tried" },
    q,
  });
});
