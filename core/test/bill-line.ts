import type { BillLine } from "../src/bom/same.ts";

/** A line of a bill for tests, mounted by machine; references parted by spaces. */
export const billLine = (
  id: string,
  refs: string,
  valueText: string,
  pkg = "0603",
  more: Partial<BillLine> = {},
): BillLine => ({
  id,
  refs: refs.split(" "),
  qty: refs.split(" ").length,
  valueText,
  package: pkg,
  mpn: "",
  maker: "",
  description: "",
  dnp: false,
  mount: "machine",
  ...more,
});
