import type { Method } from "../../assembly/method.ts";
import type { BoardTime } from "../../assembly/time.ts";
import type { YieldEstimate } from "../../assembly/yield.ts";
import type { CostNode } from "../../costing/tree.ts";
import type { House } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import type { Micros } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, BoardCheck, StageKey } from "../document/note.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunRecord, Tally } from "../document/record.ts";
import type { RunNeed } from "../document/run-need.ts";
import type { RunSides } from "../document/sides.ts";
import type { ActualTerm, Counts } from "../ledger/actual.ts";
import type { PartUse } from "../needs/usage.ts";
import type { AssemblyPlan } from "../orders/assembly-house.ts";
import type { BoardOrder, GuestOrder } from "../orders/order-boards.ts";
import type { Asking, WhatIf } from "./effect.ts";
import type { Minutes } from "./minutes.ts";
import type { Branches } from "./ready.ts";
import type { CashTerm } from "./result.ts";

/** What is worked out of a run before its stages speak of it. */
export interface Worked {
  readonly doc: RunDocument;
  readonly parts: readonly LinePart[];
  readonly quality: YieldEstimate;
  readonly start: number;
  readonly needs: readonly RunNeed[];
  readonly basket: Basket;
  /** What the invoices of the basket's goods come to. */
  readonly invoiced: Micros;
  readonly house: House | undefined;
  readonly options: FabOptions | undefined;
  readonly checks: readonly BoardCheck[];
  readonly orders: readonly BoardOrder[];
  readonly guests: readonly GuestOrder[];
  readonly sides: RunSides;
  /** The ways its parts go. */
  readonly goes: ReadonlySet<Method>;
  readonly plan: AssemblyPlan | undefined;
  readonly time: BoardTime;
  readonly minutes: Minutes;
}

/** What happened to a run, beside what was worked out of its document. */
export interface Happened {
  readonly w: Worked;
  /** The stage's own branch of the cost, as planned. */
  readonly planned: CostNode;
  readonly record: RunRecord;
  readonly tally: Tally;
  readonly counts: Counts;
  /** What each purchase used, in the order of the needs. */
  readonly uses: readonly PartUse[];
}

/**
 * What a stage contributes to a run. The roll-up folds the list of stages and knows none of them: cost is the sum of their
 * branches, cash of their terms, the dates come of their days.
 */
export interface Stage {
  readonly key: StageKey;
  readonly cost?: (w: Worked) => CostNode | undefined;
  readonly cash?: (w: Worked) => readonly CashTerm[];
  /** Days it takes by itself, as the spine shows them. */
  readonly days?: (w: Worked) => number;
  /** Its part of the way to the date on which all is ready. */
  readonly ready?: (w: Worked) => Partial<Branches>;
  readonly notes?: (w: Worked, add: Add) => void;
  /** Its cost as planned and as it came; the planned amounts sum to its branch. Where left out all came as planned. */
  readonly actual?: (h: Happened) => readonly ActualTerm[];
  /** What its alternatives would change. */
  readonly effects?: (ask: Asking) => Partial<WhatIf>;
}
