import { expect, test } from "@jest/globals";
import type { OptionKey } from "./options.ts";
import { type KnownValue, meaningWords, valueMeant } from "./profile-values.ts";

const FINISH: readonly KnownValue[] = [
  { value: "immersion-gold", label: "immersion gold" },
  { value: "levelled", label: "levelled solder, lead-free" },
];
const THICK: readonly KnownValue[] = [{ value: "1.6", label: "1.6 mm" }];

// ways people name a value, odd ones first, with what it counts as
test.each<[OptionKey, string, readonly KnownValue[], string | undefined, object]>([
  ["finish", " Immersion Gold ", FINISH, undefined, { value: "immersion-gold" }],
  // another label of another value changes what is meant, and is not what it was before
  ["finish", "immersion gold", FINISH, "levelled", { value: "immersion-gold" }],
  ["finish", "gold, thin", FINISH, "immersion-gold", { value: "immersion-gold" }],
  ["finish", "hot tin, by hand!", FINISH, undefined, { value: "hot-tin-by-hand" }],
  // whatever the script, two labels stay two values
  ["finish", "ß", FINISH, undefined, { value: "ß" }],
  ["finish", "золото", FINISH, undefined, { value: "золото" }],
  ["finish", "!?", FINISH, undefined, { value: "other" }],
  ["thickness", "1.6 mm", THICK, undefined, { value: "1.6" }],
  // a number is counted with: never cut short at its comma, never what stood there before
  ["thickness", "1,25 mm", THICK, undefined, { value: "1.25" }],
  ["thickness", "2.0 mm", THICK, "1.6", { value: "2" }],
  ["thickness", "about 0.8", THICK, undefined, { value: "0.8" }],
  ["thickness", "thin", THICK, "1.6", { wrong: "“thin” names no number, such as 1.6 mm." }],
  ["thickness", "0 mm", THICK, undefined, { wrong: "“0 mm” names no number above 0." }],
  ["copper", "105 µm", [], undefined, { value: "105" }],
  ["copper", "70um", [], undefined, { value: "70" }],
  ["copper", "2 oz", [], undefined, { value: "70" }],
  ["copper", "0,5 OZ", [], undefined, { value: "17.5" }],
  ["bevel", "30 deg", [], undefined, { value: "30" }],
  ["bevel", "22.5°", [], undefined, { value: "22.5" }],
  ["bevel", "not bevelled", [], undefined, { value: "none" }],
  ["bevel", "steep", [], undefined, { wrong: "“steep” names no number, such as 20°." }],
  ["quality", "class 3, for use that must not fail", [], undefined, { value: "3" }],
])("%s “%s”", (key, label, known, before, meant) => {
  expect(valueMeant(key, label, known, before)).toEqual(meant);
});

test("a label that does not speak for itself says what it counts as", () => {
  expect(meaningWords("immersion gold", "immersion-gold", FINISH)).toBeUndefined();
  expect(meaningWords("IMMERSION GOLD ", "immersion-gold", FINISH)).toBeUndefined();
  expect(meaningWords("gold, thin", "immersion-gold", FINISH)).toBe("“gold, thin” counts as immersion gold.");
  expect(meaningWords("hot tin", "hot-tin", FINISH)).toBe(
    "“hot tin” is a value of its own: no other house has it.",
  );
});
