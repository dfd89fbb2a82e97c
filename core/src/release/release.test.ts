import { expect, test } from "@jest/globals";
import type { House } from "../fab/house.ts";
import type { FabOptions } from "../fab/options.ts";
import { lineKey } from "../library/facts.ts";
import { DEFAULT_ASSEMBLY, type RunDocument } from "../run/document/document.ts";
import { FULL } from "../run/full-house.fixture.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../run/made-up.fixture.ts";
import { rollUp } from "../run/roll-up.ts";
import { planPackage } from "./plan.ts";
import { slug } from "./planned.ts";

const place = (ref: string, rotationDeg = 0, side: "top" | "bottom" = "top") => ({
  ref,
  xMm: 1.23456,
  yMm: 2,
  rotationDeg,
  side,
});
const run = (more: Partial<RunDocument> = {}): RunDocument =>
  madeRun({
    boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }],
    lines: [
      madeLine("r", ["R2", "R10", "R1"]),
      madeLine("j", ["J1"], { package: "HDR-1x4", mpn: "OX-H4", valueText: "row", mount: "hand" }),
      madeLine("s", [], { mpn: "OX-M3", valueText: "screw", mount: "none", qty: 4 }),
      madeLine("x", ["R7"], { dnp: true }),
    ],
    placements: [place("R1", 359.9996), place("R2", 90, "bottom"), place("R10")],
    offers: ["r", "j", "s"].map((l) => madeOffer(`o${l}`, l, "0.0155", { stock: 5000 })),
    house: FAR,
    houses: [FAR],
    assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "far" },
    ...more,
  });
const table = (doc: RunDocument, path: string) =>
  planPackage(doc, rollUp(doc)).tables.find((t) => t.path.startsWith(path))!.rows;

test("places go out in natural order, four places of a millimetre, 359.9996° as 0°; hand parts and left-off ones do not", () => {
  expect(table(run(), "assembly/placement")).toEqual([
    ["Ref", "X mm", "Y mm", "Rot deg", "Side", "Value", "Package", "Board"],
    ["R1", "1.2346", "2.0000", "0", "Top", "10k", "0603 (1608 metric)", "B"],
    ["R2", "1.2346", "2.0000", "90", "Bottom", "10k", "0603 (1608 metric)", "B"],
    ["R10", "1.2346", "2.0000", "0", "Top", "10k", "0603 (1608 metric)", "B"],
  ]);
  // the only board needs no column; a line nobody sells goes out under its own number
  expect(table(run(), "assembly/parts-list").map((r) => [r[0], r[1], ...r.slice(5)])).toEqual([
    ["References", "Quantity", "Part number", "Description", "Mounted"],
    ["R1 R2 R10", "3", "OX-10K", "", "by machine"],
    ["J1", "1", expect.any(String), "", "by hand"],
  ]);
});

test("the assembly sheet counts what the house places: no screws, no hand parts unless it solders them, sides", () => {
  const order = (doc: RunDocument) =>
    Object.fromEntries(
      planPackage(doc, rollUp(doc)).sheets.find((s) => s.path.startsWith("sheets/assembly"))!.pairs[0]!.rows,
    );
  expect(order(run())).toMatchObject({ "Lines to place": "1", "Parts a board": "3", "Sides to place": "2" });
  expect(
    order(run({ assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "far", handParts: "house" } })),
  ).toMatchObject({
    "Lines to place": "2",
    "Parts a board": "4",
    "Of these through the board, by hand": "1",
  });
});

test("a basket goes out in its supplier's currency, each line rounded as its invoice will be", () => {
  const doc = run();
  const rows = table(doc, "baskets/a");
  expect(rows[0]!.slice(3, 6)).toEqual(["Unit price", "Line total", "Currency"]);
  for (const r of rows.slice(1)) {
    expect([r[3], r[5]]).toEqual(["0.0155", "EUR"]);
    // half a cent goes up
    expect(Number(r[4])).toBe(Math.round(Number(r[1]) * 1.55 + 1e-9) / 100);
  }
});

const sheet = (doc: RunDocument, path: string) =>
  planPackage(doc, rollUp(doc)).sheets.find((s) => s.path.startsWith(path))!;
const measured = madeMeasure({
  holes: [
    { diameterMm: 0.4, count: 30, plated: true },
    { diameterMm: 3.2, count: 4, plated: false },
  ],
  slots: [
    { widthMm: 1, lengthMm: 3, plated: true },
    { widthMm: 2, lengthMm: 5, plated: false },
  ],
} as never);

