import {
  BENCH_TOOLS,
  CHOICE_FIELDS,
  CLAIM_STATES,
  type Hold,
  type Method,
  type OddWay,
  ORDER_KEY,
  ORDER_STATES,
  type OrderOfSteps,
  type PanelChoice,
  PIECE_MARKS,
  type PieceMark,
  type ProgramImage,
  PURPOSES,
  type QuoteBasis,
  type RunAssembly,
  type RunChoices,
  shapes,
  type TestItem,
} from "@kobbin/core";
import * as yup from "yup";
import {
  choice,
  currency,
  day,
  flag,
  id,
  list,
  mapOf,
  money,
  name,
  number,
  shaped,
  text,
  trimmed,
  version,
  whole,
} from "./fields.ts";

export const newRunBody = yup.object({
  revisionId: id().required(),
  name: name.required("Give the run a name."),
  goodBoards: whole(1, 100_000).min(1, "A run makes at least one board.").required(),
});
export type NewRunBody = yup.InferType<typeof newRunBody>;

/** A first article: so many products, with these parts in sockets instead of soldered. */
export const firstArticleBody = yup.object({
  version: version.required(),
  boards: whole(1, 100).default(1),
  sockets: list(
    yup.object({
      line: id().required(),
      mpn: trimmed(120).default(""),
      valueText: trimmed(120).default("socket"),
    }),
    50,
  ).default([]),
});
export type FirstArticleBody = yup.InferType<typeof firstArticleBody>;

/** The id of a line, alone or with one of its sides. */
const LINE_AND_SIDE = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}( top| bottom)?$/i;

/** What a request may say of each decision; one the table of decisions has and this has not does not compile. */
const OPTIONS = {
  thickness: text(60),
  copper: text(60),
  finish: text(60),
  mask: text(60),
  legend: text(60),
  material: text(60),
  contacts: text(60),
  bevel: text(60),
  castellation: text(60),
  edgePlating: text(60),
  via: text(60),
  test: text(60),
  marking: text(60),
  quality: text(60),
  freight: text(60),
  pieces: whole(0, 1_000_000),
  leadDays: whole(0, 1000),
} satisfies Record<keyof typeof CHOICE_FIELDS.options, yup.AnySchema>;
const ASSEMBLY = {
  method: choice(["iron", "stencil", "house"]),
  house: id(),
  perLoad: whole(1, 100),
  stencilPrice: money,
  foilMm: number(0.03, 0.5),
  openings: choice(["drawn", "corrected", "narrowed", "paned"]),
  foilHouse: text(60),
  foilForm: choice(["loose", "framed"]),
  pressMm: shaped<readonly [number, number]>(CHOICE_FIELDS.assembly.pressMm.shape).nullable(),
  foil: text(60),
  consumables: money,
  sides: shaped<RunAssembly["sides"] & object>(CHOICE_FIELDS.assembly.sides.shape).nullable(),
  ways: mapOf<Method>(shapes.oneOf("iron", "stencil", "house"), 5000, LINE_AND_SIDE).nullable(),
  handParts: choice(["here", "house"]),
  reworkReserve: number(0, 100),
  alloy: choice(["lead", "silver", "bismuth"]).nullable(),
  heater: choice(["plate", "oven", "air"]).nullable(),
  programAt: list(text(80).required(), 200),
  testAt: list(text(80).required(), 200),
  programLoose: list(text(80).required(), 200),
  covers: mapOf<readonly string[]>(shapes.list(shapes.text(80), 200), 1000, shapes.UUID),
  wire: choice(["lead", "silver", "bismuth"]).nullable(),
  flux: choice(["noclean", "rosin", "water"]).nullable(),
  cleaner: choice(["water", "solvent"]).nullable(),
  odd: mapOf<OddWay>(shapes.oneOf(...shapes.ODD_NAMES), 1000, shapes.UUID).nullable(),
  held: mapOf<Hold>(shapes.oneOf(...shapes.HOLD_NAMES), 1000, shapes.UUID).nullable(),
  programs: mapOf<string>(shapes.text(300), 200).nullable(),
  images: shaped<readonly ProgramImage[]>(CHOICE_FIELDS.assembly.images.shape).nullable(),
  tests: shaped<readonly TestItem[]>(CHOICE_FIELDS.assembly.tests.shape).nullable(),
  competent: text(120),
  testMinutes: number(0, 600),
  packMinutes: number(0, 600),
} satisfies Record<keyof typeof CHOICE_FIELDS.assembly, yup.AnySchema>;
const CHOICES = {
  basket: list(text(60).required(), 200),
  pins: mapOf<string>(shapes.id, 20_000, shapes.UUID),
  leftovers: choice(["stock", "expense"]),
  variant: id().nullable(),
  ownShelf: choice(["first", "leave"]),
  surplus: mapOf<number>(shapes.whole(0, 100_000), 20),
  guests: shaped<RunChoices["guests"] & object>(CHOICE_FIELDS.choices.guests.shape),
  panel: shaped<PanelChoice>(shapes.panelShape).nullable(),
  use: choice(["sold", "private"]),
  overrun: choice(["bare", "start"]),
  steps: shaped<OrderOfSteps>(CHOICE_FIELDS.choices.steps.shape),
  price: shaped<RunChoices["price"] & object>(CHOICE_FIELDS.choices.price.shape).nullable(),
  first: id().nullable(),
  again: shaped<RunChoices["again"] & object>(CHOICE_FIELDS.choices.again.shape).nullable(),
  accepted: mapOf<string>(shapes.text(2000), 5000),
} satisfies Record<keyof typeof CHOICE_FIELDS.choices, yup.AnySchema>;

