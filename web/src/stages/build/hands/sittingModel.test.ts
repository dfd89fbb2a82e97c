import { expect, test } from "@jest/globals";
import {
  bodyOf,
  isSent,
  laid,
  marked,
  NOTHING_UNSENT,
  since,
  type Unsent,
  withLost,
  yielded,
} from "./sittingModel.ts";

const ROW = {
  marks: { R1: "done", R2: "doubt" },
  lost: { r: 1 },
  minutes: { desk: 4, phone: 1 },
  isDone: false,
} as const;

test("what was pressed lies over what the server has; null takes back; another device's minutes stay", () => {
  const unsent: Unsent = { marks: { R2: null, R3: "skipped" }, lost: { r: 2 }, minutes: 5, isDone: true };
  expect(laid(ROW, unsent, "desk")).toEqual({
    marks: { R1: "done", R3: "skipped" },
    lost: { r: 2 },
    minutes: { desk: 5, phone: 1 },
    isDone: true,
  });
  expect(laid(undefined, NOTHING_UNSENT, "desk")).toEqual({
    marks: {},
    lost: {},
    minutes: {},
    isDone: false,
  });
  expect(laid(ROW, NOTHING_UNSENT, "desk")).toEqual(ROW);
  const used = laid(
    { ...ROW, used: { iron: "Old", wire: "1 mm" } },
    { ...NOTHING_UNSENT, used: { iron: "New" } },
    "desk",
  );
  expect(used.used).toEqual({ iron: "New", wire: "1 mm" });
});

test("what arrived is unsent no more, what was pressed meanwhile is, also where it is the same piece again", () => {
  const sent: Unsent = { marks: { R1: "done", R2: "done" }, lost: {}, minutes: 2 };
  const now: Unsent = {
    marks: { R1: "done", R2: null, R3: "done" },
    lost: { r: 1 },
    minutes: 3,
    isDone: true,
  };
  expect(since(now, sent)).toEqual({
    marks: { R2: null, R3: "done" },
    lost: { r: 1 },
    minutes: 3,
    isDone: true,
  });
  expect(isSent(since(sent, sent))).toBe(true);
  const tools = (used: Unsent["used"]): Unsent => ({ ...NOTHING_UNSENT, ...(used ? { used } : {}) });
  expect(since(tools({ iron: "B", wire: "1" }), tools({ iron: "A", wire: "1" })).used).toEqual({ iron: "B" });
  expect([isSent(tools({ iron: "A" })), isSent(since(tools({ iron: "A" }), tools({ iron: "A" })))]).toEqual([
    false,
    true,
  ]);
  expect(isSent({ marks: { R1: "done" }, lost: { r: 1 } })).toBe(false);
  expect([
    isSent(NOTHING_UNSENT),
    isSent({ marks: { R1: null }, lost: {} }),
    isSent({ ...NOTHING_UNSENT, isDone: false }),
  ]).toEqual([true, false, false]);
});

test("the step goes whole, with the version it was seen at where there was one", () => {
  expect(bodyOf({ unit: 2, step: 3 }, ROW)).toEqual({ unit: 2, step: 3, ...ROW, used: {} });
  expect(bodyOf({ unit: 2, step: 3, version: 7 }, ROW)).toMatchObject({ version: 7 });
});

test("a step is done no more once a piece of it is taken back or left; a piece that is on leaves it as it was", () => {
  const done = { ...ROW, isDone: true };
  expect(marked(NOTHING_UNSENT, done, "R1", undefined)).toEqual({
    marks: { R1: null },
    lost: {},
    isDone: false,
  });
  expect(marked(NOTHING_UNSENT, done, "R2", "skipped").isDone).toBe(false);
  expect(marked(NOTHING_UNSENT, done, "check dead way", undefined)).toEqual({
    marks: { "check dead way": null },
    lost: {},
  });
  expect(marked(NOTHING_UNSENT, done, "R2", "done")).toEqual({ marks: { R2: "done" }, lost: {} });
  expect(marked(NOTHING_UNSENT, ROW, "R1", undefined)).not.toHaveProperty("isDone");
});

test("a piece is lost, and not lost after all, and never less than none", () => {
  expect(withLost(NOTHING_UNSENT, ROW, "r", 1).lost).toEqual({ r: 2 });
  expect(withLost(NOTHING_UNSENT, ROW, "r", -1).lost).toEqual({ r: 0 });
  expect(withLost({ ...NOTHING_UNSENT, lost: { r: 3 } }, ROW, "u", -1).lost).toEqual({ r: 3, u: 0 });
});

test("of what two marked differently theirs stands, and nothing else that was pressed is lost", () => {
  const u: Unsent = { marks: { R1: "done", R2: null }, lost: { r: 2, u: 1 }, isDone: true, minutes: 3 };
  const left = (...paths: string[][]) =>
    yielded(
      u,
      paths.map((path) => ({ path })),
    );
  expect(left(["marks", "R2"], ["lost", "r"])).toEqual({
    marks: { R1: "done" },
    lost: { u: 1 },
    isDone: true,
    minutes: 3,
  });
  expect(left(["is_done"])).toEqual({ marks: u.marks, lost: u.lost, minutes: 3 });
  expect(left(["marks"]).marks).toEqual({});
  const both = { ...u, used: { iron: "A", wire: "1" } };
  expect(yielded(both, [{ path: ["used", "iron"] }]).used).toEqual({ wire: "1" });
  // nothing that is told of is here: it would be refused again and again
  expect([left(), left(["marks", "R9"])]).toEqual([NOTHING_UNSENT, NOTHING_UNSENT]);
});
