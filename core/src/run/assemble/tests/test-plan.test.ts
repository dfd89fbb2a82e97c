import { expect, test } from "@jest/globals";
import type { RunDocument, TestItem } from "../../document/document.ts";
import type { Note } from "../../document/note.ts";
import { madeMeasure, madeTest } from "../../made-up.fixture.ts";
import { rollUp } from "../../roll-up.ts";
import { twoSided } from "../../two-sided.fixture.ts";
import { planOfRun } from "../steps-document.ts";
import { comesOf, coverageOf, proposedTests, testPlanNotes } from "./test-plan.ts";

const pad = (pin: string, x: number) => ({ layer: "top", x, y: 1, pin });
// V5: J1.1 R1.1 U1.1; OUT: R1.2 U1.2 TP1.1; IN: U1.3 J1.2; a net without a name: U1.4 R2.1; R2.2 alone on GND with J1.3
const islands = [
  { net: 0, name: "V5", pads: [pad("J1.1", 1), pad("R1.1", 2), pad("U1.1", 3)] },
  { net: 1, name: "OUT", pads: [pad("R1.2", 4), pad("U1.2", 5), pad("TP1.1", 6)] },
  { net: 2, name: "IN", pads: [pad("U1.3", 7), pad("J1.2", 8)] },
  { net: 3, pads: [pad("U1.4", 9), pad("R2.1", 10)] },
  { net: 4, name: "GND", pads: [pad("R2.2", 11), pad("J1.3", 12), { layer: "top", x: 13, y: 1 }] },
];
const made = (...tests: TestItem[]): RunDocument => {
  const doc = twoSided({ method: "stencil", ...(tests.length > 0 ? { tests } : {}) });
  const measure = madeMeasure({ nets: { count: 5, islands } as never });
  return { ...doc, boards: [{ ...doc.boards[0]!, measure }] };
};
const stands = (doc: RunDocument) => Object.fromEntries(coverageOf(doc)!.pins.map((p) => [p.name, p.stand]));

test("pins are tested by an item that names their part, implied by others on their net, else never; by hand", () => {
  const doc = made(madeTest("supply", { drives: ["J1.1"], reads: ["TP1"], through: ["R1"] }));
  expect(stands(doc)).toEqual({
    "J1.1": "tested",
    "R1.1": "tested",
    "U1.1": "implied",
    "R1.2": "tested",
    "U1.2": "implied",
    "TP1.1": "tested",
    "U1.3": "never",
    "J1.2": "never",
    "U1.4": "never",
    "R2.1": "never",
    "R2.2": "never",
    "J1.3": "never",
  });
  expect(coverageOf(made())!.cover.pins).toEqual({ tested: 0, implied: 0, never: 12 });
  expect(coverageOf(twoSided({}))).toBeUndefined();
});

test("an item that exercises nothing is told with its reason and left out, and blocks no other", () => {
  const doc = made(
    madeTest("nothing"),
    madeTest("nobody", { reads: ["U9.1"] }),
    madeTest("wide", { reads: ["U1"] }),
    madeTest("good", { reads: ["U1.3"], through: ["U1"] }),
  );
  const c = coverageOf(doc)!;
  expect(c.idle).toEqual([
    { id: "nothing", because: "it drives and reads nothing" },
    { id: "nobody", because: "U9.1 is on no board" },
    { id: "wide", because: "U1 has 4 pins: say which" },
  ]);
  expect([c.cover.pins.tested, c.minutes]).toEqual([1, 2]);
  const notes = rollUp(doc).notes.filter((n) => n.key.startsWith("test-"));
  expect(notes.map((n) => [n.key.split(" ")[0], n.level])).toEqual([
    ["test-idle", "warning"],
    ["test-minutes", "remark"],
  ]);
  expect(
    rollUp(made(madeTest("a", { reads: ["U1.3"], minutes: 1.5 }))).notes.some((n) =>
      n.key.startsWith("test-"),
    ),
  ).toBe(false);
});

