import { test } from "@jest/globals";
import { expectKept, outline } from "../../test/kept.ts";
import { madeUpRuns } from "../../test/second/made-up.ts";
import { boardK } from "./board-k.fixture.ts";
import type { RunDocument } from "./document/document.ts";
import { FULL } from "./full-house.fixture.ts";
import { rollUp } from "./roll-up.ts";
import { whatIf } from "./what-if.ts";

// Runs worked out whole (core/test/kept.ts): the worked example of costing as it is soldered in every way, and made-up ones.
const keep = (name: string, docs: readonly RunDocument[]) =>
  expectKept(
    new URL(`golden/${name}.txt`, import.meta.url),
    docs.flatMap((doc, i) => {
      const cache = new Map();
      const r = rollUp(doc, { cache });
      return [
        ...outline(r, ["house", "measure", "line", "baskets"], `${i} `),
        ...outline(whatIf(doc, r, cache), ["house", "measure"], `${i} if `),
      ];
    }),
  );

test("the worked example, by hand, by a house, at a house that has every decision", () => {
  const base = boardK();
  keep("board-k", [
    base,
    boardK({ assembly: { ...base.assembly, method: "iron" } }),
    boardK({ assembly: { ...base.assembly, method: "house" }, goodBoards: 200 }),
    boardK({ house: FULL, houses: [FULL], options: { mask: "white", finish: "gold" } }),
  ]);
});

test("made-up runs", () => keep("made-up", madeUpRuns(4, 77)));
