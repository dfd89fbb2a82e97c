import { test } from "@jest/globals";
import { withBounds } from "../../test/bounds.ts";
import { expectKept, outline } from "../../test/kept.ts";
import { ASSEMBLY_FIELDS, BENCH_FIELDS, FOIL_FIELDS, PRICE_FIELDS } from "../fab/house-fields.ts";
import { CHOICE_FIELDS } from "./choice-fields.ts";
import { EQUIPMENT_SHAPES } from "./equipment.ts";
import { FOIL_SHAPES } from "./foil.ts";
import { LINE_FIELDS } from "./line-fields.ts";
import { PART_FIELDS } from "./part-fields.ts";

test("every field of a line, a part, a choice, a foil, a machine and a house: its column, bounds and words", () => {
  const tables = {
    line: LINE_FIELDS,
    part: PART_FIELDS,
    choice: CHOICE_FIELDS,
    foil: FOIL_SHAPES,
    equipment: EQUIPMENT_SHAPES,
    price: PRICE_FIELDS,
    assembly: ASSEMBLY_FIELDS,
    bench: BENCH_FIELDS,
    foils: FOIL_FIELDS,
  };
  const look = "a bound that moved, a column that is stored otherwise, words a person reads";
  expectKept(new URL("golden/fields.txt", import.meta.url), look, outline(withBounds(tables)));
});
