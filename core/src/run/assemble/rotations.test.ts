import { expect, test } from "@jest/globals";
import type { RunDocument, RunPlacement } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";
import { assemblyHouse } from "../document/who-places.ts";
import { FAR, madeLine, madeMeasure } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { lookedAt, rotationClasses, turnedBy } from "./rotations.ts";

/** Three leads, pin 1 lower left: about their middle (0, −1/3) it lies at (−0.95, −2/3), atan2 = 215.06°. */
const SOT = { "1": [-0.95, -1], "2": [0.95, -1], "3": [0, 1] } as const;
const DIODE = { K: [-1.6, 0], A: [1.6, 0] } as const;
interface Part {
  readonly ref: string;
  readonly pins: Readonly<Record<string, readonly [number, number]>>;
  /** As it is drawn, and as the file states it. */
  readonly drawn: number;
  readonly stated?: number;
  readonly side?: "top" | "bottom";
}

/** A run whose house places those parts, drawn from their footprints: mirrored first on the bottom, then turned. */
function run(
  parts: readonly Part[],
  house: object = {},
  lines = [madeLine("q", [], { package: "SOT-23" })],
): RunDocument {
  const pads = parts.flatMap(({ ref, pins, drawn, side }, i) =>
    Object.entries(pins).map(([pin, [x0, y]]) => {
      const x = side === "bottom" ? -x0 : x0;
      const a = (drawn * Math.PI) / 180;
      return {
        layer: side ?? "top",
        x: 10 * i + x * Math.cos(a) - y * Math.sin(a),
        y: 20 + x * Math.sin(a) + y * Math.cos(a),
        pin: `${ref}.${pin}`,
      };
    }),
  );
  const placements: RunPlacement[] = parts.map((p, i) => ({
    ref: p.ref,
    xMm: 10 * i,
    yMm: 20,
    rotationDeg: p.stated ?? p.drawn,
    side: p.side ?? "top",
  }));
  const nets = { islands: [{ pads }] };
  const far = { ...FAR, assembly: { ...FAR.assembly!, ...house } };
  return twoSided(
    { method: "house", house: "far" },
    {
      boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure({ nets } as never) }],
      lines: lines.map((l) => {
        const refs = l.refs.length > 0 ? l.refs : parts.map((p) => p.ref);
        return { ...l, refs, qty: refs.length };
      }),
      placements,
      houses: [far],
    },
  );
}
const classes = (doc: RunDocument) => rotationClasses(doc, lineParts(doc), assemblyHouse(doc)!);
const deg = (doc: RunDocument) => classes(doc).map((c) => c.first && Number(c.first.deg.toFixed(2)));
const q = (ref: string, drawn: number, more: Partial<Part> = {}): Part => ({
  ref,
  pins: SOT,
  drawn,
  ...more,
});

test("where pin 1 lies at 0° is measured from the pads, whatever the parts' own angles; a house's turn is laid over it", () => {
  const doc = run([q("Q1", 0), q("Q2", 90), q("Q3", 180), q("Q4", 315)]);
  expect(deg(doc)).toEqual([215.06]);
  expect(deg(run([q("Q1", 270)], { turns: { sot23: 180 } }))).toEqual([35.06]);
  expect(deg(run([q("Q1", 0)], { turns: { "SOT 23": -90 } }))).toEqual([125.06]);
  const [only] = classes(doc);
  expect(only).toMatchObject({
    key: "SOT23",
    side: "top",
    angles: [0, 90, 180, 315],
    apart: [],
    stands: "open",
  });
  // the pads as they go out, about their middle
  const one = only!.pads.find((p) => p.pin === "1")!;
  expect([one.x.toFixed(3), one.y.toFixed(3)]).toEqual(["-0.950", "-0.667"]);
});

