import { describe, expect, test } from "@jest/globals";
import { decouplingOf } from "./decoupling.ts";
import { floatsOf } from "./floats.ts";
import { powerMap } from "./power.ts";
import { proposedPin, voltsOfName } from "./row.ts";
import type { PowerSource } from "./supplies.ts";
import type { WiredPart } from "./wiring.ts";

/** Parts written as "R1: A B": a reference and the nets of its pins from 1 on; a pin's own name before "=". */
function wired(...rows: readonly string[]): WiredPart[] {
  const nets = new Map<string, number>();
  return rows.map((row) => {
    const [ref, list] = row.split(": ") as [string, string];
    const pins = list.split(" ").map((cell, i) => {
      const [pin, name] = cell.includes("=") ? (cell.split("=") as [string, string]) : [String(i + 1), cell];
      if (!nets.has(name)) nets.set(name, nets.size + 1);
      return { pin, net: nets.get(name)!, name, x: i, y: 0, layer: "top" };
    });
    return { ref, pins };
  });
}
const from = (parts: readonly WiredPart[], ref: string, volts?: number, pin = "1"): PowerSource => {
  const net = parts.find((p) => p.ref === ref)!.pins.find((p) => p.pin === pin)!.net;
  return { ref, pin, net, what: `plug ${ref}`, isCell: false, ...(volts === undefined ? {} : { volts }) };
};
const none = () => "";

describe("what feeds what", () => {
  const board = wired(
    "J1: VIN GND",
    "F1: VIN VF",
    "D1: VF V5",
    "U1: V5 GND V33",
    "U2: V33 GND OUT",
    "D2: V33 LAMP",
    "R1: LAMP GND",
    "D3: V5 OUT",
    "C1: V5 GND",
  );
  const { rails, findings } = powerMap(board, [from(board, "J1", 5)], none);
  const by = (name: string) => rails.find((r) => r.names.includes(name))!;

  test("a fuse joins, a diode parts, a regulator converts; a lamp and a clamp are no way on", () => {
    expect(rails.map((r) => r.names.join("+")).sort()).toEqual(["V33", "V5", "VIN+VF"]);
    expect(by("VIN").through).toEqual(["F1"]);
    expect(by("V5").links).toEqual([
      { ref: "D1", kind: "diode", to: rails.indexOf(by("VIN")) },
      { ref: "U1", kind: "converter", to: rails.indexOf(by("V33")) },
    ]);
    expect(by("V33").loads).toEqual(["U2", "D2"]);
    expect([by("VIN").volts, by("V5").volts, by("V33").volts]).toEqual([5, 5, 3.3]);
    // what nobody that is known feeds has only its name to say so
    expect([by("VIN").isByName, by("V5").isByName, by("V33").isByName]).toEqual([undefined, true, true]);
    expect(findings).toEqual([]);
  });

  test("a resistor of an ohm joins, one of ten does not", () => {
    const parts = wired("J1: VIN GND", "R1: VIN V5", "U1: V5 GND OUT");
    const rows = (ohms: string) => powerMap(parts, [], () => ohms).rails.length;
    expect([rows("1R"), rows("0R"), rows("10R")]).toEqual([1, 1, 2]);
  });
});

describe("what is dangerous or missing", () => {
  const kinds = (parts: readonly WiredPart[], ...sources: PowerSource[]) =>
    powerMap(parts, sources, none).findings.map((f) => f.kind);

  test("two sources on one rail, and none where a diode stands between them", () => {
    const one = wired("J1: V5 GND", "J2: V5 GND", "U1: V5 GND");
    expect(kinds(one, from(one, "J1", 5), from(one, "J2", 5))).toEqual(["two-sources"]);
    const two = wired("J1: VIN GND", "D1: VIN V5", "J2: V5 GND", "U1: V5 GND");
    expect(kinds(two, from(two, "J1", 5), from(two, "J2", 5))).toEqual([]);
    const coil = wired("J1: VIN GND", "L1: VIN V5", "J2: V5 GND", "U1: V5 GND");
    const [found] = powerMap(coil, [from(coil, "J1", 5), from(coil, "J2", 3.3)], none).findings;
    expect(found!.text).toContain("only L1, which keeps nothing apart");
    expect(found!.text).toContain("They are 1.7 V apart");
  });

  test("a cell in parallel with what comes in is told as that", () => {
    const parts = wired("J1: V3 GND", "BT1: V3 GND", "U1: V3 GND");
    const [found] = powerMap(parts, [from(parts, "J1", 3)], none).findings;
    expect([found!.kind, found!.text]).toEqual(["cell-fed", expect.stringContaining("the cell BT1")]);
    // both ways round, and without anything beside it
    expect(kinds(wired("BT1: GND V3", "U1: V3 GND"))).toEqual([]);
  });

  test("no way back, nobody that draws, nobody that feeds", () => {
    const back = wired("J1: V5 SIG", "U1: V5 GND");
    expect(kinds(back, from(back, "J1", 5))).toEqual(["no-return"]);
    const idle = wired("J1: V5 GND", "C1: V5 GND", "U1: V33 GND");
    expect(kinds(idle, from(idle, "J1", 5))).toEqual(["nobody-loads", "nobody-feeds"]);
    // as long as nobody said what feeds the board, what feeds a rail is not known
    expect(kinds(wired("U1: V33 GND"))).toEqual([]);
  });
});

