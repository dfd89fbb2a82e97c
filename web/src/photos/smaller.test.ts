import { expect, test } from "@jest/globals";
import { fitted } from "./smaller.ts";

test("a photo is made smaller in its own proportion, never larger, never to nothing", () => {
  expect(fitted(4000, 3000)).toEqual({ width: 1600, height: 1200 });
  expect(fitted(3000, 4000)).toEqual({ width: 1200, height: 1600 });
  expect(fitted(640, 480)).toEqual({ width: 640, height: 480 });
  expect(fitted(1601, 1)).toEqual({ width: 1600, height: 1 });
  expect(fitted(9000, 2)).toEqual({ width: 1600, height: 1 });
  expect(fitted(1600, 900, 1280)).toEqual({ width: 1280, height: 720 });
});
