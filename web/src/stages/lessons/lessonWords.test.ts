import { expect, test } from "@jest/globals";
import type { LearnedAnswer, ShopErratum, ShopLesson } from "@kobbin/contract";
import { effectiveRevision } from "../../run/learn/effectiveRevision.ts";
import { spotOf } from "../../run/learn/spot.ts";
import { checkOf, type LessonDraft, NEW_DRAFT } from "./lessonDraft.ts";
import {
  contradicting,
  fitsSearch,
  isOutside,
  outWith,
  saysAll,
  saysBuilt,
  saysRun,
  standOf,
  undecided,
} from "./lessonWords.ts";
import { costsOf } from "./mistakeCosts.ts";

test("how far something doubted went: boards that have it where that is known, else all that may", () => {
  const built = { begun: 21, good: 19, places: [] };
  expect(saysBuilt({ ...built, units: 8 })).toBe("8 boards for certain, of 21 begun");
  // counted at the bench, not yet in the day's count
  expect(saysBuilt({ ...built, begun: 0, units: 1 })).toBe("1 board for certain, of 1 begun");
  expect(saysBuilt(built)).toBe("21 boards, 19 good");
  expect(saysBuilt({ ...built, begun: 0, places: ["40 came"] })).toBe("no board begun yet (40 came)");
  const bags = [
    { code: "2541", was: "within" },
    { code: "", was: "not known" },
    { code: "2520", was: "outside" },
    { code: "2520", was: "outside" },
  ] as const;
  expect(saysBuilt({ ...built, bags })).toBe(
    "21 boards, 19 good: 1 bag of those days, 2541; 1 bag whose date code does not tell; 2 bags of other days, 2520",
  );
  expect([bags, bags.slice(2), []].map((b) => isOutside({ bags: b }))).toEqual([false, true, false]);
  const places = ["C1", "C2", "C3", "C4", "C5", "C6", "C7", "C8"];
  expect(saysBuilt({ ...built, places })).toBe("21 boards, 19 good (C1, C2, C3, C4, C5, C6 and 2 more)");
});

const lesson = (more: Partial<ShopLesson> = {}): ShopLesson => ({
  id: "l",
  title: "No slot below 1.45",
  check: { kind: "measure", key: "minTrackMm", limit: 0.15 },
  level: "error",
  sure: "certain",
  came: "a claim",
  evidence: "",
  since: "2026-03-01",
  clearedBy: "",
  relaxed: [],
  caught: [],
  built: [],
  runs: [],
  ...more,
});
const erratum = (more: Partial<ShopErratum> = {}): ShopErratum => ({
  id: "e",
  productId: "p",
  product: "Kiln Watch",
  revisionId: "a",
  revision: "A",
  title: "slot too narrow",
  effect: "the lid stays open",
  harm: "worse",
  spot: { side: "top", diameterMm: 1 },
  way: "none",
  workaround: "",
  planned: "",
  evidence: "",
  foundOn: "2026-03-01",
  decisions: {},
  reworks: [],
  ...more,
});
const revisions = [
  { id: "a", label: "A", out: 0 },
  { id: "b", label: "B", out: 0 },
];
const all = (lessons: ShopLesson[], errata: ShopErratum[] = [], uncounted = 0): LearnedAnswer => ({
  lessons,
  uncounted,
  errata,
  reports: [],
  plans: [],
  mistakes: {
    since: "2025-11-30",
    faults: [],
    scrapped: [],
    reworked: { n: 0, minutes: 0, untimed: 0 },
    claims: 0,
    common: { runs: 0, closed: 0, factors: [] },
  },
  products: [{ id: "p", name: "Kiln Watch", revisions }],
});
const caught = [{ product: "Rack Card", revision: "A", on: "2026-03-02", found: "0.12 mm" }];
const run = { id: "r", name: "one", product: "p", revision: "B", is: "broken", found: "0.12 mm" } as const;

test("the page in a sentence: what counts, what does not hold now, what is to be decided; what is cleared counts no more", () => {
  expect(saysAll(all([]))).toBe("Nothing is written down yet.");
  expect(saysAll(all([lesson()]))).toBe(
    "1 lesson counts; nothing of it is open in a run; none has caught anything yet; no fault is left undecided.",
  );
  expect(
    saysAll(
      all([lesson({ runs: [run], caught }), lesson({ clearedOn: "2026-04-01", runs: [run] })], [erratum()]),
    ),
  ).toBe(
    "1 lesson counts; 1 does not hold in an open run; caught 1 revision so far; 1 fault not decided on.",
  );
});

