import type { PowerLink } from "@kobbin/core";

/** What a part between two rails is to the one behind it. */
export const FEED_WORDS: Readonly<Record<PowerLink["kind"], string>> = {
  diode: "one way",
  switch: "switched",
  link: "by link",
  fuse: "fuse",
  coil: "coil",
  resistor: "resistor",
  converter: "converts",
};
