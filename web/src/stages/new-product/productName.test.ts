import { expect, test } from "@jest/globals";
import { productName } from "./productName.ts";

test.each([
  [["kiln-watch-b.zip"], "kiln watch b"],
  [["probe-tail-copper-top.gbr", "probe-tail-profile.gbr", "probe-tail-plated.drl"], "probe tail"],
  [["lamp.gtl", "lamp.gbl", "lamp-pth.drl"], "lamp"],
  [["lamp.gtl", "lamp.gbl", "bom.csv"], "lamp"],
  [["bom.xlsx", "probe-tail-top.gbr", "probe-tail-profile.gbr"], "probe tail"],
  [["a.gtl", "b.gbl"], "a"],
])("%j are called %s", (files, name) => {
  expect(productName(files)).toBe(name);
});
