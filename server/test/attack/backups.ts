import { createHash } from "node:crypto";
import { unpackZip } from "@kobbin/formats";
import { zipSync } from "fflate";

type Row = Record<string, unknown>;

/** A backup taken apart, to be changed and sealed again as its writer would have. */
export class Forged {
  private readonly files = new Map<string, Uint8Array>();

  constructor(bytes: Uint8Array) {
    for (const f of unpackZip(bytes)) this.files.set(f.path, f.bytes);
  }

  rows(table: string): Row[] {
    return new TextDecoder()
      .decode(this.files.get(`tables/${table}.jsonl`))
      .split("\n")
      .filter((l) => l !== "")
      .map((l) => JSON.parse(l) as Row);
  }

  /** Puts other rows into a table, given as rows or as the bare lines. */
  put(table: string, rows: readonly (Row | string)[]): this {
    const text = rows.map((r) => `${typeof r === "string" ? r : JSON.stringify(r)}\n`).join("");
    this.files.set(`tables/${table}.jsonl`, new TextEncoder().encode(text));
    return this;
  }

  /** Changes every row, or those that are chosen. */
  change(table: string, how: (row: Row) => Row | string): this {
    return this.put(table, this.rows(table).map(how));
  }

  file(path: string, text: string): this {
    this.files.set(path, new TextEncoder().encode(text));
    return this;
  }

  /** The archive with counts and hashes that fit. */
  seal(over: Row = {}): Uint8Array {
    const manifest = JSON.parse(new TextDecoder().decode(this.files.get("manifest.json"))) as Row;
    const tables: Row = {};
    const sha256: Row = {};
    let files = 0;
    for (const [path, bytes] of this.files) {
      const table = /^tables\/(.+)\.jsonl$/.exec(path)?.[1];
      if (table) {
        tables[table] = new TextDecoder().decode(bytes).split("\n").length - 1;
        sha256[table] = createHash("sha256").update(bytes).digest("hex");
      } else if (path.startsWith("files/")) files++;
    }
    const all = new Map(this.files);
    all.set(
      "manifest.json",
      new TextEncoder().encode(JSON.stringify({ ...manifest, tables, sha256, files, ...over })),
    );
    return zipSync(Object.fromEntries(all));
  }
}

const OTHER = "0f0f0f0f-0000-4000-8000-00000000abcd";
const first = (rows: readonly Row[]) => rows[0]!;
const only = (how: (row: Row) => Row) => {
  let isDone = false;
  return (row: Row): Row => {
    if (isDone) return row;
    isDone = true;
    return how(row);
  };
};
const profile = (row: Row, over: Row): Row => ({ ...row, profile: { ...(row.profile as Row), ...over } });
const measure = (row: Row, over: Row): Row => ({ ...row, measure: { ...(row.measure as Row), ...over } });
/** A change of the record that was written, made to say something else. */
const recorded = (f: Forged, over: Row) =>
  f.change(
    "change_row",
    only((r) => ({ ...r, ...over })),
  );

const DAY = "2026-11-25";
/** What every row of what happened to a run has. */
const HAPPENED = { id: OTHER, person: "x", note: "", at: "2026-11-25T10:00:00+00:00", version: 1 };
const ERRATUM = {
  id: OTHER,
  title: "x",
  effect: "",
  harm: "worse",
  spot: { side: "top", diameterMm: 1 },
  way: "none",
  workaround: "",
  minutes: null,
  planned: "",
  evidence: "",
  found_on: DAY,
  decisions: {},
  position: 0,
  version: 1,
};
/** With another product in it. */
const withOther = (f: Forged): Forged =>
  f.put("product", [...f.rows("product"), { ...first(f.rows("product")), id: OTHER, name: "other" }]);
/** With another product that has a revision, and a fault of its own. */
const withOtherFault = (f: Forged): Forged =>
  withOther(f)
    .put("revision", [
      ...f.rows("revision"),
      { ...first(f.rows("revision")), id: OTHER, product_id: OTHER, label: "Z" },
    ])
    .put("erratum", [{ ...ERRATUM, product_id: OTHER, revision_id: OTHER }]);
