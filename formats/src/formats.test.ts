import { expect, test } from "@jest/globals";
import ExcelJS from "exceljs";
import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import { openDrop, packZip, unpackZip } from "./archive.ts";
import { DROP_LIMITS, DropBudget } from "./budget.ts";
import { sha256Hex } from "./hash.ts";
import { buildPackage } from "./package.ts";
import { defuse, readCsv, readTable, readTables, undefuse, writeCsv } from "./table.ts";
import { decodeText } from "./text.ts";

const zip = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, strToU8(v)])));
const drop = (path: string, bytes: Uint8Array) => openDrop([{ path, bytes }]);

test("an archive opens, folders and system files fall away", () => {
  const o = drop("a.zip", zip({ "top.gtl": "x", "sub/edge.gko": "y", "__MACOSX/._top.gtl": "z" }));
  expect(o.files.map((f) => f.path).sort()).toEqual(["sub/edge.gko", "top.gtl"]);
  expect(o.notes).toEqual([]);
});

test("paths that lead out are skipped by name, the rest is kept", () => {
  const o = drop("a.zip", zip({ "../evil.gtl": "x", "/etc/passwd": "x", "C:\\x.gtl": "x", "good.gtl": "y" }));
  expect(o.files.map((f) => f.path)).toEqual(["good.gtl"]);
  expect(o.notes.map((n) => [n.tag, n.file])).toEqual([
    ["unsafe-path", "../evil.gtl"],
    ["unsafe-path", "/etc/passwd"],
    ["unsafe-path", "C:\\x.gtl"],
  ]);
});

test("a cut-off archive keeps what could be unpacked and says what could not", () => {
  const whole = zip({
    "a.gtl": "first ".repeat(400),
    "b.gbl": Array.from({ length: 4000 }, (_, i) => (i * 7919) % 1013).join(" "),
  });
  const cut = drop("a.zip", whole.slice(0, Math.floor(whole.length * 0.6)));
  expect(cut.files.map((f) => f.path)).toEqual(["a.gtl"]);
  expect(cut.notes[0]!.text).toContain("b.gbl");
  expect(drop("a.zip", whole.slice(0, 20)).rejected).toContain("cut off");
  expect(drop("a.zip", strToU8("no zip at all")).rejected).toContain("not a zip");
});

test("an archive inside an archive is taken as it is, whatever marks of its own it holds", () => {
  // written as streams are, with each entry's sizes behind it; what cannot be packed further lies there as it is
  const stream = (entries: readonly (readonly [string, Uint8Array])[]) =>
    packZip(
      entries.map(([path, bytes]) => ({ path, bytes })),
      new Date("2026-01-01T00:00:00Z"),
    );
  // hashes of hashes: nothing in them can be packed
  const noise = (name: string) => {
    let hash = name;
    const out = Array.from({ length: 900 }, () => {
      hash = sha256Hex(strToU8(hash));
      return Buffer.from(hash, "hex");
    });
    return new Uint8Array(Buffer.concat(out));
  };
  const names = ["a.pdf", "b.pdf", "c.pdf"];
  const inner = new Uint8Array(stream(names.map((name) => [name, noise(name)] as const)));
  const o = drop(
    "outer.zip",
    new Uint8Array(
      stream([
        ["inner.zip", inner],
        ["last.txt", strToU8("y")],
      ]),
    ),
  );
  expect(o.notes).toEqual([]);
  expect(o.files.map((f) => [f.path, f.bytes.length])).toEqual([
    ["inner.zip", inner.length],
    ["last.txt", 1],
  ]);
  expect(sha256Hex(o.files[0]!.bytes)).toBe(sha256Hex(inner));
});

test("a drop may be 100 MB, 500 files, two million cells: what a page tells people stands in its sentences", () => {
  expect(DROP_LIMITS).toEqual({ bytes: 104_857_600, entries: 500, cells: 2_000_000, merged: 200_000 });
});

test("a bomb stops at the bound, too many entries too; the bound is the drop's, not the archive's", () => {
  const within = (over: Partial<typeof DROP_LIMITS>) => new DropBudget({ ...DROP_LIMITS, ...over });
  const bomb = zip({ "zeros.gtl": "0".repeat(4_000_000) });
  const open = (over: Partial<typeof DROP_LIMITS>, ...archives: Uint8Array[]) =>
    openDrop(
      archives.map((bytes, i) => ({ path: `${i}.zip`, bytes })),
      within(over),
    ).rejected;
  expect(open({ bytes: 1_000_000 }, bomb)).toContain("larger than");
  expect(open({}, bomb)).toContain("200 times");
  const many = (n: number) =>
    zip(Object.fromEntries(Array.from({ length: n }, (_, i) => [`${n}-${i}.gtl`, "x"])));
  expect(open({ entries: 10 }, many(12))).toContain("more than 10 files");
  const both = openDrop(
    [8, 9].map((n) => ({ path: `${n}.zip`, bytes: many(n) })),
    within({ entries: 10 }),
  );
  expect(both.files).toHaveLength(8);
  expect(both.notes.map((n) => [n.tag, n.level])).toEqual([["archive-too-large", "error"]]);
});

