import { expect, test } from "@jest/globals";
import { nameAndRevision, productName } from "./productName.ts";

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

test.each([
  ["kiln-watch-b.zip", "kiln watch", "B"],
  ["lamp rev 2.zip", "lamp", "2"],
  ["lamp_revC1.zip", "lamp", "C1"],
  ["lamp.zip", "lamp", undefined],
  ["a.zip", "a", undefined],
  ["lamp 24v.zip", "lamp 24v", undefined],
])("%s is %s, revision %s", (file, name, revision) => {
  expect(nameAndRevision([file])).toEqual({ name, ...(revision ? { revision } : {}) });
});
