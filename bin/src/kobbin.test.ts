import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, expect, test } from "@jest/globals";
import { type CostDocument, DEFAULT_ASSEMBLY, type Measure, type RunDocument } from "@kobbin/core";
import { DEMO_BOARDS, expectedFacts, filesOf } from "@kobbin/demo";
import { unpackZip } from "@kobbin/formats";
import { commandsIn } from "../test/command.ts";

const boards = fileURLToPath(new URL("../../demo/boards/", import.meta.url));
const { folder, run, json, end } = commandsIn("test");
afterAll(end);

test.each(Object.keys(DEMO_BOARDS))("measure finds in %s.zip what its generator drew", async (name) => {
  const want = expectedFacts(DEMO_BOARDS[name]!());
  const m = await json<Measure>("measure", join(boards, `${name}.zip`));
  expect(m.outcome).toBe("accept");
  expect(m.outline).toMatchObject({
    widthMm: want.outline.widthMm,
    heightMm: want.outline.heightMm,
    closed: true,
  });
  expect(m.outline!.areaMm2).toBeCloseTo(want.outline.areaMm2, 2);
  expect(m.outline!.perimeterMm).toBeCloseTo(want.outline.perimeterMm, 2);
  expect(m.copperLayers).toBe(want.copperLayers);
  expect(m.minTrackMm).toBeCloseTo(want.minTrackMm, 6);
  expect(m.minHoleMm).toBeCloseTo(want.minHoleMm, 6);
  expect(m.minAnnularMm).toBeCloseTo(want.minAnnularMm, 4);
  // the boards are drawn with 0.2 mm between nets; fills and rounding may leave a little more, never less
  expect(m.minNetSpaceMm).toBeGreaterThanOrEqual(0.1999);
  expect(m.minNetSpaceMm).toBeLessThan(0.26);
  expect(
    Object.fromEntries(m.holes.map((h) => [`${h.diameterMm} ${h.plated ? "plated" : "bare"}`, h.count])),
  ).toEqual(want.holes);
  expect(m.slots.map(({ widthMm, lengthMm }) => ({ widthMm, lengthMm }))).toEqual(want.slots);
  expect(m.copperFlashes).toEqual(want.flashes);
  expect(m.paste.top!.count).toBe(want.paste.count);
  expect(m.paste.top!.areaMm2).toBeCloseTo(want.paste.areaMm2, 1);
  // one revision was drawn with a part's pads left out: that is found, and nothing else
  expect(m.findings.filter((f) => f.level !== "remark").map((f) => [f.tag, f.about])).toEqual(
    want.withoutPads.length > 0 ? [["part-without-pads", want.withoutPads]] : [],
  );
  expect(m.crossCheck!.withoutPads).toEqual(want.withoutPads);
  expect(m.netlist).toMatchObject({ agrees: true });
});

test("the archive on disk is the one the generator writes", async () => {
  const files = unpackZip(readFileSync(join(boards, "probe-tail.zip")));
  const texts = Object.fromEntries(files.map((f) => [f.path, new TextDecoder().decode(f.bytes)]));
  expect(texts).toEqual(filesOf(DEMO_BOARDS["probe-tail"]!()));
});

test("bom and placement read their files; a wrong one is rejected with exit 1", async () => {
  writeFileSync(join(folder, "p.csv"), "Ref;Qty;Value\nR1,R2;2;4k7\nR3;-1;1k\n");
  const bom = await json<{
    kobbin: string;
    lines: { refs: string[]; value: { si: number } }[];
    findings: { tag: string; row: number }[];
  }>("bom", "p.csv");
  expect(bom.kobbin).toBe("bom/1");
  expect(bom.lines[0]).toMatchObject({ refs: ["R1", "R2"], value: { si: 4700, unit: "ohm" } });
  expect(bom.findings).toEqual([expect.objectContaining({ tag: "bom-qty-invalid", row: 3 })]);
  writeFileSync(join(folder, "x.csv"), "a,b\n1,2\n");
  expect((await run("bom", "x.csv")).status).toBe(1);
  writeFileSync(join(folder, "c.csv"), "Ref,X,Y,Rot,Side\nU1,1,2,-90,bottom\n");
  expect(await json("placement", "c.csv")).toMatchObject({
    kobbin: "placement/1",
    unit: "mm",
    parts: [{ ref: "U1", xMm: 1, yMm: 2, rotationDeg: 270, side: "bottom" }],
  });
});

