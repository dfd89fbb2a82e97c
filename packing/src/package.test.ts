import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import {
  isSentWith,
  layoutOfChoice,
  measureBoard,
  packageFileKind,
  panelOffers,
  planOfRun,
  planPackage,
  type RunDocument,
  rollUp,
  toRunDocument,
} from "@kobbin/core";
import { sha256Hex, unpackZip } from "@kobbin/formats";
import { readAsBoard } from "./board.ts";
import { packRun } from "./package.ts";

const example = (): RunDocument =>
  toRunDocument(
    JSON.parse(readFileSync(new URL("../../docs/examples/probe-tail.run.json", import.meta.url), "utf8")),
  );
const archive = {
  path: "probe-tail.zip",
  bytes: new Uint8Array(readFileSync(new URL("../../demo/boards/probe-tail.zip", import.meta.url))),
};
const AT = "2026-11-27T00:00:00Z";

test("fabrication files go out byte for byte, lists and places do not go to the board house; every hash is right", async () => {
  const doc = example();
  const board = await readAsBoard([archive]);
  const { zip, manifest } = await packRun(doc, rollUp(doc), [{ name: doc.boards[0]!.name, ...board }], AT);
  const files = unpackZip(zip);
  const given = unpackZip(archive.bytes);
  const sent = files.filter((f) => f.path.startsWith("fabrication/"));
  expect(sent.length).toBeGreaterThan(5);
  for (const f of sent) {
    const source = given.find((g) => f.path.endsWith(`/${g.path.split("/").pop()}`))!;
    expect(sha256Hex(f.bytes)).toBe(sha256Hex(source.bytes));
  }
  const roles = new Map(board.set.files.map((f) => [f.path.split("/").pop(), f.role]));
  for (const f of sent)
    expect(["bom", "placement", "unknown"]).not.toContain(roles.get(f.path.split("/").pop()));
  for (const m of manifest.files)
    expect(sha256Hex(files.find((f) => f.path === m.path)!.bytes)).toBe(m.sha256);
  // the same run packed again is the same package
  const again = await packRun(doc, rollUp(doc), [{ name: doc.boards[0]!.name, ...board }], AT);
  expect(sha256Hex(again.zip)).toBe(sha256Hex(zip));
});

test("while something blocks nothing is packed, and what blocks is said", async () => {
  const { house: _, ...doc } = example();
  await expect(packRun(doc, rollUp(doc), [], AT)).rejects.toMatchObject({
    code: "BLOCKED",
    message: expect.stringContaining("No house is chosen"),
    details: ["house-missing"],
  });
});

test("a board is read under the corrections given, beside a file that is no archive", async () => {
  const [first] = (await readAsBoard([archive])).set.files;
  const read = await readAsBoard([archive, { path: "broken.zip", bytes: new Uint8Array([1, 2, 3]) }], {
    corrections: { roles: { [first!.path]: { role: "drawing" } } } as never,
  });
  expect(read.corrections).toMatchObject({ roles: { [first!.path]: { role: "drawing" } } });
  expect(read.set.files.find((f) => f.path === first!.path)?.role).toBe("drawing");
});

