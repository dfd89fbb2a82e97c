import { expect, test } from "@jest/globals";
import {
  fitsText,
  freshImage,
  moved,
  typedFits,
  typedValues,
  typedWires,
  valuesText,
  wiresText,
} from "./imageModel.ts";

const image = (id: string) => freshImage(id, "J5", 1);

test("one image earlier or later, and not beyond the ends", () => {
  const list = ["a", "b", "c"].map(image);
  const order = (id: string, by: -1 | 1) =>
    moved(list, id, by)
      .map((i) => i.id)
      .join("");
  expect([order("b", -1), order("b", 1), order("a", -1), order("c", 1), order("x", 1)]).toEqual([
    "bac",
    "acb",
    "abc",
    "abc",
    "abc",
  ]);
});

test.each([
  ["J5.1 = red clip", [["J5.1", "red clip"]]],
  [
    "J5.1 → red\nTP3 - ground ; J5.4: reset, 10 µF",
    [
      ["J5.1", "red"],
      ["TP3", "ground"],
      ["J5.4", "reset, 10 µF"],
    ],
  ],
  ["J5.1->red", [["J5.1", "red"]]],
  ["J5.1 red clip", [["J5.1", "red clip"]]],
  ["", []],
  ["J5.1", "“J5.1” says no contact"],
  ["= red", "says no contact"],
])("contacts %j", (text, is) => {
  const read = typedWires(text);
  if ("wrong" in read) expect(read.wrong).toContain(is as string);
  else expect(read.rows.map((r) => [r.pin, r.to])).toEqual(is);
});

test.each([
  ["1.4–1.9 on B: yes", [["1.4–1.9", "B", "yes", ""]]],
  [
    ">= 2.0 on A + 1 rework: no, pins moved\nall on C: with limits – no sound",
    [
      [">= 2.0", "A + 1 rework", "no", "pins moved"],
      ["all", "C", "limits", "no sound"],
    ],
  ],
  ["1.0 on B : Limits", [["1.0", "B", "limits", ""]]],
  ["1.4 on B", "cannot be read"],
  ["1.4 B: yes", "cannot be read"],
  ["new ones on B: yes", "“new ones” is no range"],
  ["1.4 on B: maybe", "cannot be read"],
])("rows of versions %j", (text, is) => {
  const read = typedFits(text);
  if ("wrong" in read) expect(read.wrong).toContain(is as string);
  else expect(read.rows.map((r) => [r.versions, r.revision, r.is, r.why])).toEqual(is);
});

test("values, and what is written is read again the same", () => {
  expect(typedValues("number; network key (Wiped), gain")).toEqual({
    rows: [
      { name: "number", isWiped: false },
      { name: "network key", isWiped: true },
      { name: "gain", isWiped: false },
    ],
  });
  expect(typedValues("number; number")).toEqual({ wrong: "One stands twice." });
  const whole = {
    ...image("w"),
    wires: [{ pin: "J5.1", to: "red clip" }],
    values: [
      { name: "key", isWiped: true },
      { name: "n", isWiped: false },
    ],
    fits: [
      { versions: "≥ 2.0", revision: "A + 1 rework", is: "limits" as const, why: "no sound, slow" },
      { versions: "1.0, 1.2", revision: "B", is: "no" as const, why: "" },
    ],
  };
  expect([typedWires(wiresText(whole)), typedFits(fitsText(whole)), typedValues(valuesText(whole))]).toEqual([
    { rows: whole.wires },
    { rows: whole.fits },
    { rows: whole.values },
  ]);
});