test("wrong use is exit 2, a rejected input exit 1, and nothing but the document stands on standard output", async () => {
  expect((await run()).status).toBe(2);
  expect((await run("measure")).status).toBe(2);
  expect((await run("measure", "no-such-file")).status).toBe(2);
  writeFileSync(join(folder, "broken.zip"), "this is no archive");
  const rejected = await run("measure", "broken.zip", "--json");
  expect(rejected.status).toBe(1);
  expect(JSON.parse(rejected.out)).toMatchObject({
    kobbin: "measure/1",
    outcome: "reject",
    reason: expect.stringContaining("not a zip"),
  });
  writeFileSync(join(folder, "run.json"), "{");
  expect(await run("cost", "run.json")).toMatchObject({ status: 1, out: "" });
});

test("cost and package work from one document with its archive beside it, and the package reads back as the same board", async () => {
  const archive = join(boards, "probe-tail.zip");
  const measure = await json<Measure>("measure", archive);
  const house = JSON.parse(
    readFileSync(new URL("./golden/house.json", import.meta.url), "utf8"),
  ) as NonNullable<RunDocument["house"]>;
  const doc: RunDocument = {
    kobbin: "run/1",
    name: "by hand",
    product: "Probe Tail",
    revision: "A",
    today: "2026-11-24",
    workshop: { name: "W", currency: "EUR", hourlyRate: "24.00", taxRate: 0, rates: {}, hoursPerDay: 5 },
    goodBoards: 20,
    confidence: 0.9,
    boards: [{ name: "Probe Tail A", perProduct: 1, archive: "tail.zip", measure }],
    lines: [
      {
        id: "1",
        refs: ["R1"],
        qty: 1,
        valueText: "100R",
        package: "0603",
        mpn: "=HYPER",
        maker: "",
        description: "",
        dnp: false,
        mount: "machine",
      },
    ],
    placements: [{ ref: "R1", xMm: 1, yMm: 2, rotationDeg: 90, side: "top" }],
    suppliers: [{ id: "S", name: "S & Co", currency: "EUR", shipping: "3.00", daysMin: 1, daysMax: 2 }],
    offers: [
      {
        id: "o",
        line: "1",
        supplier: "S",
        stock: 1000,
        moq: 1,
        multiple: 1,
        currency: "EUR",
        breaks: [{ qty: 1, price: "0.02" }],
        source: "typed",
        capturedOn: "2026-11-24",
      },
    ],
    house,
    quotes: [],
    options: {},
    assembly: DEFAULT_ASSEMBLY,
    choices: {},
  };
  writeFileSync(join(folder, "run.json"), JSON.stringify(doc));
  copyFileSync(archive, join(folder, "tail.zip"));
  const cost = await json<CostDocument>("cost", "run.json");
  expect(cost).toMatchObject({ kobbin: "cost/1", currency: "EUR", blockers: [] });
  expect(cost.curve).toHaveLength(40);
  expect(cost.tree.children.reduce((s, c) => s + c.perGood, 0)).toBeCloseTo(cost.perGoodBoard, 4);
  expect((await run("package", "run.json", "--out", "out.zip")).status).toBe(0);
  const files = unpackZip(readFileSync(join(folder, "out.zip")));
  expect(files.map((f) => f.path)).toEqual(
    expect.arrayContaining([
      "baskets/s-co.csv",
      "assembly/placement.csv",
      "assembly/parts-list.csv",
      "run.json",
      "manifest.json",
      "sheets/fabrication-plain-house.pdf",
    ]),
  );
  expect(new TextDecoder().decode(files.find((f) => f.path === "baskets/s-co.csv")!.bytes)).toContain(
    '"\'=HYPER",',
  );
  const again = await json<Measure>("measure", "out.zip");
  for (const key of [
    "outline",
    "minTrackMm",
    "minNetSpaceMm",
    "minAnnularMm",
    "holes",
    "copperIslands",
    "paste",
  ] as const)
    expect(again[key]).toEqual(measure[key]);
});

test("a blocked run is not packed, and the blockers are named", async () => {
  const doc = JSON.parse(readFileSync(join(folder, "run.json"), "utf8")) as RunDocument;
  writeFileSync(join(folder, "blocked.json"), JSON.stringify({ ...doc, offers: [] }));
  const done = await run("package", "blocked.json", "--out", "no.zip");
  expect(done.status).toBe(1);
  expect(done.err).toContain("cannot be bought in full");
});

const example = (name: string) => fileURLToPath(new URL(`../../docs/examples/${name}`, import.meta.url));