test("a part whose pads lie otherwise than those of its like is named first, with by how much", () => {
  const doc = run([q("Q1", 0), q("Q2", 90), q("Q3", 180, { stated: 0 })]);
  expect(classes(doc)[0]!.apart).toEqual([{ ref: "Q3", deg: 180 }]);
  // it is said, also once the package was looked at
  const looked = run([q("Q1", 0), q("Q2", 90), q("Q3", 180, { stated: 0 })], { zeros: { SOT23: 215 } });
  const said = rollUp(looked).notes.filter((n) => n.key.startsWith("rotation"));
  expect(said.map((n) => [n.level, n.key])).toEqual([["warning", "rotation-apart SOT23"]]);
  expect(said[0]!.text).toContain("Q3 by 180° lies turned against the other SOT-23");
  expect(deg(doc)).toEqual([215.06]);
});

test("what is told by another pin is another class; without a name that is known the first by name tells, in whatever order they come", () => {
  const ends = (one: string, other: string) => ({ [one]: [-1.6, 0], [other]: [1.6, 0] }) as const;
  const lines = [madeLine("d", ["D1", "D2", "D3"], { package: "SOD-123", mpn: "OX-D" })];
  const doc = run(
    [
      { ref: "D1", pins: ends("1", "2"), drawn: 0 },
      { ref: "D2", pins: ends("K", "A"), drawn: 0 },
      { ref: "D3", pins: ends("A", "K"), drawn: 0 },
    ],
    { zeros: { SOD123: 180 } },
    lines,
  );
  expect(classes(doc).map((c) => [c.key, c.refs.join(" "), c.apart.length, c.stands])).toEqual([
    ["SOD123 K", "D2 D3", 1, "open"],
    ["SOD123", "D1", 0, "looked"],
  ]);
  const odd = (order: readonly string[]) => ({
    ref: "Q1",
    pins: Object.fromEntries(order.map((n) => [n, SOT[n === "E" ? "1" : n === "G" ? "2" : "3"]])),
    drawn: 0,
  });
  const told = (order: readonly string[]) => classes(run([odd(order)]))[0]!.first;
  expect(told(["G", "S", "E"])).toEqual(told(["E", "G", "S"]));
  expect(told(["G", "S", "E"])!.pin).toBe("E");
  // turned: what was looked at of any of its classes is to be looked at anew, another package is not
  const turned = turnedBy(
    { ...FAR.assembly!, zeros: { SOD123: 180, "SOD123 K": 0, "SOD123 K bottom": 0, SOD1234: 9 } },
    classes(doc)[0]!,
    90,
  );
  expect([turned.turns, turned.zeros]).toEqual([{ "SOD-123": 90 }, { SOD1234: 9 }]);
});

test("first what disagrees with its like, then what lay otherwise, then what nobody looked at, then what was", () => {
  const sot = (ref: string, pkg: string, stated = 0) => ({ ref, pins: SOT, drawn: 0, stated, pkg });
  const parts = [
    sot("Q1", "SOT-23"),
    sot("Q2", "SOT-89"),
    sot("Q3", "SC-70"),
    sot("Q4", "TO-252"),
    sot("Q5", "TO-252", 180),
  ];
  const lines = [...new Set(parts.map((p) => p.pkg))].map((pkg) =>
    madeLine(
      pkg,
      parts.flatMap((p) => (p.pkg === pkg ? [p.ref] : [])),
      { package: pkg, mpn: pkg },
    ),
  );
  const doc = run(parts, { zeros: { SOT23: 215, SC70: 35 } }, lines);
  expect(classes(doc).map((c) => c.package)).toEqual(["TO-252", "SC-70", "SOT-89", "SOT-23"]);
});

test("on the bottom the mirrored footprint turns; angles that are counted from below are found and block", () => {
  // mirrored: pin 1 lower right as seen from the top, 324.94°
  const parts = (stated: (r: number) => number) =>
    [0, 90, 270].map((r, i) => q(`Q${i + 1}`, r, { side: "bottom", stated: stated(r) }));
  const straight = run(parts((r) => r));
  expect([deg(straight), classes(straight)[0]!.isFromBelow, classes(straight)[0]!.key]).toEqual([
    [324.94],
    undefined,
    "SOT23 bottom",
  ]);
  const below = run(parts((r) => 360 - r));
  expect(classes(below)[0]).toMatchObject({ isFromBelow: true, apart: [] });
  expect(rollUp(below).blockers.map((n) => n.key)).toContain("rotation-below SOT23 bottom");
  expect(rollUp(straight).blockers.map((n) => n.key)).not.toContain("rotation-below SOT23 bottom");
});

