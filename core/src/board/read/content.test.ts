import { expect, test } from "@jest/globals";
import { readBoard } from "./read.ts";

/*
 * Names of masks and stencils against what is in them. A board with eight pads on the top, five on the bottom and two
 * holes through both; pads 1 × 1 mm, openings of the mask 1.1, of the paste 0.9. What is expected is judged by hand.
 */

const u = (v: number) => Math.round(v * 1e6);
const HEAD =
  "%FSLAX46Y46*%%MOMM*%G75*%ADD10R,1X1*%%ADD11R,1.1X1.1*%%ADD12R,0.9X0.9*%%ADD13C,1.8*%%ADD14C,0.2*%";
type Spots = readonly (readonly [number, number])[];
const TOP: Spots = Array.from({ length: 8 }, (_, i) => [5 + 3 * (i % 4), 5 + 4 * Math.floor(i / 4)]);
const BOTTOM: Spots = Array.from({ length: 5 }, (_, i) => [6.5 + 3 * i, 20]);
const HOLES: Spots = [
  [25, 5],
  [25, 9],
];
const at = (stamp: number, spots: Spots) => spots.map(([x, y]) => `D${stamp}*X${u(x)}Y${u(y)}D03*`).join("");
const layer = (...what: string[]) => `${HEAD}${what.join("")}M02*`;
const GOOD = {
  copperTop: layer(at(10, TOP), at(13, HOLES)),
  copperBottom: layer(at(10, BOTTOM), at(13, HOLES)),
  maskTop: layer(at(11, TOP), at(13, HOLES)),
  maskBottom: layer(at(11, BOTTOM), at(13, HOLES)),
  pasteTop: layer(at(12, TOP)),
  pasteBottom: layer(at(12, BOTTOM)),
};
const NAMED = {
  "x.gtl": "copperTop",
  "x.gbl": "copperBottom",
  "x.gts": "maskTop",
  "x.gbs": "maskBottom",
  "x.gtp": "pasteTop",
  "x.gbp": "pasteBottom",
} as const;
type Name = keyof typeof NAMED;
const EDGE = `${HEAD}D14*X0Y0D02*G01X${u(30)}D01*Y${u(25)}D01*X0D01*Y0D01*M02*`;

function board(change: Partial<Record<Name, string | undefined>> = {}) {
  const files: Record<string, string> = { "x.gko": EDGE };
  for (const [name, what] of Object.entries(NAMED)) files[name] = GOOD[what];
  for (const [name, text] of Object.entries(change))
    if (text === undefined) delete files[name];
    else files[name] = text;
  const set = readBoard(
    Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
  );
  const odd = (Object.keys(files) as (Name | "x.gko")[]).flatMap((name) => {
    if (name === "x.gko") return [];
    const f = set.files.find((x) => x.path === name)!;
    const now = `${f.role} ${f.side}`;
    const named = NAMED[name].replace(/[A-Z]/, (c) => ` ${c.toLowerCase()}`);
    return now === named ? [] : [`${name} is ${now}`];
  });
  return { odd, said: set.findings.filter((f) => f.tag === "role-contradiction").map((f) => f.level) };
}
const FUNCTION = (text: string, fields: string) => `%TF.FileFunction,${fields}*%${text}`;

