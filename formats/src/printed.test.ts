import { readFileSync, writeFileSync } from "node:fs";
import { PDFArray, PDFDocument, PDFRawStream } from "@cantoo/pdf-lib";
import { expect, test } from "@jest/globals";
import { unzlibSync } from "fflate";
import { unpackZip } from "./index.ts";
import { buildPackage } from "./package.ts";
import { type PlanDrawing, planSvg, writePlan } from "./plan.ts";
import { type SheetPicture, writeSheet } from "./sheet.ts";

const WHEN = new Date("2026-11-24T10:00:00Z");

/** What a printed file draws, page by page, with its words in clear; sizes and places in points. */
async function drawn(bytes: Uint8Array): Promise<string> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  return doc
    .getPages()
    .map((page) => {
      const contents = page.node.Contents();
      const refs = contents instanceof PDFArray ? contents.asArray() : [];
      const text = refs
        .map((r) => doc.context.lookup(r))
        .filter((s): s is PDFRawStream => s instanceof PDFRawStream)
        .map((s) => Buffer.from(unzlibSync(s.getContents())).toString("latin1"))
        .join("\n")
        .replace(
          /<([0-9A-F]+)> Tj/g,
          (_, hex: string) => `(${Buffer.from(hex, "hex").toString("latin1")}) Tj`,
        )
        // names of faces are made up anew each time
        .replace(/\/[A-Za-z-]+-\d+ /g, (name) => `${name.replace(/-\d+/, "")}`);
      return `page ${page.getWidth().toFixed(2)} x ${page.getHeight().toFixed(2)}\n${text}`;
    })
    .join("\n");
}

/** Holds what is drawn against the file kept beside this test; npm run golden keeps it anew, to be looked at and committed. */
function expectKept(name: string, text: string): void {
  const at = new URL(`golden/${name}`, import.meta.url);
  const look =
    "look at: words that are missing or others, lines (Tm: where they stand) that ran out of the page";
  // one thing that is drawn is one line
  const kept = name.endsWith(".svg")
    ? `<!-- ${look} -->\n${text}`
    : `${look}\n\n${text.replace(/\n(?!q$|BT$|page )/gm, " ")}\n`;
  if (process.env.KOBBIN_GOLDEN === "write") writeFileSync(at, kept);
  expect(kept).toBe(readFileSync(at, "utf8"));
}

const picture = (side: string, over: Partial<SheetPicture> = {}): SheetPicture => ({
  side,
  // drawn from somewhere else than nought
  box: [30, -4, 50, 6],
  outline: [[30, -4, 50, -4, 50, 6, 30, 6]],
  openings: [[31, 1, 32, 1, 32, 2, 31, 2]],
  legend: [{ width: 0.15, lines: [31, 1, 35, 5, 35, 5, 39, 5] }],
  holes: [{ x: 33, y: 3, d: 1 }],
  slots: [
    {
      points: [
        [31, 2],
        [35, 2],
      ],
      d: 1,
    },
  ],
  ...over,
});

test("a sheet is set as it is kept: pairs in two columns, pictures, a table that breaks its cells, notes over two pages", async () => {
  const bytes = await writeSheet(
    {
      title: "Fabrication: 10 Ω board → B",
      subtitle: "for the house",
      pairs: [
        {
          heading: "Order",
          rows: [
            ["Boards", "45"],
            ["Instructions", "keep the contacts whole and ask before anything is changed at all"],
          ],
        },
        { heading: "Measured", rows: [["Size", "20 × 10 mm"]] },
      ],
      tables: [
        {
          heading: "Files",
          rows: [
            ["File", "Bytes", "Hash"],
            ["top-copper-with-a-very-long-name-that-is-broken.gbr", "12", "0123456789abcdef0123456789abcdef"],
          ],
        },
      ],
      notes: Array.from({ length: 38 }, (_, i) => `note ${i + 1} — ≥ 0.2 mm`),
    },
    [picture("top"), picture("bottom, from below"), picture("third")],
    WHEN,
  );
  expectKept("sheet.txt", await drawn(bytes));
});

test("a wide picture takes a row of its own, a tall one is made smaller than the page", async () => {
  const one = (list: readonly SheetPicture[]) =>
    writeSheet({ title: "t", subtitle: "s", pairs: [], tables: [], notes: [] }, list, WHEN).then(drawn);
  const wide = picture("wide", { box: [0, 0, 60, 10], outline: [[0, 0, 60, 0, 60, 10, 0, 10]] });
  expectKept("pictures-wide.txt", await one([wide, { ...wide, side: "wide, from below" }]));
  expectKept("picture-tall.txt", await one([picture("tall", { box: [0, 0, 10, 900] })]));
});

const plan = (w: number, h: number, more: Partial<PlanDrawing> = {}): PlanDrawing => ({
  title: "Sheet of 4",
  subtitle: "board A",
  box: [-2, -3, w - 2, h - 3],
  areas: [
    { tone: "frame", rings: [[0, 0, 40, 0, 40, 30, 0, 30]] },
    { tone: "board", rings: [[5, 5, 15, 5, 15, 12]] },
    { tone: "none", rings: [[6, 6, 8, 6, 8, 8]] },
    { tone: "hole", rings: [[9, 6, 10, 6, 10, 7]] },
  ],
  lines: (["edge", "score", "dimension", "guide"] as const).map((kind, i) => ({
    x1: i,
    y1: 1,
    x2: i + 0.5,
    y2: 20,
    kind,
  })),
  circles: [
    { x: 3, y: 4, d: 1.5 },
    { x: 7, y: 4, d: 3, isFilled: true },
  ],
  texts: [
    { x: 5, y: 5, mm: 2, text: "A & <B>" },
    { x: 6, y: 9, mm: 1.5, text: "middle × 2", isMiddle: true },
    { x: 7, y: 9, mm: 3, text: "up", isMiddle: true, isUpright: true },
  ],
  notes: ["cut along the lines", "a note that is long ".repeat(12).trim()],
  ...more,
});