test("what was looked at stands while pin 1 lies there; a layout that draws it otherwise blocks", () => {
  const stands = (zeros: object) => classes(run([q("Q1", 90)], { zeros })).map((c) => c.stands);
  expect(
    [{}, { SOT23: 215 }, { SOT23: 175 }, { SOT23: 165 }, { SOT23: 35 }, { SOT23: -1 }].map(stands),
  ).toEqual([["open"], ["looked"], ["looked"], ["other"], ["other"], ["looked"]]);
  const notes = (zeros: object) =>
    rollUp(run([q("Q1", 90)], { zeros })).notes.flatMap((n) =>
      n.key.startsWith("rotation") ? [`${n.level} ${n.key}`] : [],
    );
  expect([notes({}), notes({ SOT23: 215 }), notes({ SOT23: 35 })]).toEqual([
    ["warning rotation-open far"],
    [],
    ["error rotation-other far SOT23"],
  ]);
});

test("what is looked at is kept with the house, what is turned is to be looked at anew on both sides", () => {
  const both = run([q("Q1", 0), q("Q2", 0, { side: "bottom" })], { turns: { "QFN-16": 90 } });
  const price = FAR.assembly!;
  const [top, bottom] = classes(both);
  const looked = lookedAt(lookedAt(price, top!), bottom!);
  expect(looked.zeros).toEqual({ SOT23: 215, "SOT23 bottom": 325 });
  expect(classes(run([q("Q1", 90)], looked)).map((c) => c.stands)).toEqual(["looked"]);
  const turned = turnedBy(
    { ...looked, turns: { "QFN-16": 90 }, zeros: { ...looked.zeros, QFN16: 135 } },
    top!,
    90,
  );
  expect([turned.turns, turned.zeros]).toEqual([{ "QFN-16": 90, "SOT-23": 90 }, { QFN16: 135 }]);
  const round = (n: number): object | undefined => {
    const house = { ...price, ...(n > 0 ? { turns: round(n - 1) } : {}) };
    return turnedBy(house as never, classes(run([q("Q1", 0)], house))[0]!, 90).turns;
  };
  expect([0, 1, 2, 3].map(round)).toEqual([
    { "SOT-23": 90 },
    { "SOT-23": 180 },
    { "SOT-23": -90 },
    undefined,
  ]);
});

test("two ends without a direction, what goes through the board and what is not the house's are not asked about", () => {
  const lines = [
    madeLine("r", ["R1"]),
    madeLine("d", ["D1"], { package: "SOD-123", mpn: "OX-D" }),
    madeLine("j", ["J1"], { package: "HDR-1x4", mount: "hand", mpn: "OX-J" }),
  ];
  const parts = [
    { ref: "R1", pins: DIODE, drawn: 0 },
    { ref: "D1", pins: DIODE, drawn: 90 },
  ];
  const doc = run(parts, {}, lines);
  // told by its cathode
  expect(classes(doc).map((c) => [c.key, c.first?.pin, c.isPolarised])).toEqual([["SOD123 K", "K", true]]);
  expect(deg(doc)).toEqual([180]);
  expect(classes({ ...doc, assembly: { ...doc.assembly, ways: { d: "iron" } } })).toEqual([]);
  // without names of pins there is nothing to measure, and it is asked all the same
  const blind = { ...doc, boards: [{ ...doc.boards[0]!, measure: madeMeasure() }] };
  expect(classes(blind).map((c) => [c.first, c.pads, c.stands])).toEqual([[undefined, [], "open"]]);
});
