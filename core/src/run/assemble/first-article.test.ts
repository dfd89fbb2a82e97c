import { expect, test } from "@jest/globals";
import { madeLine } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { firstArticlePlan } from "./first-article.ts";

test("a socket takes the place of what is dear, which is plugged in and stands in no other version", () => {
  const lines = [madeLine("u", ["U1", "U2"], { mpn: "OX-U", package: "DIP-8" }), madeLine("b", [])];
  const wish = [
    { line: "u", mpn: "OX-S8", valueText: "" },
    { line: "b", mpn: "OX-S8", valueText: "" },
    { line: "nobody", mpn: "", valueText: "" },
  ];
  const plan = firstArticlePlan(lines, wish);
  expect(plan.sockets).toEqual({ u: { mpn: "OX-S8", valueText: "socket" } });
  expect(plan.added).toEqual([
    {
      ...lines[0],
      refs: ["U1P", "U2P"],
      dnp: true,
      mount: "none",
      description: "plugged into the socket of U1, U2, first article alone",
    },
  ]);
  // the bill has them from the last time
  expect(firstArticlePlan([...lines, madeLine("p", ["U1P", "U2P"])], wish).added).toEqual([]);
});

test("a run waits for its first article until one came good; what became of it is said", () => {
  const of = (first: object | undefined, id: string | undefined = "f") =>
    rollUp(twoSided({}, { choices: id ? { first: id } : {}, ...(first ? { first: first as never } : {}) }))
      .notes.filter((n) => n.key.startsWith("first-"))
      .map((n) => [n.key, n.level, n.text]);
  const at = (state: string, good: number, scrapped: number) => of({ name: "try", state, good, scrapped });
  expect(rollUp(twoSided({})).notes.filter((n) => n.key.startsWith("first-"))).toEqual([]);
  expect(at("released", 1, 0)).toEqual([]);
  expect(at("closed", 1, 3)).toEqual([]);
  expect(at("open", 0, 0)).toEqual([
    ["first-article waits", "error", "The first article, try, has not passed: it is not released yet."],
  ]);
  expect(at("released", 0, 0)[0]![2]).toContain("none of it has come good yet");
  expect(at("released", 0, 2)).toEqual([
    [
      "first-article failed",
      "error",
      "The first article, try, has not passed: 2 of it were scrapped and none came good.",
    ],
  ]);
  expect(of(undefined)[0]!.slice(0, 2)).toEqual(["first-gone", "warning"]);
});
