import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { type AirStep, airOf, FLOOR_HOURS, moistureLevel, needsBaking, nextAir } from "./dry-bag.ts";

const START = Date.parse("2026-03-02T08:00:00Z");
/** An instant so many hours after the first. */
const h = (hours: number) => new Date(START + hours * 3_600_000).toISOString();
const bag = (...events: (readonly [number, AirStep])[]) => ({
  events: events.map(([at, is]) => ({ at: h(at), is, by: "Ada" })),
});
/** State, hours that count, hours left. */
const told = (level: string, air: Parameters<typeof airOf>[1], now: number) => {
  const s = airOf(level, air, h(now));
  return [s.is, s.outHours, s.leftHours];
};

test.each<[string, string | undefined]>([
  ["", ""],
  ["3", "3"],
  ["MSL3", "3"],
  ["MSL-2a", "2a"],
  ["level 5A", "5a"],
  ["J-STD-020 MSL 4", "4"],
  ["3a", undefined],
  ["7", undefined],
  ["168 h", undefined],
  ["3 168 h", undefined],
])("a moisture level as people write it: %p", (text, level) => {
  expect(moistureLevel(text)).toBe(level);
});

test("hours in the air add up against the level, lying dry stops them (domain.md 7.10)", () => {
  expect(told("3", bag([0, "out"]), 10)).toEqual(["out", 10, 158]);
  expect(told("3", bag([0, "out"], [20, "dry"]), 30)).toEqual(["dry", 20, 148]);
  expect(told("3", bag([0, "out"], [20, "dry"], [500, "out"]), 530)).toEqual(["out", 50, 118]);
  expect(told("3", bag([0, "out"]), 160)).toEqual(["soon", 160, 8]);
  expect(told("3", bag([0, "out"]), 168)).toEqual(["spent", 168, 0]);
  expect(told("5a", bag([0, "out"]), 24)).toEqual(["spent", 24, 0]);
  expect(told("2", bag([0, "out"]), 365 * 24 - 9)).toEqual(["out", 8751, 9]);
  expect(airOf("4", bag([0, "out"]), h(10)).until).toBe(h(72));
  expect(FLOOR_HOURS).toEqual({ "2": 8760, "2a": 672, "3": 168, "4": 72, "5": 48, "5a": 24 });
});

test("a short time out followed by a long enough time dry counts as none", () => {
  const ten = bag([0, "out"], [10, "dry"]);
  expect(told("3", ten, 59)).toEqual(["dry", 10, 158]);
  expect(airOf("3", ten, h(59)).resetOn).toBe(h(60));
  expect(told("3", ten, 60)).toEqual(["dry", 0, 168]);
  // taken out before that, it is not made up for, and the next short time counts with it
  expect(told("3", bag([0, "out"], [10, "dry"], [59, "out"]), 60)).toEqual(["out", 11, 157]);
  expect(told("3", bag([0, "out"], [12, "dry"], [72, "out"]), 73)).toEqual(["out", 1, 167]);
  const long = bag([0, "out"], [12.5, "dry"]);
  expect(told("3", long, 5000)).toEqual(["dry", 12.5, 155.5]);
  expect(airOf("3", long, h(13)).resetOn).toBeUndefined();
  expect(told("5", bag([0, "out"], [8, "dry"]), 87)).toEqual(["dry", 8, 40]);
  expect(told("5", bag([0, "out"], [8, "dry"]), 88)).toEqual(["dry", 0, 48]);
  expect(told("5", bag([0, "out"], [9, "dry"]), 500)).toEqual(["dry", 9, 39]);
});

test("said dry twice it lies dry since the first time", () => {
  expect(told("3", bag([0, "out"], [10, "dry"], [55, "dry"]), 60)).toEqual(["dry", 0, 168]);
  expect(told("3", bag([0, "out"], [10, "out"]), 20)).toEqual(["out", 20, 148]);
});

test("baking sets it back; what is damp, in no bag or past its hours goes through no heat before", () => {
  for (const [air, now, is] of [
    [bag([0, "out"]), 200, "spent"],
    [bag([0, "dry"], [5, "damp"]), 6, "damp"],
    [bag([0, "damp"], [1, "dry"]), 900, "damp"],
    [bag([0, "plain"]), 1, "unknown"],
    [bag([0, "plain"], [1, "dry"]), 900, "unknown"],
  ] as const) {
    const s = airOf("3", air, h(now));
    expect([s.is, needsBaking(s)]).toEqual([is, true]);
    const baked = { events: [...air.events, { at: h(now + 9), is: "baked" as const, by: "Ada" }] };
    expect(told("3", baked, now + 10)).toEqual(["dry", 0, 168]);
  }
});

