/** What is looked at of a line of the bill. */
export interface FactLine {
  readonly refs: readonly string[];
  readonly valueText: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
}
