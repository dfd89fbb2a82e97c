import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import type { MeetRow } from "../../meet/row.ts";
import type { Note } from "../document/note.ts";
import { madeMeasure, madeRun } from "../made-up.fixture.ts";
import { voltsOn } from "../stage/meetings.ts";
import { meetNotes } from "./meet-notes.ts";

/** A board whose files name pins of nets: "J1.1": "V5". */
const measured = (pins: Readonly<Record<string, string>>): Measure => {
  const names = [...new Set(Object.values(pins))];
  const islands = names.map((name, net) => ({
    net,
    name,
    pads: Object.entries(pins)
      .filter(([, n]) => n === name)
      .map(([pin], i) => ({ layer: "top", x: i, y: net, pin })),
  }));
  return { ...madeMeasure(), nets: { count: names.length, islands } };
};
const PINS = {
  "J1.1": "V5",
  "J1.2": "GND",
  "J1.3": "SIG",
  "U1.1": "V5",
  "U1.2": "GND",
  "U1.3": "SIG",
  "C1.1": "V5",
  "C1.2": "GND",
};
const row = (more: Partial<MeetRow> = {}): MeetRow => ({
  id: "m",
  ref: "J1",
  other: "display",
  ours: [
    { pin: "1", kind: "input", takesV: [4.5, 5.5] },
    { pin: "2", kind: "ground" },
    { pin: "3", kind: "output", volts: 3.3, takesV: [0, 3.6] },
  ],
  theirs: [
    { pin: "1", kind: "supply", volts: 5 },
    { pin: "2", kind: "ground" },
    { pin: "3", kind: "input", takesV: [0, 5.5] },
  ],
  stopped: [],
  stopBy: "",
  ...more,
});
const doc = (rows: readonly MeetRow[], pins: Readonly<Record<string, string>> = PINS, lines: object[] = []) =>
  madeRun({
    boards: [{ id: "b", name: "Main", perProduct: 1, measure: measured(pins) }],
    lines: lines as never,
    meetings: rows,
  } as never);
function notes(d: ReturnType<typeof doc>): string[] {
  const out: Partial<Note>[] = [];
  meetNotes(d, (stage, key, level, text, more) => out.push({ stage, key, level, text, ...more }));
  return out.map((n) => `${n.level} ${n.text}`);
}

