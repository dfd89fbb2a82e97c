import { expect, test } from "@jest/globals";
import Big from "big.js";
import fc from "fast-check";
import { readTyped, type TypedReading } from "./reading.ts";
import type { Limits } from "./verdict.ts";

const RAIL: Limits = { min: "3.2", max: "3.4" };
const say = (r: TypedReading) =>
  r.kind === "value"
    ? `${r.bound ?? ""}${r.value}${r.doubt ? ` ? ${r.doubt}` : ""}`
    : r.kind === "error"
      ? `error: ${r.words}`
      : `refused: ${r.because}`;
const v = (text: string, unit = "V", limits = RAIL) => say(readTyped(text, unit, limits));

// one way of writing a line: as typed, unit of the plan, limits, what it is by hand
test.each([
  ["3.31", "V", "3.31"],
  ["3,31", "V", "3.31"],
  ["3.31 V", "V", "3.31"],
  ["3,31V DC", "V", "3.31"],
  ["3310 mV", "V", "3.31"],
  ["3310mV", "V", "3.31"],
  ["3V31", "V", "3.31"],
  ["+3.31", "V", "3.31"],
  [".331e1", "V", "3.31"],
  ["331E-2 V", "V", "3.31"],
  ["3.", "V", "3"],
  ["−0,02", "V", "-0.02"],
  ["- 0.02 V", "V", "-0.02"],
  ["3\u00a0300 mV", "V", "3.3"],
  ["3'300 mV", "V", "3.3"],
  ["3,300", "V", "3.3"],
  ["0.0033 kV", "V", "3.3"],
  ["3.31volts", "V", "3.31"],
])("a rail: %s", (text, unit, is) => expect(v(text, unit)).toBe(is));

test.each([
  ["4k7", "Ω", { min: "4000" }, "4700"],
  ["4K7", "Ω", { min: "4000" }, "4700"],
  ["4R7", "Ω", { max: "5" }, "4.7"],
  ["0R22", "Ω", { max: "1" }, "0.22"],
  ["2M2", "Ω", { min: "100" }, "2200000"],
  ["4k7Ohm", "Ω", { min: "4000" }, "4700"],
  ["4.7 kOhm", "Ω", { min: "4000" }, "4700"],
  ["4,7 kΩ", "Ω", { min: "4000" }, "4700"],
  ["4.7k", "Ω", { min: "4000" }, "4700"],
  ["4.7k", "kΩ", { min: "4" }, "4.7"],
  ["4.7", "kΩ", { min: "4" }, "4.7"],
  ["4.7 \u2126", "Ω", { max: "5" }, "4.7"],
  [">2M", "Ω", { min: "100" }, ">2000000"],
  ["> 200 ohm", "Ω", { min: "100" }, ">200"],
  ["<0,1", "Ω", { max: "1" }, "<0.1"],
  ["≥ 20 k", "Ω", { min: "100" }, ">20000"],
  ["12,3", "mA", { max: "20" }, "12.3"],
  ["0.0123 A", "mA", { max: "20" }, "12.3"],
  ["850 uA", "mA", { max: "20" }, "0.85"],
  ["850 µA", "mA", { max: "20" }, "0.85"],
  ["850 μA", "mA", { max: "20" }, "0.85"],
  ["1,2 klx", "lx", { min: "900", max: "1400" }, "1200"],
  ["850 lux", "klx", { min: "0.5", max: "1" }, "0.85"],
  ["32,768 kHz", "Hz", { min: "32000", max: "33000" }, "32768"],
  ["32.768k", "Hz", { min: "32000", max: "33000" }, "32768"],
  ["1.234,5", "Hz", { min: "1000", max: "2000" }, "1234.5"],
  ["1,234.5", "Hz", { min: "1000", max: "2000" }, "1234.5"],
  ["1 234,5", "Hz", { min: "1000", max: "2000" }, "1234.5"],
  ["1.234.567", "Hz", { max: "2000000" }, "1234567"],
  ["120 ms", "s", { max: "1" }, "0.12"],
  ["2 min", "s", { max: "200" }, "120"],
  ["25", "°C", { max: "40" }, "25"],
  ["25 °C", "°C", { max: "40" }, "25"],
  ["77 °F", "°C", { max: "40" }, "25"],
  ["77F", "°C", { max: "40" }, "25"],
  ["60 pcs", "pieces", { min: "60", max: "60" }, "60"],
  ["60", "pieces", { min: "60", max: "60" }, "60"],
  ["98 %", "%", { min: "95" }, "98"],
  ["100 nF", "µF", { max: "1" }, "0.1"],
])("other units: %s in %s", (text, unit, limits, is) => expect(v(text, unit, limits)).toBe(is));

