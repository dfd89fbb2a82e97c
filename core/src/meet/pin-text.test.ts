import { expect, test } from "@jest/globals";
import { readPinText, readRange, readVolts } from "./pin-text.ts";

test.each<[string, object]>([
  ["1;GND;ground", { pin: "1", kind: "ground", net: "GND" }],
  ["1\tVCC\tpower\t3,3 V", { pin: "1", kind: "supply", net: "VCC", volts: 3.3 }],
  [
    "2, SDA, in/out, 3.3 V, -0.3…3.6 V",
    { pin: "2", kind: "both", net: "SDA", volts: 3.3, takesV: [-0.3, 3.6] },
  ],
  ["A8;RST;in;takes 0…5.5 V", { pin: "A8", kind: "input", net: "RST", takesV: [0, 5.5] }],
  ["A7 RST in takes 0 to 5.5 V", { pin: "A7", kind: "input", net: "RST", takesV: [0, 5.5] }],
  ["3 out 5V", { pin: "3", kind: "output", volts: 5 }],
  ["4 NC", { pin: "4", kind: "open" }],
  ["5 SCL", { pin: "5", net: "SCL" }],
  ["6", { pin: "6" }],
  ["7 VEE supply −12 V", { pin: "7", kind: "supply", net: "VEE", volts: -12 }],
])("“%s” is read whole", (line, pin) => {
  expect(readPinText(line)).toEqual({ pins: [pin], wrong: [] });
});

test.each<[string, string]>([
  ["1 GND ground\n1 VCC supply", "pin 1 stands twice"],
  ["1 VCC supply 5", "“5” may be anything: write volts as “5 V”"],
  ["1 VCC supply 5V 3V", "“3V” says the same a second time"],
  ["1 in 5…3", "“5…3” is a range of nothing"],
  ["1 VIN in max 5 V", "“max” wants both bounds: write what it takes as “0 … 5 V”"],
  ["1 VIN in takes 5 V", "“takes” wants both bounds: write what it takes as “0 … 5 V”"],
  ["1;VIN;in;max 5 V", "“max 5 V” wants both bounds: write what it takes as “0 … 5 V”"],
  ["1 VCC supply main", "not known what “main” means"],
])("%s is said, and the line is not half taken", (text, because) => {
  const { pins, wrong } = readPinText(text);
  expect(wrong).toEqual([{ line: text.split("\n").length, because }]);
  expect(pins).toHaveLength(text.split("\n").length - 1);
});

test("what is typed into a field of volts", () => {
  expect(["3.3", "3,3 V", "−5", "", "five", "5 A"].map(readVolts)).toEqual([
    3.3,
    3.3,
    -5,
    undefined,
    undefined,
    undefined,
  ]);
  expect(["0 … 5", "-0.3..3.6 V", "0 to 5V", "5", "5…0"].map(readRange)).toEqual([
    [0, 5],
    [-0.3, 3.6],
    [0, 5],
    undefined,
    undefined,
  ]);
});