export const runBody = yup.object({
  version: version.required(),
  name,
  goodBoards: whole(1, 100_000).min(1, "A run makes at least one board."),
  confidence: number(0.5, 0.999),
  houseId: id().nullable(),
  options: yup.object(OPTIONS).default(undefined),
  assembly: yup.object(ASSEMBLY).default(undefined),
  ...CHOICES,
});
export type RunBody = yup.InferType<typeof runBody>;

export const quoteBody = yup.object({
  houseId: id().required(),
  kind: choice(["fab", "assembly"]).required(),
  total: money.required("Type the sum quoted."),
  currency: currency.required(),
  days: whole(0, 365).required(),
  validUntil: day,
  basis: shaped<QuoteBasis>(shapes.quoteBasisShape),
});
export type QuoteBody = yup.InferType<typeof quoteBody>;

/** Asks all houses that can be asked, for so many boards started. */
export const askHousesBody = yup.object({ start: whole(1, 1_000_000).required() });

/** What the shop answers to a question of a house. */
export const quoteAnswerBody = yup.object({
  answer: trimmed(500).min(1, "Say something.").required("Say something."),
});

export const remarkBody = yup.object({
  stage: text(20)
    .matches(/^[a-z-]{1,20}$/, "A remark stands at a stage.")
    .required(),
  lineId: id(),
  text: trimmed(2000).min(1, "Write something first.").required("Write something first."),
});
export type RemarkBody = yup.InferType<typeof remarkBody>;

export const undoBody = yup.object({ force: flag().default(false) });

const orderKey = text(90).matches(ORDER_KEY, "That is none of the run's orders.");
const count = () => whole(0, 1_000_000).default(0);

/** What is known of an order; what is left out stays as it is, null forgets it. */
export const purchaseBody = yup.object({
  order: orderKey.required(),
  /** Of the sums below, as the order stands on the page. */
  currency: currency.required(),
  /** Of the order as the page knows it; left out where nothing is written of it yet. */
  version,
  orderedOn: day.nullable(),
  promisedOn: day.nullable(),
  freight: money.nullable(),
  /** Item → what its line cost, null where it is not known after all. */
  paid: mapOf<string | null>((v, path) => (v === null ? undefined : shapes.money(v, path)), 20_000),
  /** Pieces each of those lines is of: the lots that came of it are worth their share. */
  pieces: mapOf<number>(shapes.whole(1, 1e9), 20_000),
  note: trimmed(2000),
});
export type PurchaseBody = yup.InferType<typeof purchaseBody>;

/** Something that became of an order at a house. */
export const orderStepBody = yup.object({
  order: orderKey.required(),
  state: yup.string().oneOf(ORDER_STATES, "That is nothing an order comes to.").required(),
  on: day.required(),
  words: trimmed(2000).default(""),
});
export type OrderStepBody = yup.InferType<typeof orderStepBody>;
/** An order that is sent to its house over the network, or looked after there. */
export const sendOrderBody = yup.object({ order: orderKey.required() });