const said = (f: Forged): Row => ({
  id: OTHER,
  product_id: first(f.rows("product")).id,
  run_id: null,
  unit: null,
  on_day: DAY,
  says: "x",
  conditions: "",
  workaround: "",
  answer: "",
  erratum_id: null,
  person: "x",
  at: HAPPENED.at,
  version: 1,
});
const runIn = (f: Forged, state: string) => f.rows("run").find((r) => r.state === state)!.id;
const closing = (run: unknown, taken: Row = {}): Row => ({
  id: OTHER,
  run_id: run,
  closed_on: DAY,
  person: "x",
  lesson: "",
  outcome: { method: "iron", good: 1, scrapped: 0, minutes: 5, modelMinutes: 5 },
  taken,
  version: 1,
});

type Hostile = readonly [string, (f: Forged) => Uint8Array];
/** Backups no Kobbin wrote; none may be taken. */
export const HOSTILE: readonly Hostile[] = [
  [
    "a statement as the name of a table in the record",
    (f) => recorded(f, { tbl: "run as t where false; copy workshop to program 'id'; --" }).seal(),
  ],
  ["another schema's table in the record", (f) => recorded(f, { tbl: "pg_catalog.pg_authid" }).seal()],
  ["a table of the door's in the record", (f) => recorded(f, { tbl: "account" }).seal()],
  [
    "a column of statements in the record",
    (f) =>
      recorded(f, {
        tbl: "bom_line",
        op: "update",
        key: { id: OTHER },
        was: { 'mpn" = (select 1)--': "x" },
        became: { mpn: "y" },
      }).seal(),
  ],
  [
    "a key of the record that is no key",
    (f) => recorded(f, { tbl: "bom_line", key: { "id or true": OTHER } }).seal(),
  ],
  [
    "a removed row with a column that is not there",
    (f) =>
      recorded(f, {
        tbl: "remark",
        op: "delete",
        key: { id: OTHER },
        was: { id: OTHER, evil: 1 },
        became: null,
      }).seal(),
  ],
  [
    "a change without what it changed",
    (f) => recorded(f, { tbl: "bom_line", op: "update", key: { id: OTHER }, was: null, became: null }).seal(),
  ],
  ["a row of the record that belongs to no change", (f) => recorded(f, { change_id: 999_999_999 }).seal()],
  ["an operation of the record that is none", (f) => recorded(f, { op: "truncate" }).seal()],
  ["a table the manifest made up", (f) => f.file("tables/pg_authid.jsonl", "").seal()],
  [
    "a table of accounts",
    (f) => f.file("tables/account.jsonl", `${JSON.stringify({ id: OTHER, email: "x" })}\n`).seal(),
  ],
  [
    "a line of another shop's revision",
    (f) =>
      f
        .change(
          "bom_line",
          only((r) => ({ ...r, revision_id: OTHER })),
        )
        .seal(),
  ],
  [
    "a remark on another shop's run",
    (f) =>
      f
        .change(
          "remark",
          only((r) => ({ ...r, run_id: OTHER })),
        )
        .seal(),
  ],
  [
    "a choice of another shop's house",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, house_id: OTHER })),
        )
        .seal(),
  ],
  [
    "a board of another shop's revision",
    (f) =>
      f
        .change(
          "board",
          only((r) => ({ ...r, revision_id: OTHER })),
        )
        .seal(),
  ],
  [
    "a file that is not in the archive",
    (f) =>
      f
        .change(
          "board_file",
          only((r) => ({ ...r, sha256: "0".repeat(64) })),
        )
        .seal(),
  ],
  ["no workshop", (f) => f.put("workshop", []).seal()],
  [
    "two workshops",
    (f) => f.put("workshop", [first(f.rows("workshop")), { ...first(f.rows("workshop")), id: OTHER }]).seal(),
  ],
  [
    "the same line twice",
    (f) => f.put("bom_line", [...f.rows("bom_line"), first(f.rows("bom_line"))]).seal(),
  ],
  [
    "an id that is none",
    (f) =>
      f
        .change(
          "run",
          only((r) => ({ ...r, id: "1 or 1=1" })),
        )
        .seal(),
  ],
  ["rows that are no rows", (f) => f.put("supplier", ["[1,2,3]", "12", '"x"', "null"]).seal()],
  ["rows that are no JSON", (f) => f.put("supplier", ["{"]).seal()],
  [
    "a text where a number is",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, good_boards: "many" })),
        )
        .seal(),
  ],
  [
    "a number below nothing",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, good_boards: -5 })),
        )
        .seal(),
  ],
  [
    "more boards than a run may have",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, good_boards: 1e9 })),
        )
        .seal(),
  ],
  [
    "choices that are a text",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, choices: "x".repeat(1000) })),
        )
        .seal(),
  ],
  [
    "options that are a list",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, options: [1] })),
        )
        .seal(),
  ],
  [
    "a method nobody knows",
    (f) =>
      f
        .change(
          "fork",
          only((r) => ({ ...r, assembly: { method: "magic" } })),
        )
        .seal(),
  ],
  [
    "a house without prices",
    (f) =>
      f
        .change(
          "house",
          only((r) => profile(r, { price: {} })),
        )
        .seal(),
  ],
  [
    "a house whose options are nothing",
    (f) =>
      f
        .change(
          "house",
          only((r) => profile(r, { options: { thickness: [] } })),
        )
        .seal(),
  ],
  [
    "a house that charges words",
    (f) =>
      f
        .change(
          "house",
          only((r) => profile(r, { price: { ...((r.profile as Row).price as Row), testSetup: "free" } })),
        )
        .seal(),
  ],
  [
    "a board measured as text",
    (f) =>
      f
        .change(
          "board",
          only((r) => ({ ...r, measure: "big" })),
        )
        .seal(),
  ],
  [
    "a board whose holes are no list",
    (f) =>
      f
        .change(
          "board",
          only((r) => measure(r, { holes: {} })),
        )
        .seal(),
  ],
  [
    "a board with findings that say nothing",
    (f) =>
      f
        .change(
          "board",
          only((r) => measure(r, { findings: [{}] })),
        )
        .seal(),
  ],
  [
    "a place that is no place",
    (f) =>
      f
        .change(
          "board",
          only((r) => ({ ...r, placements: [{ ref: 1, xMm: null }] })),
        )
        .seal(),
  ],
  [
    "a day the calendar does not have",
    (f) =>
      f
        .change(
          "offer",
          only((r) => ({ ...r, captured_on: "2026-02-31" })),
        )
        .seal(),
  ],
  [
    "a price that is none",
    (f) =>
      f
        .change(
          "offer_break",
          only((r) => ({ ...r, price: "NaN" })),
        )
        .seal(),
  ],
  ["a rate of nothing", (f) => f.change("workshop", (r) => ({ ...r, rates: { USD: "0" } })).seal()],
  [
    "losses of a kind nobody knows",
    (f) =>
      f
        .change("workshop", (r) => ({ ...r, attrition: { everything: { hand: [1, 1], machine: [1, 1] } } }))
        .seal(),
  ],
  [
    "a name with NUL in it",
    (f) =>
      f
        .change(
          "product",
          only((r) => ({ ...r, name: "a\u0000b" })),
        )
        .seal(),
  ],
  [
    "a column nobody knows",
    (f) =>
      f
        .change(
          "run",
          only((r) => ({ ...r, is_admin: true })),
        )
        .seal(),
  ],
  [
    "a released run whose document is none",
    (f) =>
      f
        .change(
          "release",
          only((r) => ({ ...r, document: {} })),
        )
        .seal(),
  ],
  [
    "work in which boards are good that were never begun",
    (f) =>
      f.put("work", [{ ...HAPPENED, run_id: runIn(f, "released"), on_day: DAY, good: 1_000_000 }]).seal(),
  ],
  [
    "bare boards that are put by and never came",
    (f) =>
      f
        .put("bare_kept", [
          {
            ...HAPPENED,
            note: undefined,
            run_id: runIn(f, "released"),
            item: f.rows("board")[0]!.id,
            is_apart: true,
            purpose: "gift",
            pieces: 5,
            place: "",
            on_day: DAY,
          },
        ])
        .seal(),
  ],
  [
    "work on a run that is not released",
    (f) => f.put("work", [{ ...HAPPENED, run_id: runIn(f, "open"), on_day: DAY, started: 1 }]).seal(),
  ],
  ["a closing of a run that is open", (f) => f.put("closing", [closing(runIn(f, "open"))]).seal()],
  [
    "a closing that takes of a lot that is none",
    (f) =>
      f.put("closing", [closing(runIn(f, "released"), { [OTHER]: { pieces: 5, isCounted: true } })]).seal(),
  ],
  [
    "an erratum that was found in a revision of another product",
    (f) =>
      withOther(f)
        .put("erratum", [{ ...ERRATUM, product_id: OTHER, revision_id: first(f.rows("revision")).id }])
        .seal(),
  ],
  [
    "a board reworked for a fault of another product",
    (f) =>
      withOtherFault(f)
        .put("rework", [
          {
            ...HAPPENED,
            at: undefined,
            erratum_id: OTHER,
            run_id: runIn(f, "released"),
            unit: 1,
            on_day: DAY,
            minutes: null,
            is_scrapped: false,
          },
        ])
        .seal(),
  ],
  [
    "an owner who says something of half a board",
    (f) => f.put("owner_report", [{ ...said(f), run_id: runIn(f, "released") }]).seal(),
  ],
  [
    "an owner who says something of another product's board",
    (f) =>
      withOther(f)
        .put("owner_report", [{ ...said(f), product_id: OTHER, run_id: runIn(f, "released"), unit: 1 }])
        .seal(),
  ],
  [
    "an owner who says that it is another product's fault",
    (f) =>
      withOtherFault(f)
        .put("owner_report", [{ ...said(f), erratum_id: OTHER }])
        .seal(),
  ],
  [
    "a board that went out twice",
    (f) =>
      f
        .put(
          "unit_out",
          [OTHER, first(f.rows("run")).id].map((id) => ({
            id,
            run_id: runIn(f, "released"),
            unit: 1,
            on_day: DAY,
            towards: "x",
            holder: "",
            reach: "",
            person: "x",
            version: 1,
          })),
        )
        .seal(),
  ],
  [
    "a product whose next revision is decided twice",
    (f) =>
      f
        .put(
          "revision_plan",
          [true, false].map((is_needed, i) => ({
            id: i === 0 ? OTHER : first(f.rows("run")).id,
            product_id: first(f.rows("product")).id,
            is_needed,
            because: "",
            begins: "",
            on_day: DAY,
            person: "x",
            version: 1,
          })),
        )
        .seal(),
  ],
  [
    "a bare board with more faults than were tried",
    (f) =>
      f
        .put("bare_test", [
          {
            ...HAPPENED,
            run_id: runIn(f, "released"),
            item: "board 0",
            label: "1",
            on_day: DAY,
            tried: 1,
            faults: ["top", "bottom"].map((at) => ({ nets: ["A", "B"], at, expect: "apart" })),
          },
        ])
        .seal(),
  ],
  ...[
    { value: "NaN" },
    { value: "3,31" },
    { verdict: "maybe" },
    { bound: "=" },
    { limits: { min: ["3"] } },
    { unit: 0 },
  ].map(
    (wrong): Hostile => [
      `a try of a test that is none: ${JSON.stringify(wrong)}`,
      (f) => {
        const kept = {
          unit: 1,
          item: "a",
          name: "a",
          on_day: DAY,
          value: null,
          bound: null,
          limits: {},
          verdict: "pass",
          words: "",
        };
        const { note: _, ...happened } = HAPPENED;
        return f.put("test_try", [{ ...happened, run_id: runIn(f, "released"), ...kept, ...wrong }]).seal();
      },
    ],
  ),
  ...[{ code: "gremlin" }, { minutes: -1 }, { step: 0 }, { is_mended: "yes" }].map(
    (wrong): Hostile => [
      `a fault that is none: ${JSON.stringify(wrong)}`,
      (f) => {
        const kept = {
          unit: 1,
          place: "U1",
          code: "bridge",
          step: null,
          on_day: DAY,
          minutes: null,
          is_mended: false,
        };
        return f.put("defect", [{ ...HAPPENED, run_id: runIn(f, "released"), ...kept, ...wrong }]).seal();
      },
    ],
  ),
  ...[{ sha256: "ab" }, { socket: 0 }, { given: { a: 1 } }, { is_right: 1 }, { wiped_on: "soon" }].map(
    (wrong): Hostile => [
      `a loaded image that is none: ${JSON.stringify(wrong)}`,
      (f) => {
        const kept = {
          unit: 1,
          image: "w",
          name: "watch",
          version_text: "1",
          place: "J1",
          sha256: null,
          is_right: true,
          said: "",
          given: {},
          wiped_on: null,
          socket: null,
          on_day: DAY,
        };
        const { note: _, ...happened } = HAPPENED;
        return f.put("image_load", [{ ...happened, run_id: runIn(f, "released"), ...kept, ...wrong }]).seal();
      },
    ],
  ),
  [
    "two lots of one number",
    (f) => {
      const lot = {
        id: OTHER,
        number: 7,
        mpn: "A-1",
        qty: 1,
        place: "",
        received_on: DAY,
        unit_cost: "1",
        currency: "EUR",
        condition: "new",
        donor: "",
        note: "",
        mpn_key: "a1",
        sample: null,
        version: 1,
      };
      return f.put("lot", [lot, { ...lot, id: OTHER.replace(/.$/, "e") }]).seal();
    },
  ],
  // a file of the shop that is no photo, one that is not there, and photos of nothing
  ...[
    {},
    { sha256: "0".repeat(64) },
    { unit: null },
    { item: "x" },
    { width_px: 2001 },
    { defect_id: OTHER },
  ].map(
    (wrong): Hostile => [
      `a photo that is none: ${JSON.stringify(wrong)}`,
      (f) =>
        f
          .put("photo", [
            {
              ...HAPPENED,
              run_id: runIn(f, "released"),
              order_key: null,
              item: null,
              unit: 1,
              defect_id: null,
              sha256: f.rows("board_file")[0]!.sha256,
              width_px: 12,
              height_px: 8,
              on_day: DAY,
              ...wrong,
            },
          ])
          .seal(),
    ],
  ),
  ["a released run without what it was released with", (f) => f.put("release", []).seal()],
  [
    "a board without a size",
    (f) =>
      f
        .change(
          "board",
          only((r) =>
            measure(r, { outline: { ...((r.measure as Row).outline as Row), widthMm: 0, heightMm: 0 } }),
          ),
        )
        .seal(),
  ],
  [
    "more houses than a shop may have",
    (f) =>
      f
        .put(
          "house",
          Array.from(
            { length: 501 },
            (_, i): Row => ({
              ...first(f.rows("house")),
              id:
                i === 0
                  ? first(f.rows("house")).id
                  : `0f0f0f0f-0000-4000-8000-${String(i).padStart(12, "0")}`,
            }),
          ).concat(f.rows("house").slice(1)),
        )
        .seal(),
  ],
  ["a manifest whose tables are a text", (f) => f.seal({ tables: "all" })],
  ["a manifest without a day", (f) => f.seal({ createdAt: "yesterday" })],
  ["fewer files than it says", (f) => f.seal({ files: 99 })],
];
