import { type DataShape, LINE_FIELDS, ORDER_STATES, PART_FIELDS, shapes } from "@kobbin/core";

/** What a column holds, and so what may be restored into it. */
export type Column = DataShape | Ref;

/** A column that names a row of another table of the same shop. */
export interface Ref {
  /** A name of {@link DESCRIPTORS}; a test sees to it. */
  readonly to: string;
  readonly isOptional: boolean;
}

/** A recorded table of a shop: the columns of its key beside the shop, and every column with what it holds. */
export interface Descriptor {
  readonly key: readonly string[];
  readonly columns: Readonly<Record<string, Column>>;
}

const {
  text,
  whole,
  number,
  flag,
  day,
  instant,
  id,
  oneOf,
  list,
  mapOf,
  nullable,
  fields,
  anything,
  currency,
  matching,
  maybe,
} = shapes;
const to = (table: string): Ref => ({ to: table, isOptional: false });
const perhaps = (table: string): Ref => ({ to: table, isOptional: true });
const version = whole(1, 1e9);
// "12.50" as the database writes it, or a number of a backup's JSON
const decimal = number(0, 1e9);
const words = mapOf(text(300), 200);
/** Which of a run's orders: "parts", a supplier and another currency than its own; "boards" or "assembly" and a house. */
const ORDER_KEY = matching(/^(parts|boards|assembly) [\w-]{1,80}( [A-Z]{3})?$/, "an order of a run");

/** What a line of the bill holds, by its columns: from the one table of its fields. */
const LINE_COLUMNS = Object.fromEntries(
  Object.values(LINE_FIELDS).map(({ column, stored }) => [
    column,
    typeof stored === "function" ? stored : perhaps(stored.to),
  ]),
);

/** What a part of the library holds, likewise. */
const PART_COLUMNS = Object.fromEntries(
  Object.values(PART_FIELDS).map(({ column, stored }) => [column, stored]),
);

