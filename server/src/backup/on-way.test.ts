import { expect, test } from "@jest/globals";
import { onWay } from "./on-way.ts";

test("how far a backup is, is told once a second, and its reading ends when its time is over", () => {
  let ms = 5000;
  const told: unknown[] = [];
  const say = onWay(
    (...how) => told.push(how),
    () => ms,
  );
  for (const [at, done] of [
    [5999, 1],
    [6000, 2],
    [6999, 3],
    [7400, 4],
    [604_999, 5],
  ] as const) {
    ms = at;
    say("rows", done, 9);
  }
  expect(told).toEqual([
    ["rows", 2, 9],
    ["rows", 4, 9],
    ["rows", 5, 9],
  ]);
  ms = 605_001;
  expect(() => say("runs", 1, 3)).toThrow(
    "Reading the backup took longer than 10 minutes: 1 of 3 runs were done. Nothing of it was kept.",
  );
});
