import { expect, test } from "@jest/globals";
import { patternOf, withMemory } from "./corrections.ts";

test("the next revision's file is known by its name without its folder and its numbers", () => {
  expect(patternOf("Out/Board-R12.Top2")).toBe("board-r#.top#");
  expect(patternOf("board-r2.top7")).toBe("board-r#.top#");
  expect(patternOf("")).toBe("");
});

test("what is said now goes before what is remembered of such names; a move is not remembered", () => {
  const memory = { roles: { "a#.txt": "drill", "b.txt": "bom" }, columns: { "b.txt": { 0: "refs" } } };
  expect(withMemory(["x/a7.txt", "b.txt", "c.txt"], {}, memory)).toEqual({
    roles: { "x/a7.txt": "drill", "b.txt": "bom" },
    columns: { "b.txt": { 0: "refs" } },
  });
  const moves = { "b.txt": { dxMm: 1, dyMm: 0 } };
  expect(
    withMemory(
      ["b.txt"],
      { roles: { "b.txt": "drawing" }, columns: { "b.txt": { 1: "qty" } }, moves } as never,
      memory,
    ),
  ).toEqual({ roles: { "b.txt": "drawing" }, columns: { "b.txt": { 1: "qty" } }, moves });
});
