import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { flowOf, measureBoard, wiringOf } from "@kobbin/core";
import { openDrop } from "@kobbin/formats";
import { boardOf } from "./board.ts";

const opened = openDrop([
  { path: "b.zip", bytes: new Uint8Array(readFileSync("demo/boards/kiln-watch-b.zip")) },
]);
const { set } = boardOf(opened.files, opened.notes, { corrections: {} });
const pins = wiringOf(measureBoard(set)).flatMap((p) => p.pins.map((q) => ({ ref: p.ref, ...q })));

/** mV that 100 mA lose from one pin to another of their net on the demo's board. */
function lost(net: string, from: string, to: string): number {
  const at = (name: string) => pins.find((p) => `${p.ref}.${p.pin}` === name && p.name === net)!;
  const ask = {
    net: at(from).net,
    name: net,
    isReturn: false,
    entry: [at(from)],
    taps: [{ ref: "T", pins: [at(to)], ma: 100 }],
  };
  return flowOf(set, [ask], { outerMm: 0.035, innerMm: 0.035, boardMm: 1.6 })[0]!.drops[0]!.mv;
}

// 0.2 mm of 35 µm: 2.457 mΩ a millimetre. What of a track lies in a pad is left out; lengths by hand from the drawn strokes
test.each<[string, string, string, number]>([
  // 0.70 from F1's pad, then 4.45 √2 to the edge of J1's
  ["VIN", "J1.1", "F1.1", 6.993],
  // 1.85 from F1's pad, then 1.15 √2 to D1's
  ["VF", "F1.2", "D1.2", 3.476],
])("the demo's %s from %s to %s loses what its strokes of %s mm lose, by hand", (net, from, to, mm) => {
  const byHand = (100 * 1.72e-5 * mm) / (0.2 * 0.035);
  // the current narrows into the track at both pads: a fifth of a square each, and turns a corner
  expect(lost(net, from, to) / byHand).toBeGreaterThan(0.99);
  expect(lost(net, from, to) / byHand).toBeLessThan(1.06);
});