test("what would say most is proposed where a needle gets at it, with the pins that leave never when it is added", () => {
  const doc = made(madeTest("supply", { drives: ["J1.1"], reads: ["TP1"] }));
  const before = coverageOf(doc)!;
  const list = proposedTests(doc, before);
  expect(list.map((p) => [p.net, p.read, p.gains])).toEqual([
    ["IN", "J1.2", 2],
    ["net 3", "R2.1", 2],
  ]);
  for (const p of list) {
    const after = coverageOf(made(...doc.assembly.tests!, madeTest("more", { reads: [p.read] })))!;
    expect(before.cover.pins.never - after.cover.pins.never).toBe(p.gains);
  }
});

test("the plan stands at the test, and on every board of several by its name", () => {
  const doc = made(madeTest("5 V is there", { reads: ["U1.1"], expect: "4.9 to 5.1 V" }));
  const how = planOfRun(doc, rollUp(doc)).sheet.steps.find((s) => s.kind === "test")!.how;
  expect(how).toContain("1. 5 V is there: 4.9 to 5.1 V; a pass says something of 1 pin.");
  // one of twelve pins is read, two more hang on its net
  expect(how).toContain("Of 12 pins 1 is tested, 2 implied, 9 never: of those a pass says nothing.");
  const [b] = doc.boards;
  const two = { ...doc, boards: [b!, { ...b!, id: "c", name: "C" }] };
  const names = coverageOf(two)!.pins.map((p) => p.name);
  expect(names).toContain("U1 of C.1");
  expect(new Set(names).size).toBe(24);
});

test("readings are held against limits by a meter whose day to be checked is past: told where no other is known to be true", () => {
  const meter = (id: string, trueUntil?: string, state = "ready") =>
    ({
      id,
      kind: "meter",
      name: `meter ${id}`,
      can: "",
      cannot: "",
      hours: 0,
      state,
      facts: trueUntil ? { trueUntil } : {},
    }) as never;
  const notes = (unit: TestItem["unit"], ...equipment: never[]) => {
    const out: Partial<Note>[] = [];
    const doc = {
      ...made(
        madeTest("supply", {
          drives: ["J1.1"],
          reads: ["TP1"],
          ...(unit ? { unit, min: "1", max: "2" } : {}),
        }),
      ),
      equipment,
      today: "2026-11-12",
    };
    testPlanNotes(doc, (_, key, level, text) => out.push({ key, level, text }));
    return out.filter((n) => n.key!.startsWith("meter-due"));
  };
  expect(notes("V", meter("a", "2026-11-11"))).toEqual([
    {
      key: "meter-due a 2026-11-11",
      level: "warning",
      text: "meter a was to be checked by 2026-11-11: what it reads near a limit proves nothing.",
    },
  ]);
  expect(notes("V", meter("a", "2026-11-12"))).toEqual([]);
  // nothing is said of b, c is true: one of them may be what is read
  expect(notes("V", meter("a", "2026-11-11"), meter("b"))).toEqual([]);
  expect(notes("V", meter("a", "2026-11-11"), meter("c", "2027-01-31"))).toEqual([]);
  expect(notes("V", meter("a", "2026-11-11"), meter("c", "2027-01-31", "broken"))).toHaveLength(1);
  expect(notes("V")).toEqual([]);
  expect(notes(undefined, meter("a", "2026-11-11"))).toEqual([]);
});

test("what is tried on a few boards alone says nothing of the others, and takes none of their minutes; its circumstances are printed", () => {
  const rail = madeTest("rail", { reads: ["J1.1"], minutes: 1 });
  const few = madeTest("few", { reads: ["J1.2"], minutes: 5, besides: { where: "at a fair", boards: 2 } });
  const week = madeTest("week", { reads: ["R1.2"], minutes: 2, besides: { days: 7 } });
  const doc = made(rail, few, week);
  expect([stands(doc)["J1.1"], stands(doc)["J1.2"], stands(doc)["R1.2"]]).toEqual([
    "tested",
    "never",
    "tested",
  ]);
  expect(coverageOf(doc)!.minutes).toBe(3);
  const how = planOfRun(doc, rollUp(doc)).sheet.steps.find((s) => s.kind === "test")!.how;
  // of the boards it is not tried on it says nothing, so no pin is counted for it; one that names nothing that is there says so
  expect(how.find((h) => h.startsWith("2. few"))).toMatch(/^2\. few, at a fair, on 2 boards: [^;]*\.$/);
  const odd = made(
    rail,
    { ...few, reads: ["X9.1"] },
    madeTest("firing", { besides: { boards: 1 } }),
    madeTest("nothing", {}),
  );
  expect(coverageOf(odd)!.idle.map((i) => i.id)).toEqual(["few", "nothing"]);
  const said = planOfRun(odd, rollUp(odd)).sheet.steps.find((s) => s.kind === "test")!.how;
  expect(said.find((h) => h.startsWith("4. nothing"))).toMatch(/; it exercises nothing\.$/);
});

