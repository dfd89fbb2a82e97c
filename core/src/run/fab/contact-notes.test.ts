import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { finishKind } from "../../fab/finish.ts";
import { fitOptions, givenUp } from "../../fab/fit-options.ts";
import type { House } from "../../fab/house.ts";
import { fabQuote } from "../../fab/price.ts";
import { microsToNumber } from "../../money/money.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";
import { contactNotes, firstBevel } from "./contact-notes.ts";

const bevel = (value: string, setup?: string) => ({ value, label: `${value}°`, ...(setup ? { setup } : {}) });
const BEVELLING: House = {
  ...FAR,
  id: "b",
  name: "EDGES",
  options: {
    ...FAR.options,
    bevel: [{ value: "none", label: "none" }, bevel("20", "12"), bevel("30", "12"), bevel("45", "12")],
  },
};
const card = (setbackMm: number): Measure =>
  madeMeasure({
    edgeContacts: { top: { count: 11, pitchMm: 2.5, widthMm: 1.5, lengthMm: 6, setbackMm, edge: "bottom" } },
  });
const GOLD = { thickness: "1.6", finish: "immersion-gold" };
function notes(house: House, options: object, setbackMm = 1.5) {
  const doc = madeRun({
    boards: [{ name: "Card", perProduct: 1, measure: card(setbackMm) }],
    house,
    houses: [FAR, BEVELLING],
    options,
  });
  const fit = fitOptions(house, doc.options);
  const out: [string, string, string | undefined][] = [];
  contactNotes(doc, house, fit, finishKind({ value: fit.finish }), (_s, key, level, _t, more) =>
    out.push([key, level, more?.do]),
  );
  return out.filter(([key]) => key.startsWith("contacts-bevel"));
}

test("no bevel, one that is right, one that grinds copper; at 1.6 mm contacts at 1.5 stand 20° not, 30° by 0.347", () => {
  // without its list the others are named
  expect(notes(FAR, GOLD)).toEqual([
    ["contacts-bevel", "warning", expect.stringContaining("choose EDGES, or accept")],
  ]);
  expect(notes(BEVELLING, GOLD)).toEqual([
    [
      "contacts-bevel",
      "warning",
      "Choose 30°, which leaves 0.347 mm, or accept where nothing is plugged in.",
    ],
  ]);
  expect(notes(BEVELLING, { ...GOLD, bevel: "30" })).toEqual([]);
  expect(notes(BEVELLING, { ...GOLD, bevel: "45" })).toEqual([]);
  expect(notes(BEVELLING, { ...GOLD, bevel: "20" })).toEqual([
    ["contacts-bevel", "error", "Choose 30°, which leaves 0.347 mm, or accept where nothing is plugged in."],
  ]);
  // contacts at 0.5 are too near for all of them
  expect(notes(BEVELLING, { ...GOLD, bevel: "45" }, 0.5)).toEqual([
    [
      "contacts-bevel",
      "error",
      "Set the contacts back, take a thinner board, or accept where nothing is plugged in.",
    ],
  ]);
});

test("the words: how deep, where copper begins, what is missing", () => {
  const doc = madeRun({
    boards: [{ name: "Card", perProduct: 1, measure: card(1.5) }],
    house: BEVELLING,
    houses: [BEVELLING],
    options: { ...GOLD, bevel: "20" },
  });
  const texts = rollUp(doc).notes.map((n) => n.text);
  expect(texts).toContain(
    "A bevel of 20° is 1.511 mm deep at 1.6 mm, and the edge contacts begin 1.5 mm from the edge: 0.211 mm are missing, and the grinder meets copper.",
  );
  const plain = madeRun({
    boards: [{ name: "Main", perProduct: 1, measure: madeMeasure() }],
    house: BEVELLING,
    houses: [BEVELLING],
    options: { ...GOLD, bevel: "30" },
  });
  expect(rollUp(plain).notes.map((n) => n.key)).toContain("bevel-without-contacts");
});

