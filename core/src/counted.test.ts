import { expect, test } from "@jest/globals";
import { counted } from "./counted.ts";

test("one is one; none and more are many, by their own word where they have one", () => {
  const words = [0, 1, 2].map((n) => [counted(n, "hole"), counted(n, "body", "bodies")]);
  expect(words).toEqual([
    ["0 holes", "0 bodies"],
    ["1 hole", "1 body"],
    ["2 holes", "2 bodies"],
  ]);
});