const receivedItem = yup.object({
  item: text(80).required(),
  qty: whole(1, 10_000_000).required("Say how many came."),
  isApart: flag().default(false),
  because: trimmed(500).default(""),
  /** What a piece costs, by its invoice or as planned; boards make no lot and have none. */
  unitCost: money,
  /** Far more than the run needs, and so it was counted. */
  isMeant: flag(),
  /** Where the lot goes. */
  place: trimmed(120).default(""),
  /** The number that stands on it, where that is another than was ordered: the lot is of it. */
  cameAs: trimmed(120),
  /** Its date code. */
  made: trimmed(20).min(1, "A date code says something.").default(undefined),
});
/** What came of an order in one parcel. */
export const receiptBody = yup.object({
  order: orderKey.required(),
  arrivedOn: day.required(),
  items: list(receivedItem, 2000).required().min(1, "Say what came."),
});
export type ReceiptBody = yup.InferType<typeof receiptBody>;

const bareFault = yup.object({
  nets: list(text(200).required(), 2).required().min(1, "Name the net."),
  at: text(200).required(),
  expect: yup
    .string()
    .oneOf(["joined", "apart"] as const)
    .required(),
});
/** A bare board that was tried with a meter, and what did not hold. */
export const bareTestBody = yup.object({
  item: text(80).required(),
  /** The delivery it is from; left out where it is not written down. */
  receipt: id(),
  label: trimmed(80).required("Say which board it is."),
  on: day.required(),
  tried: whole(1, 100_000).required("Say how many were tried."),
  faults: list(bareFault, 5000).required(),
  note: trimmed(2000).default(""),
});
export type BareTestBody = yup.InferType<typeof bareTestBody>;

/** A bare board that was measured and looked at. */
export const measuredBody = yup.object({
  item: text(80).required(),
  /** The delivery it is from; left out where it is not written down. */
  receipt: id(),
  label: trimmed(80).required("Say which board it is."),
  on: day.required(),
  readings: mapOf<readonly number[]>(shapes.list(shapes.number(0.01, 5000), 9), 200).required(),
  looks: mapOf<boolean>(shapes.flag, 50).required(),
  note: trimmed(2000).default(""),
});
export type MeasuredBody = yup.InferType<typeof measuredBody>;

const keptFor = yup.object({
  purpose: choice(PURPOSES).required("Say what they are for."),
  pieces: whole(1, 100_000).required("Say how many."),
});
/** Bare boards of one kind that are put by at once, for one purpose or several. */
export const keptBody = yup.object({
  item: text(80).required(),
  isApart: flag().default(false),
  boards: list(keptFor, 20).required().min(1, "Say what they are for."),
  place: trimmed(80).default(""),
  on: day.required(),
});
export type KeptBody = yup.InferType<typeof keptBody>;
/** Where they lie. */
export const keptChangeBody = yup.object({ place: trimmed(80).defined("Say where they lie, or nothing.") });
export type KeptChangeBody = yup.InferType<typeof keptChangeBody>;

/** What came otherwise than ordered. */
export const newClaimBody = yup.object({
  order: text(200).matches(ORDER_KEY, "Say which order it is about.").required(),
  item: text(80).default(""),
  pieces: whole(0, 1e8).required(),
  because: trimmed(2000).required("Say what is wrong."),
  letter: trimmed(10_000).default(""),
  on: day.required(),
});
export type NewClaimBody = yup.InferType<typeof newClaimBody>;

/** A photo of what came, of a board or of a fault on it. */
export const photoBody = yup.object({
  order: text(200).matches(ORDER_KEY, "Say which order it shows."),
  item: text(80),
  /** Key of the agreed spot it shows of a board that is kept back. */
  spot: trimmed(80).min(1, "Say which spot it shows."),
  unit: whole(1, 100_000),
  defect: id(),
  on: day.required(),
  note: trimmed(300).default(""),
  /** The bytes of a JPEG, upright and bounded, as base 64. */
  jpeg: text(2_000_000)
    .matches(/^[A-Za-z0-9+/]+={0,2}$/, "The photo is no base 64.")
    .required("Take a photo first."),
});
export type PhotoBody = yup.InferType<typeof photoBody>;
/** What it shows, in words. */
export const photoChangeBody = yup.object({ note: trimmed(300).defined("Say what it shows, or nothing.") });
export type PhotoChangeBody = yup.InferType<typeof photoChangeBody>;