test("what is damaged when it is put in wrongly is said, until something stops it", () => {
  const wrongly =
    /^warning J1 with display: put in turned by half a turn or one place aside it is damaged \(our 3 on their 1/;
  expect(notes(doc([row()]))).toEqual([expect.stringMatching(wrongly)]);
  expect(notes(doc([row({ stopped: ["turned", "mirrored"] })]))).toEqual([
    expect.stringContaining("put in one place aside it is damaged (our 2 on their 1: a supply on ground)"),
  ]);
  expect(notes(doc([row({ stopped: ["turned", "mirrored", "shifted"], stopBy: "a key" })]))).toEqual([]);
});

test("swapped supply pins block as they are meant; what is not known is said as such", () => {
  const all = { stopped: ["turned", "mirrored", "shifted"] } as const;
  const swapped = row({
    ...all,
    theirs: [{ pin: "1", kind: "ground" }, { pin: "2", kind: "supply", volts: 5 }, row().theirs[2]!],
  });
  expect(notes(doc([swapped]))[0]).toBe("error J1 with display: our 2 on their 2: a supply on ground.");
  // a pin of the board nobody said anything of
  expect(notes(doc([row({ ...all, ours: row().ours.slice(0, 2) })]))).toEqual([
    "warning J1 with display: not known whether they bear each other. our 3 on their 3: not known what it gives or takes.",
  ]);
  const crossed = row({
    ...all,
    meant: [
      ["1", "1"],
      ["2", "2"],
    ],
  });
  expect(notes(doc([crossed]))).toEqual([
    "warning J1 with display does not work as it is meant: our 3 on their 3: not meant for each other.",
  ]);
});

test("a row whose pins, part or board are gone says it", () => {
  const all = { stopped: ["turned", "mirrored", "shifted"] } as const;
  const { "J1.3": _, ...less } = PINS;
  expect(notes(doc([row(all)], less))).toContain("warning J1 with display: J1 has no pin 3 any more.");
  expect(notes(doc([row({ ...all, ref: "J9" })]))).toEqual([
    "warning J9 with display cannot be judged: the files name no pins of J9.",
  ]);
  expect(notes(doc([row({ ...all, board: "Lid" })]))).toEqual([
    "warning The product has no board called Lid: J1 with display cannot be judged.",
  ]);
});

test("supplies come from what is put on; parts that are not fitted hold nothing", () => {
  const all = { stopped: ["turned", "mirrored", "shifted"] } as const;
  const twice = { ...PINS, "J2.1": "V5", "J2.2": "GND" };
  const second = row({
    ...all,
    id: "n",
    ref: "J2",
    other: "plug",
    ours: row().ours.slice(0, 2),
    theirs: row().theirs.slice(0, 2),
  });
  expect(notes(doc([row(all), second], twice))).toEqual([
    "error display at J1.1 (5 V) and plug at J2.1 (5 V) both feed V5: between them is nothing.",
  ]);
  // a contact over which this board feeds the other side is no source of its own
  const gives = row({ ...all, ours: [{ pin: "1", kind: "supply", volts: 5 }, ...row().ours.slice(1)] });
  expect(notes(doc([gives, second], twice))).toEqual([]);
  const gated = { ...PINS, "Q1.1": "SIG", "Q1.2": "GND", "Q1.3": "OUT", "R1.1": "SIG", "R1.2": "GND" };
  const line = (refs: string[], valueText: string, dnp: boolean) => ({
    id: refs[0],
    refs,
    qty: 1,
    valueText,
    description: "",
    mpn: "",
    dnp,
  });
  const with_ = (dnp: boolean) =>
    notes(doc([row(all)], gated, [line(["Q1"], "N-MOSFET", false), line(["R1"], "10k", dnp)]));
  expect(with_(false)).toEqual([]);
  expect(with_(true)).toEqual([
    expect.stringMatching(/^warning Q1\.1, taken as its control \(SIG\), is a gate/),
  ]);
});

test("what was found is kept for the same bill and rows, and found again for others", () => {
  const d = doc([row()]);
  const [board] = d.boards;
  const first = voltsOn(d, board!);
  expect(voltsOn({ ...d, goodBoards: 99 }, board!)).toBe(first);
  expect(voltsOn({ ...d, meetings: [] }, board!).meetings).toEqual([]);
});

test("links that are not set, that hurt, or whose caps nobody buys", () => {
  const pins = { "JP1.1": "V5", "JP1.2": "D1", "JP1.3": "GND", "SB1.1": "V5", "SB1.2": "GND" };
  const link = (ref: string, set: string, isCap = false) => ({
    id: ref,
    ref,
    positions: [
      { name: "1–2", joins: ["1", "2"], does: "display one" },
      { name: "open", does: "no display" },
    ],
    set,
    variants: {},
    isCap,
  });
  const told = (links: object[], lines: object[] = []) => notes({ ...doc([], pins, lines), links } as never);
  expect(told([link("JP1", "")])).toEqual(["warning JP1 is not set: display one, or no display."]);
  expect(told([link("JP1", "1–2"), link("SB1", "open")])).toEqual([]);
  expect(told([link("SB1", "1–2")])).toEqual(["error SB1 in 1–2 hurts: it puts V5 on GND."]);
  expect(told([{ ...link("JP1", "open"), board: "Lid" }])).toEqual([
    "warning The product has no board called Lid: the link JP1 cannot be judged.",
  ]);
  expect(told([link("JP9", "open")])).toEqual([
    "warning The files name no pins of JP9, a link that is to be set.",
  ]);
  const [caps] = told([link("JP1", "1–2", true)]);
  expect(caps).toBe("warning JP1: a cap closes it, and no line of the bill has any.");
  const line = {
    id: "c",
    refs: [],
    qty: 1,
    valueText: "jumper cap 2.54",
    description: "",
    mpn: "",
    dnp: false,
  };
  expect(told([link("JP1", "1–2", true)], [line])).toEqual([]);
  // left open it needs none
  expect(told([link("JP1", "open", true)])).toEqual([]);
});

test("a chip whose supply no capacitor stands by is told, by its net", () => {
  const { "C1.1": _, ...less } = PINS;
  expect(notes(doc([], less))).toEqual([
    "remark No capacitor to ground stands within 8 mm of the supply of U1 (V5).",
  ]);
  expect(notes(doc([]))).toEqual([]);
});

test("pins that have no numbers lie in the order in which they were said, not in the board's", () => {
  const pins = { "P1.A1": "V5", "P1.A2": "SIG", "P1.B1": "GND", "P1.B2": "SIG2" };
  const contact = (pin: string, kind: string) => ({ pin, kind, ...(kind === "supply" ? { volts: 5 } : {}) });
  const list = [
    contact("A1", "supply"),
    contact("A2", "open"),
    contact("B2", "open"),
    contact("B1", "ground"),
  ];
  const card = row({ ref: "P1", ours: list as never, theirs: list as never, rows: 2, numbering: "ring" });
  const d = doc([card], pins);
  const [standing] = voltsOn(d, d.boards[0]!).meetings;
  expect(standing!.ours.map((p) => p.pin)).toEqual(["A1", "A2", "B2", "B1"]);
  // supply lies opposite ground: with its rows exchanged one meets the other
  expect(standing!.modes.map((m) => [m.mode, m.verdict])).toEqual([
    ["meant", "fine"],
    ["turned", "idle"],
    ["mirrored", "damage"],
    ["shifted", "idle"],
    ["shifted", "idle"],
  ]);
});

test("what was accepted of one does not stand for another: each kind has its key", () => {
  const keys = (r: MeetRow) => {
    const out: string[] = [];
    meetNotes(doc([r]), (_, key) => out.push(key));
    return out;
  };
  expect(keys(row())).toEqual(["meet m put-in-wrongly"]);
  const swapped = row({
    theirs: [{ pin: "1", kind: "ground" }, { pin: "2", kind: "supply", volts: 5 }, row().theirs[2]!],
  });
  expect(keys(swapped)).toContain("meet m damage");
  expect(keys(row({ ref: "J9" }))).toEqual(["meet m no-pins"]);
});

test("two plugs of a product that carry the same in another order are a remark, with the board where there are several", () => {
  const swapped = { ...PINS, "J2.1": "GND", "J2.2": "V5", "J2.3": "SIG" };
  const told = (d: ReturnType<typeof doc>) => notes(d).filter((n) => n.includes("another order"));
  expect(told(doc([], swapped))).toEqual([
    "remark J1 and J2 carry the same signals in another order: over a straight cable V5 meets GND, GND meets V5.",
  ]);
  const two = {
    ...doc([]),
    boards: [
      { id: "b", name: "Main", perProduct: 1, measure: measured(PINS) },
      {
        id: "c",
        name: "Front",
        perProduct: 1,
        measure: measured({ "J1.1": "SIG", "J1.2": "GND", "J1.3": "V5" }),
      },
    ],
  } as ReturnType<typeof doc>;
  expect(told(two)).toEqual([
    "remark J1 of Main and J1 of Front carry the same signals in another order: over a straight cable V5 meets SIG, SIG meets V5.",
  ]);
});