describe("what floats", () => {
  const say = (value: string) => () => ({ value, description: "" });
  const told = (parts: readonly WiredPart[], value = "N-MOSFET") =>
    floatsOf(parts, say(value)).map((f) => `${f.kind} ${f.ref}.${f.pin}`);

  test("a gate without a resistor, not one that is held, nor one held behind its series resistor", () => {
    expect(told(wired("Q1: CTRL GND LOAD", "U1: CTRL V5"))).toEqual(["gate Q1.1"]);
    expect(told(wired("Q1: CTRL GND LOAD", "R1: CTRL GND"))).toEqual([]);
    expect(told(wired("Q1: G1 GND LOAD", "R1: G1 CTRL", "R2: CTRL GND", "U1: CTRL V5"))).toEqual([]);
    expect(told(wired("Q1: G1 GND LOAD", "R1: G1 CTRL", "U1: CTRL V5"))).toEqual(["gate Q1.1"]);
    expect(told(wired("Q1: D=OUT G=CTRL S=GND"))).toEqual(["gate Q1.G"]);
    expect(told(wired("Q1: V5 GND LOAD"))).toEqual([]);
  });

  test("a base does not float; what the bill does not tell is said as not known", () => {
    const parts = wired("Q1: CTRL GND LOAD", "U1: CTRL V5");
    expect(told(parts, "NPN 45 V")).toEqual([]);
    expect(told(parts, "switch")).toEqual(["unknown-drive Q1.1"]);
  });

  test("enable and reset of a part, by what the net is called", () => {
    expect(told(wired("U1: EN V5 GND"))).toEqual(["enable U1.1"]);
    expect(told(wired("U1: NRST V5 GND"))).toEqual(["reset U1.1"]);
    expect(told(wired("U1: NRST V5 GND", "R1: NRST V5"))).toEqual([]);
    // a net of a connector alone is nobody's input
    expect(told(wired("J1: EN V5 GND"))).toEqual([]);
  });
});

test("volts a name says, and no more than it says", () => {
  const names = ["+3V3", "3.3V", "V33", "V5", "12V", "/power/V12", "V18", "VCC", "GND", "P5V"];
  expect(names.map(voltsOfName)).toEqual([
    3.3,
    3.3,
    3.3,
    5,
    12,
    12,
    // 1.8 or 18: nobody can tell
    undefined,
    undefined,
    undefined,
    5,
  ]);
  expect(proposedPin({ pin: "1", name: "AGND" })).toEqual({ pin: "1", kind: "ground", net: "AGND" });
  expect(proposedPin({ pin: "2", name: "SDA" })).toEqual({ pin: "2", net: "SDA" });
  expect(proposedPin({ pin: "3" })).toEqual({ pin: "3" });
});

test("capacitors by a chip's supply: those to ground and near, the nearest first; a light has no supply to hold", () => {
  const at = (part: WiredPart, x: number): WiredPart => ({
    ...part,
    pins: part.pins.map((p) => ({ ...p, x })),
  });
  const parts = wired(
    "U1: V5 GND V5 OUT",
    "C1: V5 GND",
    "C2: GND V5",
    "C3: V5 OUT",
    "C4: V5 GND",
    "D1: V5 GND",
  );
  const [u1, ...rest] = parts as [WiredPart, ...WiredPart[]];
  // pins of U1 stand at 0 and 2: C1 is 7 away, C2 2, C3 is to no ground, C4 9
  const placed = [u1, ...rest.map((p, i) => at(p, [9, 4, 0, 11, 0][i]!))];
  expect(decouplingOf(placed)).toEqual([
    {
      ref: "U1",
      net: "V5",
      pins: 2,
      by: [
        { ref: "C2", mm: 2 },
        { ref: "C1", mm: 7 },
      ],
      at: { layer: "top", x: 0, y: 0 },
    },
  ]);
  expect(decouplingOf([u1, at(rest[0]!, 10)])[0]!.by).toEqual([{ ref: "C1", mm: 8 }]);
  expect(decouplingOf(wired("U2: V5 OUT IN"))).toEqual([]);
});
