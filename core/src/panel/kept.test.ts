import { test } from "@jest/globals";
import { expectKept } from "../../test/kept.ts";
import type { Plan } from "../geometry/plan.ts";
import { signedArea } from "../geometry/polygon.ts";
import { rect, ringed, solved, spec } from "./designs.fixture.ts";
import { type PanelDesign, type PanelLayout, type PanelSpec, WASTE } from "./spec.ts";
import { cornersPlan, nestPlan, sisterPlan, trayPlan } from "./write/aids.ts";
import { panelPlan, separationSteps } from "./write/drawing.ts";

// Sheets and aids as they were read and drawn once (core/test/kept.ts).
const LOOK = "places, turns and tabs that moved; a rail, a mark or a finding that came or went";
const keep = (name: string, lines: readonly string[]) =>
  expectKept(new URL(`golden/${name}.txt`, import.meta.url), LOOK, lines);

const n = (v: number) => String(Math.round(v * 1e3) / 1e3 + 0);
const list = (...values: readonly number[]) => values.map(n).join(" ");
const ring = (r: readonly number[]) =>
  `${r.length / 2} corners, ${n(signedArea(r))} mm², ${list(Math.min(...r), Math.max(...r))}`;

const sheetLines = (l: PanelLayout): string[] => [
  `${list(l.widthMm, l.heightMm)} mm, ${l.counts.join("+")} boards, ${n(100 * l.utilisation)} %, rails ${list(l.rails.left, l.rails.right, l.rails.top, l.rails.bottom)}, ${l.across} ${l.along} ${n(l.gapMm)}`,
  ...l.places.map((p) => `copy ${p.copy} of ${p.board}: ${list(p.xMm, p.yMm, p.turnDeg)}`),
  ...l.scores.map((s) => `score ${list(s.x1, s.y1, s.x2, s.y2)}`),
  ...l.tabs.map(
    (t) =>
      `tab ${list(t.xMm, t.yMm)}, ${n(t.widthMm)} wide over ${n(t.gapMm)} to ${n(t.acrossDeg)}°, ${t.between.join("-")}, ${t.holes}: ${t.at.map(([x, y]) => list(x, y)).join("; ")}`,
  ),
  ...l.frame.map((a, i) => `frame ${i}: ${a.map(ring).join(" less ")}`),
  ...l.fiducials.map((f) => `fiducial ${list(f.xMm, f.yMm)}`),
  ...l.toolingHoles.map((h) => `tooling ${list(h.xMm, h.yMm, h.diameterMm)}`),
  ...l.badMarks.map((b) => `bad mark ${b.copy}: ${list(b.xMm, b.yMm)}`),
  `balance ${l.balance.length}: ${list(
    l.balance.reduce((s, b) => s + b.xMm, 0),
    l.balance.reduce((s, b) => s + b.yMm, 0),
  )}`,
  ...l.waste.map(
    (w) =>
      `${w.kind} in ${list(...w.box)}: ${w.slots.length} slots ${list(...w.slots.flat())}; ${w.pads.length} pads ${list(...w.pads.flat())}; ${w.openings.length} openings ${list(...w.openings.flat())}; ${w.labels.map((t) => `${t.text} ${list(t.x, t.y, t.mm)}${t.isUpright ? " up" : ""}`).join(", ")}`,
  ),
  ...l.findings.map((f) => `${f.level} ${f.tag}: ${f.text}`),
  ...separationSteps(l).map((s) => `step: ${s}`),
];
const planLines = (p: Plan): string[] => [
  `${p.title}; ${p.subtitle}; box ${list(...p.box)}; bar ${p.barMm ?? 0}`,
  ...p.areas.map((a) => `area ${a.tone}: ${a.rings.map(ring).join(" less ")}`),
  ...p.lines.map((l) => `line ${l.kind} ${list(l.x1, l.y1, l.x2, l.y2)}`),
  ...p.circles.map((c) => `circle ${list(c.x, c.y, c.d)}${c.isFilled ? " filled" : ""}`),
  ...p.texts.map(
    (t) => `text ${list(t.x, t.y, t.mm)}${t.isMiddle ? " middle" : ""}${t.isUpright ? " up" : ""} ${t.text}`,
  ),
  ...p.notes.map((s) => `note: ${s}`),
];

const PRACTICE: PanelDesign["practice"] & object = {
  ref: "U7",
  pitchMm: 0.5,
  pads: [
    [-0.4, -0.6, -0.1, 0.6],
    [0.1, -0.6, 0.4, 0.6],
  ],
};
const ell = ringed("an L", [0, 0, 40, 0, 40, 12, 14, 12, 14, 30, 0, 30]);
const round = ringed(
  "a disc",
  Array.from({ length: 48 }, (_, i) => [
    15 + 15 * Math.cos((i * Math.PI) / 24),
    15 + 15 * Math.sin((i * Math.PI) / 24),
  ]).flat(),
);
const SHEETS: readonly (readonly [string, readonly PanelDesign[], Partial<PanelSpec>])[] = [
  ["tabs", [rect(30, 20)], { counts: [6], separation: "tabs" }],
  ["scores", [rect(30, 20)], { counts: [6], separation: "score" }],
  [
    "furnished",
    [rect(30, 20, { practice: PRACTICE })],
    { counts: [4], separation: "tabs", badMarks: true, copperBalance: true, waste: WASTE },
  ],
  ["ells", [ell], { counts: [4], separation: "tabs" }],
  ["discs", [round], { counts: [3], separation: "tabs", rails: ["left", "right"] }],
  ["two", [rect(30, 20), rect(12, 9)], { counts: [2, 3], turns: [[0], [0, 90]], separation: "tabs" }],
  [
    "held apart",
    [rect(30, 20, { bans: [{ box: [12, 0, 18, 4], why: "a part hangs over", tabMm: 3, scoreMm: 1 }] })],
    { counts: [2], separation: "tabs" },
  ],
  ["free of tabs", [rect(30, 20)], { counts: [4], separation: "tabs", free: [["left", "right"]] }],
];
test.each(SHEETS)("the sheet “%s” is as it is kept", (name, designs, more) => {
  const s = spec({ turns: designs.map(() => [0, 90]), ...more });
  const layout = solved(designs, s);
  keep(`sheet-${name.replaceAll(" ", "-")}`, sheetLines(layout));
});

test("the drawing of a sheet and the aids of a board are as they are kept", () => {
  const s = spec({ counts: [4], turns: [[0]], separation: "tabs" });
  const layout = solved([ell], s);
  keep("drawing", planLines(panelPlan([ell], layout, { name: "K", revision: "B" }, 1.6)));
  keep("nest", planLines(nestPlan(ell, 1.6)));
  keep("corners", planLines(cornersPlan(rect(50, 30), 1.6)!));
  keep("sister", planLines(sisterPlan(round)));
  keep(
    "tray",
    planLines(
      trayPlan(rect(50, 30), "top", [
        { ref: "R1", x: 10, y: 10, value: "10k" },
        { ref: "R2", x: 30, y: 20, value: "10k" },
        { ref: "U1", x: 40, y: 5, value: "timer" },
      ]),
    ),
  );
});