/** Every recorded table, parents first. Names of tables and columns in a statement come from here and nowhere else. */
export const DESCRIPTORS = {
  workshop: {
    key: ["id"],
    columns: {
      id,
      name: text(120, 1),
      currency,
      hourly_rate: decimal,
      tax_rate: number(0, 1),
      hours_per_day: number(0.01, 24),
      rates: shapes.ratesShape,
      is_demo: flag,
      decimal_mark: oneOf(".", ","),
      date_order: oneOf("dmy", "mdy", "ymd"),
      shows_mil: flag,
      attrition: shapes.lossesShape,
      rules: shapes.rulesShape,
      created_at: instant,
      version,
    },
  },
  supplier: {
    key: ["id"],
    columns: {
      id,
      feed_key: nullable(matching(/^[\w-]{1,60}$/, "the key of a feed")),
      name: text(120, 1),
      currency,
      shipping: decimal,
      free_from: nullable(decimal),
      days_min: whole(0, 365),
      days_max: whole(0, 365),
      small_order_below: nullable(decimal),
      small_order_fee: nullable(decimal),
      minimum_order: nullable(decimal),
      handling: nullable(decimal),
      duty_rate: number(0, 1),
      duty_on_freight: flag,
      source_class: oneOf("authorised", "broker", "private", "unknown"),
      includes_tax: flag,
      version,
    },
  },
  part: {
    key: ["id"],
    columns: {
      id,
      ...PART_COLUMNS,
      mpn_key: text(120),
      words: text(2000),
      created_at: instant,
      version,
    },
  },
  alternate: {
    key: ["id"],
    columns: {
      id,
      original: text(400, 1),
      part_id: to("part"),
      state: oneOf("proposed", "approved", "refused"),
      runs: nullable(list(id, 2000)),
      because: text(500),
      person: text(200),
      at: day,
      version,
    },
  },
  lot: {
    key: ["id"],
    columns: {
      id,
      mpn: text(120, 1),
      qty: whole(0, 1e8),
      place: text(120),
      received_on: day,
      unit_cost: decimal,
      currency,
      condition: oneOf("new", "opened", "salvaged", "quarantine"),
      donor: text(200),
      note: text(500),
      mpn_key: text(120),
      sample: nullable(
        fields({
          parameter: text(120),
          low: text(40),
          high: text(40),
          readings: list(text(40), 500),
          on: day,
        }),
      ),
      version,
    },
  },
  house: {
    key: ["id"],
    columns: {
      id,
      position: whole(-1e6, 1e6),
      profile: shapes.houseShape,
      copied_from: perhaps("house"),
      feed_key: nullable(matching(/^[\w-]{1,60}$/, "the key of a feed")),
      version,
    },
  },
  correction: {
    key: ["kind", "pattern"],
    columns: {
      kind: oneOf("role", "column", "list"),
      pattern: text(1000, 1),
      value: anything(6, 5000),
      updated_at: instant,
    },
  },
  product: {
    key: ["id"],
    columns: { id, name: text(120, 1), created_at: instant, version },
  },
  fit_row: {
    key: ["id"],
    columns: {
      id,
      product_id: to("product"),
      label: text(120, 1),
      board: nullable(text(200)),
      spec: shapes.fitSpecShape,
      play_mm: nullable(number(0, 100)),
      position: whole(-1e6, 1e6),
      version,
    },
  },
  foil: {
    key: ["id"],
    columns: {
      id,
      product_id: to("product"),
      name: shapes.FOIL_SHAPES.name,
      board: shapes.FOIL_SHAPES.board,
      foil_mm: shapes.FOIL_SHAPES.foilMm,
      form: shapes.FOIL_SHAPES.form,
      openings: shapes.FOIL_SHAPES.openings,
      without: shapes.FOIL_SHAPES.without,
      price: decimal,
      currency,
      made_on: day,
      cleaned_on: nullable(day),
      prints: shapes.FOIL_SHAPES.prints,
      place: shapes.FOIL_SHAPES.place,
      state: shapes.FOIL_SHAPES.state,
      note: shapes.FOIL_SHAPES.note,
      version,
    },
  },
  revision: {
    key: ["id"],
    columns: { id, product_id: to("product"), label: text(40, 1), created_at: instant, version },
  },
  board: {
    key: ["id"],
    columns: {
      id,
      revision_id: to("revision"),
      name: text(200, 1),
      per_product: whole(1, 1000),
      corrections: fields({
        roles: maybe(mapOf(anything(3, 20), 2000)),
        columns: maybe(mapOf(words, 2000)),
        moves: maybe(mapOf(anything(3, 20), 2000)),
      }),
      measure: shapes.measureShape,
      placements: list(shapes.placementShape, 500_000),
      position: whole(-1e6, 1e6),
      measured_at: instant,
      version,
    },
  },
  board_file: {
    key: ["board_id", "position"],
    columns: {
      board_id: to("board"),
      position: whole(0, 1e5),
      path: text(1000, 1),
      sha256: matching(/^[0-9a-f]{64}$/, "the hash of a file"),
    },
  },
  bom_line: {
    key: ["id"],
    columns: {
      id,
      revision_id: to("revision"),
      position: whole(-1e6, 1e6),
      ...LINE_COLUMNS,
      mpn_key: text(300),
      version,
    },
  },
  line_sum: {
    key: ["id"],
    columns: {
      id,
      revision_id: to("revision"),
      kind: matching(/^[a-z]{1,20}$/, "a kind of sum"),
      name: text(120),
      given: words,
      lines: mapOf(id, 50),
      wanted: text(60),
      within_pct: number(0, 1000),
      version,
    },
  },
  variant: {
    key: ["id"],
    columns: {
      id,
      revision_id: to("revision"),
      name: text(80, 1),
      overrides: shapes.overridesShape,
      version,
    },
  },
  offer: {
    key: ["id"],
    columns: {
      id,
      line_id: to("bom_line"),
      supplier_id: to("supplier"),
      part_id: perhaps("part"),
      stock: whole(0, 1e12),
      moq: whole(1, 1e9),
      multiple: whole(1, 1e9),
      packaging: text(200),
      currency,
      source: oneOf("feed", "typed", "pasted"),
      captured_on: day,
      valid_until: nullable(day),
      lead_days: nullable(whole(0, 1000)),
      restriction: text(500),
      fee: nullable(decimal),
      candidate: nullable(shapes.candidateShape),
      version,
    },
  },
  offer_break: {
    key: ["offer_id", "qty"],
    columns: { offer_id: to("offer"), qty: whole(1, 1e9), price: decimal },
  },
  run: {
    key: ["id"],
    columns: {
      id,
      revision_id: to("revision"),
      name: text(120, 1),
      state: oneOf("open", "released"),
      asked_at: nullable(instant),
      created_at: instant,
      version,
    },
  },
  reservation: {
    key: ["id"],
    columns: { id, lot_id: to("lot"), run_id: to("run"), qty: whole(1, 1e8), version },
  },
  fork: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      name: text(120, 1),
      version,
      good_boards: whole(1, 100_000),
      confidence: number(0.5, 0.999),
      house_id: perhaps("house"),
      options: shapes.optionsShape,
      assembly: shapes.assemblyShape,
      choices: shapes.choicesShape,
      summary: nullable(
        fields({
          perGood: number(),
          cashNeeded: number(),
          start: whole(),
          readyFrom: text(40),
          readyTo: text(40),
          blockers: whole(),
          cautions: whole(),
          unpriced: maybe(text(200)),
          next: maybe(fields({ stage: text(40), text: text(5000), do: maybe(text(5000)) })),
        }),
      ),
      updated_at: instant,
    },
  },
  quotation: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      house_id: to("house"),
      kind: oneOf("fab", "assembly"),
      total: decimal,
      currency,
      days: whole(0, 1000),
      captured_on: day,
      valid_until: nullable(day),
      basis: nullable(shapes.quoteBasisShape),
      question: text(500),
      answer: text(500),
      version,
    },
  },
  release: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      document: shapes.runShape,
      manifest: fields({
        files: list(fields({ path: text(1000), bytes: whole(0, 1e10), sha256: text(64) }), 5000),
      }),
      sha256: matching(/^[0-9a-f]{64}$/, "the hash of a file"),
      released_at: instant,
    },
  },
  purchase: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      order_key: ORDER_KEY,
      label: text(300),
      currency,
      ordered_on: nullable(day),
      promised_on: nullable(day),
      freight: nullable(decimal),
      paid: mapOf(shapes.money, 20_000),
      note: text(2000),
      version,
    },
  },
  order_step: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      order_key: ORDER_KEY,
      label: text(300),
      state: oneOf(...ORDER_STATES),
      on_day: day,
      words: text(2000),
      person: text(200),
      source: text(150),
      at: instant,
      version,
    },
  },
  receipt: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      order_key: ORDER_KEY,
      item: text(80, 1),
      label: text(300),
      qty: whole(1, 1e7),
      arrived_on: day,
      is_apart: flag,
      because: text(500),
      lot_id: perhaps("lot"),
      at: instant,
      version,
    },
  },
  bare_test: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      item: text(80, 1),
      receipt_id: perhaps("receipt"),
      label: text(80, 1),
      on_day: day,
      person: text(200),
      tried: whole(1, 100_000),
      faults: list(
        fields({ nets: list(text(200), 2, 1), at: text(200), expect: oneOf("joined", "apart") }),
        5000,
      ),
      note: text(2000),
      at: instant,
      version,
    },
  },
  work: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      on_day: day,
      person: text(200),
      started: whole(0, 1e6),
      good: whole(0, 1e6),
      reworked: whole(0, 1e6),
      scrapped: whole(0, 1e6),
      minutes: whole(0, 1e6),
      note: text(2000),
      at: instant,
      version,
    },
  },
  closing: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      closed_on: day,
      person: text(200),
      lesson: text(2000),
      outcome: shapes.outcomeShape,
      taken: mapOf(fields({ pieces: whole(-10_000_000, 10_000_000), isCounted: flag }), 20_000, shapes.UUID),
      version,
    },
  },
  remark: {
    key: ["id"],
    columns: {
      id,
      run_id: to("run"),
      stage: matching(/^[a-z-]{1,20}$/, "a stage"),
      line_id: perhaps("bom_line"),
      text: text(2000, 1),
      person: text(200),
      at: instant,
      version,
    },
  },
} as const satisfies Readonly<
  Record<string, { key: readonly string[]; columns: Readonly<Record<string, unknown>> }>
