import { AppError } from "../../errors.ts";
import type { DefectCode } from "../../shape/defects.ts";
import type { Limits, TryVerdict } from "../../testing/verdict.ts";
import { isOrderOf } from "./order-key.ts";
import type { OrderState } from "./order-states.ts";
import type { RunSitting } from "./sitting.ts";
import type { SurplusPurpose } from "./surplus.ts";

/** What was bought of a run at one supplier or house: when it was ordered, for when it is promised, what was really paid. */
export interface RunPurchase {
  readonly id: string;
  /** Key of the {@link PlannedOrder} it is. */
  readonly order: string;
  /** ISO dates. */
  readonly orderedOn?: string;
  readonly promisedOn?: string;
  /** Of the money below. */
  readonly currency: string;
  /** Freight, fees and the like as they were charged; not known where left out. */
  readonly freight?: string | number;
  /** Key of the item → what its whole line cost, as invoiced. */
  readonly paid: Readonly<Record<string, string | number>>;
  readonly note: string;
}

/** Pieces of one item that came in one parcel. */
export interface RunReceipt {
  readonly id: string;
  /** Keys of the {@link PlannedOrder} and of its {@link PlannedItem}. */
  readonly order: string;
  readonly item: string;
  readonly qty: number;
  /** ISO date. */
  readonly arrivedOn: string;
  /** Not to be used: it is looked at or goes back. */
  readonly isApart: boolean;
  readonly because: string;
  /** The lot on the shelf that came of it. */
  readonly lot?: string;
}

/** A statement of the probing list that did not hold on a board. */
export interface BareFault {
  readonly nets: readonly string[];
  /** The two places: "J1.1 – J1.2". */
  readonly at: string;
  /** What it should have been: joined was silent, apart beeped. */
  readonly expect: "joined" | "apart";
}

/** One bare board tried with a meter. It passed where no statement failed. */
export interface BareTest {
  readonly id: string;
  /** Key of the {@link PlannedItem} the board is of, and the {@link RunReceipt} it came in. */
  readonly item: string;
  readonly receipt?: string;
  /** Which of them, in somebody's words. */
  readonly label: string;
  /** ISO date. */
  readonly on: string;
  /** Statements tried. */
  readonly tried: number;
  readonly faults: readonly BareFault[];
  readonly person?: string;
  readonly note: string;
}

/** One bare board that was measured and looked at when it came. */
export interface BoardMeasured {
  readonly id: string;
  /** Key of the {@link PlannedItem} the board is of, and the {@link RunReceipt} it came in. */
  readonly item: string;
  readonly receipt?: string;
  /** Which of them, in somebody's words. */
  readonly label: string;
  /** ISO date. */
  readonly on: string;
  /** Key of a measured size → what the calliper showed, mm, at one place or several. */
  readonly readings: Readonly<Record<string, readonly number[]>>;
  /** What was looked at → whether it is as ordered. */
  readonly looks: Readonly<Record<string, boolean>>;
  readonly person?: string;
  readonly note: string;
}

/** Bare boards that came and are put by: for what, how many, where they lie. */
export interface BareKept {
  readonly id: string;
  /** Key of the {@link PlannedItem} the boards are of. */
  readonly item: string;
  /** Of what is set apart; else of what may be used. */
  readonly isApart: boolean;
  readonly purpose: SurplusPurpose;
  readonly pieces: number;
  readonly place: string;
  /** ISO date. */
  readonly on: string;
  readonly person: string;
}

export const CLAIM_STATES = ["open", "sent", "settled", "refused"] as const;
export type ClaimState = (typeof CLAIM_STATES)[number];

/** What came otherwise than ordered: what was written to whom, and what became of it. */
export interface Claim {
  readonly id: string;
  /** Key of the {@link PlannedOrder}, and of its {@link PlannedItem} where it is about one; empty otherwise. */
  readonly order: string;
  readonly item: string;
  readonly pieces: number;
  readonly because: string;
  readonly letter: string;
  readonly state: ClaimState;
  readonly answer: string;
  /** Paid back or taken off, in the order's currency; not known where left out. */
  readonly credit?: string;
  /** ISO date. */
  readonly openedOn: string;
  readonly person: string;
}

