import { expect, test } from "@jest/globals";
import type { Flow } from "@kobbin/core";
import { amps, byNeed, flowLook, kelvin, volts } from "./flowWords.ts";

const track = (riseK: number) => ({ riseK }) as Flow["stretches"][number];
const flow = (over: Partial<Flow>): Flow => ({
  net: 1,
  name: "V",
  isReturn: false,
  missed: [],
  ma: 1,
  drops: [],
  entries: [],
  stretches: [],
  holes: [],
  ...over,
});
const drop = (mv: number) => [{ ref: "U1", ma: 1, mv }];

test("currents, volts and warmth in the unit a person would say", () => {
  expect([0.0455, 12.34, 999, 1000, 1449].map(amps)).toEqual([
    "0.0455 mA",
    "12.3 mA",
    "999 mA",
    "1 A",
    "1.45 A",
  ]);
  expect([0.05, 0.1, 12.34, 1500].map(volts)).toEqual(["under 0.1 mV", "0.1 mV", "12.3 mV", "1.5 V"]);
  expect([0.04, 0.5, 12.3].map(kelvin)).toEqual(["under 0.1 K", "0.5 K", "12.3 K"]);
});

test("what is warmer than ten kelvin is looked at, and what loses more than three hundredths of its volts; a hole counts too", () => {
  const ask = { volts: 5 };
  expect(flowLook(flow({ stretches: [track(10)] }), ask)).toBeUndefined();
  expect(flowLook(flow({ stretches: [track(10.1)] }), ask)).toBe("warm");
  expect(flowLook(flow({ holes: [track(11) as never] }), ask)).toBe("warm");
  expect(flowLook(flow({ drops: drop(150) }), ask)).toBeUndefined();
  expect(flowLook(flow({ drops: drop(151) }), { volts: -5 })).toBe("drop");
  // of a net without volts, a ground, nothing is said of what it loses
  expect(flowLook(flow({ drops: drop(900) }), {})).toBeUndefined();
});

test("nets that want a look come first, then the warmer", () => {
  const of = (name: string, over: Partial<Flow>) =>
    ({ flow: flow({ name, ...over }), ask: { volts: 5 } }) as never as Parameters<typeof byNeed>[0][number];
  const list = [
    of("cool", {}),
    of("warm", { stretches: [track(4)] }),
    of("loses", { drops: drop(400) }),
    of("hot", { stretches: [track(30)] }),
  ];
  expect(byNeed(list).map((x) => x.flow.name)).toEqual(["hot", "loses", "warm", "cool"]);
});
