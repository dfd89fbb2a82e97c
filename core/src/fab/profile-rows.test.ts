import { expect, test } from "@jest/globals";
import { FULL } from "../run/full-house.fixture.ts";
import type { House } from "./house.ts";
import {
  type ProfileList,
  profileCells,
  profileColumns,
  profileEntry,
  profileLists,
} from "./profile-rows.ts";
import { conditionsText, limitsText, readConditions, readLimits } from "./profile-text.ts";

const options = {
  finish: [
    { value: "immersion-gold", label: "immersion gold" },
    { value: "levelled", label: "levelled solder, lead-free" },
    { value: "either", label: "gold or silver" },
  ],
  bevel: [
    { value: "none", label: "not bevelled" },
    { value: "20", label: "20°" },
  ],
} as unknown as House["options"];
const house = {
  options,
  price: {
    ...FULL.price,
    services: [
      { value: "night", label: "over night", base: "1", perHalfKg: "1", transitDays: 1, delaySigmaDays: 0 },
    ],
  },
};

// ways people write conditions and limits, odd ones first, with what they mean
test.each<[string, unknown]>([
  ["", []],
  [" ; ", []],
  ["FINISH : Immersion Gold", [{ key: "finish", in: ["immersion-gold"] }]],
  // the value's own word
  ["finish: levelled", [{ key: "finish", in: ["levelled"] }]],
  // a comma and an "or" within a label part nothing
  ["finish: levelled solder, lead-free | gold or silver", [{ key: "finish", in: ["levelled", "either"] }]],
  ["finish: immersion gold or levelled", [{ key: "finish", in: ["immersion-gold", "levelled"] }]],
  [
    "bevel: 20°; finish: immersion gold",
    [
      { key: "bevel", in: ["20"] },
      { key: "finish", in: ["immersion-gold"] },
    ],
  ],
  // lead times and ways here are no lists of values, and are named like them
  ["lead time: 3 days | 12", [{ key: "leadDays", in: ["3", "12"] }]],
  ["way here: Over Night or ordinary", [{ key: "freight", in: ["night", "ordinary"] }]],
  ["lead time: 4", "It offers no lead time “4”; it has 12 days, 3 days."],
  ["finish", "“finish” names no decision"],
  ["colour: red", "“colour: red” names no decision"],
  [
    "finish: tin",
    "It offers no finish “tin”; it has immersion gold, levelled solder, lead-free, gold or silver.",
  ],
  ["finish: immersion gold; Finish: levelled", "Finish is named twice."],
  ["mask colour: green", "It offers no mask colour “green”; it has none to choose."],
])("conditions “%s”", (text, expected) => {
  const r = readConditions(house, text);
  if (typeof expected === "string") expect(r).toEqual({ wrong: expect.stringContaining(expected) });
  else {
    expect(r).toEqual({ when: expected });
    expect(readConditions(house, conditionsText(house, expected as never))).toEqual({ when: expected });
  }
});

test.each<[string, unknown]>([
  ["", {}],
  ["smallest track 0,1", { minTrackMm: 0.1 }],
  ["Smallest Track: 0.1 mm; smallest hole = 0.2mm", { minTrackMm: 0.1, minHoleMm: 0.2 }],
  ["largest board 400 × 300", { maxBoardMm: [400, 300] }],
  ["largest board 400x300 mm", { maxBoardMm: [400, 300] }],
  ["minTrackMm 0.1", { minTrackMm: 0.1 }],
  ["largest board 400", "largest board: two sides"],
  ["smallest track 1 x 2", "smallest track: one number"],
  ["track 0.1", "“track 0.1” is no limit"],
  ["smallest track -0.1", "“smallest track -0.1” is no limit"],
  ["smallest track 0.1; smallest track 0.2", "smallest track is named twice."],
])("limits “%s”", (text, expected) => {
  const r = readLimits(text);
  if (typeof expected === "string") expect(r).toEqual({ wrong: expect.stringContaining(expected) });
  else {
    expect(r).toEqual({ limits: expected });
    expect(readLimits(limitsText(expected as never))).toEqual({ limits: expected });
  }
});