test("a plan one to one measures what it says: a millimetre is 72/25.4 points, and the bar is as long as it is called", async () => {
  const bytes = await writePlan(plan(60, 40, { barMm: 50 }), WHEN);
  const text = await drawn(bytes);
  expect(text).toContain("page 595.28 x 841.89");
  expect(text).toContain("one to one");
  // the outline of the frame: from −2 to 38 of a box from −2 to 58, in the middle of 210 mm
  const points = [...text.matchAll(/^(-?[\d.]+) (-?[\d.]+) [lm]$/gm)].map((m) => [
    Number(m[1]),
    Number(m[2]),
  ]);
  const [a, b] = points as [number, number][];
  expect(Math.hypot(b![0]! - a![0]!, b![1]! - a![1]!) / (72 / 25.4)).toBeCloseTo(40, 2);
  // the bar is the longest level line of its weight
  const bars = points.flatMap(([x, y], i) => {
    const [x2, y2] = points[i + 1] ?? [Number.NaN, Number.NaN];
    return y === y2 ? [Math.abs(x2! - x!) / (72 / 25.4)] : [];
  });
  expect(bars.some((mm) => Math.abs(mm - 50) < 1e-6)).toBe(true);
  expectKept("plan.txt", text);
});

test.each([
  // upright where it fits, lying where that fits, a page of its own where it must be one to one, smaller where it need not
  [180, 200, true, "595.28 x 841.89", "one to one"],
  [270, 120, true, "841.89 x 595.28", "one to one"],
  [400, 120, true, "1201.89 x ", "one to one"],
  [400, 120, false, "841.89 x 595.28", "not to scale: drawn 68 %"],
  [120, 600, false, "595.28 x 841.89", "not to scale: drawn 40 %"],
])("a plan of %d × %d, one to one %s, is on %s", async (w, h, isTrueSize, page, says) => {
  const text = await drawn(await writePlan(plan(w, h), WHEN, isTrueSize));
  expect(text).toContain(`page ${page}`);
  expect(text).toContain(says);
  // the last line at its foot is on the page
  const feet = [...text.matchAll(/^1 0 0 1 [\d.]+ ([\d.-]+) Tm$/gm)].map((m) => Number(m[1]));
  expect(Math.min(...feet) - 10).toBeGreaterThan(12);
});

test("notes that take several lines each have their room below a plan that is made smaller", async () => {
  const notes = Array.from({ length: 9 }, () => "a note that is long ".repeat(20).trim());
  const text = await drawn(await writePlan(plan(400, 590, { notes }), WHEN));
  const feet = [...text.matchAll(/^1 0 0 1 [\d.]+ ([\d.-]+) Tm$/gm)].map((m) => Number(m[1]));
  // three lines each, ten points apart, the page's margin of 34 points kept but for the last line's own depth
  expect(Math.min(...feet) - 20).toBeGreaterThan(30);
});

test("a plan as a drawing is kept too, with and without its bar", () => {
  expectKept("plan.svg", planSvg(plan(60, 40, { barMm: 50 })));
  const bare = planSvg(plan(60, 40));
  expect(bare).toContain('width="60mm" height="40mm" viewBox="0 0 60 40"');
  expect(bare).not.toContain('font-size="2.6"');
});

test("a sheet that lists the files of its package names each with its size and the first half of its hash; others do not", async () => {
  const sheet = { title: "t", subtitle: "s", pairs: [], tables: [], notes: [] };
  const { zip } = await buildPackage({
    files: [{ path: "fabrication/x/top.gtl", bytes: new TextEncoder().encode("abc") }],
    listed: [{ name: "x/top.gtl", bytes: new TextEncoder().encode("abc") }],
    tables: [],
    sheets: [
      { ...sheet, path: "a.pdf", listsFiles: true },
      { ...sheet, path: "b.pdf" },
    ],
    pictures: [],
    run: { kobbin: "run/1" },
    about: { run: "r", product: "p", revision: "A", createdAt: WHEN.toISOString() },
  });
  const files = new Map(unpackZip(zip).map((f) => [f.path, f.bytes]));
  const words = async (path: string) =>
    [...(await drawn(files.get(path)!)).matchAll(/\((.*)\) Tj/g)].map((m) => m[1]).join("|");
  // SHA-256 of "abc", as published
  expect(await words("a.pdf")).toBe(
    "t|s|Files|Fabrication file|Bytes|SHA-256, first half|x/top.gtl|3|ba7816bf8f01cfea414140de5dae2223",
  );
  expect(await words("b.pdf")).toBe("t|s");
  expect(new TextDecoder().decode(files.get("run.json")!)).toBe('{\n "kobbin": "run/1"\n}\n');
  // JSON that can be read by eye, with a line end at its end
  expect(new TextDecoder().decode(files.get("manifest.json")!)).toMatch(
    /^\{\n "kobbin": "package\/1",\n[\s\S]*\}\n$/,
  );
});