test.each<readonly [string, Partial<Record<Name, string | undefined>>, readonly string[], readonly string[]]>(
  [
    ["all is as it is named", {}, [], []],
    [
      "mask and paste of the top exchanged",
      { "x.gts": GOOD.pasteTop, "x.gtp": GOOD.maskTop },
      ["x.gts is paste top", "x.gtp is mask top"],
      ["warning"],
    ],
    [
      "of both sides exchanged",
      { "x.gts": GOOD.pasteTop, "x.gtp": GOOD.maskTop, "x.gbs": GOOD.pasteBottom, "x.gbp": GOOD.maskBottom },
      ["x.gts is paste top", "x.gbs is paste bottom", "x.gtp is mask top", "x.gbp is mask bottom"],
      ["warning", "warning"],
    ],
    [
      "exchanged where no pad has a hole: told by size",
      { "x.gts": layer(at(12, TOP)), "x.gtp": layer(at(11, TOP)) },
      ["x.gts is paste top", "x.gtp is mask top"],
      ["warning"],
    ],
    ["both of one size tell nothing", { "x.gts": layer(at(10, TOP)), "x.gtp": layer(at(10, TOP)) }, [], []],
    [
      "exchanged, but their own attributes say so",
      { "x.gts": FUNCTION(GOOD.pasteTop, "Soldermask,Top"), "x.gtp": FUNCTION(GOOD.maskTop, "Paste,Top") },
      [],
      [],
    ],
    ["a stencil for half of the parts", { "x.gtp": layer(at(12, TOP.slice(0, 4))) }, [], []],
    [
      "a stencil beside the board",
      {
        "x.gtp": layer(
          at(
            12,
            TOP.map(([x, y]): readonly [number, number] => [x + 40, y]),
          ),
        ),
      },
      [],
      [],
    ],
    [
      "masks of the sides exchanged",
      { "x.gts": GOOD.maskBottom, "x.gbs": GOOD.maskTop },
      ["x.gts is mask bottom", "x.gbs is mask top"],
      ["warning"],
    ],
    [
      "stencils of the sides exchanged",
      { "x.gtp": GOOD.pasteBottom, "x.gbp": GOOD.pasteTop },
      ["x.gtp is paste bottom", "x.gbp is paste top"],
      ["warning"],
    ],
    [
      "coppers exchanged: which is wrong nothing tells",
      { "x.gtl": GOOD.copperBottom, "x.gbl": GOOD.copperTop },
      [],
      ["error"],
    ],
    [
      "masks and stencils exchanged likewise",
      { "x.gts": GOOD.maskBottom, "x.gbs": GOOD.maskTop, "x.gtp": GOOD.pasteBottom, "x.gbp": GOOD.pasteTop },
      [],
      ["error"],
    ],
    [
      "coppers exchanged, the masks state their side",
      {
        "x.gtl": GOOD.copperBottom,
        "x.gbl": GOOD.copperTop,
        "x.gts": FUNCTION(GOOD.maskTop, "Soldermask,Top"),
      },
      [],
      ["error"],
    ],
    [
      "masks exchanged that state their side, the stencils are right",
      {
        "x.gts": FUNCTION(GOOD.maskBottom, "Soldermask,Top"),
        "x.gbs": FUNCTION(GOOD.maskTop, "Soldermask,Bot"),
      },
      [],
      ["error"],
    ],
    [
      "a mask that lacks two openings, and a stencil with one too many",
      { "x.gts": layer(at(11, TOP.slice(2))), "x.gtp": layer(at(12, TOP), at(12, [[28, 20]])) },
      [],
      [],
    ],
    [
      "exchanged, of one size: told by what only one of them opens",
      {
        "x.gts": layer(at(10, TOP)),
        "x.gtp": layer(at(10, [...TOP, ...HOLES, [25, 13], [25, 17], [28, 5]])),
      },
      ["x.gts is paste top", "x.gtp is mask top"],
      ["warning"],
    ],
    [
      "the same pads on both sides tell nothing",
      { "x.gbl": GOOD.copperTop, "x.gbs": GOOD.maskTop, "x.gbp": GOOD.pasteTop },
      [],
      [],
    ],
    ["one side only", { "x.gbl": undefined, "x.gbs": undefined, "x.gbp": undefined }, [], []],
  ],
)("content against names: %s", (_, change, odd, said) => {
  const found = board(change);
  expect([...found.odd].sort()).toEqual([...odd].sort());
  expect(found.said).toEqual(said);
});

// a netlist says which copper layer a point is touched on
test.each<readonly [string, string, boolean]>([
  ["both sides", "A00", false],
  ["the first", "A01", false],
  ["the last of two", "A02", false],
  ["the last of four", "A04", true],
  ["an inner one", "A03", true],
])("the netlist touches %s", (_, access, isMissing) => {
  const point = (code: string, x: number) =>
    `327NET            U1    -1         ${code.padStart(6)}X+${String(x * 1000).padStart(6, "0")}Y+005000X1000Y1000R000S0\n`;
  const set = readBoard(
    Object.entries({
      "x.gtl": GOOD.copperTop,
      "x.gbl": GOOD.copperBottom,
      "x.gko": EDGE,
      "x.ipc": `P  UNITS CUST 1\n${point("A01", 5)}${point(access, 8)}999\n`,
    }).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
  );
  expect(set.netlist?.points).toHaveLength(2);
  const lost = set.findings.filter((f) => f.tag === "layer-missing");
  expect(lost.map((f) => f.level)).toEqual(isMissing ? ["error"] : []);
  if (isMissing) expect(lost[0]!.text).toMatch(/touches copper layer [34], but only 2 are/);
});
