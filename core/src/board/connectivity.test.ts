import { expect, test } from "@jest/globals";
import { entry, flash, layer, measure, rim, stroke } from "../../test/write-board.ts";

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
