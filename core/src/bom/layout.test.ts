import { expect, test } from "@jest/globals";
import { listHead, readBom } from "./bom.ts";
import type { ChosenColumns } from "./layout.ts";

const named = [
  ["Kiln board"],
  ["Ref", "Value", "", "Order code", "Note"],
  ["R1 R2", "10k", "0603", "AX-1001", "BY-2002"],
  ["C1", "100n", "0603", "AX-1003", "BY-2004"],
];
const bare = [
  ["R1 R2", "2", "10k", "AX-1001"],
  ["C1", "1", "100n", "AX-1003"],
  ["C2", "1", "1u", "AX-1004"],
];

// how people say which column is what, the odd ways first; worked by hand
test.each<[string, string[][], ChosenColumns, object, string[]]>([
  ["no column is the part number, though one is called so", named, { mpn: "" }, { mpn: "" }, []],
  ["another heading than the known one", named, { mpn: "Note" }, { mpn: "BY-2002" }, []],
  [
    "a column without a heading, by its place",
    named,
    { description: "column 3" },
    { description: "0603" },
    [],
  ],
  [
    "a place that is something else already: it is that no more",
    named,
    { mpn: "column 2" },
    { mpn: "10k", valueText: "" },
    [],
  ],
  [
    "a list without headings keeps its first row",
    bare,
    { mpn: "column 3" },
    { mpn: "10k", valueText: "", refs: ["R1", "R2"] },
    [],
  ],
  [
    "references nobody recognises",
    [
      ["x", "7"],
      ["y", "8"],
    ],
    { qty: "column 2", description: "column 1" },
    { qty: 7, description: "x" },
    [],
  ],
  [
    "a heading that was there in the last export: said, and looked for anew",
    named,
    { mpn: "Bestellnummer" },
    { mpn: "AX-1001" },
    ["No column is called “Bestellnummer”, which was to be the part number: it was looked for anew."],
  ],
  [
    "a place beyond the list, likewise",
    named,
    { mpn: "column 9" },
    { mpn: "AX-1001" },
    [expect.stringContaining("column 9") as never],
  ],
])("%s", (_, cells, chosen, first, says) => {
  const read = readBom(cells, "parts.csv", chosen);
  expect(read.lines[0]).toMatchObject(first);
  expect(
    read.findings.filter((f) => f.level === "warning" && /called|looked for/.test(f.text)).map((f) => f.text),
  ).toEqual(says);
});

test("the top of a list has its columns with why, from its title to the first rows", () => {
  expect(listHead(named, "parts.csv", { description: "Note" })).toMatchObject({
    file: "parts.csv",
    rows: 4,
    firstRow: 2,
    at: { refs: 0, value: 1, package: 2, mpn: 3, description: 4 },
    because: { refs: "heading", package: "content", mpn: "heading", description: "chosen" },
  });
  const long = Array.from({ length: 50 }, (_, i) => [`R${i}`, "1", "10k", `AX-${1000 + i}`]);
  expect(listHead(long, "x").cells).toHaveLength(8);
  expect(listHead([["nothing", "here"]], "x")).toMatchObject({ at: {}, firstRow: 0, rows: 1 });
});
