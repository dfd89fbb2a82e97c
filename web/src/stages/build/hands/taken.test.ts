import { expect, test } from "@jest/globals";
import { takenAs } from "./taken.ts";

test("what a step takes: kinds where it is laid out, tests where it is tried, images where it is programmed, else pieces", () => {
  expect(["kit", "test", "place", "iron", "program", "program-before"].map(takenAs)).toEqual([
    "kinds",
    "tests",
    "pieces",
    "pieces",
    "loads",
    "loads",
  ]);
});
