import { expect, test } from "@jest/globals";
import { type FinishKind, finishKind } from "./finish.ts";

test.each<readonly [string, string, string, readonly (keyof FinishKind)[]]>([
  ["by its value", "immersion-gold", "", ["isGold"]],
  ["by its name where the value is a code", "f2", "Immersion gold, 0.05 µm", ["isGold"]],
  ["by the trade's short word", "enig", "", ["isGold"]],
  ["hard gold", "f3", "hard gold on the contacts", ["isGold", "isHard"]],
  ["hard mask is no hard gold", "organic", "organic, hardened", ["isFlat"]],
  ["silver is flat and no gold", "immersion-silver", "immersion silver", ["isFlat"]],
  ["organic", "osp", "", ["isFlat"]],
  ["levelled without lead", "levelled-lead-free", "levelled solder, lead-free", ["isLevelled"]],
  ["levelled with lead", "levelled-leaded", "", ["isLevelled", "isLeaded"]],
  ["with lead by its name alone", "h1", "HASL, leaded", ["isLevelled", "isLeaded"]],
  ["unleaded", "h2", "levelled, unleaded", ["isLevelled"]],
  ["non-leaded", "h3", "hasl non-leaded", ["isLevelled"]],
  ["bare copper is none of them", "none", "bare copper", []],
])("a finish is told %s", (_, value, label, kinds) => {
  const kind = finishKind({ value, label });
  expect(Object.entries(kind).flatMap(([k, is]) => (is ? [k] : []))).toEqual(kinds);
});
