import type { OrderKind } from "./order-key.ts";

/** What becomes of an order, whole: what it is called, who says it, how far the order is by it. */
export interface OrderStateFacts {
  /** On the page and in the history. */
  readonly words: string;
  /** What it is called of parts that are bought; null where that does not become of them. */
  readonly ofParts?: string | null;
  /** What is written beside it, where it is nothing without words. */
  readonly asks?: string;
  /** Somebody of the shop writes it down by itself; else it comes of sending. */
  readonly isWritten: boolean;
  /** A house that is talked with over the network is told it, says it itself, or either. */
  readonly talk?: "told" | "said" | "both";
  /** Its place on the way of an order, as it is drawn: the furthest one counts. */
  readonly stop?: number;
  /** A question that was asked before it is settled: the house went on, or it was answered. */
  readonly settles: boolean;
  /** Whom the order waits for while it stands so, where nothing else hangs on that. */
  readonly waits?: { readonly on: "house" | "carrier"; readonly what: string };
}

/**
 * Every state of an order at a house, once, in the order in which they usually come. Page, history, requests, what a house may
 * say and how an order stands derive from it; the database is held to it by a test.
 */
export const ORDER_STEPS = {
  sent: { words: "files sent", ofParts: "ordered", isWritten: false, stop: 0, settles: false },
  asked: { words: "it asks", asks: "Its question", isWritten: true, talk: "said", settles: false },
  answered: { words: "answered", asks: "The answer", isWritten: true, talk: "told", settles: true },
  accepted: {
    words: "files accepted",
    ofParts: "confirmed",
    isWritten: true,
    talk: "said",
    stop: 1,
    settles: true,
  },
  paid: { words: "paid", isWritten: true, talk: "told", stop: 2, settles: false },
  made: {
    words: "made",
    ofParts: null,
    isWritten: true,
    talk: "said",
    stop: 3,
    settles: true,
    waits: { on: "house", what: "to send it" },
  },
  shipped: {
    words: "on its way",
    isWritten: true,
    talk: "said",
    stop: 4,
    settles: true,
    waits: { on: "carrier", what: "to bring it" },
  },
  withdrawn: { words: "taken back", isWritten: true, talk: "both", settles: false },
} as const satisfies Readonly<Record<string, OrderStateFacts>>;

export type OrderState = keyof typeof ORDER_STEPS;
export const ORDER_STATES = Object.keys(ORDER_STEPS) as readonly OrderState[];

/** What is known of a state. */
export const orderFacts = (state: OrderState): OrderStateFacts => ORDER_STEPS[state];
/** What a state is called of an order of a kind; undefined where it does not become of one. */
export function stepWords(state: OrderState, kind: OrderKind): string | undefined {
  const { words, ofParts } = orderFacts(state);
  return kind === "parts" && ofParts !== undefined ? (ofParts ?? undefined) : words;
}
/** What a state is called at a house. */
export const STEP_WORDS = Object.fromEntries(ORDER_STATES.map((s) => [s, orderFacts(s).words])) as Readonly<
  Record<OrderState, string>
>;
/** What a house hears that is talked with over the network, after its files; all else it says itself. */
export const isTold = (state: OrderState): boolean => ["told", "both"].includes(orderFacts(state).talk ?? "");
/** What a house may say of an order over the network. */
export const SAID_BY_HOUSE = ORDER_STATES.filter((s) => ["said", "both"].includes(orderFacts(s).talk ?? ""));
/** The way of an order, stop by stop. */
export const ORDER_STOPS: readonly OrderState[] = ORDER_STATES.filter(
  (s) => orderFacts(s).stop !== undefined,
).sort((a, b) => orderFacts(a).stop! - orderFacts(b).stop!);
/** The way of an order of a kind. */
export const stopsOf = (kind: OrderKind): readonly OrderState[] =>
  ORDER_STOPS.filter((s) => stepWords(s, kind) !== undefined);
