import { LINE_FIELDS, PART_FIELDS, SHOP_FIELDS, shapes } from "@kobbin/core";
import { decimal, perhaps, to, version, words } from "./columns.ts";

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

/** What a shop says of itself, likewise. */
const SETTING_COLUMNS = Object.fromEntries(
  Object.values(SHOP_FIELDS).map(({ column, stored }) => [column, stored]),
);

/** Tables of a shop and its products, parents first. */
export const SHOP_TABLES = {
  workshop: {
    key: ["id"],
    columns: {
      id,
      currency,
      is_demo: flag,
      ...SETTING_COLUMNS,
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
      is_made_up: flag,
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
  meet_row: {
    key: ["id"],
    columns: {
      id,
      product_id: to("product"),
      board: nullable(text(200)),
      ref: text(80, 1),
      other: text(120, 1),
      spec: shapes.meetSpecShape,
      position: whole(-1e6, 1e6),
      version,
    },
  },
  link_row: {
    key: ["id"],
    columns: {
      id,
      product_id: to("product"),
      board: nullable(text(200)),
      ref: text(80, 1),
      spec: shapes.linkSpecShape,
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
      placements: list(shapes.placementShape, shapes.MOST.placements),
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
} as const;
