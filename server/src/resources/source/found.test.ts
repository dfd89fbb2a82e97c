import { expect, test } from "@jest/globals";
import type { FeedPart } from "@kobbin/contract";
import type { LibraryPart, RunOffer } from "@kobbin/core";
import { foundOf, withFound } from "./found.ts";

const part = (more: Partial<FeedPart> = {}): FeedPart => ({
  mpn: "AA-1",
  maker: "Oxbow",
  kind: "resistor",
  package: "0603",
  description: "ten kiloohms",
  params: { value: "10k" },
  ...more,
});
const offer = (id: string, of?: FeedPart) => {
  const o = { id, line: "l", supplier: "s", stock: 1, moq: 1, multiple: 1, currency: "EUR", breaks: [] };
  return { ...(o as unknown as RunOffer), ...(of ? { candidate: foundOf(of) } : {}) };
};

test("what is said of a part has one print, and another where anything of it is another", () => {
  expect(foundOf(part())).toEqual({ ...part(), print: foundOf(part()).print });
  const others = [
    part({ mpn: "AA-2" }),
    part({ maker: "Quill" }),
    part({ kind: "capacitor" }),
    part({ package: "0402" }),
    part({ description: "" }),
    part({ params: { value: "1k" } }),
    part({ params: { value: "10k", tolerance: "1%" } }),
  ];
  expect(new Set([part(), ...others].map((p) => foundOf(p).print)).size).toBe(8);
  expect(foundOf(part()).print).toMatch(/^[0-9a-f]{24}$/);
});

test("parts that suppliers named stand beside the library's, each once; what the library knows comes first", () => {
  const own = { id: "own", mpn: "BB 7" } as LibraryPart;
  const { offers, library } = withFound(
    [offer("1"), offer("2", part()), offer("3", part({ mpn: "aa-1" })), offer("4", part({ mpn: "bb 7" }))],
    [own],
  );
  expect(library).toEqual([
    own,
    {
      id: offers[1]!.part,
      ...part(),
      direction: "",
      moisture: "",
      state: "unknown",
      sheet: "",
      measured: "",
      tried: "",
      found: true,
    },
  ]);
  expect(offers.map((o) => o.part)).toEqual([undefined, library[1]!.id, library[1]!.id, "own"]);
  expect(offers[1]).not.toHaveProperty("candidate");
  // an id is no longer than one may be
  const long = withFound([offer("5", part({ mpn: "A".repeat(120) }))], []).library[0]!;
  expect(long.id).toHaveLength(80);
});