test("the fabrication sheet says what is ordered and what was measured, in words", () => {
  const s = sheet(
    run({ boards: [{ id: "b", name: "B", perProduct: 1, measure: measured }] }),
    "sheets/fabrication",
  );
  expect([s.path, s.title, s.listsFiles]).toEqual(["sheets/fabrication-far.pdf", "Fabrication: B", true]);
  const [order, files] = s.pairs;
  expect(Object.fromEntries(order!.rows)).toMatchObject({
    "Lead time": "12 days",
    "Thickness, finished": "1.6 mm",
    "Mask, both sides": "green",
    Silkscreen: "white",
    "Electrical test": "every board",
  });
  const said = Object.fromEntries(files!.rows);
  expect(said).toMatchObject({
    Holes: "34, 30 plated",
    Slots: "1 x 3 mm; 2 x 5 mm, not plated",
    "Smallest track": expect.stringMatching(/^[\d.]+ mm$/),
    "Smallest ring around a hole": expect.any(String),
  });
  expect(said.Size).toMatch(/^[\d.]+ mm x [\d.]+ mm$/);
  const lost = madeMeasure({
    ...measured,
    layers: [{ file: "b.drl", role: "drill" }],
    findings: [{ tag: "parse-error", level: "error", file: "b.drl", line: 7, text: "" }],
  } as never);
  const part = sheet(
    run({ boards: [{ id: "b", name: "B", perProduct: 1, measure: lost }] }),
    "sheets/fabrication",
  );
  expect(Object.fromEntries(part.pairs[1]!.rows).Holes).toBe("at least 34, 30 plated");
  const none = sheet(
    run({
      boards: [
        {
          id: "b",
          name: "B",
          perProduct: 1,
          measure: madeMeasure({ slots: [], minTrackMm: undefined } as never),
        },
      ],
    }),
    "sheets/fabrication",
  );
  expect(Object.fromEntries(none.pairs[1]!.rows)).toMatchObject({
    Slots: "none",
    "Smallest track": "not measured",
  });
  // the house's own field for remarks holds so many letters: what fits goes in, whole sentences
  const withField = (most: number) => {
    const house = { ...FAR, remarks: { label: "Special wishes", most } };
    return Object.fromEntries(sheet(run({ house, houses: [house] }), "sheets/fabrication").pairs[0]!.rows)[
      "Special wishes"
    ];
  };
  expect(withField(300)).toBe(
    "The data files outrank this sheet. Ask on any conflict; change nothing silently.",
  );
  expect(withField(79)).toBeUndefined();
  // an accepted note goes with it, another does not
  const noted = run();
  const key = rollUp(noted).notes.find((n) => n.stage === "fab")!.key;
  const known = sheet(
    { ...noted, choices: { ...noted.choices, accepted: { [key]: "asked the house" } } },
    "sheets/fabrication",
  );
  expect(known.notes.filter((n) => n.startsWith("Known: "))).toEqual([
    expect.stringMatching(/\(asked the house\)$/),
  ]);
  expect(sheet(noted, "sheets/fabrication").notes.some((n) => n.startsWith("Known: "))).toBe(false);
});

test("a bevel stands on the sheet in the house's own word, with where the copper begins; none is not written", () => {
  const of = (bevel: string) => {
    const house = {
      ...FAR,
      options: {
        ...FAR.options,
        bevel: [
          { value: "none", label: "none" },
          { value: "30", label: "30 degrees, both faces" },
        ],
      },
    };
    const measure = madeMeasure({
      edgeContacts: {
        top: { count: 11, pitchMm: 2.5, widthMm: 1.5, lengthMm: 6, setbackMm: 1.5, edge: "bottom" },
      },
    });
    const doc = madeRun({
      boards: [{ name: "B", perProduct: 1, measure }],
      house,
      houses: [house],
      options: { bevel },
    });
    return sheet(doc, "sheets/fabrication").pairs[0]!.rows.filter(([k]) => /Bevel|Contacts/.test(k));
  };
  expect(of("none")).toEqual([]);
  expect(of("30")).toEqual([
    ["Bevel", "30 degrees, both faces"],
    ["Contacts, top", "11 on the bottom edge, copper from 1.5 mm on: keep it whole"],
  ]);
});

test("every decision stands on the sheet in the house's own words; what is not done at all is not written", () => {
  const house: House = {
    ...FULL,
    sheet: {
      finish: "Surface",
      castellation: "Half-cut holes",
      test: "Opens and shorts",
      leadDays: "Made within",
      freight: "Sent by",
    },
    options: {
      ...FULL.options,
      finish: FULL.options.finish.map((o) => (o.value === "gold" ? { ...o, called: "chemical gold" } : o)),
    },
  };
  const rows = (options: Partial<FabOptions>) =>
    sheet(
      madeRun({
        boards: [{ name: "B", perProduct: 1, measure: madeMeasure() }],
        house,
        houses: [house],
        options,
      }),
      "sheets/fabrication",
    ).pairs[0]!.rows.slice(3);
  expect(rows({ finish: "gold", castellation: "cut", freight: "express" })).toEqual([
    ["Thickness, finished", "1.6 mm"],
    ["Surface", "chemical gold"],
    ["Mask, both sides", "green"],
    ["Silkscreen", "white"],
    ["Outer copper", "35 µm"],
    ["Laminate", "standard"],
    ["Half-cut holes", "cut"],
    ["Vias", "tented"],
    ["Opens and shorts", "every net"],
    ["Sent by", "express"],
  ]);
  expect(rows({ test: "none", contacts: "hard-gold", finish: "gold" })).toEqual(
    expect.arrayContaining([
      ["Opens and shorts", "none"],
      ["Contacts", "hard gold"],
    ]),
  );
  expect(rows({}).map(([k]) => k)).not.toContain("Half-cut holes");
  const doc = madeRun({
    boards: [{ name: "B", perProduct: 1, measure: madeMeasure() }],
    house,
    houses: [house],
  });
  expect(
    sheet(doc, "sheets/fabrication")
      .pairs[0]!.rows.slice(0, 2)
      .map(([k]) => k),
  ).toEqual(["Boards", "Made within"]);
});

