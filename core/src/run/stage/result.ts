import type { Method } from "../../assembly/method.ts";
import type { BoardTime } from "../../assembly/time.ts";
import type { YieldEstimate } from "../../assembly/yield.ts";
import type { CostNode } from "../../costing/tree.ts";
import type { House } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import type { Micros } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import type { BoardCheck, Note, StageKey } from "../document/note.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunNeed } from "../document/run-need.ts";
import type { RunSides } from "../document/sides.ts";
import type { ActualRun } from "../ledger/actual.ts";
import type { AssemblyPlan } from "../orders/assembly-house.ts";
import type { Unpriced } from "../orders/complete.ts";
import type { BoardOrder, GuestOrder } from "../orders/order-boards.ts";
import type { Minutes } from "./minutes.ts";
import type { ReadyBy } from "./ready.ts";

/** Everything about one run, computed. */
export interface RunResult {
  readonly start: number;
  readonly expectedGood: number;
  readonly chance: number;
  readonly yield: YieldEstimate;
  readonly parts: readonly LinePart[];
  readonly needs: readonly RunNeed[];
  readonly basket: Basket;
  readonly baskets: readonly Basket[];
  /** What the invoices of the basket's goods come to, in the shop's currency. */
  readonly invoiced: Micros;
  readonly house?: House;
  readonly options?: FabOptions;
  readonly checks: readonly BoardCheck[];
  readonly orders: readonly BoardOrder[];
  /** Boards of other products on the same sheets: paid with them, and no cost of the run. */
  readonly guests: readonly GuestOrder[];
  readonly sides: RunSides;
  /** The ways its parts go. */
  readonly goes: ReadonlySet<Method>;
  /** What a house does of it, where one places the parts. */
  readonly assembly?: AssemblyPlan;
  readonly time: BoardTime;
  readonly ownMinutes: number;
  /** Those minutes by what they go into. */
  readonly minutes: Minutes;
  readonly tree: CostNode;
  readonly total: Micros;
  readonly perGood: Micros;
  readonly cashNeeded: Micros;
  /** Worth of the parts that stay as stock, at what they cost; not in `total`. */
  readonly leftover: Micros;
  readonly cash: readonly CashTerm[];
  readonly ready: ReadyBy;
  /** What the figures leave out: while there is anything, cost, cash and days are a lower bound. */
  readonly unpriced: Unpriced;
  readonly notes: readonly Note[];
  readonly blockers: readonly Note[];
  /** Plan against what happened, where a record was given. */
  readonly actual?: ActualRun;
  readonly stages: Readonly<Record<StageKey, { readonly micros: number; readonly days: number }>>;
}

/** Baskets already found for the same needs, shared between what-ifs of one run. */
export type BasketCache = Map<string, Basket[]>;

/** Money that goes out; what is done with a term goes by its key. */
export interface CashTerm {
  readonly key: string;
  readonly label: string;
  readonly micros: number;
  readonly note?: string;
  /** Stands in none of the planned orders. */
  readonly isBeside?: boolean;
}
