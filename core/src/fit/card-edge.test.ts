import { expect, test } from "@jest/globals";
import { emptyMeasure } from "../board/measure/measure-keys.ts";
import type { EdgeContacts, Measure } from "../board/measure-document.ts";
import { bevelDepth, cardEdgesOf, railsOnContacts } from "./card-edge.ts";

const CONTACTS: EdgeContacts = {
  count: 4,
  pitchMm: 2.5,
  widthMm: 1.5,
  lengthMm: 6,
  setbackMm: 1.5,
  edge: "bottom",
  from: { x: 10, y: 4 },
  to: { x: 17.5, y: 4 },
};
const card = (contacts: Partial<EdgeContacts> = {}, nets: Measure["nets"] = { count: 0 }): Measure =>
  ({
    ...emptyMeasure([]),
    findings: [],
    edgeContacts: { top: { ...CONTACTS, ...contacts }, bottom: CONTACTS },
    nets,
  }) as Measure;

// the table of domain.md 2.5
test.each([
  [1, 20, 0.824],
  [1, 30, 0.52],
  [1, 45, 0.3],
  [1.2, 20, 1.099],
  [1.2, 30, 0.6928],
  [1.2, 45, 0.4],
  [1.6, 20, 1.511],
  [1.6, 30, 0.953],
  [1.6, 45, 0.55],
  [2, 20, 1.923],
  [2, 30, 1.212],
  [2, 45, 0.7],
  [2.4, 20, 2.198],
  [2.4, 30, 1.386],
  [2.4, 45, 0.8],
  // between the rows of the table the nose is in proportion: 1.4 has 0.45, so 0.95 / 2
  [1.4, 45, 0.475],
  // thicker than the table: its last nose
  [3.2, 45, 1.2],
  [0.3, 45, 0],
])("a bevel of %d mm at %d° is %d deep", (thickness, angle, depth) => {
  expect(bevelDepth(thickness, angle)).toBeCloseTo(depth, 3);
});

test("set-back against each bevel: 0.2 behind it is right, and a quarter of a millimetre deeper must not reach copper", () => {
  const [top] = cardEdgesOf(card(), 1.6);
  expect(top!.bevels).toEqual([
    { angleDeg: 20, depthMm: 1.511, needMm: 1.711, marginMm: -0.211, canReach: true },
    { angleDeg: 30, depthMm: 0.953, needMm: 1.153, marginMm: 0.347, canReach: false },
    { angleDeg: 45, depthMm: 0.55, needMm: 0.75, marginMm: 0.75, canReach: false },
  ]);
  // right, but nearer than the bevel's own tolerance: 0.953 + 0.2 < 1.18 < 0.953 + 0.25
  expect(cardEdgesOf(card({ setbackMm: 1.18 }), 1.6)[0]!.bevels![1]).toMatchObject({
    canReach: true,
    marginMm: 0.027,
  });
  expect(cardEdgesOf(card(), undefined)[0]!.bevels).toBeUndefined();
  expect(cardEdgesOf(card(), 0.9)[0]!.isThin).toBe(true);
  expect(cardEdgesOf(card(), 1)[0]!.isThin).toBe(false);
});

test("rails by their names: contacts of both sides, each alone whole, several by four fifths of their sum", () => {
  const pad = (layer: string, x: number, y = 4) => ({ layer, x, y });
  const nets: Measure["nets"] = {
    count: 5,
    islands: [
      { net: 1, name: "GND", pads: [pad("top", 10), pad("bottom", 10), pad("top", 12.5), pad("top", 30)] },
      { net: 2, name: "V5", pads: [pad("top", 15), pad("top", 15, 9)] },
      { net: 3, name: "DATA", pads: [pad("top", 17.5)] },
      { net: 4, pads: [pad("bottom", 15)] },
      { net: 5, name: "VCC", pads: [pad("inner 1", 15), pad("top", 18.3)] },
    ],
  };
  expect(railsOnContacts(card({}, nets), 1.5)).toEqual([
    { net: "GND", kind: "ground", contacts: 3, amps: 3.6 },
    { net: "V5", kind: "supply", contacts: 1, amps: 1.5 },
  ]);
  // a board measured before the row's ends were known
  const old = {
    ...card({}, nets),
    edgeContacts: { top: { ...CONTACTS, from: undefined } },
  } as unknown as Measure;
  expect(railsOnContacts(old, 1)).toEqual([]);
});