test("the cheapest basket: the manual's example, a limit on parcels, what nobody has, and what is no instance", async () => {
  const { ms, ...answer } = await json<{ ms: number; total: number }>(
    "source",
    example("free-shipping.instance.json"),
  );
  const { ms: _, ...manual } = JSON.parse(readFileSync(example("free-shipping.source.json"), "utf8"));
  expect(answer).toEqual(manual);
  expect(ms).toBeGreaterThanOrEqual(0);
  const doc = JSON.parse(readFileSync(example("free-shipping.instance.json"), "utf8"));
  const write = (name: string, value: unknown) => writeFileSync(join(folder, name), JSON.stringify(value));
  // A's offer for line 2 is turned down: line 2 comes from B, and with that parcel sent line 1 is cheaper there too
  doc.lines[1].offers[0].forbidden = true;
  write("two.json", doc);
  const two = await json<{ total: number; suppliersUsed: string[] }>("source", "two.json");
  // 30 · 0.78 + 17 · 0.85 + 8 from A, 60 · 0.20 + 5 from B; line 1 from B: 21 + 12 + 14.45 + 13
  expect([two.total, two.suppliersUsed]).toEqual([60.45, ["A", "B"]]);
  write("one.json", { ...doc, maxParcels: 1 });
  // no supplier has all three lines now: B leaves 17 of line 3 open, A would leave 60 of line 2; 21 + 12 + 5
  expect(await json("source", "one.json")).toMatchObject({
    feasible: false,
    missing: [{ line: "3", need: 17, missing: 17 }],
    suppliersUsed: ["B"],
    total: 38,
  });
  write("late.json", {
    ...doc,
    latestDays: 3,
    suppliers: doc.suppliers.map((s: object, i: number) => ({ ...s, days: i === 0 ? 9 : 2 })),
  });
  expect(await json("source", "late.json")).toMatchObject({
    feasible: false,
    missing: [{ line: "3", need: 17, missing: 17 }],
    suppliersUsed: ["B"],
  });
  write("none.json", {
    suppliers: [],
    lines: [{ id: "1", need: 2, offers: [{ id: "a", supplier: "X", stock: 1, breaks: [] }] }],
  });
  const none = await run("source", "none.json", "--json");
  expect([none.status, JSON.parse(none.out)]).toMatchObject([1, { kobbin: "source/1", outcome: "reject" }]);
  expect(none.err).toContain("lines[0].offers[0]");
});

test("the example of the manual costs what the manual says", async () => {
  expect(await json("cost", example("probe-tail.run.json"))).toEqual(
    JSON.parse(readFileSync(example("probe-tail.cost.json"), "utf8")),
  );
  expect((await run("package", example("probe-tail.run.json"), "--out", "example.zip")).status).toBe(0);
});

test("fit takes a length from a board's files, and prints what each check comes to", async () => {
  const checks = [
    { id: "a", kind: "slot", slotMm: 1.7, slotTolMm: 0.13, tabMm: 1.6, tabTolMm: 0.16 },
    {
      id: "b",
      kind: "chain",
      terms: [
        { mm: 100, tolMm: 0.2, sign: 1 },
        {
          mm: { from: { archive: join(boards, "kiln-watch-b.zip"), measure: "outline.widthMm" } },
          tolMm: 0.2,
          sign: -1,
        },
      ],
    },
  ];
  writeFileSync(join(folder, "fit.json"), JSON.stringify({ checks }));
  const doc = await json<{ kobbin: string; checks: { id: string; nominalMm: number; verdict: string }[] }>(
    "fit",
    "fit.json",
  );
  const width = expectedFacts(DEMO_BOARDS["kiln-watch-b"]!()).outline.widthMm;
  expect(doc.kobbin).toBe("fit/1");
  expect(doc.checks[0]).toMatchObject({
    worstMm: [-0.19, 0.39],
    safeNominalMm: 1.89,
    verdict: "may-not-fit",
  });
  expect(doc.checks[1]).toMatchObject({ nominalMm: expect.closeTo(100 - width, 6), verdict: "fits" });
  expect((await run("fit", "fit.json")).out).toContain("may not fit, 0.19 mm missing");
  // a measure there is not, and a document that is none
  const odd = {
    checks: [
      {
        id: "x",
        kind: "range",
        allowsMm: [1, 2],
        boardMm: { from: { archive: join(boards, "rack-card.zip"), measure: "weight" } },
      },
    ],
  };
  writeFileSync(join(folder, "odd.json"), JSON.stringify(odd));
  expect(await run("fit", "odd.json")).toMatchObject({
    status: 1,
    err: expect.stringContaining("has no weight that is a number"),
  });
  writeFileSync(join(folder, "none.json"), "{}");
  expect(await run("fit", "none.json")).toMatchObject({
    status: 1,
    err: expect.stringContaining("holds no list of checks"),
  });
  expect((await run("fit")).status).toBe(2);
});

