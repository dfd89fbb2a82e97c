import { expect, test } from "@jest/globals";
import { isNoPiece } from "@kobbin/core";
import { alikeBoards, lookName, looksOf, sharesFrom } from "./looks.ts";

test("looks are kept by symptom and cause, and are no pieces; boards that do the same count once each, with this one", () => {
  const marks = {
    "check dead supply": "done",
    "check dead way": "doubt",
    "check hungry turned": "done",
    R1: "doubt",
  } as const;
  expect(looksOf(marks, "dead")).toEqual([
    { cause: "supply", came: "not" },
    { cause: "way", came: "it" },
  ]);
  expect([isNoPiece(lookName("dead", "supply")), isNoPiece("R1"), isNoPiece("checker")]).toEqual([
    true,
    false,
    false,
  ]);
  const sittings = [
    { unit: 3, marks },
    { unit: 3, marks: { "check dead gone": "done" } as const },
    { unit: 4, marks: { "check dead gone": "done" } as const },
    { unit: 5, marks: { "check hungry turned": "done" } as const },
  ];
  expect([
    alikeBoards(sittings, "dead", 3),
    alikeBoards(sittings, "dead", 9),
    alikeBoards([], "dead", 9),
  ]).toEqual([2, 3, 1]);
});

test("where shares come from is said: the usual, faults of classes that would do so, boards that do the same", () => {
  expect(sharesFrom("restarts", {}, 1, "board")).toBe(
    "Shares: 10 faults as they usually fall; nothing that would do so was found on this product yet.",
  );
  // nothing placed wrong makes a board start and stop: it counts in no share and is not told
  expect(sharesFrom("restarts", { joint: 5, placement: 4, process: 1 }, 2, "board")).toBe(
    "Shares: 10 faults as they usually fall; beside them, found on this product: 5 of joints, 1 of programs and handling. 2 boards do so: that each has a bad joint, placing or part of its own is 0.2 times as likely; what they share comes first.",
  );
  expect(sharesFrom("restarts", {}, 9, "sheet")).toContain(
    "9 sheets do so: that each has a bad joint, placing or part of its own is hardly likely",
  );
});
