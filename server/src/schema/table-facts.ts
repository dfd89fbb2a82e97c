import { shapes } from "@kobbin/core";
import type { Table } from "./tables.ts";

const { MOST } = shapes;

/** So many rows of a table there may be, of each value of a column or of the shop, and what they are in words. */
export interface Bound {
  readonly most: number;
  /** The column they are counted by; of the shop where it is left out. */
  readonly of?: string;
  /** That column is of the row this one names here, in that table. */
  readonly via?: { readonly by: string; readonly table: Table };
  readonly what: string;
}

/** What a recorded table is to the rest of the server, beside what its columns hold. */
interface TableFact {
  /** What one row and several are called in the history; null where what they belong to is told. */
  readonly noun: readonly [one: string, many: string] | null;
  /**
   * Whose figures change with it: those of every open run of the shop, of every open run of the bill, of the run it is
   * written in (of the bill where it is written in none), or of no run.
   */
  readonly figures: "shop" | "bill" | "run" | "none";
  /** Columns no figure stands on. */
  readonly besides?: readonly string[];
  /** What of it is bounded by what a document holds; null where it is bounded by what it belongs to. */
  readonly bound: Bound | null;
  /** Columns that Kobbin makes itself, large, and judged where they are made. */
  readonly made?: readonly string[];
}

