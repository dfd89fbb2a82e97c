import { expect, test } from "@jest/globals";
import { cameInstead, isDoubtful } from "./came-instead.ts";
import { lineKey } from "./facts.ts";
import type { Alternate, LibraryPart } from "./part.ts";

const part = (id: string, mpn: string, more: Partial<LibraryPart> = {}): LibraryPart =>
  ({
    id,
    mpn,
    maker: "",
    kind: "resistor",
    package: "0603",
    description: "",
    params: {},
    ...more,
  }) as LibraryPart;
const line = {
  refs: ["R1"],
  valueText: "10k 1%",
  package: "0603",
  mpn: "OX-10k",
  maker: "",
  description: "",
};
const library = [
  part("own", "OX-10k", { params: { value: "10 kΩ", tolerance: "1 %" } }),
  part("like", "PW-10k", { params: { value: "10 kΩ", tolerance: "1 %" } }),
  part("wide", "PW-10k-5", { params: { value: "10 kΩ", tolerance: "5 %" } }),
  part("large", "PW-10k-0805", { package: "0805", params: { value: "10 kΩ", tolerance: "1 %" } }),
];
const decided = (id: string, state: Alternate["state"]): Alternate =>
  ({ original: lineKey(line)!, part: id, state, because: "tried" }) as unknown as Alternate;
const of = (says: string, alternates: Alternate[] = [], lib = library) =>
  cameInstead(line, "OX-10k", says, lib, alternates);

test("the number that was ordered is itself, however it is written; nothing is said of nothing", () => {
  expect([of("ox-10K"), of(" OX-10k "), of("  ")]).toEqual([{ is: "ordered" }, { is: "ordered" }, undefined]);
});

test("another number is held against the line as a substitute is", () => {
  const verdict = (says: string) => {
    const c = of(says)!;
    return c.is === "compared" ? c.comparison.verdict : c.is;
  };
  expect(["PW-10k", "PW-10k-5", "PW-10k-0805", "ZZ-1"].map(verdict)).toEqual([
    "equal",
    "look",
    "forbidden",
    "unknown",
  ]);
  // what is equal, ordered or approved may be used as it is; of nothing there is no doubt
  expect(["PW-10k", "PW-10k-5", "PW-10k-0805", "ZZ-1", "OX-10k", ""].map((n) => isDoubtful(of(n)))).toEqual([
    false,
    true,
    true,
    true,
    false,
    false,
  ]);
  expect(isDoubtful(of("PW-10k-5", [decided("wide", "approved")]))).toBe(false);
});

test("what was decided counts, but not for what cannot stand there or is suspected", () => {
  expect(of("PW-10k-5", [decided("wide", "approved")])).toMatchObject({ is: "approved", because: "tried" });
  expect(of("PW-10k", [decided("like", "refused")])).toMatchObject({ is: "refused" });
  expect(of("PW-10k", [decided("like", "proposed")])).toMatchObject({ is: "compared" });
  expect(of("PW-10k-0805", [decided("large", "approved")])).toMatchObject({
    is: "compared",
    comparison: { verdict: "forbidden" },
  });
  const doubted = library.map((p) => (p.id === "like" ? { ...p, suspect: "reads low" } : p)) as LibraryPart[];
  expect(of("PW-10k", [decided("like", "approved")], doubted)).toMatchObject({ is: "compared" });
  expect([of("PW-10k", [], doubted), of("PW-10k", [decided("like", "refused")])].map(isDoubtful)).toEqual([
    true,
    true,
  ]);
  // decided of another line
  const elsewhere = { ...decided("like", "approved"), original: "another" };
  expect(of("PW-10k", [elsewhere])).toMatchObject({ is: "compared" });
});
