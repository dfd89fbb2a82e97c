import { expect, test } from "@jest/globals";
import { createKnown, keyOfMeasure } from "./known.ts";
import type { Measured, Task } from "./messages.ts";

type Measure = Extract<Task, { kind: "measure" }>;
const file = (path: string, text: string) => ({ path, bytes: new TextEncoder().encode(text) });
const task = (over: Partial<Measure> = {}): Measure => ({
  kind: "measure",
  files: [file("a.gbr", "one"), file("b.drl", "two")],
  corrections: {},
  memory: {},
  ...over,
});
const measured = (measure: string): Measured => ({
  kind: "measured",
  measure,
  corrections: {},
  lines: [],
  placements: [],
});

test("whatever the answer hangs on makes another key: names, bytes, where one file ends, order, corrections, memory", () => {
  const all = [
    task(),
    task({ files: [file("a.gbr", "one"), file("b.drl", "twO")] }),
    task({ files: [file("a.gbr", "one"), file("c.drl", "two")] }),
    task({ files: [file("b.drl", "two"), file("a.gbr", "one")] }),
    task({ files: [file("a.gbr", "onetwo"), file("b.drl", "")] }),
    task({ files: [file("a.gbr", "one")] }),
    task({ corrections: { roles: { "a.gbr": { role: "copper", side: "top" } } } }),
    task({ memory: { roles: { "a.gbr": { role: "copper", side: "top" } } } as Measure["memory"] }),
  ].map(keyOfMeasure);
  expect(new Set(all).size).toBe(all.length);
  expect(keyOfMeasure(task())).toBe(all[0]);
});

test("what was measured is known again until there is no room; the one asked for last stays", () => {
  const known = createKnown(3000);
  known.keep("a", measured("x".repeat(1000)));
  known.keep("b", measured("x".repeat(1000)));
  expect(known.get("a")?.measure).toHaveLength(1000);
  known.keep("c", measured("x".repeat(1000)));
  expect(["a", "b", "c"].filter((k) => known.get(k))).toEqual(["a", "c"]);
  // what is larger than all there is is not kept, and throws nothing out
  known.keep("d", measured("x".repeat(5000)));
  expect(["a", "c", "d"].filter((k) => known.get(k))).toEqual(["a", "c"]);
});