test("heat holds a log against its alloy, a weaker part and a data sheet of one's own, and refuses half a log", async () => {
  const points = [25, 150, 200, 241, 241, 61].map((c, i) => [[0, 60, 150, 174, 190, 300][i]!, c] as const);
  const lines = points.flatMap(([t, c], i) => {
    const [u, d] = points[i + 1] ?? [t, c];
    return Array.from(
      { length: Math.max(1, u - t) },
      (_, k) => `${t + k};${(c + ((d - c) * k) / Math.max(1, u - t)).toFixed(2).replace(".", ",")}`,
    );
  });
  writeFileSync(join(folder, "log.csv"), `Time (s);Top (°C)\n${lines.join("\n")}\n`);
  type Heat = { verdict: string; probes: object[]; findings: { tag: string }[] };
  const j = await json<Heat>("heat", "log.csv", "--alloy", "silver");
  expect(j).toMatchObject({
    kobbin: "heat/1",
    unit: "C",
    seconds: 300,
    verdict: "look",
    probes: [{ name: "Top", peakC: 241, peakAtS: 174 }],
  });
  expect(j.findings.map((f) => f.tag)).toEqual(["heat-liquidus-short"]);
  expect((await json<Heat>("heat", "log.csv", "--alloy", "silver", "--peak-limit", "240")).verdict).toBe(
    "outside",
  );
  const own = await json<Heat>("heat", "log.csv", "--alloy", "silver", "--window", '{"aboveS":[40,90]}');
  expect([own.verdict, own.findings]).toEqual(["inside", []]);
  expect((await run("heat", "log.csv", "--alloy", "silver")).out).toContain("above 217 °C for 44.7 s");
  expect(await run("heat", "log.csv", "--alloy", "silver", "--window", '{"peak":1}')).toMatchObject({
    status: 1,
    err: expect.stringContaining("peak is no part of a window"),
  });
  expect((await run("heat", "log.csv", "--alloy", "gold")).status).toBe(2);
  writeFileSync(join(folder, "short.csv"), "s,T °C\n0,25\n1,26\n2,27\n");
  const none = await run("heat", "short.csv", "--alloy", "lead", "--json");
  expect([none.status, JSON.parse(none.out)]).toEqual([
    1,
    { kobbin: "heat/1", outcome: "reject", reason: "It holds 3 samples; at least 10 are needed." },
  ]);
});

test("meet says what a display does in every way of putting it in, and refuses a pin nobody has", async () => {
  const supply = { kind: "supply", volts: 5 };
  const pins = [
    { pin: "1", ...supply },
    { pin: "2", kind: "ground" },
  ];
  writeFileSync(join(folder, "meet.json"), JSON.stringify({ ours: pins, theirs: pins }));
  expect(
    (await json<{ modes: { mode: string; verdict: string }[] }>("meet", "meet.json")).modes,
  ).toMatchObject([
    { mode: "meant", verdict: "fine" },
    { mode: "turned", verdict: "damage", because: "our 1 on their 2: a supply on ground" },
    { mode: "mirrored", verdict: "damage" },
    { mode: "shifted", by: 1, verdict: "damage", because: "our 2 on their 1: a supply on ground" },
    { mode: "shifted", by: -1, verdict: "damage" },
  ]);
  expect((await run("meet", "meet.json")).out).toContain("shifted, one back");
  writeFileSync(join(folder, "meet.json"), JSON.stringify({ ours: pins, theirs: pins, meant: [["1", "3"]] }));
  const none = await run("meet", "meet.json", "--json");
  expect([none.status, JSON.parse(none.out)]).toMatchObject([
    1,
    { kobbin: "meet/1", outcome: "reject", reason: expect.stringContaining("pin 3") },
  ]);
});

test("quote prints what a house asks by its profile, from files or from what was measured, and answers each wish", async () => {
  const house = fileURLToPath(new URL("golden/house.json", import.meta.url));
  const archive = join(boards, "kiln-watch-b.zip");
  writeFileSync(join(folder, "wishes.json"), JSON.stringify({ mask: "purple" }));
  writeFileSync(join(folder, "measure.json"), (await run("measure", archive, "--json")).out);
  const asked = ["--house", house, "--quantity", "45"];
  const doc = await json<{ total: number; refused: { key: string }[]; sum: { amount: number }[] }>(
    "quote",
    archive,
    ...asked,
    "--options",
    "wishes.json",
  );
  expect(doc.refused.map((r) => r.key)).toEqual(["mask"]);
  expect(doc.sum.reduce((s, t) => s + Math.round(t.amount * 100), 0)).toBe(Math.round(doc.total * 100));
  expect(await json("quote", "measure.json", ...asked, "--options", "wishes.json")).toEqual(doc);
  expect((await run("quote", archive, ...asked)).out).toContain("in all, 45 boards");
  expect((await run("quote", archive, "--house", house, "--quantity", "0")).status).toBe(2);
  expect(await run("quote", archive, "--house", "wishes.json", "--quantity", "5")).toMatchObject({
    status: 1,
    err: expect.stringContaining("is no profile of a house"),
  });
  expect(await run("quote", "wishes.json", ...asked)).toMatchObject({
    status: 1,
    err: expect.stringContaining("is no measure of a board"),
  });
});
