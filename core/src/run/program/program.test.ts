import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import type { ImageFit, ProgramImage, RunAssembly } from "../document/document.ts";
import { answersRight, imageFits, secretsIn } from "./fits.ts";
import { programNotes } from "./notes.ts";
import { loadedAt, loadWords, notSaidAt, strayImages } from "./places.ts";

const image = (more: Partial<ProgramImage> = {}): ProgramImage => ({
  id: "w",
  at: "J5",
  name: "watch",
  version: "1.5",
  file: "",
  from: "",
  tool: "",
  wires: [],
  settings: "",
  command: "",
  expect: "",
  fits: [],
  values: [],
  ...more,
});
const runs = (versions: string, revision: string, is: ImageFit["is"], why = ""): ImageFit => ({
  versions,
  revision,
  is,
  why,
});
/** The example of domain.md 9.8. */
const TABLE = [
  runs("1.0–1.3", "A", "yes"),
  runs("1.0–1.3", "A + 1 rework", "yes"),
  runs("1.0–1.3", "B", "no", "pin map"),
  runs("1.4–1.9", "A", "no"),
  runs("1.4–1.9", "A + 1 rework", "yes"),
  runs("1.4–1.9", "B", "yes"),
  runs("≥ 2.0", "A", "no"),
  runs("≥ 2.0", "A + 1 rework", "no"),
  runs("≥ 2.0", "B", "yes"),
];

test.each([
  ["1.2", "A", "A", "yes"],
  ["1.2", "A", "A + 1 rework", "yes"],
  ["1.2", "B", "B", "no"],
  ["1.5", "A", "A", "no"],
  ["1.5", "A", "a +  1 rework", "yes"],
  ["1.5", "B", "B", "yes"],
  ["2.1", "A", "A", "no"],
  ["2.1", "A", "A + 1 rework", "no"],
  ["2.1", "B", "B", "yes"],
  ["0.9", "B", "B", "unknown"],
  ["1.5", "C", "C", "unknown"],
  ["nightly", "B", "B", "unknown"],
])("version %s on %s, a board that is %s: %s (domain.md 9.8)", (version, revision, effective, is) =>
  expect(imageFits(image({ version, fits: TABLE }), revision, effective).is).toBe(is),
);

test("why it fits or not is said, and a guess is", () => {
  const because = (fits: ImageFit[], revision: string, effective?: string, version = "1.5") =>
    imageFits(image({ fits, version }), revision, effective).because;
  expect(because(TABLE, "B", "B", "1.2")).toBe("watch 1.2 is not for B: pin map.");
  expect(because([runs("all", "B", "limits", "no sound")], "B")).toBe(
    "watch 1.5 runs on B, with limits: no sound.",
  );
  // nobody said it of the board as it is: its revision counts, and that is told
  expect(because(TABLE, "B", "B + 2 reworks")).toBe(
    "watch 1.5 runs on B, and nobody said it of B + 2 reworks.",
  );
  expect(because([], "B")).toBe("Nobody said on which revisions watch 1.5 runs.");
  expect(because([runs("new ones", "A", "yes"), runs("all", "B", "yes")], "B")).toContain(
    "“new ones” is no range",
  );
  // rows that contradict each other: the one that refuses
  expect(imageFits(image({ fits: [runs("1", "B", "yes"), runs("1.5", "b", "no")] }), "B").is).toBe("no");
  expect(imageFits(image({ fits: [runs("1", "B", "yes"), runs("1.5", "b", "limits")] }), "B").is).toBe(
    "limits",
  );
});

test("what a tool says is held against what it should say, whatever its blanks and case", () => {
  const right = (expected: string, said: string) => answersRight(image({ expect: expected }), said);
  expect(right("verified OK", "writing ...\n 100 %\nVerified  ok\n")).toBe(true);
  expect(right("verified OK", "verify failed at 0x40")).toBe(false);
  expect([right("", "anything"), right("verified", " \n")]).toEqual([undefined, undefined]);
});

test.each([
  ["flash --pass=swordfish", ["pass"]],
  ['ssid: "attic", psk = "12345678"', ["ssid", "psk"]],
  ["API_KEY=abcdef", ["api_key"]],
  // a place to put one is none
  ["--pass=<yours> --token=$TOKEN ssid={network} psk=%PSK% secret=xxxx", []],
  ["psk=12", []],
  ["the pass is high, compass=5, bypass: on", []],
  ["", []],
])("secrets in %j: %j", (text, is) => expect(secretsIn(text)).toEqual(is));

const withs = (assembly: Partial<RunAssembly>) => {
  const doc = boardK();
  return { ...doc, revision: "B", assembly: { ...doc.assembly, ...assembly } };
};
const notesOf = (assembly: Partial<RunAssembly>) => {
  const notes: [string, string][] = [];
  programNotes(withs(assembly), (_stage, key, level) => notes.push([key.split(" ")[0]!, level]));
  return notes;
};

test("places, what is not said there, and images that no step loads", () => {
  const said = {
    programLoose: ["U1"],
    programAt: ["J5", "U1", "J6", "J7"],
    programs: { J6: "by the house" },
    images: [image(), image({ id: "x", at: "U1" }), image({ id: "y", at: "J9" })],
  };
  expect(loadedAt(said)).toEqual(["U1", "J5", "J6", "J7"]);
  expect([notSaidAt(said), strayImages(said).map((i) => i.id)]).toEqual([["J7"], ["y"]]);
  expect(notesOf(said)).toEqual([
    ["order-unloaded", "warning"],
    ["image-nowhere", "warning"],
  ]);
  const doc = withs({
    ...said,
    images: [
      image({ id: "s", name: "start-up", version: "", tool: "clip" }),
      image({ sha256: "ab".repeat(32), settings: "8 MHz" }),
    ],
  });
  expect(loadWords(doc, ["J5", "J6", "J7"])).toEqual([
    "J5, 1. start-up, by clip.",
    "J5, 2. watch 1.5, file abababab…; first set 8 MHz.",
    "J6: by the house.",
    "J7: what is loaded there is not said.",
  ]);
  expect(loadWords(withs({ programAt: ["J5"], images: [image()] }), ["J5"])).toEqual(["J5: watch 1.5."]);
});

test("a pair that is refused blocks; what nobody said of a pair is looked at; a secret is told", () => {
  const of = (more: Partial<ProgramImage>) => notesOf({ programAt: ["J5"], images: [image(more)] });
  expect(of({ fits: [runs("all", "B", "no")] })).toEqual([["image-refused", "error"]]);
  expect(of({ fits: [runs("all", "A", "yes")] })).toEqual([["image-unknown", "warning"]]);
  expect(of({ fits: [runs("all", "B", "limits")] })).toEqual([["image-limits", "remark"]]);
  expect(of({ fits: [runs("all", "B", "yes")] })).toEqual([]);
  expect(of({})).toEqual([]);
  expect(of({ command: "load --psk=attic123" })).toEqual([["image-secret", "warning"]]);
  expect(of({ settings: "token: 1234" })).toEqual([["image-secret", "warning"]]);
});
