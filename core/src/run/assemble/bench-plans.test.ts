import { expect, test } from "@jest/globals";
import { madePart, madeWork } from "../../steps/made-work.fixture.ts";
import type { Work } from "../../steps/step.ts";
import type { RunDocument } from "../document/document.ts";
import { standingOn } from "../document/standing.ts";
import { madeLine, madeMeasure } from "../made-up.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { pocketPlan, rackPlan } from "./bench-plans.ts";
import { pocketPlate } from "./pocket-plate.ts";

const at = (ref: string, xMm: number, yMm: number, rotationDeg = 0) => ({
  ref,
  xMm,
  yMm,
  rotationDeg,
  side: "top" as const,
});
const part = (mpn: string, bodyLengthMm: number, bodyWidthMm: number, heightMm: number) => ({
  mpn,
  maker: "",
  description: "",
  package: "",
  bodyLengthMm,
  bodyWidthMm,
  heightMm,
});
const board = {
  ...madeMeasure(),
  outline: { rings: [[0, 0, 60, 0, 60, 40, 0, 40]] },
  extentMm: [0, 0, 60, 40],
};
const doc = twoSided(
  { method: "stencil" },
  {
    boards: [{ id: "b", name: "B", perProduct: 1, measure: board as never }],
    lines: [
      madeLine("r", ["R1"], { package: "R-0603" }),
      madeLine("j", ["J1"], { mpn: "OX-J", package: "HDR-1x4", mount: "hand" }),
      madeLine("k", ["J2"], { mpn: "OX-K", package: "TERM-2", mount: "hand" }),
      madeLine("x", ["J3"], { mpn: "OX-X", package: "ODD", mount: "hand" }),
    ],
    placements: [at("R1", 30, 20), at("J1", 10, 8, 90), at("J2", 50, 30)],
    library: [part("OX-J", 10.2, 2.5, 8.5), part("OX-K", 10, 8, 10)] as never,
  },
) as RunDocument;
const iron = (ref: string, heightMm?: number) =>
  madePart(ref, { how: "iron", line: ref, ...(heightMm === undefined ? {} : { heightMm }) });
const work: Work = madeWork([madePart("R1", { heightMm: 0.5 }), iron("J1", 8.5), iron("J2", 10), iron("J3")]);
const step = { n: 5, board: 0, refs: ["J1", "J2", "J3"] };
const before = [{ kind: "place" as const, refs: ["R1"] }];

test("a pocket is as deep as its part is tall and 0.3 mm wider all around; what is on already is cleared by 0.5 mm; the rest is named", () => {
  const plate = pocketPlate(doc, work, step, "top", before)!;
  expect(plate.thicknessMm).toBe(10);
  expect(plate.without).toEqual(["J3"]);
  const body = standingOn(doc, doc.boards[0]!).bodies.find((b) => b.ref === "R1")!;
  expect(plate.pockets).toEqual([
    {
      ref: "J1",
      x: 10,
      y: 8,
      turnDeg: 90,
      lengthMm: expect.closeTo(10.8, 9),
      widthMm: expect.closeTo(3.1, 9),
      depthMm: 8.5,
      isHeld: true,
    },
    { ref: "J2", x: 50, y: 30, turnDeg: 0, lengthMm: 10.6, widthMm: 8.6, depthMm: 10, isHeld: true },
    {
      ref: "R1",
      x: 30,
      y: 20,
      turnDeg: 0,
      lengthMm: body.lengthMm + 1,
      widthMm: body.widthMm + 1,
      depthMm: 1,
      isHeld: false,
    },
  ]);
  // nothing of it on the other side, nothing of a step without bodies
  expect(pocketPlate(doc, work, step, "bottom", before)).toBeUndefined();
  expect(pocketPlate(doc, work, { ...step, refs: ["J3"] }, "top", before)).toBeUndefined();
  // before anything is on there is nothing to clear
  expect(pocketPlate(doc, work, step, "top", [])!.pockets.map((p) => p.ref)).toEqual(["J1", "J2"]);
});

test("the drawing is seen from where the solder goes: of a top side it is mirrored, and stays so when printed", () => {
  const plan = pocketPlan(doc, doc.boards[0]!, pocketPlate(doc, work, step, "top", before)!)!;
  const named = Object.fromEntries(plan.texts.map((t) => [t.text, [t.x, t.y]]));
  expect(named.J1![0]).toBe(50);
  expect(named.J2![0]).toBe(10);
  expect(Object.keys(named)).not.toContain("R1");
  expect(plan.notes.join(" ")).toContain("1 mm deep clears all of it");
  expect(plan.notes.at(-1)).toContain("J3");
  // J1 lies along y: 3.1 wide and 10.8 high, about x = 50, y = 8
  const ring = plan.areas[1]!.rings[0]!;
  const xs = ring.filter((_, i) => i % 2 === 0);
  const ys = ring.filter((_, i) => i % 2 === 1);
  const rounded = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map(
    (v) => Math.round(v * 100) / 100,
  );
  expect(rounded).toEqual([48.45, 51.55, 2.6, 13.4]);
  // the frame stands 5 mm over the board and over what reaches beyond it
  expect(plan.box).toEqual([-5, -5, 65, 45]);
});

test("a spare board as a rack: each part on its place with the number of its field", () => {
  const lines = (refs: string[], line: string) => [{ line, refs, value: "v", mpn: "", package: "p" }];
  const sheet = {
    steps: [
      { kind: "place", lines: lines(["R1"], "r") },
      { kind: "iron", lines: [...lines(["J1"], "j"), ...lines(["J2"], "k")] },
      { kind: "test", lines: lines(["J9"], "q") },
    ],
  } as never;
  const plan = rackPlan(
    doc,
    doc.boards[0]!,
    "top",
    sheet,
    new Map([
      ["r", 1],
      ["j", 2],
      ["k", 3],
    ]),
  )!;
  expect(plan.texts.map((t) => [t.text, t.x])).toEqual([
    ["1", 30],
    ["2", 10],
    ["3", 50],
  ]);
  expect(plan.notes).toEqual(["1: 1 x v p: R1", "2: 1 x v p: J1", "3: 1 x v p: J2"]);
  expect(rackPlan(doc, doc.boards[0]!, "bottom", sheet, new Map())).toBeUndefined();
});
