import type { LossKind } from "@kobbin/core";

/** Classes of packages as people call them. */
export const KIND_WORDS: Readonly<Record<LossKind, string>> = {
  chip: "chips, 0603 and larger",
  chip0402: "chips 0402",
  chip0201: "chips 0201",
  diode: "diodes with two ends",
  small: "small packages with few leads",
  tab: "packages with a cooling tab",
  gull: "leads out, pitch 0.65 and more",
  gullFine: "leads out, fine pitch",
  leadless: "leadless",
  ball: "balls underneath",
  connector: "connectors on the surface",
  through: "through the board",
  loose: "not soldered",
  costly: "dear parts",
};
