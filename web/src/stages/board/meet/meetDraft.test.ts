import { expect, test } from "@jest/globals";
import type { MeetRow } from "@kobbin/core";
import {
  checkMeeting,
  draftOf,
  type MeetDraft,
  newDraft,
  ownSides,
  readMa,
  withTheirs,
} from "./meetDraft.ts";

const pin = (name: string, net: string) => ({ pin: name, net: 1, name: net, x: 0, y: 0, layer: "top" });
const part = { ref: "J1", pins: [pin("1", "V5"), pin("2", "GND"), pin("3", "SIG")] };

test("a connector that is begun: ground by its name, a supply's volts but not who gives it, pins alike on the other side", () => {
  const d = newDraft(part);
  expect(d.ours.map((p) => [p.kind, p.volts, p.isProposed])).toEqual([
    ["", "5", true],
    ["ground", "", true],
    ["", "", false],
  ]);
  expect(d.theirs.map((p) => [p.pin, p.to, p.kind])).toEqual([
    ["1", "1", ""],
    ["2", "2", ""],
    ["3", "3", ""],
  ]);
  // a letter a side: down one, up the other, so that equal numbers lie opposite each other
  const card = newDraft({ ref: "P1", pins: ["A1", "A2", "B1", "B2"].map((p) => pin(p, "N")) });
  expect([card.rows, card.numbering, card.ours.map((p) => p.pin)]).toEqual([
    2,
    "ring",
    ["A1", "A2", "B2", "B1"],
  ]);
});

test("their pins are meant for ours of the same name, else of the same place", () => {
  const d = newDraft(part);
  expect(withTheirs(d, [{ pin: "3" }, { pin: "1" }]).theirs.map((p) => p.to)).toEqual(["3", "1"]);
  expect(withTheirs(d, [{ pin: "VCC" }, { pin: "GND" }]).theirs.map((p) => p.to)).toEqual(["1", "2"]);
});

const good: MeetDraft = { ...newDraft(part), other: " display " };
const change = (side: "ours" | "theirs", over: object): MeetDraft => ({
  ...good,
  [side]: good[side].map((p, i) => (i === 0 ? { ...p, ...over } : p)),
});
test.each<[string, MeetDraft, string]>([
  ["nothing said of what it is", { ...good, other: " " }, "Say what is put onto it."],
  ["no pins", { ...good, theirs: [] }, "The other side has no pins."],
  ["a pin without a name", change("theirs", { pin: " " }), "A pin of the other side has no name."],
  ["a pin twice", change("theirs", { pin: "2" }), "pin 2 of display stands twice."],
  ["volts that are none", change("ours", { volts: "five" }), "The volts of J1.1 are no number."],
  [
    "a range that is none",
    change("theirs", { takes: "5" }),
    "What pin 1 of display takes reads like 0 … 5.5, the lesser first.",
  ],
  ["two rows in a line", { ...good, rows: 2 }, "Say how the two rows are numbered."],
])("%s is said", (_, d, wrong) => {
  expect(checkMeeting(d, undefined)).toEqual({ wrong });
});

test("what is sent is what was typed, and comes back as it was", () => {
  const d = change("theirs", { kind: "supply", volts: "3,3", takes: "-0.3…5", net: "VCC", to: "3" });
  const made = checkMeeting(d, "Main");
  expect(made).toMatchObject({
    body: {
      board: "Main",
      ref: "J1",
      other: "display",
      spec: {
        theirs: [
          { pin: "1", kind: "supply", volts: 3.3, takesV: [-0.3, 5], net: "VCC" },
          { pin: "2" },
          { pin: "3" },
        ],
        meant: [
          ["3", "1"],
          ["2", "2"],
          ["3", "3"],
        ],
      },
    },
  });
  if (!("body" in made)) throw new Error("refused");
  const row = { id: "m", ...made.body, ...made.body.spec } as unknown as MeetRow;
  expect(checkMeeting(draftOf(row, row.ours), "Main")).toEqual(made);
});

test("connectors of our own boards as the other side: what was said of them, else what the names say, never the one itself", () => {
  const measure = (pins: Readonly<Record<string, string>>) => ({
    nets: {
      count: 9,
      islands: Object.entries(pins).map(([p, name], net) => ({
        net,
        name,
        pads: [{ layer: "top", x: 0, y: 0, pin: p }],
      })),
    },
  });
  const main = {
    id: "a",
    name: "Main",
    measure: measure({ "J1.1": "V5", "J1.2": "GND", "R1.1": "V5", "R1.2": "X" }),
  };
  const face = { id: "b", name: "Face", measure: measure({ "J9.1": "V5", "J9.2": "GND" }) };
  const meetings = [{ ref: "J9", board: "Face", ours: [{ pin: "1", kind: "input", takesV: [4.5, 5.5] }] }];
  const doc = { boards: [main, face], meetings } as never;
  expect(ownSides(doc, "J1", "Main")).toEqual([
    {
      label: "Face J9",
      pins: [
        { pin: "1", kind: "input", takesV: [4.5, 5.5], volts: 5, net: "V5" },
        { pin: "2", kind: "ground", net: "GND" },
      ],
    },
  ]);
  const [j1] = ownSides({ boards: [main, face] } as never, "J9", "Face");
  expect(j1).toEqual({
    label: "Main J1",
    pins: [
      { pin: "1", volts: 5, net: "V5" },
      { pin: "2", kind: "ground", net: "GND" },
    ],
  });
  expect(ownSides({ boards: [main] } as never, "J1", "Main")).toEqual([]);
});

test("what the other side gives is typed with its unit, and comes back in mA; a bare number may be either", () => {
  expect(["500 mA", "2 A", "0,5A", "250uA", " "].map(readMa)).toEqual([500, 2000, 500, 0.25, undefined]);
  expect(["500", "five A", "-1 A", "9999 A"].map(readMa)).toEqual([null, null, null, null]);
  expect(checkMeeting({ ...good, gives: "500" }, undefined)).toEqual({
    wrong: "What it gives reads like 500 mA or 2 A.",
  });
  const made = checkMeeting({ ...good, gives: "1.5 A" }, undefined);
  expect(made).toMatchObject({ body: { spec: { givesMa: 1500 } } });
  if (!("body" in made)) throw new Error("it is wrong");
  const row = { ...made.body.spec, id: "m", ref: "J1", other: "display" } as unknown as MeetRow;
  expect(draftOf(row, row.ours).gives).toBe("1500 mA");
});