/** A photo that was taken: of what came of an order, of a board that is built, or of a fault on it. Never needed for a figure. */
export interface RunPhoto {
  readonly id: string;
  /** Keys of the {@link PlannedOrder} and of its {@link PlannedItem}, where it shows what came. */
  readonly order?: string;
  readonly item?: string;
  /** Key of the agreed spot it shows, on the board of the item that is kept back. */
  readonly spot?: string;
  /** Which of the boards that are started, from 1, where it shows one; and the {@link Defect} it shows. */
  readonly unit?: number;
  readonly defect?: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** ISO date. */
  readonly on: string;
  readonly note: string;
  readonly person: string;
}

/** What somebody did at the bench in one go. Each count is of boards that got there in it. */
export interface RunWork {
  readonly id: string;
  /** ISO date. */
  readonly on: string;
  readonly started: number;
  readonly good: number;
  /** Mended on the way; they count as good or scrapped too, once they are. */
  readonly reworked: number;
  readonly scrapped: number;
  readonly minutes: number;
  readonly person?: string;
  readonly note?: string;
}

/**
 * One thing that became of an order at a house, as it was written down or as the house said it over the network: files sent,
 * a question, its answer, files accepted, paid, made, on its way, taken back.
 */
export interface OrderStep {
  readonly id: string;
  /** Key of the {@link PlannedOrder}. */
  readonly order: string;
  readonly state: OrderState;
  /** ISO date. */
  readonly on: string;
  readonly words: string;
  /** Who wrote it down; a house that answers over the network is named by its own key of what it said. */
  readonly person: string;
  readonly source: string;
}

/** Something that was found wrong on one board, and what was done about it. */
export interface Defect {
  readonly id: string;
  /** Which of the boards that are started, from 1. */
  readonly unit: number;
  /** Where: a part or a pin, as it is called at the bench; empty where it is the board itself. */
  readonly at: string;
  readonly code: DefectCode;
  /** Number of the step at which it was found; left out where it was found elsewhere. */
  readonly step?: number;
  /** ISO date. */
  readonly on: string;
  /** What it took to mend; nothing where left out. */
  readonly minutes?: number;
  readonly isMended: boolean;
  readonly note: string;
  readonly person: string;
}

/** One try of one item of the test plan on one board. Every try stays. */
export interface TestTry {
  readonly id: string;
  /** Which of the boards that are started, from 1. */
  readonly unit: number;
  /** The {@link TestItem} it was, and what it was called. */
  readonly item: string;
  readonly name: string;
  /** ISO date. */
  readonly on: string;
  /** What was read, in the unit of the limits; left out where it was yes or no, or nothing could be read. */
  readonly value?: string;
  /** It only says that it is more, or less. */
  readonly bound?: ">" | "<";
  /** Unit and limits of that day. */
  readonly limits: Limits & { readonly unit?: string };
  readonly verdict: TryVerdict;
  readonly words: string;
  readonly person: string;
}

/** One go at loading an image into one board. Every go stays; what it is was released. */
export interface ImageLoad {
  readonly id: string;
  /** Which of the boards that are started, from 1. */
  readonly unit: number;
  /** The {@link ProgramImage} it was, what it was called, and its file's hash. */
  readonly image: string;
  readonly name: string;
  readonly version: string;
  readonly at: string;
  readonly sha256?: string;
  readonly isRight: boolean;
  /** What the tool said. */
  readonly said: string;
  /** Name → what this board was given; of what is wiped again only that it was. */
  readonly given: Readonly<Record<string, string>>;
  /** ISO date on which it was wiped of what stays with the shop. */
  readonly wipedOn?: string;
  /** In which socket of several. */
  readonly socket?: number;
  /** ISO date. */
  readonly on: string;
  readonly person: string;
}

