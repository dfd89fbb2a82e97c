import { test } from "@jest/globals";
import { expectKept, outline } from "../../test/kept.ts";
import { madeUpRuns } from "../../test/second/made-up.ts";
import { boardK } from "./board-k.fixture.ts";
import type { RunDocument } from "./document/document.ts";
import { FULL } from "./full-house.fixture.ts";
import { rollUp } from "./roll-up.ts";
import { whatIf } from "./what-if.ts";

// Runs worked out whole (core/test/kept.ts): the worked example of costing as it is soldered in every way, and made-up ones.
const LOOK =
  "sums that moved, an order or a note that came or went, a breach that is new; ids and order of lines mean nothing";
function keep(name: string, doc: RunDocument): void {
  const cache = new Map();
  const r = rollUp(doc, { cache });
  expectKept(new URL(`golden/${name}.txt`, import.meta.url), LOOK, [
    ...outline(r, ["house", "measure", "line", "baskets"]),
    ...outline(whatIf(doc, r, cache), ["house", "measure"], "if "),
  ]);
}

const base = boardK();
test.each<[string, RunDocument]>([
  ["foil", base],
  ["iron", boardK({ assembly: { ...base.assembly, method: "iron" } })],
  ["house", boardK({ assembly: { ...base.assembly, method: "house" }, goodBoards: 200 })],
  ["decided", boardK({ house: FULL, houses: [FULL], options: { mask: "white", finish: "gold" } })],
])("the worked example, %s", (name, doc) => keep(`board-k-${name}`, doc));

test.each(madeUpRuns(4, 77).map((doc, i) => [i, doc] as const))("made-up run %i", (i, doc) =>
  keep(`made-up-${i}`, doc),
);