test("what is not known is not counted as if it were", () => {
  expect(airOf("3", undefined, h(0))).toMatchObject({ is: "unsaid", floorHours: 168 });
  expect(airOf("3", undefined, h(0)).leftHours).toBeUndefined();
  expect(airOf("", undefined, h(0)).is).toBe("none");
  expect(airOf("1", bag([0, "out"]), h(9000)).is).toBe("none");
  // nobody said a level, yet a bag was opened: its label knows
  expect(airOf("", bag([0, "out"]), h(3))).toMatchObject({ is: "unknown", outHours: 3 });
  expect(airOf("3b", bag([0, "out"]), h(3))).toMatchObject({ is: "unknown", level: "3b" });
});

test("level 6 is baked before use, whatever its bag says, and then out as long as its label says (domain.md 7.10)", () => {
  for (const air of [undefined, bag([0, "dry"]), bag([0, "out"])]) {
    const s = airOf("6", air, h(3));
    expect([s.is, needsBaking(s)]).toEqual(["unbaked", true]);
  }
  expect(airOf("6", bag([0, "dry"], [1, "baked"]), h(3)).is).toBe("dry");
  expect(airOf("6", bag([0, "dry"], [1, "baked"], [2, "out"]), h(3))).toMatchObject({
    is: "unknown",
    outHours: 1,
  });
  const said = { ...bag([0, "baked"], [1, "out"]), floorHours: 6 };
  expect(told("6", said, 5)).toEqual(["soon", 4, 2]);
  expect(told("6", said, 7)).toEqual(["spent", 6, 0]);
});

test("words say whose hours they are, and why none count", () => {
  const words = (air: Parameters<typeof airOf>[1], now: number) => airOf("3", air, h(now)).words;
  expect(words(bag([0, "out"]), 31)).toBe("out of its dry bag for 31 h; level 3 allows 168 h");
  expect(words({ ...bag([0, "out"]), floorHours: 72 }, 2.5)).toBe(
    "out of its dry bag for 2.5 h; its label allows 72 h",
  );
  expect(words(bag([0, "out"], [20, "dry"]), 30)).toBe("dry, 148 h left of the 168 h that level 3 allows");
  expect(words(bag([0, "dry"]), 30)).toBe("dry, all of the 168 h left that level 3 allows");
  expect(words(bag([0, "out"], [1, "dry"]), 30)).toBe(
    "dry, all of the 168 h left that level 3 allows; what it was out is made up for",
  );
  expect(words(bag([0, "out"], [1, "dry"], [30, "baked"]), 31)).toBe(
    "dry, all of the 168 h left that level 3 allows",
  );
});

test("the label of a bag goes before its level", () => {
  expect(told("3", { ...bag([0, "out"]), floorHours: 72 }, 70)).toEqual(["soon", 70, 2]);
  expect(told("3b", { ...bag([0, "out"]), floorHours: 100 }, 70)).toEqual(["out", 70, 30]);
});

test("a sealed bag older than a year has its card looked at; a clock that is behind takes nothing off", () => {
  expect(airOf("3", bag([0, "dry"]), h(8700)).is).toBe("dry");
  for (const air of [bag([0, "dry"]), bag([0, "out"], [20, "dry"])]) {
    const s = airOf("3", air, h(8800));
    expect([s.is, needsBaking(s)]).toEqual(["old", false]);
    expect(s.words).toMatch(/look at its card/);
  }
  expect(told("3", bag([5, "out"]), 1)).toEqual(["out", 0, 168]);
  // what is written down between two events counts whatever the clock says
  expect(told("3", bag([5, "out"], [9, "dry"]), 1)).toEqual(["dry", 4, 164]);
});

test("what may be next follows from where it lies", () => {
  expect(nextAir(undefined)).toContain("plain");
  expect(nextAir(bag([0, "out"]))).toEqual(["dry", "baked"]);
  expect(nextAir(bag([0, "out"], [1, "dry"]))).toEqual(["out", "damp", "baked"]);
});

test("no bag loses hours but by baking or lying dry, and time alone never brings any back in the air", () => {
  const steps = fc.array(
    fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom("out" as const, "dry" as const)),
    {
      minLength: 1,
      maxLength: 12,
    },
  );
  fc.assert(
    fc.property(steps, fc.constantFrom(...Object.keys(FLOOR_HOURS)), fc.nat(300), (list, level, more) => {
      let at = 0;
      const air = bag(
        ...list.map(([gap, is]) => {
          at += gap;
          return [at, is] as const;
        }),
      );
      const [now, later] = [airOf(level, air, h(at)), airOf(level, air, h(at + more))];
      const isOut = air.events.at(-1)!.is === "out";
      // out it loses hour by hour; dry it never loses
      if (isOut) expect(later.outHours).toBeCloseTo(now.outHours + more, 6);
      else expect(later.outHours).toBeLessThanOrEqual(now.outHours);
      // never more than all the hours it lay in the air
      const most = list.reduce((s, [gap], i) => s + (i > 0 && list[i - 1]![1] === "out" ? gap : 0), 0);
      expect(now.outHours).toBeLessThanOrEqual(most + 1e-9);
    }),
  );
});