test("what cannot be told, waits for an answer or is not counted yet has not passed", () => {
  const asks = lesson({ runs: [{ ...run, is: "ask" }] });
  const says = (lessons: ShopLesson[], uncounted = 0) => saysAll(all(lessons, [], uncounted)).split("; ");
  expect(says([asks, lesson({ runs: [{ ...run, is: "unknown" }, run] })]).slice(1, 3)).toEqual([
    "1 does not hold in an open run",
    "1 is to be looked at",
  ]);
  expect(says([lesson()], 2).slice(1, 2)).toEqual(["how they stand in 2 open runs is not known yet"]);
  const stand = (...runs: ShopLesson["runs"]) => standOf({ runs });
  const accepted = { ...run, because: "tried" };
  expect([
    stand(),
    stand(accepted),
    stand(accepted, { ...run, is: "unknown" }),
    stand(accepted, run),
  ]).toEqual(["nothing", "accepted", "look", "broken"]);
  expect([saysRun({ ...run, is: "not-there" }), saysRun(accepted)]).toEqual([
    "what it is about is not there",
    "does not hold, accepted: tried",
  ]);
});

test("boards that went out have a fault where it was found and where it was left", () => {
  const products = [
    { id: "p", name: "Kiln Watch", revisions: revisions.map((r, i) => ({ ...r, out: 3 + i })) },
  ];
  const of = (is: "stays" | "fixed") =>
    outWith(products, erratum({ decisions: { b: { is, because: "", on: "2026-04-01" } } }));
  expect([of("stays"), of("fixed"), outWith([], erratum())]).toEqual([7, 3, 0]);
});

test("what owners say is searched in, and waits for an answer", () => {
  const report = {
    id: "r",
    productId: "p",
    product: "Kiln Watch",
    on: "2026-04-02",
    says: "It fades",
    conditions: "in the cold",
    workaround: "",
    answer: "",
    person: "x",
  };
  expect(saysAll({ ...all([lesson()]), reports: [report, { ...report, answer: "turn it up" }] })).toMatch(
    /undecided; 1 owner not answered\.$/,
  );
  expect([fitsSearch(report, "cold kiln"), fitsSearch(report, "hot")]).toEqual([true, false]);
});

test("every revision but its own wants a decision", () => {
  expect(undecided(erratum(), revisions).map((r) => r.label)).toEqual(["B"]);
  const decisions = { b: { is: "stays", because: "", on: "2026-04-01" } } as const;
  expect(undecided(erratum({ decisions }), revisions)).toEqual([]);
});

test("a search looks into title, check, origin, what it caught, effect and workaround; every word has to be there", () => {
  const found = (text: string) => [lesson({ caught }), erratum()].filter((x) => fitsSearch(x, text)).length;
  expect([
    found(""),
    found("slot"),
    found("SLOT narrow"),
    found("rack"),
    found("smallest track"),
    found("lid"),
    found("slot rack wing"),
  ]).toEqual([2, 2, 1, 1, 1, 1, 0]);
});

test.each<[string, Partial<LessonDraft>, unknown]>([
  ["a size with a comma", { limit: "0,15" }, { kind: "measure", key: NEW_DRAFT.key, limit: 0.15 }],
  ["no size yet", {}, undefined],
  ["nothing is no size", { limit: "0" }, undefined],
  ["words are none", { limit: "wide" }, undefined],
  ["larger than any board", { limit: "1001" }, undefined],
  [
    "set back by a size",
    { kind: "contacts", contacts: "setback", limit: "0.3" },
    { kind: "contacts", what: "setback", leastMm: 0.3 },
  ],
  ["set back by none", { kind: "contacts", contacts: "setback" }, undefined],
  ["mask wants no size", { kind: "contacts", limit: "x" }, { kind: "contacts", what: "mask" }],
  ["a part without a number", { kind: "part", mpn: "  " }, undefined],
  ["a part of any day", { kind: "part", mpn: " X-1 " }, { kind: "part", mpn: "X-1" }],
  [
    "a part of the weeks of a notice",
    { kind: "part", mpn: "X-1", madeFrom: "2540", madeTo: "25W45" },
    { kind: "part", mpn: "X-1", made: { from: "2025-09-29", to: "2025-11-09" } },
  ],
  ["weeks that cannot be read", { kind: "part", mpn: "X-1", madeFrom: "soon" }, undefined],
  ["a house that is there", { kind: "house", which: "h" }, { kind: "house", id: "h", name: "FAR" }],
  ["a lot that is gone", { kind: "lot", which: "z" }, undefined],
])("a draft becomes a check once it is said whole: %s", (_, draft, check) => {
  expect(checkOf({ ...NEW_DRAFT, ...draft }, [{ id: "h", name: "FAR" }])).toEqual(check);
});

