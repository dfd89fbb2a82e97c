import { expect, test } from "@jest/globals";
import type { RunResult } from "@kobbin/core";
import { effectOf } from "./wayEffect.ts";

const run = (keys: readonly string[], perGood = 0): RunResult =>
  ({
    perGood,
    ownMinutes: 10,
    ready: { days: 3 },
    blockers: keys.map((key) => ({ key, text: `says ${key}` })),
  }) as unknown as RunResult;

test("a way cannot be where its own rules are broken; what can be mended elsewhere it brings, and it may be taken", () => {
  const of = (...keys: string[]) => effectOf(run(["rotation-other SOT-23"]), run(keys, 1_500_000));
  expect(of("order printed-over R1").cannot).toBe("says order printed-over R1");
  for (const key of ["iron-balls", "paste-missing", "house-placement", "assembly-house-missing"])
    expect(of(key)).toMatchObject({ cannot: `says ${key}` });
  expect(of("rotation-other QFN")).toEqual({
    perGood: 1.5,
    minutes: 0,
    days: 0,
    brings: "says rotation-other QFN",
  });
  // what keeps the order from going out already is brought by no way
  expect(of("rotation-other SOT-23")).toEqual({ perGood: 1.5, minutes: 0, days: 0 });
  // what cannot be comes before what can be mended, wherever it stands
  expect(of("rotation-other QFN", "iron-balls")).toEqual({
    perGood: 1.5,
    minutes: 0,
    days: 0,
    cannot: "says iron-balls",
  });
  expect(effectOf(run([]), "no price").cannot).toBe("no price");
});