test("boards on sheets: the sheet's files go out, proven, in the place of the boards' own; lists go to whoever solders", async () => {
  const board = await readAsBoard([archive]);
  const raw = example();
  const doc = { ...raw, boards: [{ ...raw.boards[0]!, measure: measureBoard(board.set) }] };
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const first = panelOffers(doc, roll(doc), roll).proposals.find((p) => p.choice.places.length < 10);
  const on = { ...doc, choices: { ...doc.choices, panel: first!.choice } };
  const { zip } = await packRun(on, roll(on), [{ name: doc.boards[0]!.name, ...board }], AT);
  const paths = unpackZip(zip).map((f) => f.path);
  expect(paths.filter((p) => p.startsWith("fabrication/") && !p.includes("-panel"))).toEqual([]);
  expect(paths).toContain("fabrication/probe-tail-panel/probe-tail-panel-copper-top.gbr");
  expect(paths).toContain("fabrication/probe-tail-panel/probe-tail-panel-drawing.pdf");
  // what each file is: told as such on the page, and sent to whom it is for
  const count: Record<string, number> = {};
  for (const path of paths) {
    const to = (["boards", "assembly"] as const).filter((r) => isSentWith(path, r));
    const told = `${packageFileKind(path, on.product)} ${to.join("+")}`;
    count[told] = (count[told] ?? 0) + 1;
  }
  const own = board.set.files.filter((f) => !["bom", "placement", "unknown"].includes(f.role)).length;
  expect(count).toEqual({
    "design ": own,
    "sheetBoards boards+assembly": paths.filter((p) => p.startsWith("fabrication/")).length,
    "sheetPlaced assembly": 2,
    "fitted assembly": 1,
    "placed assembly": 1,
    "basket ": 2,
    "boardSheet boards": 1,
    "steps ": 1,
    "traveller ": 1,
    "run ": 1,
    "manifest ": 1,
  });
  const steps = JSON.parse(
    new TextDecoder().decode(unpackZip(zip).find((f) => f.path === "steps/order-of-work.json")!.bytes),
  );
  expect(steps).toEqual(JSON.parse(JSON.stringify(planOfRun(on, roll(on)).sheet)));
  expect(steps.steps.length).toBeGreaterThan(5);
  // a single board that is called as a sheet would be keeps its own
  expect(packageFileKind("fabrication/probe-tail-panel/a.gbr")).toBe("fabrication");
  expect(packageFileKind("notes.txt")).toBeUndefined();
  // the file the assembly sheet names is there
  const named = planPackage(
    { ...on, assembly: { ...on.assembly, method: "house" } },
    roll({ ...on, assembly: { ...on.assembly, method: "house" } }),
  ).sheets.flatMap((s) => s.pairs.flatMap((p) => p.rows));
  const placesFile = named.find(([k]) => k === "Placement file")![1].split(":")[0]!;
  expect(placesFile).toBe("assembly/probe-tail-panel-places.csv");
  expect(paths).toContain(placesFile);
  // read again, the archive of the house is a panel of as many
  const sheet = unpackZip(zip).filter((f) => f.path.startsWith("fabrication/") && !f.path.endsWith(".pdf"));
  const back = await readAsBoard(sheet);
  expect(measureBoard(back.set).copies).toBe(first!.choice.places.length);
  // moved onto each other they are not packed
  const [p, ...rest] = first!.choice.places;
  const wrong = { ...first!.choice, places: [{ ...p!, xMm: rest[0]!.xMm, yMm: rest[0]!.yMm }, ...rest] };
  const bad = { ...doc, choices: { ...doc.choices, panel: wrong } };
  await expect(
    packRun(bad, { ...roll(bad), blockers: [] }, [{ name: doc.boards[0]!.name, ...board }], AT),
  ).rejects.toMatchObject({
    code: "BLOCKED",
    message: expect.stringContaining("The sheet cannot be ordered"),
  });
});

test("openings cut otherwise than drawn: a layer of its own beside boards as they are, and in the place of the sheet's paste", async () => {
  const board = await readAsBoard([archive]);
  const raw = example();
  const doc = {
    ...raw,
    boards: [{ ...raw.boards[0]!, measure: measureBoard(board.set) }],
    // soldered by hand later: its two openings are left out
    lines: raw.lines.map((l) => (l.refs.includes("C1") ? { ...l, mount: "hand" as const } : l)),
    assembly: { ...raw.assembly, method: "stencil" as const },
  };
  const cut = { ...doc, assembly: { ...doc.assembly, openings: "corrected" as const } };
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const packed = async (d: RunDocument) =>
    unpackZip(
      (await packRun(d, { ...roll(d), blockers: [] }, [{ name: doc.boards[0]!.name, ...board }], AT)).zip,
    );
  const openings = async (files: readonly { path: string; bytes: Uint8Array }[]) => {
    const { set } = await readAsBoard(files.filter((f) => f.path.endsWith(".gbr")));
    return set.files.flatMap((f) => (f.role === "paste" ? [f.layer!.n] : []));
  };
  const drawn = board.set.files.find((f) => f.role === "paste")!.layer!.n;
  expect((await packed(doc)).filter((f) => f.path.startsWith("stencil/"))).toEqual([]);
  const single = await packed(cut);
  expect(await openings(single.filter((f) => f.path.startsWith("stencil/")))).toEqual([drawn - 2]);
  expect(await openings(single.filter((f) => f.path.startsWith("fabrication/")))).toEqual([drawn]);

  const { choice } = panelOffers(doc, roll(doc), roll).proposals.find((p) => p.choice.places.length < 10)!;
  const n = choice.places.length;
  const sheet = (d: RunDocument) => packed({ ...d, choices: { ...d.choices, panel: choice } });
  const onSheet = async (d: RunDocument) =>
    openings((await sheet(d)).filter((f) => f.path.startsWith("fabrication/")));
  const fiducials = (await onSheet(doc))[0]! - n * drawn;
  expect(await onSheet(cut)).toEqual([n * (drawn - 2) + fiducials]);
  expect((await sheet(cut)).filter((f) => f.path.startsWith("stencil/"))).toEqual([]);
});