/** What became of it; what is left out stays as it is. */
export const claimBody = yup.object({
  because: trimmed(2000).min(1, "Say what is wrong."),
  letter: trimmed(10_000),
  state: choice(CLAIM_STATES),
  answer: trimmed(2000),
  credit: money.nullable(),
});
export type ClaimBody = yup.InferType<typeof claimBody>;

/** A delivery set apart after it was counted, or found to be right after all. */
export const receiptChangeBody = yup.object({
  isApart: flag().required(),
  because: trimmed(500).default(""),
});
export type ReceiptChangeBody = yup.InferType<typeof receiptChangeBody>;

export const workBody = yup.object({
  on: day.required(),
  started: count(),
  good: count(),
  reworked: count(),
  scrapped: count(),
  minutes: count(),
  note: trimmed(2000).default(""),
});
export type WorkBody = yup.InferType<typeof workBody>;

/** A step of a board as far as it came at the bench; what is left out of a mapping was taken back. */
export const sittingBody = yup.object({
  /** As it was seen; left out where nothing stood there. */
  version: version,
  unit: whole(0, 100_000).required(),
  step: whole(1, 1000).required(),
  marks: mapOf<PieceMark>(shapes.oneOf(...PIECE_MARKS), 5000).required(),
  lost: mapOf<number>(shapes.whole(0, 1_000_000), 5000, shapes.UUID).required(),
  minutes: mapOf<number>(shapes.number(0, 100_000), 50, /^[a-z0-9]{4,40}$/).required(),
  isDone: flag().required(),
  /** With what; left out by a page that does not ask for it, which changes nothing. */
  used: mapOf<string>(shapes.text(120, 1), 10, new RegExp(`^(${BENCH_TOOLS.join("|")})$`)),
});
export type SittingBody = yup.InferType<typeof sittingBody>;

/** A try of an item of the test plan; what it comes to is worked out from the item that was released. */
export const tryBody = yup.object({
  unit: whole(1, 100_000).required("Say which board it is."),
  item: text(60).required(),
  on: day.required(),
  /** In the unit of the item's limits. */
  value: yup.string().matches(shapes.READING, "A reading is a decimal number."),
  bound: choice([">", "<"]),
  says: choice(["yes", "no", "error"]),
  words: trimmed(200).default(""),
});
export type TryBody = yup.InferType<typeof tryBody>;

/** One go at loading an image into a board; which file it was is known from what was released. */
export const loadBody = yup.object({
  unit: whole(1, 100_000).required("Say which board it is."),
  image: text(60).required(),
  on: day.required(),
  isRight: flag().required("Say whether it went well."),
  said: trimmed(2000).default(""),
  given: mapOf<string>(shapes.text(300), 20).default({}),
  socket: whole(1, 100),
});
export type LoadBody = yup.InferType<typeof loadBody>;
/** The day on which a board was wiped of what stays with the shop; null where it was not. */
export const wipeBody = yup.object({ on: day.nullable().defined() });
export type WipeBody = yup.InferType<typeof wipeBody>;

/** Something found wrong on a board. */
export const defectBody = yup.object({
  unit: whole(1, 100_000).required("Say which board it is."),
  at: trimmed(80).default(""),
  code: choice(shapes.ALL_DEFECTS).required("Say what it is."),
  step: whole(1, 1000),
  on: day.required(),
  minutes: number(0, 10_000),
  isMended: flag().default(false),
  note: trimmed(500).default(""),
});
export type DefectBody = yup.InferType<typeof defectBody>;

/** What became of it; what is left out stays. */
export const defectChangeBody = yup.object({
  minutes: number(0, 10_000).nullable(),
  isMended: flag(),
  note: trimmed(500),
});
export type DefectChangeBody = yup.InferType<typeof defectChangeBody>;

/** Closes a run: what is to be remembered, and for each lot the pieces that are left of it on the shelf. */
export const closingBody = yup.object({
  lesson: trimmed(2000).default(""),
  stays: mapOf<number>(shapes.whole(0, 1e7), 20_000),
  /** Of those lots, the ones somebody counted. */
  counted: list(id().required(), 20_000),
});
export type ClosingBody = yup.InferType<typeof closingBody>;
