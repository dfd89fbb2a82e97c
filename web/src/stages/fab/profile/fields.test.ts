import { expect, test } from "@jest/globals";
import type { House } from "@kobbin/core";
import { madeUpRuns } from "../../../../../core/test/second/made-up.ts";
import { groupsOf, LIMIT_ROWS, read, write } from "./fields.ts";

const [doc] = madeUpRuns(1, 77);
const house: House = doc!.houses![0]!;
const groups = groupsOf(house);
const rows = groups.flatMap((g) => g.rows);
const row = (path: string) => rows.find((r) => r.path === path);

test("every group has its part, and what stands in no house's profile has no group", () => {
  expect(groups.map((g) => g.part).slice(0, 4)).toEqual(["makes", "makes", "charges", "way"]);
  const bare = groupsOf({ ...house, assembly: undefined, bench: undefined, foils: undefined } as never);
  expect(bare.map((g) => g.title)).toEqual(groups.map((g) => g.title).slice(0, 4));
  expect(groups.map((g) => g.part).includes("assembly")).toBe(house.assembly !== undefined);
  // freight and days stand with the way, and once
  expect(new Set(rows.map((r) => r.path)).size).toBe(rows.length);
  expect(groups[3]!.rows.map((r) => r.path)).toContain("price.freightBase");
  expect(groups[2]!.rows.map((r) => r.path)).not.toContain("price.freightBase");
});

test("limits and tolerances may be left out; a price may not, and is an amount", () => {
  expect(LIMIT_ROWS.rows.every((r) => r.isOptional && !r.isAmount)).toBe(true);
  expect(groups[1]!.rows.every((r) => r.isOptional && !r.isAmount)).toBe(true);
  expect(row("price.freightBase")).toMatchObject({ isOptional: false, isAmount: true });
  const layers = rows.filter((r) => r.path.startsWith("price.setup."));
  expect(layers.map((r) => r.path)).toEqual(Object.keys(house.price.setup).map((n) => `price.setup.${n}`));
  expect(layers.every((r) => r.isAmount)).toBe(true);
});

test("a profile that is typed as it stands is what it was; what is left empty is not stated", () => {
  const as = (change: Readonly<Record<string, string>>) =>
    write(house, rows, (path) => change[path] ?? String(read(house, path) ?? ""));
  const back = { id: house.id, ...as({}) } as House;
  expect(rows.map((r) => String(read(back, r.path) ?? ""))).toEqual(
    rows.map((r) => String(read(house, r.path) ?? "")),
  );
  const limit = LIMIT_ROWS.rows.find((r) => !/\.\d$/.test(r.path) && read(house, r.path) !== undefined)!;
  const key = limit.path.split(".")[1]!;
  expect((as({ [limit.path]: "" }).limits as Record<string, unknown>)[key]).toBeUndefined();
  expect((as({ [limit.path]: "0,25" }).limits as Record<string, unknown>)[key]).toBe(0.25);
  // one of two sides alone is no size
  const side = LIMIT_ROWS.rows.find((r) => r.path.endsWith(".1"))!.path;
  const sides = side.split(".")[1]!;
  const of = (a: string, b: string) =>
    (as({ [`limits.${sides}.0`]: a, [side]: b }).limits as Record<string, unknown>)[sides];
  expect([of("100", "50"), of("100", "")]).toEqual([[100, 50], undefined]);
  // an amount stays as it was typed, a number is one
  expect(as({ "price.freightBase": "12.50" }).price).toMatchObject({ freightBase: "12.50" });
});
