import type {
  House,
  Measure,
  OfferChange,
  OpenLesson,
  OrderBrief,
  PanelPiece,
  PlannedTest,
  RunDocument,
  RunLine,
  RunOffer,
  RunRecord,
  RunSupplier,
  ShopSettings,
  Waiting,
} from "@kobbin/core";

/** The shop as the page knows it. */
export interface Shop extends ShopSettings {
  readonly id: string;
  readonly currency: string;
  readonly isDemo: boolean;
  readonly version: number;
}

/** What a member may do: all, or build, receive and note. */
export type Role = "owner" | "bench";

export interface SessionAnswer {
  readonly shop?: Shop;
  readonly person?: string;
  readonly role?: Role;
  /** All shops this person belongs to, this one among them. */
  readonly shops?: readonly { readonly id: string; readonly name: string; readonly role: Role }[];
  /** Whether anybody may start a shop here, or only with the code the server printed at its start. */
  readonly mayStart?: "yes" | "code" | "no";
  /** True when the demo shop may be entered with one click. */
  readonly demo: boolean;
}

/** What a run comes to, as the server computed and stored it. */
export interface RunSummary {
  readonly perGood: number;
  readonly cashNeeded: number;
  readonly start: number;
  readonly readyFrom: string;
  readonly readyTo: string;
  readonly blockers: number;
  readonly cautions: number;
  /** What the figures leave out, in words: they are at least, not the price. */
  readonly unpriced?: string;
  /** What it takes from the shelf: lot id → pieces. */
  readonly shelf?: Readonly<Record<string, number>>;
  /** Lessons of the shop that are open, by id; in no list of runs. Left out where they could not be held against it. */
  readonly lessons?: Readonly<Record<string, OpenLesson>>;
  /** The first open blocker or caution in working order, with its stage. */
  readonly next?: { readonly stage: string; readonly text: string; readonly do?: string };
  /** What it orders at whom; in no list of runs. */
  readonly orders?: readonly OrderBrief[];
  /** Its test plan, where some of it is tried besides the bench; in no list of runs. */
  readonly tests?: readonly PlannedTest[];
}

/** An order of a released run that is not all there yet. */
export interface WaitingRow extends Waiting {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly order: string;
  readonly kind: OrderBrief["kind"];
  readonly name: string;
  readonly currency: string;
  /** What its lines come to; freight and fees come on top. */
  readonly total: string;
}
/** An item of a test plan that is to be tried besides the bench, on boards that may be tried from the same day. */
export interface WaitingTest {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly item: string;
  readonly name: string;
  readonly words: string;
  readonly units: readonly number[];
  /** ISO day. */
  readonly from: string;
  readonly isDue: boolean;
}
/** The secret address of the shop's calendar: who made it, and when; neither where there is none. */
export interface CalendarAnswer {
  readonly person?: string;
  /** ISO instant. */
  readonly madeAt?: string;
}
/** What a shop waits for over all its runs, the most urgent first. */
export interface WaitingAnswer {
  readonly orders: readonly WaitingRow[];
  /** What is to be tried besides the bench on boards of released runs, by day. */
  readonly tests: readonly WaitingTest[];
  /** Released runs whose orders are being counted. */
  readonly counting: readonly { readonly runId: string; readonly run: string; readonly product: string }[];
}

export interface RunRow {
  readonly id: string;
  readonly name: string;
  readonly productId: string;
  readonly product: string;
  readonly revision: string;
  readonly goodBoards: number;
  readonly state: "open" | "released";
  /** What came of it is known, and it is put away. */
  readonly isClosed?: boolean;
  readonly updatedAt: string;
  readonly summary?: RunSummary;
  /** Of a released run: boards that were started, came good, and were scrapped. */
  readonly built?: { readonly started: number; readonly good: number; readonly scrapped: number };
  /** What its orders at houses wait for the shop to do; nothing where left out. */
  readonly waits?: readonly string[];
}

export interface ProductRow {
  readonly id: string;
  readonly name: string;
  readonly revisions: readonly {
    readonly id: string;
    readonly label: string;
    /** The first of its boards. */
    readonly boardId: string;
    /** Changes with what its picture hangs on beside its files. */
    readonly look: string;
    readonly boards: number;
    readonly widthMm?: number;
    readonly heightMm?: number;
    readonly layers: number;
    readonly lines: number;
    readonly createdAt: string;
  }[];
}

/** A board of the shop by what tells it again on a panel. */
export interface KnownBoard {
  readonly productId: string;
  readonly product: string;
  readonly revision: string;
  readonly board: string;
  readonly mark: PanelPiece;
}

export interface BenchAnswer {
  readonly products: readonly ProductRow[];
  readonly runs: readonly RunRow[];
}

export interface RevisionAnswer {
  readonly id: string;
  readonly productId: string;
  readonly product: string;
  readonly label: string;
  readonly boards: readonly {
    readonly id: string;
    readonly name: string;
    readonly perProduct: number;
    readonly measure: Measure;
  }[];
  readonly lines: readonly RunLine[];
}

export interface RunAnswer {
  readonly id: string;
  readonly version: number;
  readonly state: "open" | "released";
  readonly productId: string;
  readonly revisionId: string;
  /** Its boards, in the order of the document's. */
  readonly boardIds: readonly string[];
  /** Boards of other products that share its sheets, in the order of the document's. */
  readonly guestIds: readonly string[];
  /** Versions of what can be edited beside the run itself: lines, sums, variants, boards and houses, by id. */
  readonly versions: Readonly<Record<string, number>>;
  readonly remarks: readonly RemarkRow[];
  readonly document: RunDocument;
  readonly summary?: RunSummary;
  readonly releasedAt?: string;
  readonly packageSha256?: string;
  readonly askedAt?: string;
  /** What happened since the release. */
  readonly record?: RunRecord;
}

