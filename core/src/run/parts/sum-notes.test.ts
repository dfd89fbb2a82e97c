import { expect, test } from "@jest/globals";
import type { Add } from "../document/note.ts";
import { madeLine, madeRun } from "../made-up.fixture.ts";
import { sumNotes } from "./sum-notes.ts";

/** What is said of a lamp's resistor at 5 V, 2 V for the lamp, 9 mA wanted. */
function saidOf(valueText: string, withinPct: number, more = {}): (readonly [string, string])[] {
  const said: (readonly [string, string])[] = [];
  const add: Add = (_, key, level, text) => void said.push([level, `${key.split(" ")[0]}: ${text}`]);
  sumNotes(
    madeRun({
      lines: [madeLine("r", ["R1"], { valueText, mpn: "", package: "0603", ...more })],
      sums: [
        {
          id: "1",
          kind: "lamp",
          name: "status",
          given: { supply: "5 V", drop: "2 V", count: "1", power: "0.1 W" },
          lines: { resistor: "r" },
          wanted: "9 mA",
          withinPct,
        },
      ],
    }),
    add,
  );
  return said;
}

// 3 V / 330 Ω = 9.091 mA, 3 V / 470 Ω = 6.383 mA; 9.091 mA at ± 5 % goes from 8.658 to 9.569 mA; 3 V · 150 mA is 4.5 times 0.1 W
test.each([
  ["330R 1%", 10, {}, []],
  [
    "470R 1%",
    10,
    {},
    [
      [
        "warning",
        "sum-off: R1 (status): the current through the lamp is 6.38 mA; wanted is 9 mA within 10 %.",
      ],
    ],
  ],
  [
    "330R 5%",
    3,
    {},
    [
      [
        "remark",
        expect.stringMatching(
          /^sum-spread: R1 .* goes from 8\.66 mA to 9\.57 mA; .* fall outside 3 % of 9 mA\.$/,
        ),
      ],
    ],
  ],
  [
    "20R 1%",
    10,
    {},
    [
      ["warning", expect.stringContaining("sum-off: R1 (status): the current through the lamp is 150 mA")],
      ["warning", expect.stringMatching(/^sum-hot: R1 .* loaded with 450 % of its rating/)],
    ],
  ],
  [
    "330R 1%",
    10,
    { dnp: true },
    [
      [
        "remark",
        "sum-open: R1 (status): the current through the lamp cannot be worked out, there is no resistor.",
      ],
    ],
  ],
] as const)("a sum kept with a line of %s within %s %%, %j", (value, within, more, expected) => {
  expect(saidOf(value, within, more)).toEqual(expected);
});

test("a sum of a kind nobody knows any more says nothing; one whose line is left off says what is missing", () => {
  const said: string[] = [];
  const sum = {
    id: "1",
    name: "old",
    given: { supply: "5 V" },
    lines: { resistor: "r" },
    wanted: "",
    withinPct: 0,
  };
  sumNotes(
    madeRun({
      lines: [madeLine("r", ["R1"], { valueText: "1k", mpn: "", dnp: true })],
      sums: [
        { ...sum, kind: "none" },
        { ...sum, id: "2", kind: "pull" },
      ],
    }),
    (_, key, level, text) => void said.push(`${key} ${level}: ${text}`),
  );
  expect(said).toEqual([
    "sum-open 2 remark: R1 (old): the current while the line is low cannot be worked out, there is no resistor.",
  ]);
});