/** Every recorded table. A change is told by the first of these it touched. */
export const TABLE_FACTS = {
  release: {
    noun: ["release", "releases"],
    figures: "run",
    bound: null,
    made: ["document", "manifest"],
  },
  // the next runs of the product begin with it
  closing: { noun: ["closing", "closings"], figures: "shop", bound: null },
  purchase: { noun: ["order", "orders"], figures: "none", bound: null },
  order_step: { noun: ["step of an order", "steps of orders"], figures: "none", bound: null },
  receipt: { noun: ["receipt", "receipts"], figures: "none", bound: null },
  bare_test: { noun: ["trial of a bare board", "trials of bare boards"], figures: "none", bound: null },
  board_measured: {
    noun: ["measured board", "measured boards"],
    figures: "none",
    bound: null,
  },
  bare_kept: {
    noun: ["lot of bare boards put by", "lots of bare boards put by"],
    figures: "none",
    bound: { most: MOST.kept, of: "run_id", what: "lots of bare boards put by of a run" },
  },
  claim: { noun: ["claim", "claims"], figures: "none", bound: null },
  photo: {
    noun: ["photo", "photos"],
    figures: "none",
    bound: { most: MOST.photos, of: "run_id", what: "photos of a run" },
  },
  sitting: { noun: ["step at the bench", "steps at the bench"], figures: "none", bound: null },
  defect: { noun: ["defect", "defects"], figures: "none", bound: null },
  test_try: { noun: ["try of a test", "tries of tests"], figures: "none", bound: null },
  image_load: { noun: ["loaded image", "loaded images"], figures: "none", bound: null },
  work: { noun: ["entry of the bench", "entries of the bench"], figures: "none", bound: null },
  product: { noun: ["product", "products"], figures: "run", bound: null },
  // every run of the product is judged by it
  fit_row: {
    noun: ["row of the fit sheet", "rows of the fit sheet"],
    figures: "shop",
    bound: { most: MOST.fits, of: "product_id", what: "rows of a fit sheet" },
  },
  meet_row: {
    noun: ["connector and what is put onto it", "connectors and what is put onto them"],
    figures: "shop",
    bound: { most: MOST.meetings, of: "product_id", what: "connectors of a product" },
  },
  link_row: {
    noun: ["link", "links"],
    figures: "shop",
    bound: { most: MOST.links, of: "product_id", what: "links of a product" },
  },
  right_row: {
    noun: ["mark or borrowed thing", "marks and borrowed things"],
    figures: "shop",
    bound: { most: MOST.rights, of: "product_id", what: "marks and borrowed things of a product" },
  },
  foil: {
    noun: ["foil", "foils"],
    figures: "shop",
    bound: { most: MOST.foils, of: "product_id", what: "foils of a product" },
  },
  // every board is held against them
  lesson: { noun: ["lesson", "lessons"], figures: "shop", bound: { most: MOST.lessons, what: "lessons" } },
  lesson_catch: {
    noun: ["lesson that does not hold", "lessons that do not hold"],
    figures: "none",
    bound: null,
  },
  erratum: {
    noun: ["erratum", "errata"],
    figures: "shop",
    bound: { most: MOST.errata, of: "product_id", what: "errata of a product" },
  },
  revision_plan: {
    noun: ["decision on a next revision", "decisions on next revisions"],
    figures: "none",
    bound: null,
  },
  rework: { noun: ["reworked board", "reworked boards"], figures: "none", bound: null },
  unit_out: { noun: ["board that went out", "boards that went out"], figures: "none", bound: null },
  owner_report: {
    noun: ["report of an owner", "reports of owners"],
    figures: "none",
    bound: { most: MOST.reports, of: "product_id", what: "reports on a product" },
  },
  revision: { noun: ["revision", "revisions"], figures: "run", bound: null },
  run: { noun: ["run", "runs"], figures: "run", bound: null },
  board: {
    noun: ["board", "boards"],
    figures: "bill",
    bound: { most: MOST.boards, of: "revision_id", what: "boards of a product" },
    made: ["measure", "placements"],
  },
  bom_line: {
    noun: ["line", "lines"],
    figures: "bill",
    bound: { most: MOST.lines, of: "revision_id", what: "lines of a parts list" },
  },
  // the order of work is judged by what it is done with
  equipment: {
    noun: ["machine", "machines"],
    figures: "shop",
    bound: { most: MOST.equipment, what: "machines and tools" },
  },
  house: { noun: ["house", "houses"], figures: "shop", bound: { most: MOST.houses, what: "houses" } },
  supplier: {
    noun: ["supplier", "suppliers"],
    figures: "shop",
    bound: { most: MOST.suppliers, what: "suppliers" },
  },
  quotation: { noun: ["quotation", "quotations"], figures: "run", bound: null },
  variant: {
    noun: ["variant", "variants"],
    figures: "bill",
    bound: { most: MOST.variants, of: "revision_id", what: "variants of a product" },
  },
  line_sum: {
    noun: ["sum", "sums"],
    figures: "bill",
    bound: { most: MOST.sums, of: "revision_id", what: "sums of a parts list" },
  },
  part: {
    noun: ["part", "parts"],
    figures: "shop",
    bound: { most: MOST.parts, what: "parts in the library" },
  },
  alternate: {
    noun: ["alternate", "alternates"],
    figures: "shop",
    bound: { most: MOST.alternates, what: "substitutes in the library" },
  },
  lot: {
    noun: ["lot", "lots"],
    figures: "shop",
    // a bag is opened and closed while boards are built; when it was made changes no figure
    besides: ["air", "made"],
    bound: { most: MOST.lots, what: "lots on the shelf" },
  },
  reservation: { noun: ["reservation", "reservations"], figures: "shop", bound: null },
  offer: {
    noun: ["offer", "offers"],
    figures: "bill",
    bound: {
      most: MOST.offers,
      of: "revision_id",
      via: { by: "line_id", table: "bom_line" },
      what: "offers of a parts list",
    },
  },
  remark: { noun: ["remark", "remarks"], figures: "none", bound: null },
  fork: { noun: ["fork", "forks"], figures: "run", bound: null },
  workshop: { noun: ["workshop", "workshops"], figures: "shop", bound: null },
  offer_break: { noun: null, figures: "bill", bound: null },
  board_file: { noun: null, figures: "bill", bound: null },
  correction: { noun: null, figures: "none", bound: null },
} as const satisfies Readonly<Record<Table, TableFact>>;

const FACTS: Readonly<Record<Table, TableFact>> = TABLE_FACTS;

/** What is known of a table. */
export const tableFact = (table: Table): TableFact => FACTS[table];

/** Every recorded table in the order changes are told by. */
export const TOLD_FIRST = Object.keys(FACTS) as Table[];
