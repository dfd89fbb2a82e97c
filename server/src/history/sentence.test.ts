import { expect, test } from "@jest/globals";
import type { Table } from "../schema/tables.ts";
import type { Json } from "./merge.ts";
import { type ChangedRow, fieldsOf, sentenceOf, valueText } from "./sentence.ts";

type Row = Record<string, Json>;
const update = (table: Table, was: Row, became: Row, name: string | null = null): ChangedRow => ({ table, key: {}, op: "update", name, was, became }); // biome-ignore format: short
const put = (table: Table, name: string | null = null): ChangedRow => ({ table, key: {}, op: "insert", name, was: null, became: {} }); // biome-ignore format: short
const gone = (table: Table, name: string | null = null): ChangedRow => ({
  ...put(table, name),
  op: "delete",
});
const line = (name: string, qty = 3) => update("bom_line", { qty: 2 }, { qty }, name);

test.each<[string, ChangedRow[]]>([
  ["", []],
  ["changed how files are remembered", [{ ...put("bom_line"), table: "stored_file" as Table }]],
  [
    "released and packed",
    [put("release"), update("run", { state: "open" }, { state: "released" }), line("R1")],
  ],
  ["release removed", [gone("release")]],
  ["released", [update("run", { state: "open" }, { state: "released" })]],
  ["suppliers asked", [update("run", { asked_at: null }, { asked_at: "2026-11-27" })]],
  ["R1: quantity 2 → 3", [line("R1")]],
  ["R1: quantity 2 → 3; R2: quantity 2 → 3", [line("R1"), line("R2")]],
  ["R1: quantity 2 → 3 and 2 more", [line("R1"), line("R2"), line("R3")]],
  ["quantity 2 → 3", [line(""), line("")]],
  ["line R1 added", [put("bom_line", "R1")]],
  ["2 lines added", [put("bom_line", "R1"), put("bom_line", "R2")]],
  ["line added", [put("bom_line")]],
  ["line R1 removed", [gone("bom_line", "R1")]],
  ["line R1 in place of 2", [put("bom_line", "R1"), gone("bom_line", "R2"), gone("bom_line", "R3")]],
  ["product Lamp added with 1 line of parts", [put("product", "Lamp"), put("bom_line", "R1")]],
  [
    "product Lamp added with 2 lines of parts",
    [put("product", "Lamp"), put("bom_line", "R1"), put("bom_line", "R2"), gone("bom_line", "R3")],
  ],
  ["supplier Nord removed", [gone("supplier", "Nord"), gone("offer")]],
  ["R1: mounted by hand", [update("bom_line", { mount: "machine" }, { mount: "hand" }, "R1")]],
  ["R1: do not place", [update("bom_line", { dnp: false }, { dnp: true }, "R1")]],
  ["R1: placed", [update("bom_line", { dnp: true }, { dnp: false }, "R1")]],
  ["R1: x", [update("bom_line", { mount: "machine" }, { mount: "x" }, "R1")]],
  [
    "Main: corrected how its files are read",
    [update("board", { corrections: {} }, { corrections: { a: 1 } }, "Main")],
  ],
  ["Main: in each product 1 → 2", [update("board", { per_product: 1 }, { per_product: 2 }, "Main")]],
])("%j", (sentence, rows) => expect(sentenceOf(rows)).toBe(sentence));

test("of more than three fields of a row three are told; a fork and a shop are not named", () => {
  const became = { a: 1, b: 2, c: 3, d: 4 };
  const was = { a: 0, b: 0, c: 0, d: 0 };
  const { d: _, ...three } = became;
  expect(sentenceOf([update("supplier", was, three, "Nord")])).toBe("Nord: a 0 → 1, b 0 → 2, c 0 → 3");
  expect(sentenceOf([update("supplier", was, became, "Nord")])).toBe(
    "Nord: a 0 → 1, b 0 → 2, c 0 → 3 and 1 more",
  );
  expect(sentenceOf([update("workshop", { a: 0 }, { a: 1 }, "Fen")])).toBe("a 0 → 1");
  expect(sentenceOf([update("fork", { a: 0 }, { a: 1 }, "Fen")])).toBe("a 0 → 1");
  expect(sentenceOf([update("supplier", { a: 0 }, { a: 0 }, "Nord")])).toBe("");
});

test("objects are opened four deep; a value is told in sixty signs", () => {
  const deep = (v: number) => ({ choices: { a: { b: { c: { d: v } } } } });
  expect(fieldsOf(deep(1), deep(2))).toEqual([
    { path: ["choices", "a", "b", "c"], label: "a b c", from: { d: 1 }, to: { d: 2 } },
  ]);
  expect(valueText("x".repeat(60))).toBe("x".repeat(60));
  expect(valueText("x".repeat(61))).toBe(`${"x".repeat(57)}…`);
  expect([undefined, null, "", true, false, [], ["a", "b"], [{}, {}], 7].map((v) => valueText(v))).toEqual([
    "nothing", "nothing", "nothing", "yes", "no", "nothing", "a b", "…, …", "7",
  ]); // biome-ignore format: short
  expect(valueText("id-1", new Map([["id-1", "Nord"]]))).toBe("Nord");
});
