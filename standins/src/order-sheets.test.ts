import { expect, test } from "@jest/globals";
import {
  choose,
  type FabOptions,
  fitOptions,
  type House,
  houseFile,
  type Measure,
  type OptionKey,
  orderRules,
  readHouseFile,
  valueAt,
  valuesOf,
  withValue,
} from "@kobbin/core";
import { HOUSES } from "./houses/index.ts";

type Rules = ReturnType<typeof orderRules>;

/** As much of a measure as order sheets ask of a board. */
const board = (more: Partial<Measure> = {}): Measure =>
  ({
    kobbin: "measure/1",
    outcome: "accept",
    copperLayers: 2,
    minTrackMm: 0.16,
    minNetSpaceMm: 0.16,
    minHoleMm: 0.3,
    holes: [{ diameterMm: 0.3, plated: true, count: 40 }],
    slots: [],
    routedPaths: [],
    copperAreaMm2: {},
    outline: { widthMm: 60, heightMm: 40, areaMm2: 2400, cutouts: 0, closed: true },
    ...more,
  }) as unknown as Measure;
const contacts = (setbackMm: number): Partial<Measure> => ({
  edgeContacts: { top: { count: 12, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm, edge: "bottom" } },
});
const HALF_HOLES: Partial<Measure> = { castellatedHoles: { count: 8, diameterMm: 0.8, edge: "left" } };

const BOARDS: readonly (readonly [string, Measure])[] = [
  ["an ordinary board", board()],
  ["a card with contacts", board(contacts(1.5))],
  ["a card whose contacts end near the edge", board(contacts(0.7))],
  ["a module with half holes", board(HALF_HOLES)],
  [
    "a card with both, and tracks too fine for heavy copper",
    board({ ...contacts(1.3), ...HALF_HOLES, minTrackMm: 0.13 }),
  ],
  ["one layer without plated holes", board({ copperLayers: 1, holes: [] })],
];

/** Decisions that hang together by rules, directly or through others; those of different groups cannot meet. */
function groupsOf(rules: Rules): OptionKey[][] {
  const groups: Set<OptionKey>[] = [];
  for (const { keys } of rules) {
    const met = groups.filter((g) => keys.some((k) => g.has(k)));
    for (const g of met) groups.splice(groups.indexOf(g), 1);
    groups.push(new Set([...met.flatMap((g) => [...g]), ...keys]));
  }
  return groups.map((g) => [...g]);
}

/** Every combination of some decisions. */
function* combinations(house: House, from: FabOptions, keys: readonly OptionKey[]): Generator<FabOptions> {
  const [key, ...rest] = keys;
  if (key === undefined) yield from;
  else if (valuesOf(house, key).length === 0) yield* combinations(house, from, rest);
  else
    for (const value of valuesOf(house, key)) yield* combinations(house, withValue(from, key, value), rest);
}

const cases = HOUSES.flatMap((h, i) =>
  BOARDS.map(([what, m]) => [h.name, what, { ...h, id: String(i) } as House, m] as const),
);

// what is right is told by going through all combinations, which the search does not do
test.each(cases)(
  "%s, %s: what is offered can be, with the fewest changes; what is refused cannot be by any",
  (_, __, house, m) => {
    const rules = orderRules(house, [m]);
    const start = fitOptions(house, {});
    let offered = 0;
    for (const keys of groupsOf(rules)) {
      const own = rules.filter((r) => r.keys.some((k) => keys.includes(k)));
      const right = [...combinations(house, start, keys)].filter((o) =>
        own.every((r) => r.broken(o) === undefined),
      );
      for (const from of right)
        for (const key of keys)
          for (const value of valuesOf(house, key)) {
            const chosen = choose(house, own, from, key, value);
            const far = () =>
              right
                .filter((o) => valueAt(o, key) === value)
                .map((o) => keys.filter((k) => k !== key && valueAt(o, k) !== valueAt(from, k)).length);
            if ("cannot" in chosen) {
              expect([key, value, far()]).toEqual([key, value, []]);
              expect(chosen.cannot).toMatch(/\w/);
              continue;
            }
            offered++;
            const { options, changes } = chosen;
            const broken = own.filter((r) => r.broken(options) !== undefined).map((r) => r.id);
            if (
              broken.length > 0 ||
              (changes.length > 0 && changes.length !== Math.min(...far())) ||
              valueAt(options, key) !== value
            )
              throw new Error(`${key} ${value}: ${broken.join()} with ${JSON.stringify(changes)}`);
          }
    }
    expect(offered).toBeGreaterThan(0);
  },
);

test.each(HOUSES.map((h) => [h.name, h] as const))(
  "%s: its profile is one, and goes out and in whole",
  (_, h) => {
    const read = readHouseFile(JSON.parse(JSON.stringify(houseFile({ ...h, id: "x" }))));
    expect(read).toEqual({ profile: h, wrong: [], unknown: [] });
  },
);
