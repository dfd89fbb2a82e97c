import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, expect, test } from "@jest/globals";
import type { Measure } from "@kobbin/core";
import { unpackZip } from "@kobbin/formats";
import { commandsIn } from "../test/command.ts";
import { readSpec } from "./commands/panel-spec.ts";

const demo = (name: string) => fileURLToPath(new URL(`../../demo/boards/${name}.zip`, import.meta.url));
const { folder, run: command, end } = commandsIn("panel");
afterAll(end);

const run = (...args: string[]) => command(...args, "--json");
const panel = (spec: unknown, ...more: string[]) => {
  writeFileSync(join(folder, "spec.json"), JSON.stringify(spec));
  return run("panel", "spec.json", ...more);
};

test("a sheet of the probe tail is solved, written and proven; read again it is a panel of as many, and a spec gives the same bytes twice", async () => {
  const spec = {
    boards: [{ archive: demo("probe-tail"), count: 6 }],
    sheet: { maxWidthMm: 150, maxHeightMm: 120 },
  };
  const done = await panel(spec, "--out", "sheet.zip");
  expect(done.status).toBe(0);
  const doc = JSON.parse(done.out);
  expect(doc).toMatchObject({
    kobbin: "panel/1",
    counts: [6],
    separation: "tabs",
    scores: [],
    file: "sheet.zip",
    proof: { agrees: true },
  });
  expect(doc.places).toHaveLength(6);
  expect(doc.places.map((p: { copy: number }) => p.copy)).toEqual([1, 2, 3, 4, 5, 6]);
  for (const t of doc.tabs) expect(Object.keys(t)).toEqual(["xMm", "yMm", "widthMm", "between", "holes"]);
  for (const c of doc.proof.checked) expect(Object.keys(c)).toEqual(["what", "panel", "boards"]);
  // a place is the pose of the board's own coordinates: its hole at 8/2.9 of 2.2 mm lies there in the files
  const files = unpackZip(new Uint8Array(readFileSync(join(folder, "sheet.zip"))));
  const unplated = new TextDecoder().decode(files.find((f) => f.path.endsWith("unplated.drl"))!.bytes);
  for (const p of doc.places) {
    const a = (p.turnDeg * Math.PI) / 180;
    const x = 8 * Math.cos(a) - 2.9 * Math.sin(a) + p.xMm;
    const y = 8 * Math.sin(a) + 2.9 * Math.cos(a) + p.yMm;
    expect(unplated).toContain(`X${x.toFixed(4)}Y${y.toFixed(4)}`);
  }
  const csv = new TextDecoder().decode(files.find((f) => f.path.endsWith("places.csv"))!.bytes);
  expect(csv.match(/^"U1_[1-6]",/gm)).toHaveLength(6);
  const m = JSON.parse((await run("measure", "sheet.zip")).out) as Measure;
  expect(m.copies).toBe(6);
  expect(m.findings.map((f) => f.tag)).toContain("already-panel");
  expect(m.outline).toMatchObject(doc.sheet);
  const before = readFileSync(join(folder, "sheet.zip"));
  await panel(spec, "--out", "sheet.zip");
  expect(readFileSync(join(folder, "sheet.zip")).equals(before)).toBe(true);
});

test("what has no answer ends with its reason and the nearest that does, and nothing is written", async () => {
  const done = await panel({ boards: [{ archive: demo("kiln-watch-b"), count: 30 }] }, "--out", "none.zip");
  expect(done.status).toBe(1);
  expect(JSON.parse(done.out)).toMatchObject({
    kobbin: "panel/1",
    outcome: "reject",
    reason: "30 of kiln-watch-b do not go on a sheet of 250 × 200 mm.",
    nearest: [9],
  });
  expect(existsSync(join(folder, "none.zip"))).toBe(false);
  writeFileSync(join(folder, "words.txt"), "no board at all");
  const none = await panel({ boards: [{ archive: "words.txt" }] });
  expect(none.status).toBe(1);
  expect(JSON.parse(none.out)).toMatchObject({
    outcome: "reject",
    reason: expect.stringMatching(/^words: /),
    nearest: [],
  });
  const large = await panel({
    boards: [{ archive: demo("kiln-watch-b") }],
    sheet: { maxWidthMm: 70, maxHeightMm: 70 },
  });
  expect(JSON.parse(large.out)).toMatchObject({ outcome: "reject", nearest: [] });
});

test.each([
  [[], /document is no object/],
  [{}, /boards is no list/],
  [{ boards: [] }, /boards is no list of 1 to 20/],
  [{ boards: [{}] }, /boards\[0\]\.archive names no file/],
  [{ boards: [{ archive: "a.zip", count: 0 }] }, /boards\[0\]\.count is 0; 1 to 400, or "fill"/],
  [{ boards: [{ archive: "a.zip", count: "all" }] }, /count is "all"/],
  [{ boards: [{ archive: "a.zip", count: 2.5 }] }, /count is 2.5/],
  [{ boards: [{ archive: "a.zip", turns: [] }] }, /turns is no list of degrees/],
  [{ boards: [{ archive: "a.zip", turns: ["90"] }] }, /turns is no list of degrees/],
  [{ boards: [{ archive: "a.zip" }, { archive: "b.zip", count: "fill" }] }, /more than one of them/],
  [{ boards: [{ archive: "a.zip" }], gapMm: "2" }, /gapMm is "2"; a number from 0.5 to 20/],
  [{ boards: [{ archive: "a.zip" }], gapMm: -1 }, /gapMm is -1/],
  [{ boards: [{ archive: "a.zip" }], sheet: { maxWidthMm: 1e9 } }, /sheet\.maxWidthMm/],
  [
    { boards: [{ archive: "a.zip" }], sheet: { minWidthMm: 300 } },
    /sheet\.minWidthMm is 300; a number from 0 to 250/,
  ],
  [
    { boards: [{ archive: "a.zip" }], separation: "saw" },
    /separation is "saw"; auto, score, tabs, mixed may stand there/,
  ],
  [{ boards: [{ archive: "a.zip" }], rails: { sides: ["up"] } }, /rails\.sides is \["up"\]/],
  [{ boards: [{ archive: "a.zip" }], fiducials: "yes" }, /fiducials is neither true nor false/],
  [{ boards: [{ archive: "a.zip" }], waste: ["beer"] }, /waste may list gauge, practice, paste-test/],
  [{ boards: [{ archive: "a.zip" }], write: "both" }, /write is "both"/],
  [{ boards: [{ archive: "a.zip", free: ["up"] }] }, /boards\[0\]\.free may list left, right, top, bottom/],
  [{ boards: [{ archive: "a.zip" }], scored: "both" }, /scored is "both"; columns, rows may stand there/],
] as const)("a spec like %j is refused by its key", (value, says) => {
  expect(() => readSpec(value)).toThrow(says);
});

test("what is left out is as usual, turns are folded into one round, unknown keys are named", () => {
  const { spec, thicknessMm, write, unknown } = readSpec({
    boards: [{ archive: "a.zip", turns: [0, 360, -90], colour: "red" }],
    rails: { sides: "none", depth: 3 },
    speed: 1,
  });
  expect(spec).toMatchObject({
    counts: ["fill"],
    turns: [[0, 270]],
    maxWidthMm: 250,
    maxHeightMm: 200,
    gapMm: 2,
    rails: [],
    railMm: 7,
    separation: "auto",
  });
  expect([thicknessMm, write]).toEqual([undefined, "copies"]);
  expect(unknown).toEqual(["speed", "boards[0].colour", "rails.depth"]);
});
