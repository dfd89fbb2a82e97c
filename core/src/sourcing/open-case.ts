/** A case that the search could not close: suppliers open, and the goods value some of them must reach. */
export interface OpenCase {
  readonly open: number;
  /** Goods each supplier must reach; 0 where nothing is asked. */
  readonly floors: readonly number[];
  /** Fees that are paid in this case. */
  readonly fees: number;
  /** No basket of this case is cheaper. */
  readonly bound: number;
  /** Weight of each supplier's prices under which the bound holds. */
  readonly weights: readonly number[];
}