test("two boards are two sheets, and their parts and places tell which board they are on, in the boards' order", () => {
  const doc = run({
    boards: ["b", "a"].map((id) => ({
      id,
      name: id.toUpperCase(),
      perProduct: id === "a" ? 2 : 1,
      measure: madeMeasure(),
    })),
    lines: [madeLine("r", ["R1"], { board: "a" }), madeLine("q", ["R1"], { board: "b", mpn: "OX-Q" })],
    placements: [
      { ...place("R1"), board: "a" },
      { ...place("R1", 90), board: "b" },
    ] as never,
  });
  const plan = planPackage(doc, rollUp(doc));
  expect(plan.sheets.filter((s) => s.path.includes("fabrication")).map((s) => s.path)).toEqual([
    "sheets/fabrication-far-b.pdf",
    "sheets/fabrication-far-a.pdf",
  ]);
  expect(
    table(doc, "assembly/placement")
      .slice(1)
      .map((r) => [r[0], r[3], r[7]]),
  ).toEqual([
    ["R1", "90", "B"],
    ["R1", "0", "A"],
  ]);
  expect(table(doc, "assembly/parts-list").map((r) => [r[0], r[8]])).toEqual([
    ["References", "Board"],
    ["R1", "A"],
    ["R1", "B"],
  ]);
  const start = rollUp(doc).start;
  const order = Object.fromEntries(sheet(doc, "sheets/assembly").pairs[0]!.rows);
  expect([order["Boards to place, A"], order["Boards to place, B"]]).toEqual([
    String(2 * start),
    String(start),
  ]);
});

test("the assembly sheet lists what is left to us, what works one way round, and what is not placed; nothing is no list", () => {
  const headings = (more: Partial<RunDocument> = {}) =>
    sheet(run(more), "sheets/assembly").tables.map((t) => t.heading);
  expect(headings()).toEqual(["Left to us, by hand", "Do not place"]);
  const [hand, off] = sheet(run(), "sheets/assembly").tables;
  expect(hand!.rows.slice(1)).toEqual([["J1", "row", "HDR-1x4"]]);
  expect(off!.rows.slice(1)).toEqual([["R7", "10k"]]);
  expect(
    headings({
      lines: [madeLine("d", ["D1"], { package: "SOD-123", valueText: "S1" })],
      placements: [place("D1")],
    }),
  ).toEqual(["Parts with a direction"]);
  expect(sheet(run(), "sheets/assembly").path).toBe("sheets/assembly-far.pdf");
  expect(
    planPackage(run({ assembly: DEFAULT_ASSEMBLY }), rollUp(run({ assembly: DEFAULT_ASSEMBLY }))).sheets.some(
      (s) => s.path.includes("assembly"),
    ),
  ).toBe(false);
  expect(
    planPackage(
      { ...run(), house: undefined } as never,
      rollUp({ ...run(), house: undefined } as never),
    ).sheets.some((s) => s.path.includes("fabrication")),
  ).toBe(false);
});

test.each([
  ["Far & Away Co.", "far-away-co"],
  ["  ", "unnamed"],
  ["ÄÖ 12", "12"],
])("the file name of “%s” is %s", (name, file) => {
  expect(slug(name)).toBe(file);
});

test("a part bought in another's place goes out under its own number and maker, and says so", () => {
  const library = [
    {
      id: "p",
      mpn: "ZZ-10K",
      maker: "Zed",
      description: "",
      kind: "resistor",
      package: "0603",
      params: { value: "10k" },
      direction: "",
      moisture: "",
      state: "active",
      sheet: "",
      measured: "",
      tried: "",
    },
  ] as never;
  const doc = run({
    lines: [madeLine("r", ["R1"], { description: "pull-up", maker: "Ox" })],
    library,
    alternates: [
      {
        original: lineKey(madeLine("r", ["R1"])),
        part: "p",
        state: "approved",
        because: "",
        by: "x",
        at: "2026-01-01",
      },
    ] as never,
    offers: [madeOffer("o", "r", "0.01", { part: "p", stock: 5000 })],
  });
  const rows = table(doc, "assembly/parts-list")[1]!;
  expect(rows.slice(4, 7)).toEqual(["Zed", "ZZ-10K", "pull-up (in the place of OX-10K)"]);
});