test("a damaged archive never throws", () => {
  const whole = zip({ "a.gtl": "abc".repeat(200), "b.gbl": "def".repeat(200) });
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 12 }), (edits) => {
      const bytes = whole.slice();
      for (const [at, value] of edits) bytes[at] = value;
      drop("a.zip", bytes);
    }),
    { numRuns: 200 },
  );
});

test.each([
  ["UTF-8", new TextEncoder().encode("Ω;µ")],
  [
    "UTF-16, little end first",
    Uint8Array.from([
      0xff,
      0xfe,
      ...[..."Ω;µ"].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
    ]),
  ],
  [
    "UTF-16, big end first",
    Uint8Array.from([
      0xfe,
      0xff,
      ...[..."Ω;µ"].flatMap((c) => [c.charCodeAt(0) >> 8, c.charCodeAt(0) & 255]),
    ]),
  ],
])("%s is decoded", (_, bytes) => {
  expect(decodeText(bytes)).toBe("Ω;µ");
});

test("the old western code page is decoded where UTF-8 does not fit", () => {
  expect(decodeText(Uint8Array.of(0x47, 0x65, 0x68, 0xe4, 0x75, 0x73, 0x65))).toBe("Gehäuse");
});

test.each([[","], [";"], ["\t"], ["|"]])(
  "a table set apart by %j splits, quotes and line ends inside quotes stay",
  (mark) => {
    const rows = readCsv(
      [
        ["Ref", "Value", "Note"].join(mark),
        ["R1", `"a${mark}b"`, '"say ""x""\nsecond"'].join(mark),
        ["R2", "1", "2"].join(mark),
      ].join("\r\n"),
    );
    expect(rows).toEqual([
      ["Ref", "Value", "Note"],
      ["R1", `a${mark}b`, 'say "x"\nsecond'],
      ["R2", "1", "2"],
    ]);
  },
);

test("cells of a sheet stay text", async () => {
  const book = new ExcelJS.Workbook();
  book.addWorksheet("parts").addRows([
    ["Ref", "Package"],
    ["R1", "0402"],
  ]);
  const bytes = new Uint8Array(await book.xlsx.writeBuffer());
  expect(await readTable(bytes)).toEqual([
    ["Ref", "Package"],
    ["R1", "0402"],
  ]);
  expect(await readTable(Uint8Array.of(0x50, 0x4b, 3, 4, 0, 0))).toBeUndefined();
});

test.each([
  ["-5", "-5"],
  ["=1+1", "'=1+1"],
  ["-R1", "'-R1"],
  ["'-5", "''-5"],
  ["'abc", "'abc"],
  ["+3.5", "+3.5"],
  ["@cmd", "'@cmd"],
  ["\tx", "'\tx"],
  ["＝1", "'＝1"],
  ["R1;=1+1", "R1;'=1+1"],
  ["a|  @x", "a|'  @x"],
  ["a\t-R1", "a\t'-R1"],
  ["-1,5", "-1,5"],
  ["a=1", "a=1"],
])("%j is written as %j, so that no spreadsheet runs it", (cell, written) => {
  expect(defuse(cell)).toBe(written);
});

test("what is written reads back the same", () => {
  fc.assert(fc.property(fc.string(), (cell) => undefuse(defuse(cell)) === cell));
  fc.assert(
    fc.property(
      fc.array(
        fc.array(fc.string({ unit: "grapheme-ascii", minLength: 1, maxLength: 8 }), {
          minLength: 2,
          maxLength: 2,
        }),
        { minLength: 1, maxLength: 5 },
      ),
      (rows) => {
        const plain = rows.map((r) => r.map((c) => c.replace(/[\r\n]/g, "_").trim() || "x"));
        expect(readCsv(writeCsv([["a", "b"], ...plain]))).toEqual([["a", "b"], ...plain]);
      },
    ),
  );
});

