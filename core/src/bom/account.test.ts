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
  ["Build", ["DNP", "DNP", "DNP"], "fitted", "what stands in it says so"],
  ["SMT placed", ["yes", "no", "yes"], "asked", "it marks some of the lines, and nothing says what for"],
  ["Wanted", ["no", "no", "no"], "asked", "it marks some of the lines, and nothing says what for"],
  ["Seen", ["yes", "yes", "yes"], "passed", "it is the same in every row"],
  ["Estado", ["montar", "no montar", "montar"], "fitted", "what stands in it says so"],
  ["Variant A", ["x", "", "x"], "asked", "it marks some of the lines, and nothing says what for"],
  ["Kit", ["ja", "nein", "ja"], "asked", "it marks some of the lines, and nothing says what for"],
  ["RoHS", ["yes", "no", "yes"], "passed", "it is of something else than what is fitted"],
  ["Line", ["1", "2", "3"], "passed", "it counts the rows"],
  ["Item", ["7", "8", "9"], "passed", "it counts the rows"],
  ["Per kit", ["50", "25", "25"], "passed", "it is 25 times the quantity"],
  ["Density", ["3", "1.5", "1.5"], "asked", "neither its heading nor what stands in it says what it is"],
  [
    "Region",
    ["north", "north", "south"],
    "asked",
    "neither its heading nor what stands in it says what it is",
  ],
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

test.each([
  [
    "a side of one letter is no unit",
    [
      ["Ref", "Value", "Side"],
      ["R1", "4700", "F"],
      ["C1", "2n", "F"],
    ],
    [4700, 2e-9],
  ],
  [
    "a unit that is none of the part's",
    [
      ["Ref", "Value (nF)"],
      ["C1", "10"],
      ["R1", "100"],
    ],
    [1e-8, 100],
  ],
])("%s: the number stays as it is", (_, cells, si) => {
  const { lines, findings } = readBom(cells, "a.csv");
  expect(lines.map((l) => l.value?.si)).toEqual(si.map((v) => expect.closeTo(v, 12)));
  // read in ohms below a heading of farads is a guess
  const loud = findings.filter((f) => f.level === "warning").map((f) => f.text);
  expect(loud).toEqual(
    cells[0]!.length === 2
      ? ["R1: “100” stands where values are in nF, which is no unit of such a part."]
      : [],
  );
});

test("a row that adds up is a sum at the end only, with its word in front, and that is said", () => {
  const head = ["Value", "Ref", "Qty"];
  const parts = [
    ["1k", "R1, R2", "2"],
    ["100n", "C1, C2", "2"],
  ];
  const read = (...rows: string[][]) => readBom([head, ...parts, ...rows], "a.csv");
  const guessed = read(["Yhteensä", "", "4"]);
  expect([guessed.lines.length, guessed.findings.map((f) => [f.level, f.row])]).toEqual([
    2,
    [
      ["warning", 4],
      ["remark", 4],
    ],
  ]);
  // a loose part before the end, or one whose number is another
  expect(read(["screw", "", "4"], ["nut", "", "9"]).lines.map((l) => l.qty)).toEqual([2, 2, 4, 9]);
  expect(read(["screw", "", "5"]).lines).toHaveLength(3);
});

test("a heading that promises what it does not hold gives way to what does, and that is said", () => {
  const { columns, lines, findings } = readBom(
    [
      ["Component", "Where", "Value", "Nombre"],
      ["resistor", "R1, R2", "1k", "small"],
      ["capacitor", "C1", "100n", "small"],
    ],
    "a.csv",
  );
  expect([columns, lines.map((l) => l.refs.join(" "))]).toEqual([
    { refs: "Where", value: "Value" },
    ["R1 R2", "C1"],
  ]);
  expect(findings.filter((f) => f.tag === "bom-column-guessed").map((f) => f.text)).toEqual([
    "“Component” is called like the references and holds something else; “Where” holds them.",
    "“Nombre” is called like the quantity and holds something else.",
  ]);
  // a person's word stands
  expect(
    readBom(
      [
        ["Component", "Qty"],
        ["resistor", "1"],
      ],
      "a.csv",
      { refs: "Component" },
    ).columns.refs,
  ).toBe("Component");
});

test("of a column of marks a person says which word means left off, whatever its language; no word is one too", () => {
  const pair = withColumn("Beültetve", ["igen", "nem", "Igen"]);
  expect(pair.account!.columns.at(-1)!.marks).toEqual(undefined);
  const four = [
    ["Ref", "Value", "Beültetve"],
    ...["igen", "nem", "Igen", "igen"].map((t, i) => [`R${i + 1}`, "1k", t]),
  ];
  const layout = { at: { refs: 0, value: 1 }, heads: four[0]!, firstRow: 1 };
  expect(readBomAt(four, "a.csv", layout).account!.columns.at(-1)!.marks).toEqual(["igen", "nem"]);
  const off = (cells: string[][], mark: string) => {
    const { lines, account } = readBomAt(cells, "a.csv", {
      ...layout,
      answered: [2],
      leftOff: { column: 2, mark },
    });
    expect(account!.columns.at(-1)).toMatchObject({ as: "fitted", because: "a person said so", sure: 1 });
    return lines.map((l) => [l.dnp, l.fitted]);
  };
  expect(off(four, "nem")).toEqual([false, true, false, false].map((dnp) => [dnp, undefined]));
  expect(off(four, "IGEN")).toEqual([true, false, true, true].map((dnp) => [dnp, undefined]));
  const signs = four.map((r, i) => [r[0]!, r[1]!, i === 2 ? "" : i === 0 ? r[2]! : "x"]);
  expect(off(signs, "")).toEqual([false, true, false, false].map((dnp) => [dnp, undefined]));
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
  const counts = { right: 0, asked: 0, said: 0, silent: 0, refused: 0 };
  const many = often(660, 10_000);
  for (let n = 0; n < many; n++) {
    const written = writtenList(29, n);
    const { verdict, why } = judgeList(written);
    counts[verdict]++;
    if (verdict === "silent" || verdict === "refused") expect([n, written.kind, why]).toEqual([]);
  }
  expect(counts.right + counts.asked).toBeGreaterThan(0.98 * (counts.right + counts.asked + counts.said));
});

