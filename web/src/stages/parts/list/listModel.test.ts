import { expect, test } from "@jest/globals";
import { byRow, readList, roleWords, sourceOf, takeList, withRole } from "./listModel.ts";

const cells = [
  ["Parts of the clock", "", "", "", ""],
  ["Ref", "Val", "Case", "timer", "controller"],
  ["R1,R2", "10k", "0603", "1", "1"],
  ["U1", "T555", "SO-8", "1", ""],
  ["U2", "M48", "QFP-48", "DNP", "x"],
];

test("columns are recognised by heading and by what they hold, corrected, and known the next time", () => {
  const first = takeList(cells, {});
  expect(first.firstRow).toBe(2);
  expect(first.roles).toMatchObject({ 0: "refs" });
  const corrected = withRole(withRole(first, 3, "variant"), 4, "variant");
  expect(corrected.because[3]).toBe("you");
  const again = takeList(cells, {
    [sourceOf(corrected)]: { 0: "refs", 1: "value", 3: "variant", 4: "variant" },
  });
  expect(again.roles).toEqual({ 0: "refs", 1: "value", 3: "variant", 4: "variant" });
  expect(again.because[1]).toBe("before");
});

test("a role goes with the column it is given to; several columns may be variants", () => {
  const list = withRole(takeList(cells, {}), 2, "refs");
  expect(Object.entries(list.roles).filter(([, r]) => r === "refs")).toEqual([["2", "refs"]]);
  const two = withRole(withRole(list, 3, "variant"), 4, "variant");
  expect(Object.values(two.roles).filter((r) => r === "variant")).toHaveLength(2);
  expect(withRole(two, 3, "").roles[3]).toBeUndefined();
});

test("a mark that was said to mean left off is read so, told in words, and known the next time; what was left unsaid is asked", () => {
  const pairs = [
    ["Ref", "Value", "Beültetve"],
    ...["igen", "nem", "igen", "igen"].map((t, i) => [`R${i}`, "1k", t]),
  ];
  const open = takeList(pairs, {});
  expect(readList(open).bom.account!.rows.doubtful).toBe(4);
  const said = withRole(open, 2, "off nem");
  const off = (list: typeof said) => readList(list).lines.map((l) => l.dnp);
  expect([off(said), readList(said).bom.account!.rows.doubtful]).toEqual([[false, true, false, false], 0]);
  expect(roleWords(said).at(-1)).toEqual(["off nem", "“nem” is left off"]);
  expect(roleWords(withRole(open, 2, "off ")).at(-1)![1]).toBe("empty is left off");
  const again = takeList(pairs, { [sourceOf(said)]: { 0: "refs", 1: "value", 2: "off nem" } });
  expect(off(again)).toEqual([false, true, false, false]);
  // said to be nothing of that: all are fitted, and it is not asked again
  expect(off(withRole(open, 2, ""))).toEqual([false, false, false, false]);
});

test("several variants in columns become lines and what each version leaves off", () => {
  let list = takeList(cells, {});
  for (const [i, role] of ["refs", "value", "package", "variant", "variant"].entries())
    list = withRole(list, i, role as never);
  const read = readList(list);
  expect(read.lines.map((l) => [l.refs.join(), l.valueText])).toEqual([
    ["R1,R2", "10k"],
    ["U1", "T555"],
    ["U2", "M48"],
  ]);
  expect(read.variants.map((v) => [v.name, [...v.overrides]])).toEqual([
    ["timer", [[2, { dnp: true }]]],
    ["controller", [[1, { dnp: true }]]],
  ]);
});

test("without a column of references or quantities there are no lines", () => {
  const list = withRole(takeList(cells, {}), 0, "");
  expect(readList(list).lines).toEqual([]);
});

test("a row is said once, with everything that is wrong in it and each advice once", () => {
  const of = (row: number | undefined, text: string, todo?: string) => ({
    tag: "bom-bad-ref" as const,
    level: "warning" as const,
    text,
    ...(row === undefined ? {} : { row }),
    ...(todo ? { do: todo } : {}),
  });
  expect(
    byRow([
      of(7, "A?", "Mend it."),
      of(undefined, "All."),
      of(3, "C?"),
      of(7, "B?", "Mend it."),
      of(undefined, "More."),
    ]),
  ).toEqual([
    { row: 7, texts: ["A?", "Mend it.", "B?"] },
    { texts: ["All."] },
    { row: 3, texts: ["C?"] },
    { texts: ["More."] },
  ]);
});
