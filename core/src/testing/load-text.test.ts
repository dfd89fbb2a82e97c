import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { isolationText, loadText, ratingsText, readIsolation, readLoad, readRatings } from "./load-text.ts";

// written before the code, each worked by hand
test.each([
  ["24 V DC, 2 A", "24", "direct", "2"],
  ["24VDC 2A", "24", "direct", "2"],
  ["2A at 24V DC", "24", "direct", "2"],
  ["24 V DC, 500 mA", "24", "direct", "0.5"],
  ["24V=/48W", "24", "direct", "2"],
  ["DC 12 V, 1,5 A", "12", "direct", "1.5"],
  ["1,5A 12V DC", "12", "direct", "1.5"],
  ["230 VAC 60 W", "230", "alternating", "0.26087"],
  ["230 V ~ 1 A", "230", "alternating", "1"],
  ["AC 24 V 1 A", "24", "alternating", "1"],
  ["1.2 kV DC 3 mA", "1200", "direct", "0.003"],
  ["5 V DC 250 µA", "5", "direct", "0.00025"],
  // the other letter that looks so
  ["5 V DC 250 μA", "5", "direct", "0.00025"],
  ["24 V DC, 2 A, 48 W", "24", "direct", "2"],
  ["24\u00a0V DC, 0.750 A", "24", "direct", "0.75"],
])("%s is %s V %s, %s A", (text, volts, kind, amps) => {
  expect(readLoad(text)).toEqual({ kind: "read", value: { volts, kind, amps } });
});

test.each([
  ["24 V", /What it is to drive is not said/],
  ["2 A", /At how many volts is not said/],
  ["", /At how many volts/],
  ["24 V 2 A 3 A", /written twice/],
  ["24 V DC 2 A 60 W", /24 V and 2 A are 48 W, not 60/],
  ["24 V AC DC 2 A", /direct and alternating/],
  ["24 V, 1,200 W", /may be 1\.200 or 1200/],
  ["0 V 2 A", /nothing/],
  ["-5 V 1 A", /“-” was not read/],
  ["5V5 1 A", /not read/],
  ["24 V, 2 A", /Whether it is direct or alternating is not said/],
  ["230 V 60 W", /Whether it is direct/],
  ["24 V DC 2 A max", /“max” was not read/],
  ["24 V 2 MA", /out of all range/],
  ["24 V 5000 kA", /out of all range/],
  ["24 VA DC, 2 A", /not read/],
  ["24 2", /not read/],
  ["1.2.3 V 1 A", /no one number/],
])("%s is refused", (text, because) => {
  expect(readLoad(text)).toEqual({ kind: "wrong", because: expect.stringMatching(because) });
});

test.each([
  [
    "U3 3 A; J3 2,5 A",
    [
      ["U3", "3"],
      ["J3", "2.5"],
    ],
  ],
  [
    "U3: 3A, J3 = 2500 mA",
    [
      ["U3", "3"],
      ["J3", "2.5"],
    ],
  ],
  ["track to J3 1.5 A", [["track to J3", "1.5"]]],
  ["J3 pin 2: 2 A", [["J3 pin 2", "2"]]],
  ["U3A 2 A", [["U3A", "2"]]],
  [
    "U3 3 A;\nJ3 2 A;",
    [
      ["U3", "3"],
      ["J3", "2"],
    ],
  ],
  ["", []],
] as const)("what is in the path, %j", (text, list) => {
  expect(readRatings(text)).toEqual({ kind: "read", value: list.map(([what, amps]) => ({ what, amps })) });
});

test.each([
  "U3 3",
  "3 A U3",
  "U33A",
  "U3 3 V",
  "U3 3 A; U3 2 A",
  "U3 3 A J3 2 A 4",
  "U3 0 A",
  "U3 3 MA",
  // two of them without a mark between, and numbers that may be one
  "U3 3 A J3 2 A",
  "U3 3, J3 2 A",
  "U3 3 J3 2 A",
  "U3 1 500 mA",
  "U3: 1 500 mA",
  "U3 2 x 1 A",
  "U3: 2 x 1 A",
  "U3 < 3 A",
  "U3 2-3 A",
  "U3 3 A at 25 °C",
])("%j is in no path", (text) => expect(readRatings(text).kind).toBe("wrong"));

test.each([
  ["U2 5 kV", { what: "U2", kilovolts: "5" }],
  ["U2 3750 V AC", { what: "U2", kilovolts: "3.75" }],
  ["U2 3750 Vrms", { what: "U2", kilovolts: "3.75" }],
  ["", undefined],
  ["U2 5 A", "wrong"],
  ["U2 5 kV; U3 3 kV", "wrong"],
] as const)("what keeps it apart, %j", (text, value) => {
  const read = readIsolation(text);
  expect(value === "wrong" ? read.kind : read).toEqual(value === "wrong" ? "wrong" : { kind: "read", value });
});

test("what is written of it reads back as it was", () => {
  const decimal = fc.integer({ min: 1, max: 99_999_999 }).map((n) => String(n / 1e4));
  fc.assert(
    fc.property(
      decimal,
      decimal,
      fc.constantFrom("direct" as const, "alternating" as const),
      (volts, amps, kind) => {
        expect(readLoad(loadText({ volts, amps, kind }))).toEqual({
          kind: "read",
          value: { volts, amps, kind },
        });
        const ratings = [
          { what: "U3", amps },
          { what: "J3 pin 2", amps: volts },
        ];
        expect(readRatings(ratingsText(ratings))).toEqual({ kind: "read", value: ratings });
        const isolation = { what: "U2", kilovolts: volts };
        if (Number(volts) < 900)
          expect(readIsolation(isolationText(isolation))).toEqual({ kind: "read", value: isolation });
      },
    ),
  );
});
