import { expect, test } from "@jest/globals";
import { entry, flash, layer, measure, rim, stroke } from "../../../test/write-board.ts";
import { type ListedPoint, pinsListed } from "./connectivity.ts";

const two = (net: (k: number) => string) => [
  rim(20, 10),
  layer(
    "b.gtl",
    `%ADD10C,1*%\n%ADD11C,0.2*%\nD10*\n${[1, 2, 3, 4]
      .map((k) => `%TO.P,U${k},1*%\n%TO.N,${net(k)}*%\n${flash(2 + 3 * k, 5)}`)
      .join("")}%TD*%\nD11*\n${stroke(5, 5, 8, 5)}${stroke(8, 5, 11, 5)}`,
  ),
];

test("a netlist against the copper: a short and an open, each named (example 2.15)", () => {
  const point = (net: string, ref: string, x: number) =>
    `327${net.padEnd(14)}   ${ref.padEnd(6)}-1         A01X+${String(Math.round(x * 1000)).padStart(6, "0")}Y+005000X1000Y1000R000S0`;
  const list = (nets: readonly string[]) =>
    entry(
      "b.ipc",
      `P  UNITS CUST 1\n${nets.map((n, k) => point(n, `U${k + 1}`, 5 + 3 * k)).join("\n")}\n999\n`,
    );
  // pads 1, 2 and 3 are joined, pad 4 stands alone
  const bad = measure([...two(() => ""), list(["A", "A", "B", "B"])]);
  expect(bad.netlist).toEqual({ nets: 2, points: 4, agrees: false });
  expect(bad.findings.filter((f) => f.level === "error").map((f) => [f.tag, f.about])).toEqual([
    ["net-short", ["A", "B"]],
    ["net-open", ["B"]],
  ]);
  const good = measure([...two(() => ""), list(["A", "A", "A", "B"])]);
  expect(good.netlist).toMatchObject({ agrees: true });
  // names in the layers that say the same are not told a second time
  const both = measure([...two((k) => (k <= 2 ? "A" : "B")), list(["A", "A", "B", "B"])]);
  expect(both.findings.filter((f) => f.tag.startsWith("net-"))).toHaveLength(2);
  const away = measure([
    ...two(() => ""),
    entry(
      "b.ipc",
      `P  UNITS CUST 1\n${[1, 2, 3, 4].map((k) => point("A", `U${k}`, 300 + k * k)).join("\n")}\n999\n`,
    ),
  ]);
  expect(away.findings.map((f) => f.tag)).toContain("netlist-mismatch");
});

test.each<[string, number, number, number]>([
  ["in inches instead of millimetres", 1 / 25.4, 0, 0],
  ["in millimetres instead of inches", 25.4, 0, 0],
  ["ten times larger", 0.1, 0, 0],
  ["ten times smaller", 10, 0, 0],
  ["in micrometres instead of tenths of a mil", 2.54, 0, 0],
  ["in tenths of a mil instead of micrometres", 1 / 2.54, 0, 0],
  ["shifted by 30.000, -2.500 mm", 1, -30, 2.5],
])(
  "a netlist that fits the copper only %s is read so, says so, and names faults where they are",
  (says, by, dx, dy) => {
    const um = (mm: number) => {
      const v = Math.round(mm * 1000);
      return `${v < 0 ? "-" : "+"}${String(Math.abs(v)).padStart(6, "0")}`;
    };
    const list = (nets: readonly string[]) =>
      entry(
        "b.ipc",
        `P  UNITS CUST 1\n${nets
          .map(
            (net, k) =>
              `327${net.padEnd(14)}   ${`U${k + 1}`.padEnd(6)}-1         A01X${um((5 + 3 * k) * by + dx)}Y${um(5 * by + dy)}`,
          )
          .join("\n")}\n999\n`,
      );
    const good = measure([...two(() => ""), list(["A", "A", "A", "B"])]);
    expect(good.netlist).toMatchObject({ agrees: true });
    expect(good.findings.filter((f) => f.tag === "netlist-mismatch")).toMatchObject([
      { level: "remark", text: `The netlist fits the copper only ${says}; it was read so.` },
    ]);
    // pad 2 is named as another net than pads 1 and 3, which it joins
    const [short] = measure([...two(() => ""), list(["A", "C", "A", "B"])]).findings.filter(
      (f) => f.tag === "net-short",
    );
    expect([short!.at!.x, short!.at!.y].map((v) => Math.round(v * 10) / 10)).toEqual([8, 5]);
  },
);

test("names in the layers against the copper: a short, an open, and the nets listed with their pads", () => {
  const m = measure(two((k) => (k <= 2 ? "A" : "B")));
  expect(m.findings.filter((f) => f.tag.startsWith("net-")).map((f) => [f.tag, f.about])).toEqual([
    ["net-short", ["A", "B"]],
    ["net-open", ["B"]],
  ]);
  expect(m.nets!.islands!.map((n) => [n.net, n.name, n.pads.map((p) => p.x)])).toEqual([
    [1, "A", [5, 8, 11]],
    [2, "B", [14]],
  ]);
  expect(m.nets!.singlePad).toBe(1);
});

