import { expect, test } from "@jest/globals";
import { takenAs } from "./taken.ts";

test("what a step takes: kinds where it is laid out, tests where it is tried, else pieces", () => {
  expect(["kit", "test", "place", "iron", "program"].map(takenAs)).toEqual([
    "kinds",
    "tests",
    "pieces",
    "pieces",
    "pieces",
  ]);
});