const cells = (list: ProfileList, given: Readonly<Record<string, string>>): string[] =>
  profileColumns(list).map((c) => given[c.key] ?? "");

test.each<[ProfileList, Readonly<Record<string, string>>, unknown]>([
  [
    "values",
    { label: "gold", uplift: "15", perDm2: "3,20" },
    { label: "gold", uplift: 0.15, perDm2: "3.20" },
  ],
  ["values", { label: "gold", uplift: "−5 %" }, { label: "gold", uplift: -0.05 }],
  ["values", { label: " " }, "what it is is missing."],
  ["values", { label: "gold", setup: "free" }, "“free” is no amount"],
  ["values", { label: "gold", setup: "-3" }, "“-3” is no amount"],
  ["values", { label: "gold", uplift: "-101" }, "“-101” is no per cent"],
  ["values", { label: "gold", days: "-1" }, "“-1” is no number from 0 on"],
  [
    "stacks",
    { layers: "4, 6 4", limits: "smallest track 0.1" },
    { layers: [4, 6], limits: { minTrackMm: 0.1 } },
  ],
  ["stacks", { layers: "four", limits: "smallest track 0.1" }, "“four” is no number of layers"],
  ["stacks", { layers: "0", limits: "smallest track 0.1" }, "“0” is no number of layers"],
  [
    "bands",
    { limits: "Track, gap", below: "0.127", uplift: "25" },
    { limits: ["minTrackMm", "minNetSpaceMm"], below: 0.127, uplift: 0.25 },
  ],
  ["bands", { limits: "width", below: "0.1" }, "“width” is none of track, "],
  ["bands", { limits: "track" }, "below, mm is missing."],
  [
    "promotions",
    { label: "autumn", conditions: "first order", share: "10", until: "2026-12-31" },
    { label: "autumn", conditions: "first order", share: 0.1, until: "2026-12-31" },
  ],
  ["promotions", { label: "a", conditions: "b", share: "10", until: "31.12." }, "“31.12.” is no day"],
  ["promotions", { label: "a", conditions: "b", share: "10", until: "2026-02-31" }, "is no day"],
])("an entry of %s: %j", (list, given, expected) => {
  const r = profileEntry(list, cells(list, given), undefined, house);
  if (typeof expected === "string") expect(r).toMatchObject({ wrong: expect.stringContaining(expected) });
  else expect(r).toEqual({ entry: expected });
});

test("every list of a full profile is read back as it was, and what its columns do not show stays", () => {
  const h: House = {
    ...FULL,
    promotions: [{ label: "spring", conditions: "first order", share: 0.125, until: "2026-12-31" }],
  };
  for (const [list, entries] of profileLists(h)) {
    expect(entries.length).toBeGreaterThan(0);
    for (const e of entries) expect(profileEntry(list, profileCells(list, e, h), e, h)).toEqual({ entry: e });
  }
  // more places than anybody types: what is not touched is not read anew, what is touched is
  const third = { value: "x", label: "gold", uplift: 1 / 3, days: 0.1 + 0.2 };
  const typed = profileCells("values", third, h);
  expect(profileEntry("values", typed, third, h)).toEqual({ entry: third });
  expect(profileEntry("values", ["silver", ...typed.slice(1)], third, h)).toEqual({
    entry: { ...third, label: "silver" },
  });
  // a condition is read anew: what it names may be gone
  const beside = { value: "x", label: "gold", when: [{ key: "finish", in: ["gone"] }] };
  expect(profileEntry("values", profileCells("values", beside, h), beside, h)).toMatchObject({
    wrong: expect.stringContaining("It offers no finish “gone”"),
  });
  // an emptied cell is a thing the house no longer says
  const gold = { value: "x", label: "gold", called: "Au", uplift: 0.2 };
  expect(profileEntry("values", cells("values", { label: "gold" }), gold, h)).toEqual({
    entry: { value: "x", label: "gold" },
  });
});