test("a package holds every file with its hash, the same bytes for the same input", async () => {
  const input = {
    files: [{ path: "fabrication/x/top.gtl", bytes: strToU8("copper") }],
    tables: [
      {
        path: "baskets/a.csv",
        rows: [
          ["Part number", "Order quantity"],
          ["=X", "3"],
        ],
      },
    ],
    sheets: [
      {
        path: "sheets/fab.pdf",
        title: "Fabrication: Ω board",
        subtitle: "s",
        pairs: [{ heading: "Order", rows: [["Boards", "45"]] as const }],
        tables: [],
        notes: ["a note — long ".repeat(30)],
      },
    ],
    pictures: [
      {
        side: "top",
        box: [0, 0, 20, 10] as const,
        outline: [[0, 0, 20, 0, 20, 10, 0, 10]],
        openings: [],
        legend: [{ width: 0.15, lines: [1, 1, 5, 5] }],
        holes: [{ x: 3, y: 3, d: 1 }],
        slots: [
          {
            points: [
              [1, 2],
              [5, 2],
            ] as const,
            d: 1,
          },
        ],
      },
    ],
    listed: [],
    run: { kobbin: "run/1" },
    about: { run: "r", product: "p", revision: "A", createdAt: "2026-11-24T10:00:00Z" },
  };
  const [a, b] = [await buildPackage(input), await buildPackage(input)];
  expect(sha256Hex(a.zip)).toBe(sha256Hex(b.zip));
  const files = unpackZip(a.zip);
  const manifest = JSON.parse(
    new TextDecoder().decode(files.find((f) => f.path === "manifest.json")!.bytes),
  ) as typeof a.manifest;
  for (const f of manifest.files)
    expect(sha256Hex(files.find((x) => x.path === f.path)!.bytes)).toBe(f.sha256);
  expect(new TextDecoder().decode(files.find((f) => f.path === "baskets/a.csv")!.bytes)).toContain(
    '"\'=X","3"',
  );
  expect(new TextDecoder().decode(files.find((f) => f.path === "sheets/fab.pdf")!.bytes.subarray(0, 5))).toBe(
    "%PDF-",
  );
  expect(unpackZip(packZip(files, new Date("2026-01-01T00:00:00Z")))).toHaveLength(files.length);
});

test("a number of a sheet is what its cell shows, and a formula without a value is an error, not nothing", async () => {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet("parts");
  sheet.addRow(["Ref", "MPN", "Qty", "Value"]);
  const row = (mpn: ExcelJS.CellValue, format: string, value: ExcelJS.CellValue, valueFormat: string) => {
    const r = sheet.addRow(["R1", mpn, 2, value]);
    r.getCell(2).numFmt = format;
    r.getCell(4).numFmt = valueFormat;
  };
  row(1234, "000000", 4.7, '0.0" k"');
  row(new Date(Date.UTC(2026, 0, 2)), "d\\-m", 10, "0");
  row(1234567, "#,##0", 0.5, "0%");
  row(12, "General", 3.3, "General");
  row({ formula: "A1&B1" } as never, "General", { formula: "1+1", result: 2 } as never, "0.0");
  const cells = (await readTable(new Uint8Array(await book.xlsx.writeBuffer())))!;
  expect(cells.slice(1).map((r) => [r[1], r[3]])).toEqual([
    ["001234", "4.7 k"],
    ["2-1", "10"],
    ["1234567", "50%"],
    ["12", "3.3"],
    ["#NO VALUE!", "2.0"],
  ]);
});

test("rows struck through, hidden or coloured unlike the rest are told; a coloured heading and stripes are not", async () => {
  const looksOf = async (dress: (sheet: ExcelJS.Worksheet) => void) => {
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet("parts");
    sheet.addRows([["Ref", "Value"], ...Array.from({ length: 8 }, (_, i) => [`R${i + 1}`, "1k"])]);
    dress(sheet);
    return (await readTables(new Uint8Array(await book.xlsx.writeBuffer())))![0]!.looks;
  };
  const fill = (sheet: ExcelJS.Worksheet, n: number, argb: string) => {
    for (const c of [1, 2])
      sheet.getRow(n).getCell(c).fill = { type: "pattern", pattern: "solid", fgColor: { argb } };
  };
  expect(
    await looksOf((sheet) => {
      sheet.getRow(3).getCell(1).font = { strike: true };
      sheet.getRow(4).getCell(2).value = {
        richText: [{ text: "1k" }, { font: { strike: true }, text: " 2k" }],
      };
      sheet.getRow(5).hidden = true;
      sheet.getColumn(2).hidden = true;
      fill(sheet, 1, "FFDDDDDD");
      fill(sheet, 6, "FFFFFF00");
      sheet.getRow(7).getCell(1).font = { color: { argb: "FFFF0000" } };
    }),
  ).toEqual({ struck: [3, 4], hidden: [5], coloured: [6, 7], hiddenColumns: [2] });
  expect(
    await looksOf((sheet) => {
      for (let n = 1; n <= 9; n += 2) fill(sheet, n, "FFEEEEEE");
      fill(sheet, 2, "FFFFFFFF");
    }),
  ).toBeUndefined();
});