test("what a person said of a column of marks of a list in a drop holds when it is read again", () => {
  const cells = ["Ref;Qty;Value;Kit A;Kit B", "R1;1;4k7;x;x", "R2;1;1k;;x", "R3;1;2k2;x;"].map((l) =>
    l.split(";"),
  );
  const off = (chosen: Parameters<typeof readBom>[2]) => {
    const bom = readBom(cells, "a.csv", chosen);
    return [
      bom.lines.map((l) => l.fitted ?? l.dnp),
      bom.account!.columns.filter((c) => c.as === "asked").length,
    ];
  };
  const doubt = ["doubtful", "doubtful", "doubtful"];
  expect(off({})).toEqual([doubt, 2]);
  expect(off({ "off x": "Kit A" })).toEqual([[true, "doubtful", true], 1]);
  expect(off({ "off x": "Kit A", "nothing 5": "Kit B" })).toEqual([[true, false, true], 0]);
  expect(off({ "off ": "column 4", "nothing 5": "Kit B" })).toEqual([[false, true, false], 0]);
  expect(off({ "nothing 4": "Kit A", "nothing 5": "Kit B" })).toEqual([[false, false, false], 0]);
  expect(off({ "off x": "Kit C" })).toEqual([doubt, 2]);
});

test("known headings count beside an unknown one under which references stand", () => {
  const cells = ["Tunnus;Comment;Part Number", "R1;330R;ZZ-330", "D1;red;ZZ-RED"].map((l) => l.split(";"));
  const { lines, account } = readBom(cells, "a.csv");
  expect(lines.map((l) => [l.refs[0], l.mpn])).toEqual([
    ["R1", "ZZ-330"],
    ["D1", "ZZ-RED"],
  ]);
  expect(account!.columns.map((c) => [c.as, c.sure])).toEqual([
    ["refs", 0.85],
    ["value", 0.97],
    ["mpn", 0.97],
  ]);
});

// a 0 where references stand, and the letter beside a no: what is taken, and how it is said
test.each<[string, string, boolean[], string[]]>([
  [
    "none stated where the others count their references",
    "Ref;Qty;Value\nR1,R2;0;4k7\nR3;1;1k\nR4,R5;2;2k2",
    [true, false, false],
    ["warning bom-fitted-ambiguous"],
  ],
  [
    "none stated where others disagree as well",
    "Ref;Qty;Value\nR1,R2;0;4k7\nR3;1;1k\nR4,R5;3;2k2",
    [false, false, false],
    ["warning bom-qty-mismatch", "warning bom-qty-mismatch"],
  ],
  ["none stated in most", "Ref;Qty;Value\nR1;0;4k7\nR3;1;1k", [false, false], ["warning bom-qty-mismatch"]],
  [
    "S beside N",
    "Ref;Value;Fitted\nR1;4k7;S\nR3;1k;N\nR4;2k2;S",
    [false, true, false],
    ["remark bom-fitted-ambiguous"],
  ],
  [
    "T beside nie, of what is left off",
    "Ref;Value;DNP\nR1;4k7;T\nR3;1k;nie\nR4;2k2;nie",
    [true, false, false],
    ["remark bom-fitted-ambiguous"],
  ],
  [
    "a letter no yes begins with",
    "Ref;Value;Fitted\nR1;4k7;B\nR3;1k;N\nR4;2k2;N",
    [true, true, true],
    ["warning bom-fitted-unknown"],
  ],
  [
    "three marks",
    "Ref;Value;Fitted\nR1;4k7;S\nR3;1k;N\nR4;2k2;T",
    [true, true, true],
    ["warning bom-fitted-unknown", "warning bom-fitted-unknown"],
  ],
  [
    "words for the parts under a heading of references",
    "Component;On board;Value;Qty\nresistor;R1;4k7;1\nresistor;R3;1k;1\ncapacitor;C1;1n;1\nresistor;R4;1k;1",
    [false, false, false, false],
    [],
  ],
  [
    "a yes and a no there",
    "Component;On board;Value;Qty\nja;R1;4k7;1\nja;R3;1k;1\nnein;C1;1n;1\nja;R4;1k;1",
    [false, false, false, false],
    ["warning bom-fitted-unknown"],
  ],
])("fitted or left off: %s", (_, text, dnp, findings) => {
  const bom = readBom(
    text.split("\n").map((l) => l.split(";")),
    "a.csv",
  );
  expect(bom.lines.map((l) => l.dnp)).toEqual(dnp);
  const of = /bom-(fitted|qty)/;
  expect(bom.findings.filter((f) => of.test(f.tag)).map((f) => `${f.level} ${f.tag}`)).toEqual(findings);
});
