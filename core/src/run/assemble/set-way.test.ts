import { expect, test } from "@jest/globals";
import { chance } from "../../../test/random.ts";
import { madeUpRuns } from "../../../test/second/made-up.ts";
import type { Method } from "../../assembly/method.ts";
import { Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { layChange } from "../document/lay-change.ts";
import { lineParts } from "../document/parts.ts";
import { BOARD_SIDES, isForPaste } from "../document/ways.ts";
import { place, refs, twoSided } from "../two-sided.fixture.ts";
import { setSide, setWay } from "./set-way.ts";

const WAYS = ["iron", "stencil", "house"] as const satisfies readonly Method[];
/** Who does each part, by board, line and reference. */
const goes = (doc: RunDocument) =>
  new Map<string, Method>(
    lineParts(doc).flatMap((p) => p.line.refs.map((ref) => [`${p.line.id} ${ref}`, p.method] as const)),
  );
/** R1 to R5 above, R6 to R8 and all C below. */
const doc = twoSided(
  { method: "stencil" },
  {
    placements: [
      ...refs("R", 5).map((x) => place(x, "top")),
      ...["R6", "R7", "R8", ...refs("C", 4)].map((x) => place(x, "bottom")),
    ],
  },
);
const lay = (d: RunDocument, assembly: ReturnType<typeof setWay>) => layChange(d, { assembly });

test("what is said of a side and of a line on one side is written as short as it can be", () => {
  const house = setWay(doc, [{ line: "r", side: "top" }], "house");
  expect(house).toEqual({ sides: null, ways: { "r top": "house" } });
  const both = setWay(lay(doc, house), [{ line: "r", side: "bottom" }], "house");
  expect(both).toEqual({ sides: null, ways: { r: "house" } });
  // back to the run's own way: nothing is written any more
  const back = setWay(
    lay(doc, both),
    BOARD_SIDES.map((side) => ({ line: "r", side })),
    "stencil",
  );
  expect(back).toEqual({ sides: null, ways: null });
  // a side takes back what was said of lines there, not of those elsewhere, nor of what goes through the board
  const said = lay(lay(doc, both), setWay(lay(doc, both), [{ line: "j", side: "top" }], "house"));
  expect(setSide(said, "bottom", "iron", ["r", "c"])).toEqual({
    sides: { bottom: "iron" },
    ways: { "r top": "house", j: "house" },
  });
  // what stands by its side's way after it is not written down a second time
  expect(
    setWay(lay(doc, setSide(doc, "bottom", "iron", ["r", "c"])), [{ line: "c", side: "bottom" }], "iron"),
  ).toEqual({
    sides: { bottom: "iron" },
    ways: null,
  });
  // pins at a house that leaves them here: said, although all else goes there
  const here = twoSided({ method: "house", house: "far", handParts: "here" });
  expect(setWay(here, [{ line: "j", side: "top" }], "house").ways).toEqual({ j: "house" });
});

test("whatever was said before, what is set is so, and nothing else has moved", () => {
  const { pick, is } = chance(3801);
  let moved = 0;
  for (const plain of madeUpRuns(60, 3802)) {
    let now = plain;
    for (let k = 0; k < 6; k++) {
      const before = goes(now);
      const places = new Places(now);
      const side = pick(BOARD_SIDES);
      const method = pick(WAYS);
      const on = (p: ReturnType<typeof lineParts>[number], ref: string) =>
        (places.of(p.line, ref)?.side ?? "top") === side;
      const all = lineParts(now);
      const lines = is(0.4)
        ? all.filter(isForPaste).map((p) => p.line.id)
        : all.flatMap((p) => (isForPaste(p) && is(0.4) ? [p.line.id] : []));
      const isSide = lines.length === all.filter(isForPaste).length;
      const change = isSide
        ? setSide(now, side, method, lines)
        : setWay(
            now,
            lines.map((line) => ({ line, side })),
            method,
          );
      now = layChange(now, { assembly: change });
      const after = goes(now);
      for (const p of all)
        for (const ref of p.line.refs) {
          const key = `${p.line.id} ${ref}`;
          const isMine = isForPaste(p) && lines.includes(p.line.id) && on(p, ref);
          if (isMine && before.get(key) !== method) moved++;
          expect([key, after.get(key)]).toEqual([key, isMine ? method : before.get(key)]);
        }
    }
  }
  expect(moved).toBeGreaterThan(200);
});
