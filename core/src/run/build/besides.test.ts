import { expect, test } from "@jest/globals";
import { besidesWords } from "../../testing/besides.ts";
import type { TestItem } from "../document/document.ts";
import type { RunWork, TestTry } from "../document/record.ts";
import { besideTests } from "./besides.ts";
import { firstPassOf, standsOfUnit, verdictOfUnit } from "./tries.ts";

const item = (id: string, besides?: TestItem["besides"]): TestItem => ({
  id,
  name: id,
  state: "powered",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 1,
  ...(besides ? { besides } : {}),
});
let n = 0;
const tried = (unit: number, id: string, on: string, verdict: TestTry["verdict"] = "pass"): TestTry => ({
  id: String(n++),
  unit,
  item: id,
  name: id,
  on,
  limits: {},
  verdict,
  words: "",
  person: "M",
});
const RAIL = item("rail");
const WEEK = item("week", { days: 7, where: "in the cold" });
const HOST = item("host", { where: "at a host of another make", boards: 2 });
const PLAN = [RAIL, WEEK, HOST];
const told = (tries: TestTry[], today: string, plan = PLAN, work: RunWork[] = []) =>
  besideTests(plan, { tries, work }, today).map((t) => [t.item.id, t.unit, t.from, t.is]);

test("days count from the last try at the bench of a board that passes there; one that fails or is half way waits for nothing", () => {
  const tries = [
    tried(1, "rail", "2026-02-25"),
    tried(1, "rail", "2026-02-26", "fail"),
    tried(1, "rail", "2026-02-27"),
    tried(2, "rail", "2026-03-01", "fail"),
    tried(3, "rail", "2026-03-01", "error"),
  ];
  expect(told(tries, "2026-03-05", [RAIL, WEEK])).toEqual([["week", 1, "2026-03-06", "coming"]]);
  expect(told(tries, "2026-03-06", [RAIL, WEEK])).toEqual([["week", 1, "2026-03-06", "due"]]);
  // not read is not tried; in the end it passes
  const later = [...tries, tried(1, "week", "2026-03-07", "error")];
  expect(told(later, "2026-03-08", [RAIL, WEEK])[0]![3]).toBe("due");
  expect(told([...later, tried(1, "week", "2026-03-08")], "2026-03-08", [RAIL, WEEK])[0]![3]).toBe("pass");
});

test("of an item for two boards those it was tried on come first, then the lowest numbers, and never fewer than were tried", () => {
  const rails = [1, 2, 3, 4].map((u) => tried(u, "rail", "2026-03-01"));
  const plan = [RAIL, HOST];
  expect(told(rails, "2026-03-01", plan).map(([, u, , is]) => [u, is])).toEqual([
    [1, "due"],
    [2, "due"],
  ]);
  const fourth = [...rails, tried(4, "host", "2026-03-02", "fail")];
  expect(told(fourth, "2026-03-02", plan).map(([, u, , is]) => [u, is])).toEqual([
    [4, "fail"],
    [1, "due"],
  ]);
  const three = [...fourth, tried(3, "host", "2026-03-02"), tried(2, "host", "2026-03-02")];
  expect(
    told(three, "2026-03-02", plan)
      .map(([, u]) => u)
      .sort(),
  ).toEqual([2, 3, 4]);
  // a board nobody tried at the bench, tried at a host all the same
  expect(told([tried(9, "host", "2026-03-02")], "2026-03-05", plan)).toEqual([
    ["host", 9, "2026-03-02", "pass"],
  ]);
});

test("where the bench tries nothing, days count from the last day on which boards were counted as good", () => {
  const work = [
    { id: "a", on: "2026-03-01", started: 3, good: 2, reworked: 0, scrapped: 0, minutes: 5 },
    { id: "b", on: "2026-03-04", started: 0, good: 0, reworked: 0, scrapped: 1, minutes: 5 },
  ];
  expect(told([], "2026-03-20", [WEEK], work)).toEqual([
    ["week", 1, "2026-03-08", "due"],
    ["week", 2, "2026-03-08", "due"],
  ]);
  expect(told([], "2026-03-20", [WEEK])).toEqual([]);
});

test("what is tried besides the bench leaves a board that passes there passing, until it fails", () => {
  const verdict = (tries: TestTry[], plan = PLAN) => verdictOfUnit(standsOfUnit(plan, tries, 1));
  const rail = tried(1, "rail", "2026-03-01");
  expect(verdict([])).toBe("open");
  expect(verdict([tried(1, "week", "2026-03-09")])).toBe("open");
  expect(verdict([rail])).toBe("pass");
  expect(verdict([rail, tried(1, "week", "2026-03-09", "fail")])).toBe("fail");
  expect(firstPassOf(PLAN, [rail])).toEqual({ tried: 1, passed: 1, failing: 0, first: 1 });
  // a plan of nothing else passes when all of it does
  expect([
    verdict([tried(1, "week", "2026-03-09")], [WEEK, HOST]),
    verdict([tried(1, "week", "2026-03-09")], [WEEK]),
  ]).toEqual(["open", "pass"]);
});

test("when, where and on how many, in words", () => {
  expect([WEEK, HOST, item("x", { days: 1, boards: 1 })].map((t) => besidesWords(t.besides!))).toEqual([
    "after 7 days, in the cold",
    "at a host of another make, on 2 boards",
    "after 1 day, on 1 board",
  ]);
  expect(besidesWords({})).toBe("besides the bench");
});