/** What happened to a run after its release, beside the document that says what was decided. */
export interface RunRecord {
  readonly purchases: readonly RunPurchase[];
  readonly receipts: readonly RunReceipt[];
  /** Bare boards that were tried; none where left out. */
  readonly bareTests?: readonly BareTest[];
  /** Bare boards that were measured; none where left out. */
  readonly measured?: readonly BoardMeasured[];
  /** Bare boards that are put by, the oldest first; none where left out. */
  readonly kept?: readonly BareKept[];
  /** What was claimed of its orders; nothing where left out. */
  readonly claims?: readonly Claim[];
  /** Photos of it, the oldest first; none where left out. */
  readonly photos?: readonly RunPhoto[];
  readonly work: readonly RunWork[];
  /** Steps of boards as far as they came at the bench; none where left out. */
  readonly sittings?: readonly RunSitting[];
  /** Tries of the test plan, the oldest first; none where left out. */
  readonly tries?: readonly TestTry[];
  /** What was loaded into its boards, the oldest first; nothing where left out. */
  readonly loads?: readonly ImageLoad[];
  /** What was found wrong on its boards, the oldest first; nothing where left out. */
  readonly defects?: readonly Defect[];
  /** What became of its orders at houses, as it was written down; none where left out. */
  readonly steps?: readonly OrderStep[];
  /** Which of the shop's releases it is, and the year it was released in: what it builds is numbered by them. */
  readonly series?: { readonly batch: number; readonly year: number };
  /** ISO date on which it was closed, and what is to be remembered of it. */
  readonly closedOn?: string;
  readonly lesson?: string;
  /** Lot → what the run took of it, once it is closed. */
  readonly taken?: Readonly<Record<string, LotTaken>>;
}

/** Pieces a run took of a lot. */
export interface LotTaken {
  /** Negative where more lay there than was written. */
  readonly pieces: number;
  /** Somebody counted what was left; else it is the estimate by the boards begun. */
  readonly isCounted: boolean;
}

/** A record in which nothing happened yet. */
export const NO_RECORD: RunRecord = { purchases: [], receipts: [], work: [] };

/** Where the boards of a run are, in numbers of products. */
export interface Tally {
  readonly started: number;
  readonly good: number;
  readonly reworked: number;
  readonly scrapped: number;
  /** Begun, and neither good nor scrapped. */
  readonly open: number;
  readonly minutes: number;
}

/** Sums of what was done. `started = good + scrapped + open`, whatever was written. */
export function tallyOf(work: readonly RunWork[]): Tally {
  const sum = (of: (w: RunWork) => number) => work.reduce((n, w) => n + of(w), 0);
  const [started, good, scrapped] = [sum((w) => w.started), sum((w) => w.good), sum((w) => w.scrapped)];
  return {
    started,
    good,
    scrapped,
    reworked: sum((w) => w.reworked),
    open: started - good - scrapped,
    minutes: sum((w) => w.minutes),
  };
}

/** Pieces of an item that came and may be used, and those set apart. */
export function arrivedOf(
  record: RunRecord,
  order: string,
  item: string,
): { readonly usable: number; readonly apart: number } {
  const list = record.receipts.filter((r) => r.order === order && r.item === item);
  const sum = (isApart: boolean) => list.reduce((n, r) => n + (r.isApart === isApart ? r.qty : 0), 0);
  return { usable: sum(false), apart: sum(true) };
}

/** Photos of how an item of an order came, the oldest first; those of the board that is kept back are none. */
export const photosOf = (record: RunRecord, order: string, item: string): readonly RunPhoto[] =>
  (record.photos ?? []).filter((p) => p.order === order && p.item === item && p.spot === undefined);

/** Photos of the board of an item that is kept back, at its agreed spots, the oldest first. */
export const spotPhotosOf = (record: RunRecord, order: string, item: string): readonly RunPhoto[] =>
  (record.photos ?? []).filter((p) => p.order === order && p.item === item && p.spot !== undefined);

