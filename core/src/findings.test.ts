import { expect, test } from "@jest/globals";
import { FindingList, type FindingTag, few } from "./findings.ts";

const of = (tag: FindingTag, file: string, n: number) =>
  Array.from({ length: n }, (_, i) => ({ tag, file, level: "warning" as const, text: `${i}`, do: "x" }));

test("five of a kind in a file are told one by one, of more than that how many there are", () => {
  const list = new FindingList();
  for (const f of [
    ...of("unknown-layer", "a", 5),
    ...of("unknown-layer", "b", 8),
    ...of("unknown-unit", "b", 1),
  ])
    list.add(f as never);
  const done = list.done();
  expect(done.filter((f) => f.file === "a").map((f) => f.text)).toEqual(["0", "1", "2", "3", "4"]);
  expect(done.filter((f) => f.file === "b" && f.tag === "unknown-layer").map((f) => f.text)).toEqual([
    ...["0", "1", "2", "3", "4"],
    "3 more of the same kind.",
  ]);
  expect(done.filter((f) => f.tag === "unknown-unit")).toHaveLength(1);
});

test("a sentence names so many, and the last place goes to how many more there are", () => {
  const names = (n: number) => Array.from({ length: n }, (_, i) => `R${i + 1}`);
  expect(few(names(3), 3)).toBe("R1, R2, R3");
  expect(few(names(4), 3)).toBe("R1, R2 and 2 more");
  expect(few(names(10), 3)).toBe("R1, R2 and 8 more");
  expect(few([])).toBe("");
});

test("a sentence names eight unless told otherwise; a list without a file is counted too", () => {
  const names = (n: number) => Array.from({ length: n }, (_, i) => `R${i + 1}`);
  expect(few(names(8))).toBe("R1, R2, R3, R4, R5, R6, R7, R8");
  expect(few(names(9))).toBe("R1, R2, R3, R4, R5, R6, R7 and 2 more");
  const list = new FindingList(1);
  for (const text of ["a", "b"]) list.add({ tag: "unknown-layer", level: "error", text });
  expect(list.done()).toEqual([
    { tag: "unknown-layer", level: "error", text: "a" },
    { tag: "unknown-layer", level: "error", text: "1 more of the same kind." },
  ]);
});

test("what is lost is told however much of the same kind is only odd, and weighs as much where it is counted", () => {
  const list = new FindingList(2);
  for (let i = 0; i < 9; i++) list.add({ tag: "parse-error", level: "warning", file: "a", text: `odd ${i}` });
  for (let i = 0; i < 3; i++) list.add({ tag: "parse-error", level: "error", file: "a", text: `lost ${i}` });
  expect(list.done().map((f) => `${f.level} ${f.text}`)).toEqual([
    "warning odd 0",
    "warning odd 1",
    "error lost 0",
    "error lost 1",
    "warning 7 more of the same kind.",
    "error 1 more of the same kind.",
  ]);
});