/** How a question to a supplier stands. */
export interface AskRow {
  readonly supplierId: string;
  readonly supplier: string;
  readonly state: "waiting" | "asking" | "answered" | "failed";
  /** How often it was asked, this question. */
  readonly tries: number;
  /** Why it did not answer, the last time. */
  readonly reason: string;
  readonly offers: number;
  /** Lines whose number it does not list. */
  readonly notListed: readonly string[];
  /** What it says otherwise than when it answered before. */
  readonly changes: readonly OfferChange[];
  /** When that was. */
  readonly before?: string;
  readonly since: string;
}
export interface AskAnswer {
  readonly asks: readonly AskRow[];
  readonly houses: readonly HouseAskRow[];
  readonly orders: readonly OrderAskRow[];
  /** Houses that answer over the network, by id. */
  readonly answering: readonly string[];
}

/** How the talk with a house about a sent order stands. */
export interface OrderAskRow {
  /** Key of the order. */
  readonly order: string;
  readonly house: string;
  readonly state: AskRow["state"];
  readonly tries: number;
  readonly reason: string;
  /** What the house calls it; empty until it has it. */
  readonly number: string;
  readonly since: string;
}

/** How a question to a house stands. */
export interface HouseAskRow {
  readonly houseId: string;
  readonly house: string;
  readonly state: AskRow["state"];
  readonly tries: number;
  readonly reason: string;
  readonly since: string;
}

/** What the shop has seen of a house: counts, and means of days over the orders where both are written down. */
export interface HouseRecord {
  readonly houseId: string;
  readonly orders: number;
  readonly promisedDays?: number;
  readonly realDays?: number;
  readonly boards: number;
  /** Of these set apart on arrival. */
  readonly apart: number;
  readonly questions: number;
}

/** A memory of corrections, keyed by a file's name with digits left aside. */
export interface CorrectionMemory {
  readonly roles: Readonly<
    Record<
      string,
      { readonly role: string; readonly side?: string; readonly index?: number; readonly plated?: boolean }
    >
  >;
  readonly columns: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

export type { House, RunLine, RunOffer, RunSupplier };

/** What a failed request carries. */
export interface Problem {
  readonly kind: "error";
  readonly code: string;
  readonly message: string;
  readonly hint: string;
  readonly details?: unknown;
}

/** A person's remark in the margin. */
export interface RemarkRow {
  readonly id: string;
  readonly stage: string;
  readonly lineId?: string;
  readonly text: string;
  readonly person: string;
  readonly at: string;
}

/** One line of a history. */
export interface HistoryRow {
  readonly id: string;
  readonly at: string;
  readonly person: string;
  readonly sentence: string;
  readonly productId?: string;
  readonly runId?: string;
  /** What it belongs to, in words: the product, the run. */
  readonly about: string;
  /** Stands, or was taken back by the change named. */
  readonly state: "stands" | "taken back" | "takes back" | "final";
  readonly undoneBy?: string;
  readonly isMine: boolean;
}
export interface HistoryAnswer {
  readonly changes: readonly HistoryRow[];
  /** The number before which the next page begins; absent at the end. */
  readonly before?: string;
}

/** Two values of one field, set by two people; in the details of STALE_VERSION. */
export interface ClashDetail {
  readonly field: string;
  /** Column, and below it the keys, of what clashes. */
  readonly path: readonly string[];
  readonly mine: unknown;
  readonly theirs: unknown;
  readonly person?: string;
  readonly at?: string;
}

export interface PresenceRow {
  readonly page: string;
  readonly person: string;
  readonly place: string;
}

/** What the page hears while it is open. */
export type LiveMessage =
  | {
      readonly kind: "change";
      readonly change: string;
      readonly person: string;
      readonly page?: string;
      readonly productId?: string;
      readonly revisionId?: string;
      readonly runId?: string;
      readonly says: string;
    }
  | { readonly kind: "figures"; readonly runId: string }
  | { readonly kind: "asking"; readonly runId: string }
  /** Places of its boards were read. */
  | { readonly kind: "places"; readonly runId: string }
  /** A backup that this page sent is being read back: so many of its rows are stored, then so many of its runs computed. */
  | {
      readonly kind: "restoring";
      readonly page: string;
      readonly what: "rows" | "runs";
      readonly done: number;
      readonly of: number;
    }
  | { readonly kind: "presence"; readonly here: readonly PresenceRow[] }
  | { readonly kind: "resync" };

export interface PeopleAnswer {
  readonly members: readonly {
    readonly id: string;
    readonly person: string;
    readonly role: Role;
    readonly isMe: boolean;
  }[];
  readonly invitations: readonly {
    readonly id: string;
    readonly role: Role;
    readonly note: string;
    readonly expiresAt: string;
  }[];
  /** Names that stand in the history and are no member's any more. */
  readonly left: readonly string[];
}
export interface SessionRow {
  readonly id: string;
  readonly agent: string;
  readonly createdAt: string;
  readonly seenAt: string;
  readonly isThis: boolean;
}
export interface AuditRow {
  readonly id: string;
  readonly at: string;
  readonly person: string;
  readonly what: string;
}
export interface InvitedAnswer {
  readonly shop: string;
  readonly role: Role;
}

/** What the command box finds in the shop's data. */
export interface FoundRow {
  readonly kind: "product" | "run" | "part" | "board" | "lot" | "lesson";
  readonly text: string;
  readonly more: string;
  /** Where it opens. */
  readonly to: string;
  /** The board it is, is made from or sits on, and what its picture hangs on beside its files. */
  readonly boardId: string | null;
  readonly look: string | null;
}
