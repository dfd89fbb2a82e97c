import { expect, test } from "@jest/globals";
import { type HeatPresses, heatStand, stillSeconds } from "./by-eye.ts";
import { WINDOWS } from "./window.ts";

const at = (p: HeatPresses, second: number, alloy: keyof typeof WINDOWS = "silver") => {
  const { phase, seconds, look, press } = heatStand(WINDOWS[alloy], p, second * 1000);
  return [phase, seconds, look, press];
};

test("a heat by eye, tin-silver-copper: 8 min to the peak, 45 to 90 s liquid, still for 9 s (33 °C at 4 °C/s)", () => {
  expect(at({}, 5)).toEqual(["cold", 0, "fine", "on"]);
  const on = { onAt: 0 };
  expect(at(on, 480)).toEqual(["heating", 480, "fine", "melted"]);
  expect(at(on, 481)).toEqual(["heating", 481, "late", "melted"]);
  const melted = { onAt: 0, meltedAt: 300_000 };
  expect([344, 345, 390, 391].map((s) => at(melted, s))).toEqual([
    ["melted", 44, "fine", "off"],
    ["melted", 45, "now", "off"],
    ["melted", 90, "now", "off"],
    ["melted", 91, "late", "off"],
  ]);
  const off = { ...melted, offAt: 360_000 };
  expect([360, 368, 369].map((s) => at(off, s))).toEqual([
    ["cooling", 0, "now", undefined],
    ["cooling", 8, "now", undefined],
    ["over", 9, "fine", undefined],
  ]);
  // taken off before it melted: it cools all the same
  expect(at({ onAt: 0, offAt: 10_000 }, 11)[0]).toBe("cooling");
});

test("other pastes by their own windows", () => {
  // tin-lead: 225 − 183 at 4 °C/s; the peak within 6 min
  expect(stillSeconds(WINDOWS.lead)).toBe(11);
  expect(at({ onAt: 0 }, 361, "lead")).toEqual(["heating", 361, "late", "melted"]);
  expect(heatStand(WINDOWS.lead, { onAt: 0 }, 361_000).say).toContain("6 min");
  expect(heatStand(WINDOWS.silver, { onAt: 0, meltedAt: 0 }, 5000).say).toBe("Leave it: 40 s to go.");
});
