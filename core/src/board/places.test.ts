import { expect, test } from "@jest/globals";
import { flash, layer, measure, rim, table } from "../../test/write-board.ts";

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