const um = (mm: number) => `${mm < 0 ? "-" : "+"}${String(Math.round(Math.abs(mm) * 1000)).padStart(6, "0")}`;
/** A netlist of points in millimetres: net, part, pin, place, and the layer they are reached on (1 is the top; 0 all). */
const points = (list: readonly (readonly [string, string, string, number, number, number?])[]) =>
  entry(
    "b.ipc",
    `P  UNITS CUST 1\n${list
      .map(
        ([net, ref, pin, x, y, layer = 1]) =>
          `327${net.padEnd(14)}   ${ref.padEnd(6)}${pin ? "-" : " "}${pin.padEnd(4)}      A0${layer}X${um(x)}Y${um(y)}`,
      )
      .join("\n")}\n999\n`,
  );

test("listed points that lie on no copper are told by their parts, or by where they are; the first where it lies", () => {
  const here = [1, 2, 3, 4].map((k) => ["A", `U${k}`, "1", 2 + 3 * k, 5] as const);
  const off = (...list: (readonly [string, string, string, number, number])[]) => {
    // pad 4 stands alone
    const m = measure([...two(() => ""), points([...here.slice(0, 3), ["B", "U4", "1", 14, 5], ...list])]);
    expect(m.netlist).toMatchObject({ points: 4 + list.length, agrees: list.length === 0 });
    return m.findings.filter((f) => f.tag === "netlist-mismatch");
  };
  expect(off()).toEqual([]);
  expect(off(["A", "R1", "2", 7, 8])).toMatchObject([
    {
      level: "error",
      line: 6,
      about: ["R1.2"],
      at: { x: 7, y: 8 },
      text: "1 listed point lies on no copper: R1.2.",
    },
  ]);
});

test("of twenty-five points on no copper twenty are named, and four in the sentence", () => {
  // a hundred that lie on copper, so that the list as a whole is no other board's
  const good = Array.from({ length: 100 }, (_, k) => [`N${k}`, `U${k}`, "1", 2 + k, 5] as const);
  const lost = Array.from({ length: 25 }, (_, k) => ["X", `R${k}`, "1", 2 + k, 8] as const);
  const told = (list: Parameters<typeof points>[0]) =>
    measure([
      rim(104, 10),
      layer("b.gtl", `%ADD10C,0.4*%\nD10*\n${good.map(([, , , x, y]) => flash(x, y)).join("")}`),
      points([...good, ...list]),
    ]).findings.find((f) => f.tag === "netlist-mismatch");
  const f = told(lost);
  expect(f!.about).toEqual(lost.slice(0, 20).map(([, ref]) => `${ref}.1`));
  expect(f!.text).toBe("25 listed points lie on no copper: R0.1, R1.1, R2.1, R3.1 and 21 more.");
  expect(
    told([
      ["X", "VIA", "", 7, 8.123],
      ["X", "R7", "", 2, 2],
    ])!.text,
  ).toBe("2 listed points lie on no copper: VIA at 7.00, 8.12, R7.");
  // one more in five, and it is another board's list
  expect(told([...lost, ["X", "Z1", "1", 40, 2]])!.text).toContain(
    "26 of 126 listed points lie on no copper, in no unit",
  );
});

test("three nets on one piece of copper: two are named, and how many more", () => {
  const m = measure([
    ...two(() => ""),
    points([
      ["A", "U1", "1", 5, 5],
      ["B", "", "", 8, 5],
      ["C", "U3", "1", 11, 5],
      ["D", "U4", "1", 14, 5],
    ]),
  ]);
  expect(m.findings.filter((f) => f.tag === "net-short")).toMatchObject([
    {
      about: ["A", "B", "C"],
      line: 3,
      at: { x: 8, y: 5 },
      text: "A (U1.1) and B (point at 8.00, 5.00) are one piece of copper, the netlist lists them apart, with 1 more.",
    },
  ]);
});

test("a pad without a name of its own takes the listed pin nearest its middle, on its side and its copper; a via gives none", () => {
  const point = (over: Partial<ListedPoint>): ListedPoint => ({
    net: "A",
    ref: "U1",
    pin: "4",
    x: 10,
    y: 5,
    group: 7,
    side: "top",
    ...over,
  });
  const of = pinsListed([
    point({}),
    point({ ref: "J2", pin: "1", x: 10.06, side: "both" }),
    point({ ref: "VIA", pin: "9", x: 10.01 }),
    point({ ref: "R3", pin: "", x: 10.02 }),
    point({ ref: "U1", pin: "5", group: 8 }),
  ]);
  expect(of(7, "top", 10, 5)).toBe("U1.4");
  expect(of(7, "top", 10.05, 5)).toBe("J2.1");
  // under a point that is touched from the top lies another pad; what is plated through is one
  expect(of(7, "bottom", 10, 5)).toBe("J2.1");
  expect(of(8, "top", 10, 5)).toBe("U1.5");
  expect(of(9, "top", 10, 5)).toBeUndefined();
  // a tenth of a millimetre is still the same pad, more is not
  expect(of(8, "top", 10, 5.1)).toBe("U1.5");
  expect(of(8, "top", 10, 5.11)).toBeUndefined();
});
