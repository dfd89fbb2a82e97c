import { expect, test } from "@jest/globals";
import { orderDiffers, type PlacedConnector } from "./pin-order.ts";

const plug = (board: string, ref: string, names: string): PlacedConnector => ({
  board,
  part: {
    ref,
    pins: names.split(" ").map((name, i) => ({
      pin: String(i + 1),
      net: i,
      x: i,
      y: 0,
      layer: "top",
      ...(name === "-" ? {} : { name }),
    })),
  },
});
const told = (...list: PlacedConnector[]) =>
  orderDiffers(list).map(
    (d) => `${d.a.part.ref}/${d.b.part.ref} ${d.crossed.map((c) => c.join(">")).join(" ")}`,
  );

test.each<[string, PlacedConnector[], string[]]>([
  [
    "two pins changed over between two boards",
    [plug("Main", "J1", "GND V5 SDA SCL"), plug("Display", "J2", "V5 GND SDA SCL")],
    ["J1/J2 GND>V5 V5>GND"],
  ],
  ["the same order", [plug("Main", "J1", "GND V5 SDA"), plug("Display", "J2", "GND V5 SDA")], []],
  [
    "names of sheets and small letters are the same",
    [plug("A", "J1", "/bus/SDA GND V5"), plug("B", "J2", "sda gnd v5")],
    [],
  ],
  ["other signals", [plug("A", "J1", "GND V5 SDA"), plug("B", "J2", "V5 GND SCL")], []],
  ["a signal twice is another plug", [plug("A", "J1", "GND GND V5"), plug("B", "J2", "V5 V5 GND")], []],
  ["two pins have hardly an order", [plug("A", "J1", "GND V5"), plug("B", "J2", "V5 GND")], []],
  ["a pin without a name says nothing", [plug("A", "J1", "GND - V5"), plug("B", "J2", "V5 - GND")], []],
  [
    "one that is unlike two others is told once, and two like it not again",
    [
      plug("A", "J1", "GND V5 SDA"),
      plug("A", "J2", "GND V5 SDA"),
      plug("A", "J3", "SDA V5 GND"),
      plug("A", "J4", "SDA V5 GND"),
    ],
    ["J1/J3 GND>SDA SDA>GND", "J1/J4 GND>SDA SDA>GND"],
  ],
  [
    "no more than four are named",
    [plug("A", "J1", "A B C D E F"), plug("B", "J2", "F E D C B A")],
    ["J1/J2 A>F B>E C>D D>C"],
  ],
])("%s", (_, list, expected) => {
  expect(told(...list)).toEqual(expected);
});
