import { afterAll, expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { openDrop, packZip, unpackZip } from "./archive.ts";
import { BudgetError, DROP_LIMITS, DropBudget } from "./budget.ts";
import { crc32, readDirectory } from "./directory.ts";
import { readDrop } from "./drop.ts";
import { cleanPath } from "./path.ts";
import { readTable } from "./table.ts";
import { weighSheet } from "./weigh-sheet.ts";

const AT = new Date("2026-01-01T00:00:00Z");
const u32 = (b: Uint8Array, p: number, v: number) =>
  new DataView(b.buffer, b.byteOffset).setUint32(p, v, true);
const u16 = (b: Uint8Array, p: number, v: number) =>
  new DataView(b.buffer, b.byteOffset).setUint16(p, v, true);
/** Where the directory's entries begin in an archive of ours. */
const directory = (b: Uint8Array): number[] => {
  const out: number[] = [];
  for (let p = 0; p + 4 < b.length; p++)
    if (b[p] === 0x50 && b[p + 1] === 0x4b && b[p + 2] === 1 && b[p + 3] === 2) out.push(p);
  return out;
};
const two = () =>
  zipSync({ "a.gtl": strToU8("first ".repeat(50)), "b.gbl": strToU8("second ".repeat(50)) }).slice();
const open = (bytes: Uint8Array) => openDrop([{ path: "x.zip", bytes }]);

test("the check sum is that of the published example", () => {
  expect(crc32(strToU8("123456789"))).toBe(0xcbf43926);
});

test.each<[string, (b: Uint8Array) => void, string]>([
  ["an entry whose bytes were changed", (b) => b.set([b[40]! ^ 255], 40), "damaged"],
  ["a size that says less than is there", (b) => u32(b, directory(b)[0]! + 24, 5), "damaged"],
  ["a size that says more than is there", (b) => u32(b, directory(b)[0]! + 24, 9_999), "damaged"],
  ["an entry packed by another method", (b) => u16(b, directory(b)[0]! + 10, 12), "does not read"],
  ["an entry behind a password", (b) => u16(b, directory(b)[0]! + 8, 1), "encrypted"],
])("%s is left out with an error, the other one is kept", (_, spoil, words) => {
  const bytes = two();
  spoil(bytes);
  const o = open(bytes);
  expect(o.files.map((f) => f.path)).toEqual(["b.gbl"]);
  expect(o.notes.map((n) => n.level)).toEqual(["error"]);
  expect(o.notes[0]!.text).toContain(words);
});

test("an archive behind a password is called that, whole", () => {
  const b = two();
  for (const p of directory(b)) u16(b, p + 8, 1);
  expect(open(b)).toMatchObject({
    files: [],
    rejected: expect.stringContaining("encrypted"),
    notes: [{ tag: "archive-encrypted", level: "error" }],
  });
});

test("entries that lie over each other are no sound directory", () => {
  const b = two();
  const [first, second] = directory(b);
  expect(readDirectory(b, 10)).toHaveLength(2);
  // the second says it lies where the first does: one packed byte would count many times
  b.copyWithin(second! + 42, first! + 42, first! + 46);
  expect(readDirectory(b, 10)).toBeUndefined();
});

test("something before the archive does not hide it", () => {
  const b = two();
  const shifted = new Uint8Array(b.length + 100);
  shifted.set(b, 100);
  expect(readDirectory(shifted, 10)?.map((e) => e.name)).toEqual(["a.gtl", "b.gbl"]);
});

test.each([
  ["..\\..\\etc/passwd", "etc/passwd"],
  ["/abs/top.gtl", "abs/top.gtl"],
  ["C:\\boards\\top.gtl", "boards/top.gtl"],
  ["C:D:top.gtl", "top.gtl"],
  ["a/./b//c.gtl", "a/b/c.gtl"],
  ["top\u0000.gtl", "top.gtl"],
  ["top\u202Eltg.exe", "topltg.exe"],
  ["top.gtl. . ", "top.gtl"],
  ["....", "unnamed"],
  ["", "unnamed"],
  ["__proto__", "__proto__"],
  ["obere Lage äö.gtl", "obere Lage äö.gtl"],
  ["half \uD800.gtl", "half .gtl"],
  ["x".repeat(120), "x".repeat(120)],
  ["a/b/c/d/e/f/g/h/i.gtl", "b/c/d/e/f/g/h/i.gtl"],
  [`${"x".repeat(300)}.gtl`, `${"x".repeat(100)}${"x".repeat(16)}.gtl`],
])("the name %j is kept as %j", (name, kept) => {
  expect(cleanPath(name)).toBe(kept);
  expect(cleanPath(kept)).toBe(kept);
});

test("names that mean something to the language are names like others, in and out", () => {
  const names = ["__proto__", "constructor", "toString", "hasOwnProperty"];
  const files = names.map((path) => ({ path, bytes: strToU8(path) }));
  const packed = packZip(files, AT);
  expect(unpackZip(packed)).toEqual(files);
  expect(open(packed)).toEqual({ files, notes: [] });
});

test("a name that stands twice with other bytes is a loss; with the same bytes it is nothing", () => {
  const both = (second: string) =>
    openDrop([
      { path: "a.zip", bytes: packZip([{ path: "top.gtl", bytes: strToU8("x") }], AT) },
      { path: "top.gtl", bytes: strToU8(second) },
    ]);
  expect(both("x").notes).toEqual([]);
  expect(both("y").notes).toMatchObject([{ tag: "duplicate-name", level: "error", file: "top.gtl" }]);
});

const SHEET =
  '<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">';
const workbook = (sheet: string): Uint8Array =>
  zipSync({
    "[Content_Types].xml": strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    ),
    "_rels/.rels": strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    ),
    "xl/workbook.xml": strToU8(
      '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="a" sheetId="1" r:id="rId1"/></sheets></workbook>',
    ),
    "xl/_rels/workbook.xml.rels": strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    ),
    "xl/worksheets/sheet1.xml": strToU8(`${SHEET}${sheet}</worksheet>`),
  });
