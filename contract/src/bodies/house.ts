import { type House, shapes } from "@kobbin/core";
import * as yup from "yup";
import { currency, day, id, name, shaped, text, version } from "./fields.ts";

/** A part of a profile that is data, as core describes it. */
const part = <K extends keyof House & keyof typeof shapes.HOUSE_SHAPES>(key: K) =>
  shaped<NonNullable<House[K]> & object>(shapes.HOUSE_SHAPES[key]);

/** The parts of a profile that people write; the day it was checked is that of the change. */
const PROFILE = {
  name,
  about: text(2000),
  currency,
  limits: part("limits"),
  layers: part("layers"),
  options: part("options"),
  price: part("price"),
  assembly: part("assembly"),
  quotedFor: part("quotedFor"),
  tolerances: part("tolerances"),
};

/** What of a profile is written anew; what is left out stays. A part is written whole: what it leaves out goes. */
export const houseBody = yup.object({ version, ...PROFILE });
export type HouseBody = yup.InferType<typeof houseBody>;

/** A new house: a copy of another, or a profile. */
export const newHouseBody = yup.object({
  name: name.required("Give the house a name."),
  copyOf: id(),
  profile: yup
    .object({
      ...PROFILE,
      // a profile that is sent was checked when its sender did
      checkedOn: day,
      about: PROFILE.about.required(),
      currency: currency.required(),
      limits: PROFILE.limits.required(),
      layers: PROFILE.layers.required(),
      options: PROFILE.options.required(),
      price: PROFILE.price.required(),
    })
    .default(undefined),
});
export type NewHouseBody = yup.InferType<typeof newHouseBody>;
