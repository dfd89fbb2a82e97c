import { expect, test } from "@jest/globals";
import { ident, idents } from "./ident.ts";
import { descriptorOf } from "./tables.ts";
import { type TalkTable, talkColumns, talkIdent } from "./talks.ts";

const LONG = "x".repeat(61);

test("a name of the list is quoted; every other ends it, and is told in sixty signs", () => {
  expect(ident("bom_line")).toBe('"bom_line"');
  expect(ident("change_row", "tbl")).toBe('"tbl"');
  expect(idents("bom_line", ["id", "qty"], "t.")).toBe('t."id", t."qty"');
  expect(() => ident("bom_line", "toString")).toThrow("no column: toString of bom_line");
  expect(() => ident("bom_line", LONG)).toThrow(`no column: ${"x".repeat(60)} of bom_line`);
  expect(() => ident("toString")).toThrow("no table: toString");
  expect(() => descriptorOf(LONG)).toThrow(new Error(`no table: ${"x".repeat(60)}`));
  expect([talkIdent("feed_ask"), talkIdent("feed_ask", true)]).toEqual(['"feed_ask"', '"feed_due"']);
  expect(talkColumns("order_ask")).toContain('"order_key" as "order"');
  expect(() => talkIdent("toString" as TalkTable)).toThrow("no list of questions: toString");
  expect(() => talkIdent(LONG as TalkTable)).toThrow(new Error(`no list of questions: ${"x".repeat(60)}`));
});