/** Photos of one of the boards that are started, those of its faults among them, the oldest first. */
export const photosOfUnit = (record: RunRecord, unit: number): readonly RunPhoto[] =>
  (record.photos ?? []).filter((p) => p.unit === unit);

/**
 * Holds counts against each other: no board is good or lost that was not started, none is begun that did not come.
 *
 * @param usable products for which boards came; not known where left out, and then not asked
 * @throws AppError OUT_OF_RANGE with the numbers
 */
export function refuseMiscount(t: Tally, usable?: number): void {
  const wrong = (text: string, hint: string): never => {
    throw new AppError("OUT_OF_RANGE", text, hint);
  };
  if (t.open < 0)
    wrong(
      `${t.good} good and ${t.scrapped} scrapped are ${t.good + t.scrapped} boards, but ${t.started} were started.`,
      "Count what was started too, or lower the others.",
    );
  if (t.reworked > t.started)
    wrong(
      `${t.reworked} boards were mended, but ${t.started} were started.`,
      "A board that was mended twice counts once.",
    );
  if (usable !== undefined && t.started > usable)
    wrong(
      `${t.started} boards were started, but boards for ${usable} came and may be used.`,
      "Write down first what arrived. What is put by for something else is not built: take it back first.",
    );
}

/**
 * Boards are not put by twice: of each kind no more than came and may be used, or are set apart.
 *
 * @param boards keys of the run's boards
 * @throws AppError OUT_OF_RANGE with the numbers; NOT_FOUND where one is put by that is none of them
 */
export function refuseOverKept(
  record: Pick<RunRecord, "receipts"> & {
    readonly kept: readonly Pick<BareKept, "item" | "isApart" | "pieces">[];
  },
  boards: readonly string[],
): void {
  for (const item of new Set(record.kept.map((k) => k.item)))
    for (const isApart of [false, true]) {
      const put = sumOf(
        record.kept.filter((k) => k.item === item && k.isApart === isApart),
        (k) => k.pieces,
      );
      const came = sumOf(
        record.receipts.filter(
          (r) => isOrderOf("boards", r.order) && r.item === item && r.isApart === isApart,
        ),
        (r) => r.qty,
      );
      if (put > 0 && !boards.includes(item))
        throw new AppError(
          "NOT_FOUND",
          `${put} bare boards are put by of a kind that is none of the run's.`,
          "Reload the page; it shows what the run was released with.",
        );
      if (put > came)
        throw new AppError(
          "OUT_OF_RANGE",
          `${put} bare boards are put by, but ${came} of them ${isApart ? "are set apart" : "came and may be used"}.`,
          "Count the parcel first, or take back what is put by.",
        );
    }
}

const sumOf = <T>(list: readonly T[], of: (x: T) => number): number => list.reduce((n, x) => n + of(x), 0);

/** What is put by for this is not built; a spare one is, when it is needed. */
export const isNotBuilt = (k: Pick<BareKept, "purpose" | "isApart">): boolean =>
  !k.isApart && k.purpose !== "spare";

/**
 * Products for which boards came that may be used and are not put by for something else; nothing while none of some board came, since then it is not written down.
 *
 * @param boards of the product: key of the item and how many are in one product
 */
export function usableProducts(
  record: Pick<RunRecord, "receipts"> & {
    readonly kept?: readonly Pick<BareKept, "item" | "isApart" | "purpose" | "pieces">[];
  },
  boards: readonly { readonly item: string; readonly perProduct: number }[],
): number | undefined {
  const came = boards.map((b) => {
    const list = record.receipts.filter((r) => isOrderOf("boards", r.order) && r.item === b.item);
    if (list.length === 0) return undefined;
    const kept = sumOf(
      (record.kept ?? []).filter((k) => k.item === b.item && isNotBuilt(k)),
      (k) => k.pieces,
    );
    return Math.floor((sumOf(list, (r) => (r.isApart ? 0 : r.qty)) - kept) / b.perProduct);
  });
  return came.length === 0 || came.includes(undefined) ? undefined : Math.min(...(came as number[]));
}
