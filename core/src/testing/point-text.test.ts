import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readInUnit, readPoints } from "./point-text.ts";

test.each([
  ["0.5 V; 1 V; 2.5 V", "0.5 1 2.5 V"],
  ["0,5 V; 2,5 V", "0.5 2.5 V"],
  ["0,5 V, 2,5 V", "0.5 2.5 V"],
  ["0, 5, 10 mV", "0 5 10 mV"],
  ["0,5, 1, 2,5 V", "0.5 1 2.5 V"],
  ["500 mV; 1 V", "500 1000 mV"],
  ["−10 °C; 50 °C", "-10 50 °C"],
  ["-10; 0; 50 degC", "-10 0 50 °C"],
  ["100R", "100 Ω"],
  ["1 kohm; 4k7; 10 kΩ", "wrong"],
  ["1 kohm; 4.7 kohm", "1 4.7 kΩ"],
  ["4 uA and 20 µA", "4 20 µA"],
  ["0.5V", "0.5 V"],
  ["5", "wrong"],
  ["5 m; 6 m", "wrong"],
  ["5 V; 6", "wrong"],
  ["5 V 10 V", "wrong"],
  ["5 V; 6 A", "wrong"],
  ["1 V; 1000 mV", "wrong"],
  ["1,200 V", "wrong"],
  ["> 5 V", "wrong"],
  ["OL V", "wrong"],
  ["1 V;; 2 V", "wrong"],
  ["230 V AC", "wrong"],
  ["70 F; 80 F", "wrong"],
  ["5 min", "wrong"],
  ["100 cd", "wrong"],
  ["100 lx; 1 klx", "100 1000 lx"],
  ["0.0000000001 V", "wrong"],
])("points typed as %s", (text, is) => {
  const read = readPoints(text);
  expect(read.kind === "wrong" ? "wrong" : [...read.value.applied, read.value.unit].join(" ")).toBe(is);
});

test("one value beside a point is in its unit; nothing is refused where it has to be something", () => {
  expect(readInUnit("10 mV", "V", true)).toEqual({ kind: "read", value: "0.01" });
  expect(readInUnit("0,05", "V", true)).toEqual({ kind: "read", value: "0.05" });
  expect(readInUnit("0", "V", false)).toEqual({ kind: "read", value: "0" });
  for (const text of ["0", "-1", "", "1 A", "2.500"]) expect(readInUnit(text, "V", true).kind).toBe("wrong");
});

test("law: what is read of points reads the same once it is written out", () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: -99, max: 99 }), { minLength: 1, maxLength: 6 }),
      fc.constantFrom("V", "mV", "mA", "kΩ", "°C", "Hz"),
      (list, unit) => {
        const applied = list.map((n) => String(n / 10));
        expect(readPoints(applied.map((a) => `${a} ${unit}`).join("; "))).toEqual({
          kind: "read",
          value: { unit, applied },
        });
      },
    ),
  );
});
