import { expect, test } from "@jest/globals";
import { isNoPiece } from "@kobbin/core";
import { alikeBoards, lookName, looksOf } from "./looks.ts";

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
