import { readFileSync } from "node:fs";
import { beforeAll, test } from "@jest/globals";
import {
  adviceOn,
  boardSvg,
  compareMeasured,
  copperPrint,
  costDocument,
  diffBoards,
  drawSide,
  foilWork,
  type Measure,
  measureBoard,
  ORDER_OPTIONS,
  orderRules,
  panelOffers,
  pinsOn,
  plannedOrders,
  planPackage,
  probeBoard,
  quantityRows,
  quoteDocument,
  type RunDocument,
  recipeOf,
  rollUp,
  scarcityOf,
  standingOn,
  stencilNeed,
  toRunDocument,
  whatIf,
} from "@kobbin/core";
import { expectKept, outline } from "../../core/test/kept.ts";
import { readAsBoard } from "./board.ts";

// The demo's boards and the example run, read, measured and worked out whole (core/test/kept.ts).
const NAMES = ["kiln-watch-a", "kiln-watch-b", "probe-tail", "rack-card"] as const;
const keep = (name: string, lines: readonly string[]) =>
  expectKept(new URL(`golden/${name}.txt`, import.meta.url), LOOK, lines);
const LOOK =
  "a measure that moved by more than its last digit, a place that is another, a sum, a file that came or went";

const COLOURS = {
  mask: "#1a5e3a",
  copperUnderMask: "#2a7a4a",
  finish: "#d8b45a",
  laminate: "#c9b27c",
  legend: "#f4f2ea",
  edge: "#222",
};

type Read = Awaited<ReturnType<typeof readAsBoard>> & { readonly m: Measure };
const boards = new Map<string, Read>();
beforeAll(async () => {
  for (const name of NAMES) {
    const bytes = new Uint8Array(readFileSync(new URL(`../../demo/boards/${name}.zip`, import.meta.url)));
    const read = await readAsBoard([{ path: `${name}.zip`, bytes }]);
    boards.set(name, { ...read, m: measureBoard(read.set) });
  }
});

test.each(NAMES)("what is measured on %s", (name) => {
  keep(name, outline(boards.get(name)!.m));
});

test.each(NAMES.slice(1))(
  "what is made of %s at the bench: probes, foils, prints, recipe, drawings",
  (name) => {
    const { set, m } = boards.get(name)!;
    const lines: string[] = [];
    const tell = (what: string, value: unknown) => lines.push(...outline(value, [], `${what} `));
    tell("probe", probeBoard(set));
    for (const side of ["top", "bottom"] as const) {
      const paste = set.files.find((f) => f.role === "paste" && f.side === side && f.layer)?.layer;
      const wishes = { foilMm: 0.12, without: [], isNarrowed: true, isPaned: true };
      if (paste) tell(`foil ${side}`, foilWork(paste, side, pinsOn(m, side), wishes));
      tell(`drawing ${side}`, drawSide(set, side));
      tell(`picture ${side}`, boardSvg(set, side, COLOURS)?.split("><"));
      tell(`print ${side}`, copperPrint(set, side, "film")?.split("><"));
    }
    tell("recipe", recipeOf(set, m, 35));
    keep(`${name}-bench`, lines);
  },
);

test("what differs between two revisions, and what follows", () => {
  const [a, b] = [boards.get("kiln-watch-a")!, boards.get("kiln-watch-b")!];
  const diff = diffBoards(b.set, a.set);
  keep("kiln-watch-a-b", [
    ...outline(diff, [], "diff "),
    ...outline(compareMeasured(diff, b.m, a.m, example().house, {}), [], "verdict "),
  ]);
});

const example = (): RunDocument =>
  toRunDocument(
    JSON.parse(readFileSync(new URL("../../docs/examples/probe-tail.run.json", import.meta.url), "utf8")),
  );
const withBoard = (doc: RunDocument, name: (typeof NAMES)[number]): RunDocument => ({
  ...doc,
  boards: [{ ...doc.boards[0]!, measure: boards.get(name)!.m }],
});

test.each(NAMES.slice(1))(
  "what the houses of the example make of %s: its sheet, what speaks for what, the price",
  (name) => {
    const { m } = boards.get(name)!;
    const doc = withBoard(example(), name);
    const lines: string[] = [];
    for (const house of doc.houses ?? []) {
      const own = { ...doc, house };
      const r = rollUp(own);
      for (const key of ORDER_OPTIONS)
        lines.push(...outline(adviceOn(own, r, key), [], `${house.name} ${key} `));
      lines.push(
        ...outline(r.checks, [], `${house.name} check `),
        ...outline(
          orderRules(house, [m]).filter((u) => u.broken(r.options!)),
          [],
          `${house.name} breaks `,
        ),
        ...outline(quoteDocument(m, house, 37, {}), ["house"], `${house.name} quote `),
      );
    }
    keep(`${name}-houses`, lines);
  },
);

test("the example run as it is: baskets, sheets, orders, effects, documents", () => {
  const doc = withBoard(example(), "probe-tail");
  const cache = new Map();
  const r = rollUp(doc, { cache });
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const tell = (what: string, value: unknown) => outline(value, ["measure", "ms"], `${what} `);
  keep("example-run", tell("run", r));
  keep("example-orders", [
    ...tell("cost", costDocument(doc)),
    ...tell("orders", plannedOrders({ doc, ...r, plan: r.assembly } as never)),
    ...tell("package", planPackage(doc, r)),
  ]);
  keep("example-choices", [
    ...tell("what if", whatIf(doc, r, cache)),
    ...tell("quantities", quantityRows(doc, r)),
    ...tell("scarcity", scarcityOf(doc, r)),
    ...tell("stencil", stencilNeed(doc, r)),
    ...tell("stands", standingOn(doc, doc.boards[0]!)),
    ...tell("sheets", panelOffers(doc, r, roll)),
  ]);
});
