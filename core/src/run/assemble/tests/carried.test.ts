import { expect, test } from "@jest/globals";
import { madeMeasure } from "../../made-up.fixture.ts";
import { carriedNotes, carriedOn } from "./carried.ts";
import { LINES, line, part, powered, SUPPLY, wired } from "./powered.fixture.ts";

const carries = (mpn: string, carriesMa: number, more = {}) => ({ ...part(mpn), carriesMa, ...more });
/** With a fuse and a plug of the library, and a supply that gives so much. */
const board = ({ fuse = 500, plug = 3000, gives }: { fuse?: number; plug?: number; gives?: number } = {}) =>
  powered({
    meetings: [{ ...SUPPLY, ...(gives === undefined ? {} : { givesMa: gives }) }] as never,
    lines: [...LINES, line("f1", ["F1"], "1A", "fuse", "TB-F1"), line("j1", ["J1"], "power", "", "TB-J1")],
    library: [
      part("TB-M48", 8, 25),
      { ...part("TB-LV33", 1, 1), carriesMa: 30 },
      carries("TB-F1", fuse),
      carries("TB-J1", plug),
    ] as never,
  });
const notes = (doc: ReturnType<typeof powered>) => {
  const out: string[] = [];
  carriedNotes(doc, (_, key, level, text) => out.push(`${level} ${key}: ${text}`));
  return out;
};

// 34.56 mA come in (34.51 over the fuse, 33.51 out of the regulator: flow-asks.test.ts)
test("what a supply goes through is held against what each is made for, contacts by their number", () => {
  const doc = board();
  const shown = carriedOn(doc, doc.boards[0]!).map((c) => [c.what, c.ref, c.net, c.ma.toFixed(2), c.limitMa]);
  expect(shown).toEqual([
    ["contacts", "J1", "VIN", "34.56", 3000],
    ["part", "F1", "VF", "34.51", 500],
    ["part", "D1", "V5F", "34.51", undefined],
    ["part", "L1", "V5", "34.51", undefined],
    ["part", "U4", "V33", "33.51", 30],
    ["contacts", "J1", "GND", "34.56", 3000],
  ]);
  expect(notes(doc)).toEqual([
    "warning carries part U4 V33: U4 carries 33.5 mA into V33 and is made for 30 mA.",
  ]);
});

test("a supply that gives less, contacts that take less: told from the first milliampere over, not at it", () => {
  expect(notes(board({ gives: 34 }))[0]).toBe(
    "warning carries source J1 VIN: wall supply gives 34 mA; with all drawing at the most the board takes 34.6 mA of it at J1.",
  );
  expect(notes(board({ gives: 35 }))).toHaveLength(1);
  expect(notes(board({ plug: 34 })).filter((n) => n.includes("contacts J1"))).toEqual([
    "warning carries contacts J1 VIN: J1 carries 34.6 mA of VIN over one contact, which takes 34 mA.",
    "warning carries contacts J1 GND: J1 carries 34.6 mA of GND over one contact, which takes 34 mA.",
  ]);
});

test("several contacts of one plug take the sum of what each takes; at it is not over it", () => {
  const doc = powered({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({
          nets: { count: 2, islands: wired("V5: J1.1 J1.3 U3.1\nGND: J1.2 U3.2") } as never,
        }),
      },
    ],
    lines: [line("j", ["J1"], "plug", "", "TB-J1"), line("u", ["U3"], "", "", "TB-U3")],
    library: [carries("TB-J1", 50), part("TB-U3", 100, 100)] as never,
    meetings: [
      {
        ...SUPPLY,
        ours: [...SUPPLY.ours, { pin: "3", kind: "input", takesV: [4.5, 5.5] }],
        theirs: [...SUPPLY.theirs, { pin: "3", kind: "supply", volts: 5 }],
      },
    ] as never,
  });
  expect(carriedOn(doc, doc.boards[0]!)).toMatchObject([
    { ref: "J1", net: "V5", ma: 100, contacts: 2, limitMa: 100 },
    { ref: "J1", net: "GND", ma: 100, contacts: 1, limitMa: 50 },
  ]);
  expect(notes(doc)).toEqual([
    "warning carries contacts J1 GND: J1 carries 100 mA of GND over one contact, which takes 50 mA.",
  ]);
});

test("with a part that draws without a figure it is at least so much", () => {
  const doc = board();
  const unknown = { ...doc, library: doc.library!.filter((p) => p.mpn !== "TB-M48") };
  const found = carriedOn(unknown, unknown.boards[0]!);
  expect(found.every((c) => c.isLeast)).toBe(true);
  expect(found[0]!.ma).toBeCloseTo(9.56, 2);
});

test("two plugs that feed one rail side by side carry half each", () => {
  const doc = powered({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({
          nets: { count: 2, islands: wired("V5: J1.1 J4.1 U3.1\nGND: J1.2 J4.2 U3.2") } as never,
        }),
      },
    ],
    lines: [line("u", ["U3"], "", "", "TB-U3")],
    library: [part("TB-U3", 100, 100)] as never,
    meetings: [SUPPLY, { ...SUPPLY, id: "n", ref: "J4" }] as never,
  });
  const shown = carriedOn(doc, doc.boards[0]!).map((c) => [c.ref, c.net, c.ma]);
  expect(shown).toEqual([
    ["J1", "V5", 50],
    ["J4", "V5", 50],
    ["J1", "GND", 50],
    ["J4", "GND", 50],
  ]);
});
