import { beforeAll, expect, test } from "@jest/globals";
import { NO_RECORD, type RunDocument, type RunRecord, type RunResult, rollUp } from "@kobbin/core";
import { madeUpRuns } from "../../../core/test/second/made-up.ts";
import { type StageState, stateOf, type WebStage } from "../run/stages.ts";
import { assemble } from "./assemble/stage.ts";
import { board } from "./board/stage.ts";
import { build } from "./build/stage.ts";
import { cost } from "./cost/stage.ts";
import { fab } from "./fab/stage.ts";
import { order } from "./order/stage.ts";
import { panel } from "./panel/stage.ts";
import { parts } from "./parts/stage.ts";
import { receive } from "./receive/stage.ts";
import { release } from "./release/stage.ts";
import { source } from "./source/stage.ts";

let doc: RunDocument;
let r: RunResult;
beforeAll(() => {
  [doc] = madeUpRuns(1, 77) as [RunDocument];
  r = rollUp(doc);
});

/** What a stage says of a run, with a part of it otherwise. */
const says = (
  stage: WebStage,
  d: object = {},
  result: object = {},
  isReleased = false,
  record: object = {},
) => stage.says({ ...doc, ...d }, { ...r, ...result } as RunResult, isReleased, { ...NO_RECORD, ...record });

test("Board: one by its size, several by name and number, and what is open", () => {
  const measured = (outline: object | undefined) => [
    { ...doc.boards[0]!, measure: { ...doc.boards[0]!.measure, outline, copperLayers: 2 } },
  ];
  expect(says(board, { boards: measured({ widthMm: 42, heightMm: 30.5 }) })).toBe("42 × 30.5 mm, 2 layers");
  expect(says(board, { boards: measured({ cutouts: 0 }) })).toBe("outline open");
  expect(says(board, { boards: measured(undefined) })).toBe("no outline");
  const two = [
    { ...doc.boards[0], name: "Main", perProduct: 1 },
    { ...doc.boards[0], name: "Key", perProduct: 2 },
  ];
  expect(says(board, { boards: two })).toBe("2 boards: Main, 2 × Key");
});

test("Parts, Source, Fab, Panel, Assemble, Cost", () => {
  expect(says(parts, {}, { parts: [{ count: 2 }, { count: 3.4 }] })).toBe("2 lines, 5 pieces");
  const basket = (suppliers: string[]) => ({ basket: { ...r.basket, suppliers } });
  expect(says(source, {}, basket([]))).toBe("no offers yet");
  expect(says(source, {}, { ...basket(["a"]), stages: { ...r.stages, source: { days: 3 } } })).toBe(
    "1 parcel, 3 days",
  );
  expect(says(fab, {}, { house: undefined })).toBe("no house");
  expect(says(fab, {}, { house: { name: "FAR" }, stages: { ...r.stages, fab: { days: 9 } } })).toBe(
    "9 days, FAR",
  );
  expect(says(panel, { choices: {} })).toBe("single boards");
  expect(
    says(
      assemble,
      { assembly: { ...doc.assembly, method: "house" } },
      { ownMinutes: 90, goes: new Set(["house"]) },
    ),
  ).toBe("by a house, 1.5 h");
  expect(says(assemble, {}, { ownMinutes: 90, goes: new Set(["house", "iron"]) })).toBe(
    "house + iron, 1.5 h",
  );
  expect(says(cost)).toBe("test and packing");
});

test("Release: what blocks, or that nothing does, or that it is done", () => {
  expect(says(release, {}, { blockers: [] })).toBe("nothing blocks");
  expect(says(release, {}, { blockers: [{}, {}] })).toBe("2 blockers");
  expect(says(release, {}, { blockers: [{}] }, true)).toBe("released");
});

const orders = () => ({ plan: r.assembly });
const ofRecord = (stage: WebStage, record: Partial<RunRecord>, isReleased = true): StageState =>
  stateOf(stage, doc, r, isReleased, { ...NO_RECORD, ...record } as RunRecord);

test("Order and Receive wait for the release, then count what is placed and what came", () => {
  expect([order, receive, build].map((s) => says(s))).toEqual([
    "after release",
    "after release",
    "after release",
  ]);
  expect(says(order, {}, orders(), true)).toMatch(/^0 of \d+ ordered$/);
  expect(says(receive, {}, orders(), true)).toMatch(/^0 of \d+ came$/);
  expect(ofRecord(order, {}, false)).toEqual({ kind: "open" });
  expect(ofRecord(receive, {})).toEqual({ kind: "open" });
  // what was put apart, and a bare board with a fault, want a look
  expect(ofRecord(receive, { receipts: [{ isApart: true, items: [] }] as never })).toEqual({
    kind: "look",
    count: 1,
  });
  const bareTests = [{ faults: [{}] }, { faults: [] }] as never;
  expect(ofRecord(receive, { receipts: [{ isApart: true, items: [] }] as never, bareTests })).toEqual({
    kind: "look",
    count: 2,
  });
});

test("Build: nothing started, so many of so many good, closed", () => {
  const work = [
    { started: 5, good: 3 },
    { started: 0, good: 1 },
  ] as never;
  expect(says(build, {}, {}, true)).toBe("nothing started yet");
  expect(says(build, { goodBoards: 9 }, {}, true, { work })).toBe("4 of 9 good");
  expect(says(build, {}, {}, true, { work, closedOn: "2026-11-29" })).toBe("closed: 4 good");
  // begun at the bench, by its pieces or its tests, and not counted: what is done once for all is no board
  const sittings = [{ unit: 0 }, { unit: 1 }, { unit: 1 }];
  const tries = [{ unit: 3, item: "rail", verdict: "fail" }];
  expect(says(build, {}, {}, true, { sittings, tries })).toBe("2 at the bench, none counted");
  const plan = { assembly: { ...doc.assembly, tests: [{ id: "rail", name: "rail" }] } };
  const state = (record: object) =>
    stateOf(build, { ...doc, ...plan } as never, r, true, { ...NO_RECORD, ...record } as never);
  expect(state({ tries })).toMatchObject({ kind: "look", count: 1 });
  expect(state({ tries, closedOn: "2026-11-29" }).kind).not.toBe("look");
  expect([ofRecord(build, {}), ofRecord(build, { closedOn: "2026-11-29" })]).toEqual([
    { kind: "open" },
    { kind: "ready" },
  ]);
});

test("a stage is blocked before it wants a look; what is accepted counts no more; the release freezes what was decided", () => {
  const note = (level: string, more: object = {}) => ({ stage: "parts", level, ...more });
  const state = (notes: object[], isReleased = false) =>
    stateOf(parts, doc, { ...r, notes } as never, isReleased, NO_RECORD);
  expect(state([note("error"), note("warning"), note("error", { stage: "fab" })])).toEqual({
    kind: "blocked",
    count: 1,
  });
  expect(state([note("warning"), note("warning"), note("remark")])).toEqual({ kind: "look", count: 2 });
  expect(state([note("error", { acceptedBecause: "known" }), note("remark")])).toEqual({ kind: "ready" });
  expect(state([note("error")], true)).toEqual({ kind: "frozen" });
});
