import { expect, test } from "@jest/globals";
import { FAR as MADE_UP } from "../run/made-up.fixture.ts";
import { houseFile, readHouseFile } from "./house-file.ts";

// its prices are of one and two layers
const FAR = { ...MADE_UP, layers: [1, 2] };
const file = (more: object = {}): Record<string, unknown> => ({
  ...structuredClone(houseFile(FAR)),
  ...more,
});
const price = (more: object) => ({ price: { ...FAR.price, ...more } });
const options = (more: object) => ({ options: { ...FAR.options, ...more } });

test("a profile written and read is the same profile, and carries no id", () => {
  const { id: _, ...profile } = FAR;
  expect(readHouseFile(JSON.parse(JSON.stringify(houseFile(FAR))))).toEqual({
    profile,
    wrong: [],
    unknown: [],
  });
  // as it stands in a run's document
  expect(readHouseFile(FAR)).toEqual({ profile, wrong: [], unknown: [] });
});

test.each<[string, unknown, string[]]>([
  ["no object", [1], ["The file holds no profile of a house."]],
  ["another document", file({ kobbin: "run/1" }), ["The file is run/1, not house/1."]],
  [
    "two parts missing",
    { ...file(), price: undefined, limits: undefined },
    ["limits is missing.", "price is missing."],
  ],
  ["a currency in words", file({ currency: "euro" }), [expect.stringContaining("currency")] as never],
  [
    "a limit as text",
    file({ limits: { minTrackMm: "0.1" } }),
    [expect.stringContaining("limits.minTrackMm")] as never,
  ],
  ["no lead time", file(price({ lead: [] })), [expect.stringContaining("price.lead")] as never],
  [
    "one lead time twice",
    file(
      price({
        lead: [
          { days: 5, factor: 1 },
          { days: 5, factor: 2 },
        ],
      }),
    ),
    ["price.lead has 5 days twice."],
  ],
  [
    "a finish twice",
    file(options({ finish: [FAR.options.finish[0], FAR.options.finish[0]] })),
    [`options.finish has ${FAR.options.finish[0]!.value} twice.`],
  ],
  [
    "a bevel that nobody asked for",
    file(options({ bevel: [{ value: "30", label: "30°" }] })),
    ["options.bevel does not begin with “none”: what nobody chooses would be made."],
  ],
  [
    "layers without a price",
    file({ layers: [1, 2, 6] }),
    [
      "layers has 6, and price.setup has no price for it.",
      "layers has 6, and price.perDm2 has no price for it.",
    ],
  ],
  [
    "steps that begin late",
    file(price({ tiers: [{ fromDm2: 5, factor: 1 }] })),
    ["price.tiers begins at 5 dm², so less than that has no price."],
  ],
  [
    "steps out of order",
    file(
      price({
        tiers: [
          { fromDm2: 0, factor: 1 },
          { fromDm2: 10, factor: 0.9 },
          { fromDm2: 10, factor: 0.8 },
        ],
      }),
    ),
    ["price.tiers goes from 10 to 10 dm²: it must go up."],
  ],
  [
    "a smallest board larger than the largest",
    file({ limits: { minBoardMm: [10, 90], maxBoardMm: [400, 80] } }),
    ["limits has a smallest board of 10 × 90 mm and a largest of 400 × 80."],
  ],
  [
    "conditions that name what the house does not have",
    file({
      ...options({
        mask: [
          { value: "green", label: "green" },
          { value: "white", label: "white", when: [{ key: "finish", in: ["levelled-lead-free", "silver"] }] },
        ],
      }),
      ...price({ lead: [{ days: 5, factor: 1, when: [{ key: "via", in: ["open", "plugged"] }] }] }),
    }),
    [
      "options.mask “white” exists beside finish “silver”, which the house does not have.",
      "price.lead of 5 days exists beside via “open”, which the house does not have.",
      "price.lead of 5 days exists beside via “plugged”, which the house does not have.",
    ],
  ],
])("%s is refused, and everything wrong is named", (_, value, wrong) => {
  const read = readHouseFile(value);
  expect(read.wrong).toEqual(wrong);
  expect(read.profile).toBeUndefined();
});

test("keys nobody reads are named and not kept; a house of one and two layers needs one price", () => {
  const read = readHouseFile(file({ layers: [1, 2], colour: "blue", limits: { ...FAR.limits, minHope: 1 } }));
  expect(read.unknown).toEqual(["colour", "limits.minHope"]);
  expect(read.profile).not.toHaveProperty("colour");
  expect(read.wrong).toEqual([]);
});
