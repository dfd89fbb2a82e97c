import { expect, test } from "@jest/globals";
import { judgeLink, type LinkRow, maySet, proposedPositions, railsByLinks } from "./links.ts";
import { judgeMeeting } from "./row.ts";
import type { WiredPart } from "./wiring.ts";

const part = (ref: string, ...names: string[]): WiredPart => ({
  ref,
  pins: names.map((name, i) => ({
    pin: String(i + 1),
    net: name.length + i * 10,
    name,
    x: i,
    y: 0,
    layer: "top",
  })),
});
const jp = part("JP1", "V5", "D1", "GND");
const row = (more: Partial<LinkRow> = {}): LinkRow => ({
  id: "l",
  ref: "JP1",
  positions: proposedPositions(jp),
  set: "",
  variants: {},
  isCap: false,
  ...more,
});

test("three places are joined at either side or left open, two are joined or not", () => {
  expect(proposedPositions(jp).map((p) => [p.name, p.joins])).toEqual([
    ["1–2", ["1", "2"]],
    ["2–3", ["2", "3"]],
    ["open", undefined],
  ]);
  expect(proposedPositions(part("SB1", "A", "B")).map((p) => p.name)).toEqual(["1–2", "open"]);
  expect(
    [jp, part("SW1", "A", "B"), part("R1", "A", "B"), part("JP2", "A", "B", "C", "D")].map(maySet),
  ).toEqual([true, true, false, false]);
});

test("a version has its own position, else the product's; a name that is none is not set", () => {
  const set = row({ set: "1–2", variants: { old: "2–3" } });
  const at = (variant?: string) => judgeLink(set, [jp], variant).position?.name;
  expect([at(), at("old"), at("new")]).toEqual(["1–2", "2–3", "1–2"]);
  expect(judgeLink(row(), [jp]).position).toBeUndefined();
  expect(judgeLink(set, [])).toMatchObject({ part: undefined, hurts: {} });
});

test("a supply on ground hurts, and two supplies of other volts; a signal on either does not", () => {
  const hurts = (...names: string[]) =>
    judgeLink(row({ positions: proposedPositions(part("JP1", ...names)) }), [part("JP1", ...names)]).hurts;
  expect(hurts("V5", "D1", "GND")).toEqual({});
  expect(hurts("V5", "GND")).toEqual({ "1–2": "it puts V5 on GND" });
  expect(hurts("V5", "V33")).toEqual({ "1–2": "it joins V5 and V33" });
  expect(hurts("V5", "+5V")).toEqual({});
  expect(hurts("V5", "VCC")).toEqual({});
});

test("what a link puts on a rail is that rail at the connector, as it is set", () => {
  const j1 = {
    ref: "J1",
    pins: [
      { ...jp.pins[1]!, pin: "1" },
      { ...jp.pins[2]!, pin: "2" },
    ],
  };
  const measure = {
    nets: {
      count: 2,
      islands: j1.pins.map((p) => ({
        net: p.net,
        name: p.name!,
        pads: [{ layer: "top", x: 0, y: 0, pin: `J1.${p.pin}` }],
      })),
    },
  };
  const meets = {
    id: "m",
    ref: "J1",
    other: "display",
    ours: [{ pin: "1" }, { pin: "2", kind: "ground" as const }],
    theirs: [
      { pin: "1", kind: "input" as const, takesV: [4.5, 5.5] as const },
      { pin: "2", kind: "ground" as const },
    ],
    stopped: [],
    stopBy: "",
  };
  const as = (set: string) => {
    const links = railsByLinks([judgeLink(row({ set }), [jp])]);
    const { ours, modes, byLink } = judgeMeeting(meets, measure, links);
    return [ours[0]!.kind, ours[0]!.net, modes[0]!.verdict, byLink.map((p) => p.pin).join()];
  };
  expect(as("1–2")).toEqual(["supply", "V5 by JP1 1–2", "fine", "1"]);
  expect(as("2–3")).toEqual(["ground", "GND by JP1 2–3", "fine", "1"]);
  expect(as("open")).toEqual([undefined, "D1", "unknown", ""]);
});
