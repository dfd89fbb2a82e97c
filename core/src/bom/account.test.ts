import { expect, test } from "@jest/globals";
import { judgeList } from "../../test/dialects/judge-list.ts";
import { writtenList } from "../../test/dialects/lists.ts";
import { often } from "../../test/long.ts";
import { saysAccount } from "../table/account.ts";
import { readBom, readBomAt } from "./bom.ts";

const LINES = [
  ["R1, R2", "2", "4k7", "0603", "ZQ-1"],
  ["C1", "1", "100n", "0402", "ZQ-2"],
  ["U1", "1", "gate", "SO8", "ZQ-3"],
];
/** The three lines with one column more. */
const withColumn = (heading: string, cells: readonly string[]) =>
  readBom(
    [["Ref", "Qty", "Value", "Package", "MPN", heading], ...LINES.map((l, i) => [...l, cells[i]!])],
    "a.csv",
  );

test.each([
  // heading, its cells, read as, why
  ["Status", ["", "DNP", "fitted"], "fitted", "what stands in it says so"],
  ["Estado", ["montar", "no montar", "montar"], "fitted", "what stands in it says so"],
  ["Variant A", ["x", "", "x"], "asked", "it marks some of the lines, and nothing says what for"],
  ["Kit", ["ja", "nein", "ja"], "asked", "it marks some of the lines, and nothing says what for"],
  ["RoHS", ["yes", "no", "yes"], "passed", "it is of something else than what is fitted"],
  ["Line", ["1", "2", "3"], "passed", "it counts the rows"],
  ["Item", ["7", "8", "9"], "passed", "it counts the rows"],
  ["Per kit", ["50", "25", "25"], "passed", "it is 25 times the quantity"],
  ["Preis €", ["0.10", "0,02", "1.20"], "passed", "prices are not taken from a parts list"],
  ["Lieferant", ["A-1", "A-2", "B"], "passed", "a supplier's own number says nothing of the part"],
  ["Data", ["https://a.example/1", "", ""], "passed", "links are not followed"],
  ["Same again", ["4k7", "100n", "gate"], "passed", "it repeats the value"],
  ["Left free", ["", "", ""], "passed", "nothing stands in it"],
  ["Zone", ["north", "north", "north"], "passed", "it is the same in every row"],
  ["Grade", ["1 %", "X7R", ""], "asked", "neither its heading nor what stands in it says what it is"],
])("a column “%s” of %j is %s", (heading, cells, as, because) => {
  const { account, lines } = withColumn(heading, cells);
  expect(account!.columns.at(-1)).toMatchObject({ heading, as, because });
  expect(account!.columns.slice(0, 5).map((c) => [c.as, c.because])).toEqual(
    ["refs", "qty", "value", "package", "mpn"].map((k) => [k, "its heading says so"]),
  );
  expect(account!.rows).toMatchObject({ lines: 3, passed: 1 });
  // what is marked and not told is in doubt, line for line; a column that only has no name puts nothing in doubt
  const isOpen = because.startsWith("it marks");
  expect(lines.map((l) => l.fitted)).toEqual(lines.map(() => (isOpen ? "doubtful" : undefined)));
  expect(account!.rows.doubtful).toBe(isOpen ? 3 : 0);
});

test("words that say it themselves are taken, and the question is asked once where nothing says it", () => {
  expect(withColumn("Status", ["", "DNP", "fitted"]).lines.map((l) => l.dnp)).toEqual([false, true, false]);
  const { findings, account } = withColumn("Kit", ["x", "", "x"]);
  expect(findings.filter((f) => f.level !== "remark")).toEqual([
    expect.objectContaining({
      tag: "bom-fitted-unknown",
      level: "warning",
      text: expect.stringMatching(/^“Kit” marks/),
    }),
  ]);
  expect(saysAccount(account!)).toBe("6 columns: 5 read, 1 asked about");
});

test.each([
  ["Value (kΩ)", "4.7", "R1", 4700],
  ["Wert [nF]", "2,2", "C1", 2.2e-9],
  ["Valeur / µH", "10", "L1", 1e-5],
  ["Value in kOhm", "1k", "R1", 1000],
  ["Value (5 %)", "4k7", "R1", 4700],
])("a unit in the heading multiplies: %s, %s", (heading, text, ref, si) => {
  const { lines } = readBom(
    [
      ["Ref", heading],
      [ref, text],
      [`${ref}0`, text],
    ],
    "a.csv",
  );
  expect(lines.map((l) => l.value?.si)).toEqual([si, si].map((v) => expect.closeTo(v, 15)));
});

test("a confirmed layout keeps what hangs on it: units are read, and what a person spoke of is not asked again", () => {
  const cells = [
    ["Ref", "Value (kΩ)", "B"],
    ["R1", "4.7", "x"],
    ["R2", "1", ""],
  ];
  const layout = { at: { refs: 0, value: 1 }, heads: cells[0]!, firstRow: 1 };
  const asked = readBomAt(cells, "a.csv", layout);
  expect(asked.lines.map((l) => [l.value?.si, l.fitted])).toEqual([
    [4700, "doubtful"],
    [1000, "doubtful"],
  ]);
  const answered = readBomAt(cells, "a.csv", { ...layout, answered: [2] });
  expect([
    answered.lines.map((l) => l.fitted),
    answered.findings.filter((f) => f.level !== "remark"),
  ]).toEqual([[undefined, undefined], []]);
});

test("a star is what its footnote says; without one it is asked", () => {
  const cells = [
    ["Ref", "Value"],
    ["R1", "4k7*"],
    ["R2", "1k"],
    ["* not fitted", ""],
  ];
  const read = (list: string[][]) => readBom(list, "a.csv").lines.map((l) => [l.value?.si, l.dnp, l.fitted]);
  expect(read(cells)).toEqual([
    [4700, true, undefined],
    [1000, false, undefined],
  ]);
  expect(read(cells.slice(0, 3))[0]).toEqual([4700, false, "doubtful"]);
  expect(read([...cells.slice(0, 3), ["* 1 % types", ""]])[0]).toEqual([4700, false, undefined]);
});

test("lists in the ways people write them are read as meant, or it is said; none is something else without a word", () => {
  const counts = { right: 0, said: 0, silent: 0, refused: 0 };
  const many = often(540, 10_000);
  for (let n = 0; n < many; n++) {
    const written = writtenList(29, n);
    const { verdict, why } = judgeList(written);
    counts[verdict]++;
    if (verdict === "silent" || verdict === "refused") expect([n, written.kind, why]).toEqual([]);
  }
  expect(counts.right).toBeGreaterThan(many * 0.85);
});
