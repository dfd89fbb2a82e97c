import { expect, test } from "@jest/globals";
import { TALKS, type TalkTable, talkColumns, talkIdent } from "./talks.ts";

test("a list of questions gets into a statement by its name alone; whatever comes from data does not", () => {
  expect(Object.keys(TALKS).map((t) => [talkIdent(t as TalkTable), talkIdent(t as TalkTable, true)])).toEqual(
    [
      ['"feed_ask"', '"feed_due"'],
      ['"house_ask"', '"house_due"'],
      ['"order_ask"', '"order_due"'],
    ],
  );
  expect(talkColumns("order_ask")).toContain('"order_key" as "order"');
  for (const bad of ["account", "feed_ask; drop table run", "__proto__", "toString", ""]) {
    expect(() => talkIdent(bad as TalkTable)).toThrow("no list of questions");
    expect(() => talkIdent(bad as TalkTable, true)).toThrow("no list of questions");
    expect(() => talkColumns(bad as TalkTable)).toThrow("no list of questions");
  }
});