test("an output's load is held against its path; what can hurt, what nobody says and what a part's isolation does not say is told", () => {
  const load = { volts: "24", kind: "direct", amps: "2", ratings: [{ what: "J3", amps: "2.5" }] } as const;
  const said = (more: Partial<NonNullable<TestItem["load"]>>) => {
    const out: [string, string, string][] = [];
    testPlanNotes(
      made(madeTest("out", { reads: ["TP1"], load: { ...load, ...more } })),
      (_, key, level, text) => {
        if (key.startsWith("load-")) out.push([level, key, text]);
      },
    );
    return out;
  };
  expect(said({})).toEqual([]);
  expect(said({ amps: "2.2" })).toEqual([
    [
      "warning",
      "load-tight out",
      "out is to drive 2.2 A; J3 carries 2.5 A, of which 80 % are to be used: 2 A.",
    ],
  ]);
  expect(said({ amps: "2.2", share: 0.9 })).toEqual([]);
  expect(said({ amps: "3" })).toEqual([
    ["error", "load-over out", "out is to drive 3 A, and J3 carries 2.5 A at the most."],
  ]);
  expect(said({ ratings: [] }).map(([level, key]) => [level, key])).toEqual([["remark", "load-unrated out"]]);
  expect(said({ volts: "230", kind: "alternating", isolation: { what: "U2", kilovolts: "5" } })).toEqual([
    [
      "warning",
      "load-danger out",
      expect.stringMatching(/^out is at 230 V alternating, which can injure or kill/),
    ],
    [
      "remark",
      "load-isolation out",
      expect.stringMatching(/^U2 is rated for 5 kV of isolation\. That is the part's/),
    ],
  ]);
  expect(comesOf(madeTest("out", { expect: "it stays cool", load }))).toBe(
    "it stays cool; loaded with 12 Ω rated 96 W or more: 2 A, 48 W of heat",
  );
});

test("points of a line: what makes none, what proves little, and what is beyond the input is told; a point without limits is judged with its line", () => {
  const at = (applied: string, more: Partial<NonNullable<TestItem["point"]>> = {}): TestItem =>
    madeTest(`p${applied}`, {
      reads: ["TP1"],
      unit: "mV",
      point: { of: "probe", applied, unit: "mV", worst: "0.05", ...more },
    });
  const said = (...tests: TestItem[]) => {
    const out: [string, string, string][] = [];
    testPlanNotes(made(...tests), (_, key, level, text) => {
      if (/^(line|test-limits)/.test(key)) out.push([level, key, text]);
    });
    return out;
  };
  const three = [at("10"), at("25"), at("40")];
  expect(said(...three)).toEqual([]);
  expect(said(at("10"))).toEqual([
    ["warning", "line-none p10", "No constants come of probe: one point makes no line."],
  ]);
  expect(said(at("10"), at("25"))).toEqual([
    [
      "remark",
      "line-weak p10 p25",
      expect.stringMatching(/^The line of probe proves little: two points lie/),
    ],
  ]);
  // the least that is said of what the input stands counts, whichever way round the volts are
  expect(said(at("-60"), ...three.with(1, at("25", { most: "50" })))).toEqual([
    ["error", "line-over p-60", "p-60: -60 mV would be applied, and never more than 50 mV may be."],
  ]);
  expect(said(at("50", { most: "50" }), ...three)).toEqual([]);
  // no limit at all is told of an item that is no point
  expect(said(madeTest("x", { reads: ["TP1"], unit: "mV" })).map(([, key]) => key)).toEqual([
    "test-limits x",
  ]);
  expect(comesOf(at("10", { most: "50" }))).toBe("10 mV applied, never more than 50 mV; a point of its line");
});
