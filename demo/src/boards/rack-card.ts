import { build, type Seat } from "../build.ts";
import type { Edge, Pad } from "../design.ts";

const line = (x1: number, y1: number, x2: number, y2: number): Edge => ({ x1, y1, x2, y2 });
const arc = (x1: number, y1: number, x2: number, y2: number, cx: number, cy: number, ccw = true): Edge => ({
  x1,
  y1,
  x2,
  y2,
  arc: { cx, cy, ccw },
});
const [W, H] = [60, 38];
const SIGNALS = ["V5", "V5", "KEY", "IN1", "IN2", "IN3", "IN4", "OUT1", "OUT2", "OUT3", "GND", "GND"];

/** Rack Card: twelve edge contacts on each side with a key notch; wants a bevel and a flat finish. */
export function rackCard() {
  const contacts: Pad[] = SIGNALS.flatMap((net, i) =>
    (["top", "bottom"] as const).map(
      (side): Pad => ({
        ref: "P1",
        pin: `${side === "top" ? "A" : "B"}${i + 1}`,
        net: net === "KEY" ? "" : net,
        x: 17 + i * 2.5,
        y: 4.5,
        shape: "rect",
        w: 1.5,
        h: 6,
        side,
        function: "ConnectorPad",
        mask: false,
        paste: false,
      }),
    ),
  ).filter((p) => !p.pin.endsWith("3") || p.pin.length > 2);
  const edges: Edge[] = [
    line(14, 0, 20.7, 0),
    line(20.7, 0, 20.7, 7),
    arc(20.7, 7, 23.3, 7, 22, 7, false),
    line(23.3, 7, 23.3, 0),
    line(23.3, 0, 46.5, 0),
    line(46.5, 0, 46.5, 8),
    line(46.5, 8, 58, 8),
    arc(58, 8, 60, 10, 58, 10),
    line(60, 10, 60, 36),
    arc(60, 36, 58, 38, 58, 36),
    line(58, 38, 2, 38),
    arc(2, 38, 0, 36, 2, 36),
    line(0, 36, 0, 10),
    arc(0, 10, 2, 8, 2, 10),
    line(2, 8, 14, 8),
    line(14, 8, 14, 0),
  ];
  // a via needs more room than a track: that keeps plated holes away from the contacts
  const VIA_REACH = 0.8;
  const inside = (x: number, y: number, reach: number) =>
    !(reach > VIA_REACH && y < 9) && isOnBoard(x, y, reach);
  const isOnBoard = (x: number, y: number, reach: number) =>
    (y >= 8 + reach && y <= H - reach && x >= reach && x <= W - reach) ||
    (y > 0.9 + reach && y < 10 && x >= 14 + reach && x <= 46.5 - reach && Math.abs(x - 22) > 1.3 + reach);
  const stage = (k: number): Seat[] => {
    const x = 10 + k * 13;
    const seat = (
      ref: string,
      value: string,
      pkg: string,
      mpn: string,
      maker: string,
      at: [number, number, number],
      nets: Record<string, string>,
    ): Seat => ({ ref, value, package: pkg, mpn, maker, description: "", at, nets });
    return [
      seat(`R${k * 2 + 1}`, "10k", "0603", "OX-R0603-10k", "Oxmere", [x, 20, 90], {
        "1": `IN${k + 1}`,
        "2": `F${k + 1}`,
      }),
      seat(`C${k + 1}`, "10n", "0603", "PW-C0603-10n", "Pellow", [x + 3, 20, 90], {
        "1": `F${k + 1}`,
        "2": "GND",
      }),
      seat(`D${k + 1}`, "S1K", "SOD-123", "HB-S1K-123", "Hobrook", [x + 1.5, 15, 0], {
        "1": "V5",
        "2": `F${k + 1}`,
      }),
    ];
  };
  const pins = (list: string) =>
    Object.fromEntries(list.split(" ").map((n, i) => [String(i + 1), n === "-" ? "" : n]));
  return build({
    name: "rack-card",
    revision: "A",
    thickness: 1.6,
    width: W,
    height: H,
    edges,
    cutouts: [],
    seats: [
      ...[0, 1, 2, 3].flatMap(stage),
      {
        ref: "U1",
        value: "QB04",
        package: "SOIC-8",
        mpn: "TB-QB04-SO8",
        maker: "Tarnbeck",
        description: "quad buffer",
        at: [20.25, 28, 90],
        nets: pins("F1 F2 F3 GND OUT3 OUT2 OUT1 V5"),
      },
      {
        ref: "U2",
        value: "QB04",
        package: "SOIC-8",
        mpn: "TB-QB04-SO8",
        maker: "Tarnbeck",
        description: "quad buffer",
        at: [40.25, 28, 90],
        nets: pins("F4 GND GND GND - - LAMP V5"),
      },
      {
        ref: "C5",
        value: "100n",
        package: "0603",
        mpn: "PW-C0603-100n",
        maker: "Pellow",
        description: "",
        at: [27, 28, 90],
        nets: { "1": "V5", "2": "GND" },
      },
      {
        ref: "C6",
        value: "100n",
        package: "0603",
        mpn: "PW-C0603-100n",
        maker: "Pellow",
        description: "",
        at: [47, 28, 90],
        nets: { "1": "V5", "2": "GND" },
      },
      {
        ref: "R10",
        value: "330R",
        package: "0603",
        mpn: "OX-R0603-330R",
        maker: "Oxmere",
        description: "",
        at: [52, 30, 90],
        nets: { "1": "LAMP", "2": "LK" },
      },
      {
        ref: "D5",
        value: "green",
        package: "0603",
        mpn: "QL-L0603-green",
        maker: "Quillan",
        description: "LED, pin 1 cathode",
        at: [55, 30, 90],
        nets: { "1": "GND", "2": "LK" },
      },
    ],
    loose: [],
    extraPads: contacts,
    holes: [
      { x: 4, y: 34, d: 3.2 },
      { x: 56, y: 34, d: 3.2 },
    ],
    slots: [],
    maskExtra: (["top", "bottom"] as const).flatMap((side) => [
      { side, x: 14.4, y: 0, w: 6.1, h: 7.9 },
      { side, x: 23.5, y: 0, w: 22.6, h: 7.9 },
    ]),
    titles: [
      { text: "RACK CARD", x: 9, y: 33, height: 1.9, side: "top" },
      { text: "REV A", x: 30, y: 33.4, height: 1.1, side: "top" },
      { text: "ASHGLAZE WORKS", x: 18, y: 30, height: 1.6, side: "bottom" },
    ],
    inside,
    rules: { width: 0.25, clearance: 0.2, viaPad: 0.7, viaDrill: 0.35, grid: 0.25 },
    fillNet: "GND",
    fillSpares: [{ x1: 12, y1: 4.2, x2: 48, y2: 4.2, r: 4.4 }],
  });
}