const cell = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const PLAIN = `<sheetData><row r="1">${cell("A1", "Ref")}${cell("B1", "Qty")}</row><row r="2">${cell("A2", "R1")}${cell("B2", "1")}</row></sheetData>`;

test("a plain sheet reads, and what is merged or checked in it does no harm while it is little", async () => {
  expect(await readTable(workbook(PLAIN))).toEqual([
    ["Ref", "Qty"],
    ["R1", "1"],
  ]);
  // a rule over whole columns would be an object a cell: it is not looked at
  const rule = `${PLAIN}<dataValidations count="1"><dataValidation type="list" sqref="A1:XFD1048576"><formula1>"a"</formula1></dataValidation></dataValidations>`;
  expect(await readTable(workbook(rule))).toHaveLength(2);
});

test.each([
  ["B2:D6", 15],
  ["D6:B2", 15],
  ["$B$2:$B$2", 1],
  ["A1:AB1", 28],
])("each cell merged by %s counts, at whichever corner it begins: %i", (ref, cells) => {
  const weigh = (merged: number) => () =>
    weighSheet(
      workbook(`${PLAIN}<mergeCells count="1"><mergeCell ref="${ref}"/></mergeCells>`),
      new DropBudget({ ...DROP_LIMITS, merged }),
    );
  expect(weigh(cells)()).toBe(true);
  expect(weigh(cells - 1)).toThrow("merges more cells");
});

test.each([
  [
    "merges everything",
    `${PLAIN}<mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>`,
    "merges",
  ],
  [
    "has a cell in the last row",
    `<sheetData><row r="1048576">${cell("A1048576", "x")}</row></sheetData>`,
    "row 1048576",
  ],
  [
    "has a cell in the last column of many rows",
    `<sheetData>${Array.from({ length: 400 }, (_, i) => `<row r="${i + 1}">${cell(`XFD${i + 1}`, "x")}</row>`).join("")}</sheetData>`,
    "more cells",
  ],
])("a small sheet that %s is refused before it is opened", async (_, sheet, words) => {
  const bytes = workbook(sheet);
  expect(bytes.length).toBeLessThan(12_000);
  await expect(readTable(bytes)).rejects.toThrow(words);
  await expect(readTable(bytes)).rejects.toBeInstanceOf(BudgetError);
  // in a drop it is an error beside the other files, which are read
  const drop = await readDrop(
    [
      { path: "list.xlsx", bytes },
      { path: "top.gtl", bytes: strToU8("x") },
    ],
    (b) => b[0] === 0x50,
  );
  expect(drop.entries.map((e) => e.path)).toEqual(["list.xlsx", "top.gtl"]);
  expect(drop.notes).toMatchObject([{ tag: "budget-reached", level: "error", file: "list.xlsx" }]);
});

test("the last row that is read is read, and one cell more than a drop may hold is too many", async () => {
  const at = (row: number) =>
    workbook(`<sheetData><row r="${row}">${cell(`A${row}`, "x")}</row></sheetData>`);
  expect(weighSheet(at(200_000), new DropBudget())).toBe(true);
  expect(() => weighSheet(at(200_001), new DropBudget())).toThrow("row 200001; 200000 rows are read");
  // a cell that names a later row than its row does counts as well
  const loose = workbook(`<sheetData><row r="1">${cell("A200001", "x")}</row></sheetData>`);
  expect(() => weighSheet(loose, new DropBudget())).toThrow("row 200001; 200000 rows are read");
  // two rows of two cells: each cell ends with one mark
  const text = strToU8("a,b\nc,d\n");
  const cells = (n: number) => readTable(text, new DropBudget({ ...DROP_LIMITS, cells: n }));
  expect(await cells(4)).toHaveLength(2);
  await expect(cells(3)).rejects.toBeInstanceOf(BudgetError);
  // of one table there is nothing to choose
  const { entries } = await readDrop([{ path: "a.csv", bytes: text }], () => true);
  expect(entries[0]).toMatchObject({
    cells: [
      ["a", "b"],
      ["c", "d"],
    ],
  });
  expect(entries[0]).not.toHaveProperty("sheets");
});

test("a text of separators is refused before it is split", async () => {
  await expect(readTable(strToU8(",".repeat(3_000_000)))).rejects.toBeInstanceOf(BudgetError);
});

const before = process.memoryUsage().rss;
afterAll(() => {
  // all of the above together asked for next to nothing
  expect((process.memoryUsage().rss - before) / 1048576).toBeLessThan(400);
});
