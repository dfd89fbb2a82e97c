import { AppError } from "../../errors.ts";
import type { OrderKind } from "../document/order-key.ts";
import { ORDER_STOPS, type OrderState, orderFacts, stepWords } from "../document/order-states.ts";
import type { OrderStep } from "../document/record.ts";

/** Who has to do something now. */
export interface OrderWait {
  readonly on: "shop" | "house" | "carrier";
  readonly what: string;
  /** ISO date since when. */
  readonly since: string;
}

/** How an order at a house stands. */
export interface OrderStand {
  /** "open" while nothing of it is written down. */
  readonly state: "open" | OrderState;
  /** The steps it stands by, in time: since it was sent the last time. */
  readonly now: readonly OrderStep[];
  /** What the house asked and nobody answered yet. */
  readonly questions: readonly OrderStep[];
  /** Nothing where nothing was sent, or the order was taken back, or all of it came. */
  readonly waits?: OrderWait;
  /** The house is silent for longer than usual, or the day it promised is over. */
  readonly isOverdue: boolean;
}

/** Days a house usually takes to look at files; after that somebody should ask. A rule of thumb, no promise of anybody. */
export const CHECK_DAYS = 3;

/** In the order in which they happened: by day, within a day as they were written down. */
export const inTime = (steps: readonly OrderStep[]): OrderStep[] =>
  [...steps].sort((a, b) => a.on.localeCompare(b.on));

/** The steps of what was sent last: what was taken back counts no more. */
export function ofNow(steps: readonly OrderStep[]): OrderStep[] {
  const all = inTime(steps);
  const back = all.findLastIndex((s) => s.state === "withdrawn");
  return back === -1 || back === all.length - 1 ? all : all.slice(back + 1);
}

const daysAfter = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 86_400_000;

/**
 * How an order stands, whatever the order in which its steps were written down: the furthest of sent, accepted, paid, made
 * and shipped counts, and a question stops it until a later answer or until the house went on without one.
 *
 * @param steps of one order
 * @param at today and the day it is promised for, ISO, and whether all of it came
 */
export function orderStand(
  steps: readonly OrderStep[],
  at: {
    readonly today: string;
    readonly promisedOn?: string | undefined;
    readonly isHere: boolean;
    /** Of boards or their placing where left out. */
    readonly kind?: OrderKind;
  },
): OrderStand {
  const now = ofNow(steps);
  const last = (...states: readonly OrderState[]) => now.findLast((s) => states.includes(s.state));
  if (now.length === 0) return { state: "open", now, questions: [], isOverdue: false };
  if (now.at(-1)!.state === "withdrawn") return { state: "withdrawn", now, questions: [], isOverdue: false };
  const goesOn = now.findLastIndex((s) => orderFacts(s.state).settles);
  const questions = now.filter((s, i) => s.state === "asked" && i > goesOn);
  const furthest = ORDER_STOPS.slice(1).findLast((stop) => last(stop) !== undefined);
  const state = furthest ?? last("asked", "answered")?.state ?? "sent";
  if (at.isHere) return { state, now, questions: [], isOverdue: false };
  const waits = waitOf(state, now, questions, at.kind ?? "boards");
  const isLooking = waits.on === "house" && (waits.what === LOOKS || waits.what === CONFIRMS);
  const isLate = waits.on !== "shop" && at.promisedOn !== undefined && at.today > at.promisedOn;
  return {
    state: questions.length > 0 ? "asked" : state,
    now,
    questions,
    waits,
    isOverdue: isLate || (isLooking && daysAfter(waits.since, at.today) > CHECK_DAYS),
  };
}

const LOOKS = "to look at the files";
const CONFIRMS = "to confirm it";

function waitOf(
  state: OrderState,
  now: readonly OrderStep[],
  questions: readonly OrderStep[],
  kind: OrderKind,
): OrderWait {
  if (questions.length > 0) return { on: "shop", what: "to answer what it asks", since: questions[0]!.on };
  const since = now.findLast((s) => s.state === state)?.on ?? now.at(-1)!.on;
  const { waits } = orderFacts(state);
  if (waits) return { ...waits, since };
  const isAccepted = now.some((s) => s.state === "accepted");
  const isPaid = now.some((s) => s.state === "paid");
  if (isAccepted && isPaid) {
    const both = now.findLast((s) => s.state === "accepted" || s.state === "paid")!;
    return { on: "house", what: kind === "parts" ? "to send it" : "to make it", since: both.on };
  }
  if (isAccepted) return { on: "shop", what: "to pay", since };
  return { on: "house", what: kind === "parts" ? CONFIRMS : LOOKS, since: now.at(-1)!.on };
}

/**
 * Holds a step against those before it: an answer needs a question, nothing goes out twice, and what was taken back is sent
 * again first.
 *
 * @param steps of the order so far
 * @throws AppError NOT_ALLOWED with what to do
 */
export function refuseStep(steps: readonly OrderStep[], state: OrderState, kind: OrderKind = "boards"): void {
  const refuse = (text: string, hint: string): never => {
    throw new AppError("NOT_ALLOWED", text, hint);
  };
  const now = ofNow(steps);
  const isBack = now.at(-1)?.state === "withdrawn";
  if (stepWords(state, kind) === undefined)
    refuse(
      `Parts that are bought are not “${orderFacts(state).words}”.`,
      "Write down that they are confirmed, paid or on their way.",
    );
  if (state === "sent" && now.some((s) => s.state === "sent") && !isBack)
    refuse(
      kind === "parts" ? "It is ordered already." : "Its files were sent already.",
      "Other files are another order: take this one back first, and release them as a revision of their own.",
    );
  if (state === "withdrawn" && (now.length === 0 || isBack))
    refuse("Nothing of it is out, so nothing can be taken back.", "Send it first.");
  if (state !== "sent" && isBack)
    refuse("The order was taken back.", "Send it again before anything else becomes of it.");
  const { questions } = orderStand(steps, { today: "", isHere: false });
  if (state === "answered" && questions.length === 0)
    refuse(
      kind === "parts" ? "It asks nothing that is open." : "The house asks nothing that is open.",
      "Write its question down first.",
    );
}