test("packages lie in the placement file as the house that places them expects, singly and on sheets, and its sheet says so", async () => {
  const board = await readAsBoard([archive]);
  const raw = example();
  const turned = raw.lines.find((l) => l.refs.includes("U1"))!.package;
  const placer = raw.houses!.find((h) => h.assembly)!;
  const withTurns = { ...placer, assembly: { ...placer.assembly!, turns: { [turned]: 90 } } };
  const doc = {
    ...raw,
    boards: [{ ...raw.boards[0]!, measure: measureBoard(board.set) }],
    houses: raw.houses!.map((h) => (h === placer ? withTurns : h)),
    assembly: { ...raw.assembly, method: "house" as const, house: placer.id },
  };
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const angles = async (d: RunDocument, path: string) => {
    const { zip } = await packRun(
      d,
      { ...roll(d), blockers: [] },
      [{ name: doc.boards[0]!.name, ...board }],
      AT,
    );
    const text = new TextDecoder().decode(unpackZip(zip).find((f) => f.path === path)!.bytes);
    const rows = text
      .trim()
      .split(/\r?\n/)
      .map((r) => r.split(","));
    return new Map(rows.map((r) => [r[0]!.replaceAll('"', ""), Number(r[3]?.replaceAll('"', ""))]));
  };
  const plain = { ...doc, houses: raw.houses! };
  const [before, after] = [
    await angles(plain, "assembly/placement.csv"),
    await angles(doc, "assembly/placement.csv"),
  ];
  const others = [...before.keys()].filter((k) => k !== "Ref" && k !== "U1");
  expect(after.get("U1")).toBe((before.get("U1")! + 90) % 360);
  for (const ref of others) expect(after.get(ref)).toBe(before.get(ref));
  expect(roll(doc).notes.find((n) => n.key.endsWith("assembly-turned"))?.text).toContain(
    `${turned} +90°: U1`,
  );
  expect(roll(plain).notes.some((n) => n.key.endsWith("assembly-turned"))).toBe(false);

  const { choice } = panelOffers(doc, roll(doc), roll).proposals.find((p) => p.choice.places.length < 10)!;
  const sheet = (d: RunDocument) =>
    angles({ ...d, choices: { ...d.choices, panel: choice } }, "assembly/probe-tail-panel-places.csv");
  // what is soldered by hand or left off is in the sheet's places no more than in the run's own
  const fewer = (d: RunDocument) => ({
    ...d,
    lines: d.lines.map((l) =>
      l.refs.includes("C1")
        ? { ...l, mount: "hand" as const }
        : l.refs.includes("R1")
          ? { ...l, dnp: true }
          : l,
    ),
  });
  const left = await sheet(fewer(doc));
  expect(["C1_1", "R1_1", "U1_1"].map((r) => left.has(r))).toEqual([false, false, true]);
  const own = await angles(fewer(doc), "assembly/placement.csv");
  expect([...left.keys()].filter((k) => k.endsWith("_1")).length).toBe(own.size - 1);
  const [was, is] = [await sheet(plain), await sheet(doc)];
  expect(is.get("U1_1")).toBe((was.get("U1_1")! + 90) % 360);
  expect(is.get("C1_1")).toBe(was.get("C1_1"));
});

test("a sheet is written as it is shown: tabs keep off what the run's bill and not the dropped list puts on the board", async () => {
  const board = await readAsBoard([archive]);
  const raw = example();
  const base = { ...raw, boards: [{ ...raw.boards[0]!, measure: measureBoard(board.set) }] };
  // none of the chips is fitted in this run: tabs may stand where the dropped list forbids them
  const doc = {
    ...base,
    lines: base.lines.map((l) => (l.refs.some((r) => /^[CR]/.test(r)) ? { ...l, dnp: true } : l)),
  };
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const { choice } = panelOffers(doc, roll(doc), roll).proposals.find((p) => p.choice.places.length < 10)!;
  const perforations = (d: RunDocument) => {
    const shown = layoutOfChoice(d, choice);
    return "reason" in shown ? -1 : shown.tabs.reduce((n, t) => n + t.holes, 0);
  };
  expect(perforations(doc)).not.toBe(perforations(base));
  const on = { ...doc, choices: { ...doc.choices, panel: choice } };
  const packed = await packRun(
    on,
    { ...roll(on), blockers: [] },
    [{ name: doc.boards[0]!.name, ...board }],
    AT,
  );
  const drill = unpackZip(packed.zip).filter((f) => f.path.endsWith("-unplated.drl"));
  const back = await readAsBoard(drill);
  const small = back.set.files.flatMap((f) => f.drill?.hits ?? []).filter((h) => h.diameterMm === 0.5);
  expect(small).toHaveLength(perforations(doc));
});

test("a guest that lies on no sheet is kept with the run all the same, so that it can be packed again", async () => {
  const doc = example();
  const board = await readAsBoard([archive]);
  const guest = { id: "g", name: "Lid", product: "Lid", revision: "A", measure: measureBoard(board.set) };
  const with_ = { ...doc, guests: [guest], choices: { ...doc.choices, guests: [{ board: "g", boards: 5 }] } };
  const names = [doc.boards[0]!.name, "Lid"];
  const { zip } = await packRun(
    with_,
    rollUp(with_),
    names.map((name) => ({ name, ...board })),
    AT,
  );
  const files = unpackZip(zip);
  const run = JSON.parse(
    new TextDecoder().decode(files.find((f) => f.path === "run.json")!.bytes),
  ) as RunDocument;
  for (const b of [...run.boards, ...run.guests!])
    expect(files.filter((f) => f.path.startsWith(`${b.archive}/`)).length).toBeGreaterThan(5);
  // and goes to no house
  expect(run.guests![0]!.archive).toBe("design/shared-1-lid");
});