test.each([
  ["OL", "Ω"],
  ["O.L", "Ω"],
  ["0.L", "Ω"],
  ["0L Ω", "Ω"],
  ["1 .", "Ω"],
  ["∞", "Ω"],
  ["overload", "V"],
  ["NaN", "V"],
  ["----", "V"],
  ["no answer", "V"],
  ["timeout", "V"],
])("nothing could be read: %s is an error of the try, no failure", (text, unit) =>
  expect(v(text, unit)).toMatch(/^error: /),
);

test.each([
  ["", "Nothing was typed."],
  ["abc", "“abc” is no number."],
  // somebody's verdict is no reading, and none that could not be had
  ["fail", "“fail” is no number."],
  ["3.3.1", "“3.3.1” is no one number."],
  ["3 31", "“3 31” is no one number."],
  ["3.30-3.34", "“-3.34” is no unit."],
  ["~3.3", "“~3.3” is no number."],
  ["3.3 A", "“A” is A, and the plan asks for V."],
  ["3.3 mA", "“mA” is A, and the plan asks for V."],
  ["3.3 V AC", "It is alternating, and the plan asks for a steady value."],
  ["3,3 bananas", "“bananas” is no unit."],
  ["12.34,56,7", "“12.34,56,7” is no one number."],
  ["1,23.4", "“1,23.4” is no one number."],
  ["3.3e99", "“3.3e99” is out of all range."],
])("refused, with the word that was not read: %s", (text, because) =>
  expect(v(text)).toBe(`refused: ${because}`),
);
test("a kelvin is no degree, a temperature no volt", () => {
  expect(v("298 K", "°C", { max: "40" })).toBe("refused: “K” is no unit.");
  expect(v("25 °C")).toBe("refused: “°C” is °C, and the plan asks for V.");
  expect(v("5 C")).toBe("refused: “C” is no unit.");
  expect(v("60 V", "pieces", { min: "60" })).toBe("refused: “V” is V, and the plan asks for a count.");
});

test("what would be right in another unit, with the other mark, or is ten times over is asked about", () => {
  expect(v("3310")).toMatch(/^3310 \? 3310 V is outside its limits and would be right as 3310 mV/);
  expect(v("12.3", "A", { max: "0.02" })).toMatch(/would be right as 12.3 mA/);
  expect(v("2.2", "Ω", { min: "1000" })).toMatch(/would be right as 2.2 kΩ/);
  expect(v("1,234", "Hz", { min: "1000", max: "2000" })).toMatch(
    /^1.234 \? “1,234” is read as 1.234 Hz. Write 1234 /,
  );
  expect(v("40")).toMatch(/^40 \? 40 V is more than ten times/);
  // a share has no prefix that would explain it
  expect(v("8 %", "%", { max: "0.5" })).toMatch(/^8 \? 8 % is more than ten times/);
  // plainly failing is no doubt: a dead rail is nothing, a low one is low
  expect([v("0"), v("0.002"), v("2.9"), v("5.1")]).toEqual(["0", "0.002", "2.9", "5.1"]);
  // with a word of its unit nothing else can be meant but ten times
  expect(v("0,5 mV")).toBe("0.0005");
});

test("a number written in any of the ways is that number, and nothing typed breaks the reader", () => {
  const digits = fc.integer({ min: 1, max: 999_999 }).chain((n) =>
    fc.integer({ min: 0, max: 5 }).map((places) =>
      Big(n)
        .times(Big(`1e-${places}`))
        .toFixed(),
    ),
  );
  const power = fc.constantFrom(["m", -3], ["k", 3], ["M", 6], ["µ", -6], ["", 0] as const) as fc.Arbitrary<
    readonly [string, number]
  >;
  fc.assert(
    fc.property(
      digits,
      power,
      fc.constantFrom(".", ","),
      fc.constantFrom("", " "),
      (n, [p, by], mark, blank) => {
        const typed = `${n.replace(".", mark)}${blank}${p}V`;
        const read = readTyped(typed, "V", { min: "-1e12", max: "1e12" });
        expect(read).toEqual({
          kind: "value",
          value: Big(n)
            .times(Big(`1e${by}`))
            .toFixed(),
        });
      },
    ),
  );
  fc.assert(
    fc.property(
      fc.oneof(fc.string({ maxLength: 70 }), fc.stringMatching(/^[0-9.,' kMmVRΩ<>eE+-]{0,14}$/)),
      fc.constantFrom("V", "mA", "kΩ", "Hz", "°C", "%", "pieces"),
      (text, unit) => {
        const read = readTyped(text, unit, { min: "1", max: "2" });
        if (read.kind === "value") expect(Big(read.value).abs().lte("1e15")).toBe(true);
      },
    ),
  );
});
