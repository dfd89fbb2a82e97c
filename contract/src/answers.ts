import type { House, Measure, RunDocument, RunLine, RunOffer, RunSupplier } from "@kobbin/core";

/** The shop as the page knows it. */
export interface Shop {
  readonly id: string;
  readonly name: string;
  readonly currency: string;
  readonly hourlyRate: string;
  readonly taxRate: number;
  readonly hoursPerDay: number;
  readonly rates: Readonly<Record<string, string>>;
  readonly isDemo: boolean;
}

export interface SessionAnswer {
  readonly shop?: Shop;
  readonly person?: string;
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
  /** The first open blocker or caution in working order, with its stage. */
  readonly next?: { readonly stage: string; readonly text: string };
}

export interface RunRow {
  readonly id: string;
  readonly name: string;
  readonly productId: string;
  readonly product: string;
  readonly revision: string;
  readonly goodBoards: number;
  readonly state: "open" | "released";
  readonly updatedAt: string;
  readonly summary?: RunSummary;
}

export interface ProductRow {
  readonly id: string;
  readonly name: string;
  readonly revisions: readonly {
    readonly id: string;
    readonly label: string;
    readonly boardId: string;
    readonly widthMm?: number;
    readonly heightMm?: number;
    readonly layers: number;
    readonly lines: number;
    readonly createdAt: string;
  }[];
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
  readonly board: { readonly id: string; readonly name: string; readonly measure: Measure };
  readonly lines: readonly RunLine[];
}

export interface RunAnswer {
  readonly id: string;
  readonly version: number;
  readonly state: "open" | "released";
  readonly productId: string;
  readonly revisionId: string;
  readonly boardId: string;
  readonly document: RunDocument;
  readonly summary?: RunSummary;
  readonly releasedAt?: string;
  readonly packageSha256?: string;
  readonly askedAt?: string;
}

export interface AskAnswer {
  readonly asked: number;
  readonly offers: number;
  /** Supplier name → line ids it does not list. */
  readonly notListed: Readonly<Record<string, readonly string[]>>;
  /** Suppliers that did not answer, with the reason. */
  readonly failed: readonly { readonly supplier: string; readonly reason: string }[];
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
