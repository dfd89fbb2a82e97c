import { type EquipmentFacts, shapes } from "@kobbin/core";
import * as yup from "yup";
import type { MeterAnswer } from "../standins.ts";
import { choice, number as numberIn, shaped, trimmed } from "./fields.ts";

/** A machine or a tool of the shop; what it can is what its kind has, as far as it is said. */
export const newEquipmentBody = yup.object({
  kind: choice(shapes.EQUIPMENT_KINDS).required("Say what it is."),
  name: trimmed(120).required("Give it the name it has on the bench."),
  facts: shaped<EquipmentFacts>(shapes.equipmentFactsShape).default({}),
  can: trimmed(300).default(""),
  cannot: trimmed(300).default(""),
  hours: numberIn(0, 1e6).default(0),
  lastsHours: numberIn(1, 1e6).nullable(),
  state: choice(["ready", "broken"]).default("ready"),
});
export type NewEquipmentBody = yup.InferType<typeof newEquipmentBody>;

/** What is said anew of it; what is left out stays as it is. */
export const equipmentBody = yup.object({
  name: trimmed(120),
  facts: shaped<EquipmentFacts>(shapes.equipmentFactsShape),
  can: trimmed(300),
  cannot: trimmed(300),
  hours: numberIn(0, 1e6),
  lastsHours: numberIn(1, 1e6).nullable(),
  state: choice(["ready", "broken"]),
});
/** What a meter is to show: in which unit, and what a simulated one would be near; a real one is not told. */
export const meterBody = yup.object({
  unit: choice(shapes.TEST_UNITS).required("Say in which unit it is read."),
  near: yup.string().matches(shapes.READING, "What it would be near is a decimal number."),
});
export type MeterBody = yup.InferType<typeof meterBody>;
/** What it shows, to be read as if it were typed; or in words why there is nothing. */
export type MeterReading = MeterAnswer | { readonly refused: string };
export type EquipmentBody = yup.InferType<typeof equipmentBody>;
