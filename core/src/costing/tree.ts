import { type Micros, microsToNumber } from "../money/money.ts";

/** One term of a sum: what it is, how it came about, what it is worth. */
export interface Term {
  readonly label: string;
  readonly micros: number;
  /** The numbers behind it, as "261 × 0.008". */
  readonly note?: string;
  /** Where the numbers came from. */
  readonly from?: string;
}

/** A node of the cost tree; a node's micros are the sum of its children or of its terms. */
export interface CostNode {
  readonly key: string;
  readonly label: string;
  readonly micros: Micros;
  /** Part that does not change with the number of boards. */
  readonly fixedMicros: Micros;
  readonly terms: readonly Term[];
  readonly children: readonly CostNode[];
}

const sum = (list: readonly { readonly micros: number }[]) => list.reduce((s, t) => s + t.micros, 0);

/** A node over terms, kept to whole millionths. */
export function leaf(key: string, label: string, terms: readonly Term[], fixedMicros = 0): CostNode {
  return {
    key,
    label,
    micros: Math.round(sum(terms)) as Micros,
    fixedMicros: Math.round(fixedMicros) as Micros,
    terms,
    children: [],
  };
}

/** A node over nodes. */
export function branch(key: string, label: string, children: readonly CostNode[]): CostNode {
  return {
    key,
    label,
    micros: sum(children) as Micros,
    fixedMicros: children.reduce((s, c) => s + c.fixedMicros, 0) as Micros,
    terms: [],
    children,
  };
}

/** The tree as it stands in `cost/1`. */
export interface CostTree {
  readonly label: string;
  readonly fixed: number;
  readonly variable: number;
  readonly perGood: number;
  readonly children: readonly CostTree[];
}

/** Plain numbers of a node for a document. @param good expected good boards */
export function toCostTree(node: CostNode, good: number): CostTree {
  return {
    label: node.label,
    fixed: microsToNumber(node.fixedMicros),
    variable: microsToNumber(node.micros - node.fixedMicros),
    perGood: microsToNumber(node.micros / good),
    children: node.children.map((c) => toCostTree(c, good)),
  };
}