>;

/** One of the recorded tables. */
export type Table = keyof typeof DESCRIPTORS;
/** Table names, parents before children. */
export const TABLE_ORDER = Object.keys(DESCRIPTORS) as Table[];

const serial = whole(1, 9e15);

/** The record of what was changed: written with every change, read back with a backup, never changed by a person. */
export const RECORD = {
  change: {
    key: ["id"],
    columns: {
      id: serial,
      at: instant,
      account_id: nullable(id),
      person: text(200),
      sentence: text(600),
      product_id: nullable(id),
      revision_id: nullable(id),
      run_id: nullable(id),
      undoes: nullable(serial),
      undone_by: nullable(serial),
      is_final: flag,
      request_key: nullable(id),
      request_hash: nullable(text(200)),
      page: nullable(id),
      result: anything(12, 100_000),
    },
  },
  change_row: {
    key: ["id"],
    columns: {
      id: serial,
      change_id: serial,
      tbl: oneOf(...TABLE_ORDER),
      key: mapOf(anything(1, 1), 4),
      op: oneOf("insert", "update", "delete"),
      name: nullable(text(300)),
      version: nullable(whole(0, 2e9)),
      was: nullable(anything(20, 2_000_000)),
      became: nullable(anything(20, 2_000_000)),
    },
  },
} as const;

/** A table's descriptor. @throws Error where there is no such table: the name came from data */
export function descriptorOf(table: string): Descriptor {
  if (isTable(table)) return DESCRIPTORS[table] as unknown as Descriptor;
  if (Object.hasOwn(RECORD, table)) return RECORD[table as keyof typeof RECORD] as unknown as Descriptor;
  throw new Error(`no table: ${String(table).slice(0, 60)}`);
}

/** Whether a name is one of the recorded tables. */
export const isTable = (name: unknown): name is Table =>
  typeof name === "string" && Object.hasOwn(DESCRIPTORS, name);

/** Whether a column names a row of another table. */
export const isRef = (column: Column): column is Ref => typeof column !== "function";
