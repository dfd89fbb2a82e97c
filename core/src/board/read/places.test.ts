import { expect, test } from "@jest/globals";
import { entry, flash, layer, measure, rim, table } from "../../../test/write-board.ts";

// four parts above and four below, two pads each, 2 mm apart; where a placement file puts them, and what is said of it
interface At {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  readonly side: "top" | "bottom";
}
const PARTS: readonly At[] = [
  ...[5, 11, 18, 33].map((x, i) => ({ ref: `R${i + 1}`, x, y: 5, side: "top" as const })),
  ...[6, 13, 21, 29].map((x, i) => ({ ref: `C${i + 1}`, x, y: 14, side: "bottom" as const })),
];
const pads = (side: "top" | "bottom") =>
  `%ADD10R,0.8X0.9*%\nD10*\n${PARTS.filter((p) => p.side === side)
    .map((p) => `%TO.P,${p.ref},1*%\n${flash(p.x - 1, p.y)}%TO.P,${p.ref},2*%\n${flash(p.x + 1, p.y)}`)
    .join("")}%TD*%\n`;
const said = (move: (p: At) => At) =>
  measure([
    rim(40, 20),
    layer("b.gtl", pads("top")),
    layer("b.gbl", pads("bottom")),
    table("b-pos.csv", [
      ["Ref", "X", "Y", "Rot", "Side"],
      ...PARTS.map(move).map((p) => [p.ref, p.x.toFixed(3), p.y.toFixed(3), "0", p.side]),
    ]),
  ])
    .findings.filter((f) => f.tag.startsWith("placement-"))
    .map((f) => [f.tag, f.level, ...(f.about ?? [])]);
const only =
  (refs: readonly string[], more: (p: At) => Partial<At>) =>
  (p: At): At => ({ ...p, ...(refs.includes(p.ref) ? more(p) : {}) });
const BELOW = ["C1", "C2", "C3", "C4"];

test.each<[string, (p: At) => At, unknown[]]>([
  ["as they are", (p) => p, []],
  ["a little off, within their pads", (p) => ({ ...p, x: p.x + 0.3 }), []],
  ["all by one shift", (p) => ({ ...p, x: p.x + 20, y: p.y - 3 }), [["placement-shifted", "warning"]]],
  ["one elsewhere", only(["R2"], (p) => ({ x: p.x + 4 })), [["placement-off-pads", "warning", "R2"]]],
  [
    "one on the other side",
    only(["R2"], () => ({ side: "bottom" })),
    [["placement-wrong-side", "error", "R2"]],
  ],
  [
    "two at one point",
    only(["R2"], () => ({ x: 5 })),
    [
      ["placement-doubled", "warning", "R1", "R2"],
      ["placement-off-pads", "warning", "R2"],
    ],
  ],
  [
    "those below as seen from below",
    only(BELOW, (p) => ({ x: 40 - p.x })),
    [["placement-mirrored", "error", ...BELOW]],
  ],
])("a placement file that has the parts %s", (_, move, expected) => {
  expect(said(move).sort()).toEqual([...expected].sort());
});

// no file says whose pads are whose
const UNNAMED = [
  rim(40, 20),
  layer(
    "b.gtl",
    `%ADD10C,1.6*%\nD10*\n${flash(5, 5)}${flash(8, 5)}${flash(20, 12)}%ADD11R,1X1*%\nD11*\n${flash(30, 5)}`,
  ),
  layer("b.gbl", `%ADD10C,1.6*%\nD10*\n${flash(5, 5)}${flash(8, 5)}${flash(20, 12)}`),
  layer("b.gts", `%ADD10C,1.8*%\nD10*\n${flash(5, 5)}${flash(8, 5)}${flash(20, 12)}${flash(30, 5)}`),
  layer("b.gbs", `%ADD10C,1.8*%\nD10*\n${flash(5, 5)}${flash(8, 5)}${flash(20, 12)}`),
  entry("b.drl", "M48\nMETRIC\nT1C0.8\n%\nT1\nX5.0Y5.0\nX8.0Y5.0\nX20.0Y12.0\nM30\n"),
];
const at = (rows: readonly (readonly [string, number, number, string])[]) =>
  measure([
    ...UNNAMED,
    table("b-pos.csv", [
      ["Ref", "X", "Y", "Rot", "Side"],
      ...rows.map(([r, x, y, s]) => [r, `${x.toFixed(3)}`, y.toFixed(3), "0", s]),
    ]),
  ]);

test("where no file says whose pads are whose, a drilled pad is that of the nearest part within 10 mm", () => {
  const through = (...rows: (readonly [string, number, number, string])[]) =>
    at(rows).crossCheck!.throughHole;
  expect(through(["J1", 6.5, 5, "top"], ["R1", 30, 5, "top"])).toEqual(["J1"]);
  // 20/12 is 9.9 from 29.9/12, and 10 from 30/12
  expect(through(["J1", 6.5, 5, "top"], ["R1", 29.9, 12, "top"])).toEqual(["J1", "R1"]);
  expect(through(["J1", 6.5, 5, "top"], ["R1", 30, 12, "top"])).toEqual(["J1"]);
  // each pad has one nearest part; what is no part has no pins
  expect(through(["J2", 20, 10, "bottom"], ["J1", 6.5, 5, "top"], ["R1", 7, 12, "top"])).toEqual([
    "J1",
    "J2",
  ]);
  expect(through(["H1", 6.5, 5, "top"], ["J1", 20, 12, "top"])).toEqual(["J1"]);
});

test("a part with no pad within 6 mm on its side is asked about; a drilled pad is on both sides", () => {
  const off = (...row: [string, number, number, string]) =>
    at([row])
      .findings.filter((f) => f.tag === "placement-off-pads")
      .map((f) => f.text);
  expect(off("R1", 30, 5, "top")).toEqual([]);
  expect(off("R1", 30, 10.9, "top")).toEqual([]);
  expect(off("R1", 30, 11, "top")).toEqual(["No pad lies within 6 mm of R1 on the top."]);
  expect(off("R1", 30, 5, "bottom")).toEqual(["No pad lies within 6 mm of R1 on the bottom."]);
  expect(off("J1", 6.5, 5, "bottom")).toEqual([]);
  // without any pad nothing is known
  const bare = measure([
    rim(40, 20),
    layer("b.gtl", "%ADD10C,0.2*%\nD10*\n"),
    table("b-pos.csv", [
      ["Ref", "X", "Y", "Rot", "Side"],
      ["R1", "30.0", "5.0", "0", "top"],
    ]),
  ]);
  expect(bare.findings.filter((f) => f.tag === "placement-off-pads")).toEqual([]);
});

test("what is placed and stands in no line of the parts list is named, but for what is no part", () => {
  const list = table("parts.csv", [
    ["Reference", "Quantity", "Value"],
    ["R1", "1", "1k"],
    ["R2", "1", "1k"],
  ]);
  const said = (...refs: string[]) =>
    measure([
      ...UNNAMED,
      list,
      table("b-pos.csv", [
        ["Ref", "X", "Y", "Rot", "Side"],
        ...refs.map((r, i) => [r, `${5 + 5 * i}.0`, "5.0", "0", "top"]),
      ]),
    ]).findings.filter((f) => f.tag === "placement-unknown-part");
  expect(said("R1", "R2", "FID1")).toEqual([]);
  expect(said("R1", "U7", "R2", "J3")).toMatchObject([
    { level: "warning", about: ["U7", "J3"], text: "Placed but in no line of the parts list: U7, J3." },
  ]);
});
