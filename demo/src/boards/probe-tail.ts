import { build, type Seat } from "../build.ts";
import type { Edge } from "../design.ts";

const line = (x1: number, y1: number, x2: number, y2: number): Edge => ({ x1, y1, x2, y2 });
const arc = (x1: number, y1: number, x2: number, y2: number, cx: number, cy: number, ccw = true): Edge => ({
  x1,
  y1,
  x2,
  y2,
  arc: { cx, cy, ccw },
});

/** Probe Tail: a round head of 16 mm with a tongue, small and irregular; it wants a panel. */
export function probeTail() {
  const seat = (
    ref: string,
    value: string,
    pkg: string,
    mpn: string,
    maker: string,
    at: [number, number, number],
    nets: Record<string, string>,
  ): Seat => ({ ref, value, package: pkg, mpn, maker, description: "", at, nets });
  // head: circle about (8, 8) radius 8; tongue 6 mm wide to x = 34, joined by 1 mm radii turned inward
  const k = Math.sqrt(81 - 16); // centre of the joining arc: 4 mm above the axis, 9 mm from the head's centre
  const edges: Edge[] = [
    line(8 + k, 5, 32, 5),
    arc(32, 5, 34, 7, 32, 7),
    line(34, 7, 34, 9),
    arc(34, 9, 32, 11, 32, 9),
    line(32, 11, 8 + k, 11),
    arc(8 + k, 11, 8 + (k * 8) / 9, 8 + (4 * 8) / 9, 8 + k, 12, false),
    arc(8 + (k * 8) / 9, 8 + (4 * 8) / 9, 8 + (k * 8) / 9, 8 - (4 * 8) / 9, 8, 8),
    arc(8 + (k * 8) / 9, 8 - (4 * 8) / 9, 8 + k, 5, 8 + k, 4, false),
  ];
  const inside = (x: number, y: number, reach: number) =>
    Math.hypot(x - 8, y - 8) <= 8 - reach ||
    (x >= 10 && x <= 34 - reach && y >= 5 + reach && y <= 11 - reach);
  return build({
    name: "probe-tail",
    revision: "A",
    thickness: 1.6,
    width: 34,
    height: 16,
    edges,
    cutouts: [],
    seats: [
      seat("U1", "TH11", "SOT-23", "TB-TH11-23", "Tarnbeck", [31, 8, 90], {
        "1": "V",
        "2": "OUT",
        "3": "GND",
      }),
      seat("C1", "100n", "0603", "PW-C0603-100n", "Pellow", [27, 8, 90], { "1": "V", "2": "GND" }),
      seat("C2", "1u", "0603", "PW-C0603-1u", "Pellow", [12, 10.25, 90], { "1": "V", "2": "GND" }),
      seat("R1", "100R", "0603", "OX-R0603-100R", "Oxmere", [11, 5.5, 90], { "1": "SIG", "2": "OUT" }),
      seat("D1", "TV5", "SOD-123", "HB-TV5-123", "Hobrook", [9.5, 13, 0], { "1": "V", "2": "GND" }),
      seat("J1", "to main board", "HDR-1x4", "HB-H254-4", "Hobrook", [4, 8, 90], {
        "1": "V",
        "2": "SIG",
        "3": "GND",
        "4": "GND",
      }),
    ],
    loose: [
      {
        ref: "X1",
        value: "steel sleeve",
        package: "",
        mpn: "AG-SLEEVE-6",
        description: "probe sleeve, 6 mm",
      },
    ],
    extraPads: [],
    holes: [{ x: 8, y: 2.9, d: 2.2 }],
    slots: [],
    maskExtra: [],
    titles: [
      { text: "PROBE TAIL", x: 14, y: 6.5, height: 1.1, side: "bottom" },
      { text: "A", x: 17.5, y: 7.4, height: 1.1, side: "top" },
    ],
    inside,
    rules: { width: 0.2, clearance: 0.2, viaPad: 0.6, viaDrill: 0.3, grid: 0.25 },
    fillNet: "GND",
  });
}
