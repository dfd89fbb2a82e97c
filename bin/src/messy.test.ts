import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect, test } from "@jest/globals";
import { type Bom, readBoard, readBom } from "@kobbin/core";
import { readTable } from "@kobbin/formats";
import ExcelJS from "exceljs";
import { commandsIn } from "../test/command.ts";

const utf8 = (text: string) => new TextEncoder().encode(text);
const utf16 = (text: string) => {
  const out = new Uint8Array(2 + text.length * 2);
  out.set([0xff, 0xfe]);
  for (let i = 0; i < text.length; i++)
    new DataView(out.buffer).setUint16(2 + i * 2, text.charCodeAt(i), true);
  return out;
};
const latin = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
const read = async (bytes: Uint8Array): Promise<Bom> => readBom((await readTable(bytes))!, "list");
const short = (bom: Bom) =>
  bom.lines.map(
    (l) => `${l.refs.join(" ")}|${l.qty}|${l.value?.si ?? ""}|${l.package}|${l.mpn}${l.dnp ? "|off" : ""}`,
  );
const tags = (bom: Bom) => bom.findings.map((f) => f.tag);

async function sheet(build: (s: ExcelJS.Worksheet) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  build(book.addWorksheet("parts"));
  return new Uint8Array(await book.xlsx.writeBuffer());
}

// ten messy lists: each gives the right lines, or a precise question
test("semicolons, decimal commas, an old western code page and a sum at the end", async () => {
  const bom = await read(
    latin(
      "Bezeichner;Menge;Wert;Bauform;Bemerkung\r\nR1, R2;2;4,7k\xb11%;0603;f\xfcr den Eingang\r\nC1;1;0,1\xb5F/50V;0603;\r\nSumme;3;;;\r\n",
    ),
  );
  expect(short(bom)).toEqual(["R1 R2|2|4700|0603|", "C1|1|1e-7|0603|"]);
  expect(bom.lines[0]!.description).toBe("für den Eingang");
});

test("tabs in UTF-16 as a spreadsheet saves them, references over several lines of a cell", async () => {
  const bom = await read(
    utf16(
      'Ref\tQty\tVal\tFootprint\tMPN\r\n"R1,\nR2 R3-R5"\t5\t10k\tR_0402\tZR-10K\r\nU1\t1\tTK31\tSOIC-8\tTK31-S\r\n',
    ),
  );
  expect(short(bom)).toEqual(["R1 R2 R3 R4 R5|5|10000|R_0402|ZR-10K", "U1|1||SOIC-8|TK31-S"]);
  expect(tags(bom)).toEqual([]);
});

test("no heading at all: columns by what they hold, and it is said", async () => {
  const bom = await read(
    utf8(
      "R1-R4,4,10k,0603,ZR-10K-0603\nC1 C2,2,100n,0402,ZC-100N\nU1,1,TK31,SOIC-8,TK31-S\nR9,1,0R,0603,ZR-0R\n",
    ),
  );
  expect(short(bom)).toEqual([
    "R1 R2 R3 R4|4|10000|0603|ZR-10K-0603",
    "C1 C2|2|1e-7|0402|ZC-100N",
    "U1|1||SOIC-8|TK31-S",
    "R9|1|0|0603|ZR-0R",
  ]);
  expect(bom.findings[0]).toMatchObject({ tag: "bom-header-missing", level: "warning" });
});

test("headings in a language that is not known: the columns are found all the same", async () => {
  const bom = await read(utf8("Osa;Arvo;Kotelo;Kpl\nR1,R2;1k;0805;2\nC3;22p;0603;1\nD1;red;LED_0603;1\n"));
  expect(short(bom)).toEqual(["R1 R2|2|1000|0805|", "C3|1|2.2e-11|0603|", "D1|1||LED_0603|"]);
  expect(bom.columns).toMatchObject({ refs: "Osa", value: "Arvo", package: "Kotelo" });
});

test("a sheet with a merged title, an empty row, formulas for quantities and sizes that lost their zero", async () => {
  const bytes = await sheet((s) => {
    s.addRow(["Lamp rev C, parts list", "", "", ""]);
    s.mergeCells("A1:D1");
    s.addRow([]);
    s.addRow(["References", "Quantity", "Value", "Package"]);
    s.addRow(["R1 R2", { formula: "1+1", result: 2 }, "330R", 603]);
    s.addRow(["C1", 1, "10u", 805]);
  });
  const bom = await read(bytes);
  expect(short(bom)).toEqual(["R1 R2|2|330|0603|", "C1|1|0.00001|0805|"]);
  expect(bom.lines.map((l) => l.row)).toEqual([4, 5]);
});

test("a part number that a spreadsheet made a number of is asked for", async () => {
  const bom = await read(utf8("Ref,Qty,Value,MPN\nR1,1,1k,1.5E+10\n"));
  expect(bom.findings.find((f) => f.tag === "bom-number-mangled")).toMatchObject({ row: 2, about: ["R1"] });
});