test.each<[string, unknown]>([
  ["", { side: "top", diameterMm: 0.4 }],
  ["D4", { ref: "D4", side: "top", diameterMm: 0.4 }],
  [" U1.A7 ", { ref: "U1.A7", side: "top", diameterMm: 0.4 }],
  ["6.5 / 34", { at: [6.5, 34], side: "top", diameterMm: 2 }],
  ["6,5 34 mm", { at: [6.5, 34], side: "top", diameterMm: 2 }],
  ["6,5mm;34mm", { at: [6.5, 34], side: "top", diameterMm: 2 }],
  ["somewhere", undefined],
  ["6.5", undefined],
  ["1.2.3 / 4", undefined],
  ["20000 / 1", undefined],
])("where a fault is, as people write it: %j", (text, spot) => {
  expect(spotOf(text)).toEqual(spot);
});

test("a board is of its revision and of what was done to it", () => {
  const of = (isScrapped: boolean) => ({
    reworks: [{ runId: "r", run: "", revision: "B", good: 3, units: [{ id: "u", unit: 2, isScrapped }] }],
  });
  expect(effectiveRevision("B", [of(false)], "r", 2)).toBe("B + 1 rework");
  expect(effectiveRevision("B", [of(false), of(false)], "r", 2)).toBe("B + 2 reworks");
  expect(effectiveRevision("B", [of(true)], "r", 2)).toBe("B");
  expect(effectiveRevision("B", [of(false)], "r", 3)).toBe("B");
  expect(effectiveRevision("B", [of(false)], "other", 2)).toBe("B");
});

test("mistakes of a year: minutes at the shop's hour by kind of fault, boards at what a good one costs, what is not known is counted apart", () => {
  const rows = costsOf(
    {
      since: "2025-11-30",
      faults: [
        { code: "bridge", n: 9, minutes: 30, untimed: 0 },
        { code: "cold", n: 2, minutes: 6, untimed: 1 },
        { code: "wrong part", n: 1, minutes: 12, untimed: 0 },
      ],
      scrapped: [
        { run: "spring", boards: 2, perBoard: 33.5 },
        { run: "old", boards: 1 },
      ],
      reworked: { n: 4, minutes: 20, untimed: 2 },
      claims: 0,
      common: { runs: 0, closed: 0, factors: [] },
    },
    45,
    "EUR",
  );
  // 36 min of joints at 45 an hour are 27, 12 are 9, 20 are 15; two boards at 33.5 are 67
  expect(rows.map((r) => [r.name, r.n, r.cost / 1e6, r.unknown])).toEqual([
    ["boards given up", 3, 67, 1],
    ["joints", 11, 27, 1],
    ["known faults worked around", 4, 15, 2],
    ["placing", 1, 9, 0],
  ]);
});

test("each row is rounded as it is shown, so that they add up to the sum above them", () => {
  const faults = (["bridge", "wrong part", "dead"] as const).map((code) => ({
    code,
    n: 1,
    minutes: 1,
    untimed: 0,
  }));
  const nothing = {
    since: "2025-11-30",
    scrapped: [],
    reworked: { n: 0, minutes: 0, untimed: 0 },
    claims: 0,
    common: { runs: 0, closed: 0, factors: [] },
  };
  // a minute at 20 an hour is 0.3333: three of them are 0.99, not 1.00
  const costs = costsOf({ ...nothing, faults }, 20, "EUR").map((r) => r.cost);
  expect([costs, costs.reduce((a, b) => a + b, 0)]).toEqual([[330_000, 330_000, 330_000], 990_000]);
  expect(costsOf({ ...nothing, faults }, 20, "JPY").map((r) => r.cost)).toEqual([0, 0, 0]);
});

test("lessons that no board of one product can hold both name each other, unless one is cleared or of another product", () => {
  const at = { kind: "place", side: "top", diameterMm: 2, at: [1, 1] } as const;
  const light = lesson({ id: "a", title: "light", check: { ...at, what: "window" } });
  const metal = lesson({ id: "b", title: "metal", check: { ...at, what: "copper" } });
  const why = "one place is not a window for light and bare copper";
  expect(contradicting(light, [light, metal])).toEqual([{ id: "b", title: "metal", why }]);
  const of = (a: Partial<ShopLesson>, b: Partial<ShopLesson>) =>
    contradicting({ ...light, ...a }, [{ ...metal, ...b }]).length;
  expect([
    of({ productId: "p" }, {}),
    of({ productId: "p" }, { productId: "q" }),
    of({ clearedOn: "2026-12-01" }, {}),
    of({}, { clearedOn: "2026-12-01" }),
  ]).toEqual([1, 0, 0, 0]);
});