test("a first bevel is the flattest that leaves every board's contacts whole; a board without contacts gets none", () => {
  expect(firstBevel(BEVELLING, [card(1.5)], "1.6")).toBe("30");
  expect(firstBevel(BEVELLING, [card(2)], "1.6")).toBe("20");
  expect(firstBevel(BEVELLING, [card(2), card(0.8)], "1.6")).toBe("45");
  expect(firstBevel(BEVELLING, [card(0.5)], "1.6")).toBeUndefined();
  expect(firstBevel(BEVELLING, [madeMeasure()], "1.6")).toBeUndefined();
  expect(firstBevel(FAR, [card(2)], "1.6")).toBeUndefined();
});

test("it is carried to another house, given up where there is none, and paid once", () => {
  expect(fitOptions(BEVELLING, { bevel: "45" }).bevel).toBe("45");
  expect(fitOptions(BEVELLING, {}).bevel).toBe("none");
  expect(fitOptions(FAR, { bevel: "45" })).not.toHaveProperty("bevel");
  expect(givenUp(FAR, { bevel: "45" }, [BEVELLING])).toEqual([{ key: "bevel", wished: "45°", got: "none" }]);
  expect(givenUp(FAR, { bevel: "none" })).toEqual([]);
  const facts = { widthMm: 50, heightMm: 40, layers: 2, holes: 0, copperShare: 0.6 };
  const boards = (value: string) =>
    microsToNumber(fabQuote(BEVELLING, facts, fitOptions(BEVELLING, { bevel: value }), 20).boards);
  expect(boards("30") - boards("none")).toBeCloseTo(12, 6);
});

test("a bevel is offered with its effect, and refused with its reason on a thin board", () => {
  const doc = madeRun({
    boards: [{ name: "Card", perProduct: 1, measure: card(1.5) }],
    house: BEVELLING,
    houses: [BEVELLING],
    options: GOLD,
  });
  const list = (thickness: string) =>
    whatIf({ ...doc, options: { ...GOLD, thickness } }, rollUp({ ...doc, options: { ...GOLD, thickness } }))
      .options.bevel;
  const because = "a bevel of 20° at 1.6 mm grinds contacts: 0.211 mm are missing to their copper";
  expect(list("1.6").map((e) => [e.value, e.isChosen, e.with])).toEqual([
    ["none", true, undefined],
    ["20", false, [{ key: "thickness", value: "1.0", from: "1.6 mm", to: "1.0 mm", because }]],
    ["30", false, undefined],
    ["45", false, undefined],
  ]);
  expect(list("1.6")[1]!.perGood).toBeGreaterThan(0);
  const thin: House = {
    ...BEVELLING,
    options: { ...BEVELLING.options, thickness: [{ value: "0.8", label: "0.8 mm" }] },
  };
  const slim = { ...doc, house: thin, houses: [thin], options: {} };
  expect(whatIf(slim, rollUp(slim)).options.bevel.map((e) => e.cannot)).toEqual([
    undefined,
    "boards under 1 mm are not bevelled",
    "boards under 1 mm are not bevelled",
    "boards under 1 mm are not bevelled",
  ]);
});

test("what a board without contacts pays for those of another is said, with the sum; nothing where it pays nothing", () => {
  const plain = madeMeasure();
  const said = (house: House, more: object, boards = [card(1.5), plain]) => {
    const doc = madeRun({
      boards: boards.map((measure, i) => ({
        id: `b${i}`,
        name: i === 0 ? "Card" : "Main",
        perProduct: 1,
        measure,
      })),
      house,
      houses: [house],
      options: { ...GOLD, ...more },
    });
    return rollUp(doc)
      .notes.filter((n) => n.key.startsWith("paid-for-nothing"))
      .map((n) => n.text);
  };
  // twelve for setting up the bevel
  expect(said(BEVELLING, { bevel: "30" })).toEqual([
    "Bevel 30° holds for every board of the product: Main has no edge contacts and pays 12.00 EUR for it.",
  ]);
  expect(said(BEVELLING, {})).toEqual([]);
  expect(said(BEVELLING, { bevel: "30" }, [card(1.5)])).toEqual([]);
  expect(said(BEVELLING, { bevel: "30" }, [plain, plain])).toEqual([]);
  expect(said(BEVELLING, { bevel: "30" }, [card(1.5), card(2)])).toEqual([]);
});
