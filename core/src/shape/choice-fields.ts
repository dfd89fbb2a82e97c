import { OPTION_WORDS, type OptionKey } from "../fab/options.ts";
import { panelShape } from "./panel.ts";
import { pricingFields } from "./price.ts";
import { programImageShape } from "./program-image.ts";
import {
  type DataShape,
  day,
  fields,
  list,
  mapOf,
  maybe,
  money,
  nullable,
  number,
  oneOf,
  text,
  tuple,
  whole,
} from "./shape.ts";
import { testItemShape } from "./test-item.ts";

/** Ways to solder unlike the others, and ways a part is held; what each is stands in the steps. */
export const ODD_NAMES = ["flipped", "lid", "far", "gentle"] as const;
export const HOLD_NAMES = ["peg", "bend", "tack", "tape", "putty", "plate"] as const;

/** A decision of a run: what it may be in a document, and what it is called in a sentence of the history. */
export interface ChoiceField {
  readonly shape: DataShape;
  readonly words: string;
  /** An object that is one decision: it is taken from one person or the other, never key by key. */
  readonly isWhole?: true;
}

const METHOD = oneOf("iron", "stencil", "house");

/** A decision out of a house's list, called as the table of them has it. */
const option = <K extends OptionKey>(key: K): { readonly [P in K]: ChoiceField } =>
  ({ [key]: { shape: text(60), words: OPTION_WORDS[key].word } }) as { readonly [P in K]: ChoiceField };

/**
 * Every decision of a run, once, by the part of the document it stands in. Shapes of documents, what a request changes and
 * the history derive from it; request schemas and the types themselves do not compile while they differ.
 */
export const CHOICE_FIELDS = {
  options: {
    ...option("thickness"),
    ...option("copper"),
    ...option("finish"),
    ...option("mask"),
    ...option("legend"),
    ...option("material"),
    ...option("contacts"),
    ...option("bevel"),
    ...option("castellation"),
    ...option("edgePlating"),
    ...option("via"),
    ...option("test"),
    ...option("marking"),
    ...option("quality"),
    leadDays: { shape: whole(0, 1000), words: "days at the house" },
    ...option("freight"),
    pieces: { shape: whole(0, 1_000_000), words: "boards ordered at least" },
  },
  assembly: {
    method: { shape: METHOD, words: "soldered" },
    house: { shape: text(60), words: "house" },
    perLoad: { shape: whole(1, 100), words: "boards a load" },
    stencilPrice: { shape: money, words: "stencil price" },
    foilMm: { shape: number(0.03, 0.5), words: "thickness of the foil" },
    openings: {
      shape: oneOf("drawn", "corrected", "narrowed", "paned"),
      words: "openings of the foil",
    },
    foilHouse: { shape: text(60), words: "foils bought at" },
    foilForm: { shape: oneOf("loose", "framed"), words: "form of the foil" },
    pressMm: {
      shape: nullable(tuple(number(20, 2000), number(20, 2000))),
      words: "what the press holds",
      isWhole: true,
    },
    foil: { shape: text(60), words: "foil used again" },
    consumables: { shape: money, words: "consumables" },
    sides: {
      shape: mapOf(METHOD, 2, /^(top|bottom)$/),
      words: "sides that go another way",
    },
    ways: { shape: mapOf(METHOD, 5000), words: "lines that go another way" },
    handParts: { shape: oneOf("here", "house"), words: "who solders hand parts" },
    reworkReserve: { shape: number(0, 100), words: "reserve for rework, %" },
    alloy: { shape: oneOf("lead", "silver", "bismuth"), words: "alloy of the paste" },
    heater: { shape: oneOf("plate", "oven", "air"), words: "melted by" },
    programAt: { shape: list(text(80), 200), words: "programmed at", isWhole: true },
    testAt: { shape: list(text(80), 200), words: "tested at", isWhole: true },
    programLoose: { shape: list(text(80), 200), words: "programmed before it goes on", isWhole: true },
    covers: { shape: mapOf(list(text(80), 200), 1000), words: "what parts cover" },
    wire: { shape: oneOf("lead", "silver", "bismuth"), words: "alloy of the wire" },
    flux: { shape: oneOf("noclean", "rosin", "water"), words: "flux" },
    cleaner: { shape: oneOf("water", "solvent"), words: "washed with" },
    odd: {
      shape: mapOf(oneOf(...ODD_NAMES), 1000),
      words: "soldered unlike the others",
    },
    held: {
      shape: mapOf(oneOf(...HOLD_NAMES), 1000),
      words: "how parts are held",
    },
    programs: { shape: mapOf(text(300), 200), words: "what is loaded" },
    images: { shape: list(programImageShape, 60), words: "images that are loaded", isWhole: true },
    tests: {
      shape: list(testItemShape, 200),
      words: "test plan",
      isWhole: true,
    },
    competent: { shape: text(120), words: "who stands beside the first power-up" },
    testMinutes: { shape: number(0, 600), words: "test minutes" },
    packMinutes: { shape: number(0, 600), words: "packing minutes" },
  },
  choices: {
    basket: { shape: list(text(60), 200), words: "basket" },
    pins: { shape: mapOf(text(60), 20_000), words: "bought from" },
    leftovers: { shape: oneOf("stock", "expense"), words: "left-over parts" },
    variant: { shape: nullable(text(60)), words: "variant" },
    ownShelf: { shape: oneOf("first", "leave"), words: "own shelf" },
    surplus: { shape: mapOf(whole(0, 100_000), 20), words: "what boards that are left are for" },
    guests: {
      shape: list(fields({ board: text(60), boards: whole(1, 100_000) }), 5),
      words: "boards of other products on the sheet",
      isWhole: true,
    },
    panel: { shape: panelShape, words: "sheet", isWhole: true },
    use: { shape: oneOf("sold", "private"), words: "what it is made for" },
    overrun: { shape: oneOf("bare", "start"), words: "boards a sheet has beyond those started" },
    steps: {
      shape: fields({
        school: oneOf("low", "dense", "cheap", "bill", "path"),
        own: maybe(list(text(80), 20_000)),
        afterTest: maybe(list(text(80), 20_000)),
      }),
      words: "order of work",
      isWhole: true,
    },
    price: { shape: fields(pricingFields(0)), words: "price", isWhole: true },
    first: { shape: text(60), words: "first article" },
    again: {
      shape: fields({ on: day, said: list(fields({ key: text(120, 1), text: text(60, 1) }), 60) }),
      words: "what was typed again",
      isWhole: true,
    },
    accepted: { shape: mapOf(text(2000), 5000), words: "accepted" },
  },
} as const satisfies Record<string, Record<string, ChoiceField>>;

/** Where a decision stands. */
export type ChoicePart = keyof typeof CHOICE_FIELDS;