test("quantities against references, one reference in two lines, a thousand written two ways", async () => {
  const bom = await read(
    utf8("Ref;Qty;Value\nR1-R4;3;1k\nR4,R5;2;2k\n;1.000;M3 screw\n;1,000;M3 nut\n;25 pcs;foot\n"),
  );
  expect(bom.lines.map((l) => [l.refs.length, l.qty, l.qtyStated])).toEqual([
    [4, 4, 3],
    [2, 2, 2],
    [0, 1000, 1000],
    [0, 1000, 1000],
    [0, 25, 25],
  ]);
  expect(bom.findings.map((f) => [f.tag, f.row])).toEqual([
    ["bom-qty-mismatch", 2],
    ["bom-duplicate-ref", 3],
    ["bom-qty-grouped", 4],
    ["bom-qty-grouped", 5],
  ]);
});

test("what is left off, in ten styles; NP0 and 100 NF are capacitors, NC is asked", async () => {
  const bom = await read(
    utf8(
      "Ref,Value,Fitted,Note\nR1,DNP,,\nR2,10k DNP,,\nR3,1k,no,\nR4,1k,,do not populate\nR5,NP,,\nR6,1k,0,\nR7,1k,,not mounted\nR8,1k NOT FITTED,,\nR9,OMIT,,\nR10,1k,false,\nC1,22p NP0,yes,\nC2,100 NF,yes,\nR11,NC,,\n",
    ),
  );
  expect(bom.lines.filter((l) => l.dnp).map((l) => l.refs[0])).toEqual([
    "R1",
    "R2",
    "R3",
    "R4",
    "R5",
    "R6",
    "R7",
    "R8",
    "R9",
    "R10",
  ]);
  expect(bom.lines.find((l) => l.refs[0] === "C2")!.value).toEqual({ si: 1e-7, unit: "farad" });
  expect(bom.findings.filter((f) => f.tag === "bom-fitted-ambiguous").map((f) => f.about)).toEqual([["R11"]]);
});

test("references in every notation, values in every code", async () => {
  const bom = await read(
    utf8(
      'Designator|Comment\n"R1,2,5-7"|4k7\nC1/C2/C3|0.1 µF, 50 V\n(L1; L2)|10 µH\nY1 (x1)|16 MHz\nU1A-U1D|LM\nR10…R12|1 Meg\nR20-R18|1k\nR30|103\n',
    ),
  );
  expect(bom.lines.map((l) => [l.refs.join(" "), l.value?.si])).toEqual([
    ["R1 R2 R5 R6 R7", 4700],
    ["C1 C2 C3", 1e-7],
    ["L1 L2", 1e-5],
    ["Y1", 16e6],
    ["U1", undefined],
    ["R10 R11 R12", 1e6],
    ["R30", undefined],
  ]);
  expect(bom.findings.map((f) => [f.tag, f.row])).toEqual([
    ["bom-bad-ref", 8],
    ["bom-value-ambiguous", 9],
  ]);
});

test("fifty thousand rows are read in a moment, and what is wrong with thousands of them is told in a few sentences", async () => {
  const rows = Array.from({ length: 50_000 }, (_, i) => `R${i + 1},${i % 3 === 0 ? 2 : 1},1k,0603`);
  const bom = await read(utf8(`Ref,Qty,Value,Package\n${rows.join("\n")}\n`));
  expect(bom.lines.length).toBe(50_000);
  expect(bom.findings.length).toBeLessThan(100);
});

test("a drop knows a parts list without headings for one, and places without headings for none", () => {
  const drop = (path: string, text: string) => {
    const cells = text
      .trim()
      .split("\n")
      .map((l) => l.split(";"));
    return readBoard([{ path, bytes: utf8(text), cells }]).files[0]!.role;
  };
  expect(drop("a.csv", "R1-R4;10k;0603;4\nC1;100n;0402;1\nR9;1k;0603;1\n")).toBe("bom");
  expect(drop("b.csv", "Osa;Arvo;Kotelo\nR1 R2;1k;0805\nC3;22p;0603\n")).toBe("bom");
  expect(drop("c.csv", "R1;10k;0603;1.25;2.50;90;T\nC1;100n;0402;3.75;4.10;0;T\n")).toBe("unknown");
  expect(drop("d.csv", "one;two;three\nfour;five;six\n")).toBe("unknown");
});

const { folder, run, end } = commandsIn("messy");
afterAll(end);

test("the command line reads a list without headings, and refuses what is no list", async () => {
  const write = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  expect((await run("bom", write("a.csv", "R1-R4,4,10k,0603\nC1,1,100n,0402\n"), "--json")).status).toBe(0);
  expect((await run("bom", write("b.csv", "one,two\nthree,four\n"), "--json")).status).toBe(1);
});
