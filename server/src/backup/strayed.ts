import {
  AppError,
  addTo,
  type BareKept,
  isOfRun,
  isTime,
  refuseMiscount,
  refuseOverKept,
  tallyOf,
  usableProducts,
} from "@kobbin/core";
import { TABLE_ORDER } from "../schema/tables.ts";

type Row = Readonly<Record<string, unknown>>;
type RowsOf = (table: string) => readonly Row[];

/**
 * What rows of a backup say together that nobody could have written down, though each by itself is one: of runs that are not
 * released, of boards that were never begun, of lots that are none.
 *
 * @param rowsOf rows whose columns were held against their tables before
 * @returns sentences, none where all is well
 */
export function strayed(rowsOf: RowsOf): string[] {
  return [...outOfTime(rowsOf), ...miscounted(rowsOf), ...saidTwice(rowsOf), ...notTheirs(rowsOf)];
}

const groupBy = (rows: readonly Row[], of: string): Map<unknown, Row[]> => {
  const groups = new Map<unknown, Row[]>();
  for (const r of rows) addTo(groups, r[of], r);
  return groups;
};

/** What happens only to a released run; and each released run has what it was released with. */
function outOfTime(rowsOf: RowsOf): string[] {
  const wrong: string[] = [];
  const states = new Map(
    rowsOf("run").map((r) => [r.id, r.state === "released" ? "released" : "open"] as const),
  );
  for (const table of TABLE_ORDER) {
    if (!isOfRun(table) || isTime(table, "open")) continue;
    const stray = rowsOf(table).findIndex((r) => states.get(r.run_id) === "open");
    if (stray >= 0) wrong.push(`row ${stray + 1} of ${table} is of a run that is not released`);
  }
  const released = new Set(rowsOf("release").map((r) => r.run_id));
  const lost = rowsOf("run").findIndex((r) => (states.get(r.id) === "released") !== released.has(r.id));
  if (lost >= 0) wrong.push(`row ${lost + 1} of run and its release do not fit together`);
  return wrong;
}

/** Of what there is one row at most, beside its id, by table. */
const ONCE: readonly (readonly [table: string, keys: readonly string[], words: string])[] = [
  ["rework", ["erratum_id", "run_id", "unit"], "one board"],
  ["unit_out", ["run_id", "unit"], "one board"],
  ["revision_plan", ["product_id"], "one product"],
];

/** No two rows that say of one thing where it stands. */
function saidTwice(rowsOf: RowsOf): string[] {
  const wrong: string[] = [];
  for (const [table, keys, words] of ONCE) {
    const seen = new Set<string>();
    for (const [n, r] of rowsOf(table).entries()) {
      const key = JSON.stringify(keys.map((k) => r[k]));
      if (seen.has(key)) wrong.push(`row ${n + 1} of ${table} says of ${words} what another says`);
      seen.add(key);
    }
  }
  return wrong;
}

/** Boards are conserved: none is good that was not started, none begun that did not come. */
function miscounted(rowsOf: RowsOf): string[] {
  const wrong: string[] = [];
  const documents = new Map(rowsOf("release").map((r) => [r.run_id, r.document as Row]));
  const receipts = groupBy(rowsOf("receipt"), "run_id");
  const works = groupBy(rowsOf("work"), "run_id");
  const puts = groupBy(rowsOf("bare_kept"), "run_id");
  for (const run of new Set([...works.keys(), ...puts.keys()])) {
    const boards = ((documents.get(run)?.boards ?? []) as Row[]).map((b, i) => ({
      item: String(b.id ?? `board ${i}`),
      perProduct: Number(b.perProduct),
    }));
    const came = (receipts.get(run) ?? []).map((r) => ({
      id: "",
      arrivedOn: "",
      because: "",
      order: String(r.order_key),
      item: String(r.item),
      qty: Number(r.qty),
      isApart: r.is_apart === true,
    }));
    const kept = (puts.get(run) ?? []).map((k) => ({
      item: String(k.item),
      isApart: k.is_apart === true,
      purpose: k.purpose as BareKept["purpose"],
      pieces: Number(k.pieces),
    }));
    const done = (works.get(run) ?? []).map((w) => ({
      id: "",
      on: "",
      ...(Object.fromEntries(
        ["started", "good", "reworked", "scrapped", "minutes"].map((k) => [k, Number(w[k] ?? 0)]),
      ) as Record<"started" | "good" | "reworked" | "scrapped" | "minutes", number>),
    }));
    try {
      refuseOverKept(
        { receipts: came, kept },
        boards.map((b) => b.item),
      );
      refuseMiscount(tallyOf(done), usableProducts({ receipts: came, kept }, boards));
    } catch (error) {
      if (!(error instanceof AppError)) throw error;
      wrong.push(`a run's boards do not add up: ${error.message.replace(/\.$/, "")}`);
    }
  }
  return wrong;
}

/** Rows that name what is none of their run's. */
function notTheirs(rowsOf: RowsOf): string[] {
  const wrong: string[] = [];
  const runOf = new Map(rowsOf("receipt").map((r) => [r.id, r.run_id]));
  for (const [n, t] of rowsOf("bare_test").entries()) {
    const where = `row ${n + 1} of bare_test`;
    if ((t.faults as unknown[]).length > Number(t.tried))
      wrong.push(`${where} has more faults than were tried`);
    if (t.receipt_id && runOf.get(t.receipt_id) !== t.run_id)
      wrong.push(`${where} is of a delivery of another run`);
  }
  for (const [n, b] of rowsOf("board_measured").entries())
    if (b.receipt_id && runOf.get(b.receipt_id) !== b.run_id)
      wrong.push(`row ${n + 1} of board_measured is of a delivery of another run`);
  const numbers = new Set<unknown>();
  for (const [n, l] of rowsOf("lot").entries()) {
    // one of before lots had numbers takes the next
    if (l.number !== undefined && numbers.has(l.number))
      wrong.push(`row ${n + 1} of lot has the number of another`);
    numbers.add(l.number);
  }
  const faults = new Map(rowsOf("defect").map((d) => [d.id, d]));
  for (const [n, p] of rowsOf("photo").entries()) {
    const where = `row ${n + 1} of photo`;
    const isOfOrder = (p.order_key ?? null) !== null;
    if (isOfOrder !== ((p.item ?? null) !== null) || isOfOrder === ((p.unit ?? null) !== null))
      wrong.push(`${where} shows neither what came nor one board`);
    const fault = p.defect_id ? faults.get(p.defect_id) : undefined;
    if (fault && (fault.run_id !== p.run_id || fault.unit !== p.unit))
      wrong.push(`${where} shows a fault of another board`);
  }
  const productOf = new Map(rowsOf("revision").map((r) => [r.id, r.product_id]));
  const ofRun = new Map(rowsOf("run").map((r) => [r.id, productOf.get(r.revision_id)]));
  const ofErratum = new Map(rowsOf("erratum").map((r) => [r.id, r.product_id]));
  for (const [n, w] of rowsOf("rework").entries())
    if (ofRun.get(w.run_id) !== ofErratum.get(w.erratum_id))
      wrong.push(`row ${n + 1} of rework is of another product than its erratum`);
  for (const [n, r] of rowsOf("owner_report").entries()) {
    const where = `row ${n + 1} of owner_report`;
    if ((r.run_id ?? null) === null ? (r.unit ?? null) !== null : (r.unit ?? null) === null)
      wrong.push(`${where} names half a board`);
    if (r.run_id && ofRun.get(r.run_id) !== r.product_id)
      wrong.push(`${where} is of another product than its board`);
    if (r.erratum_id && ofErratum.get(r.erratum_id) !== r.product_id)
      wrong.push(`${where} is of another product than its fault`);
  }
  for (const [n, e] of rowsOf("erratum").entries())
    if (productOf.get(e.revision_id) !== e.product_id)
      wrong.push(`row ${n + 1} of erratum was found in a revision of another product`);
  // a lot that was removed since is known from the record
  const lots = new Set([
    ...rowsOf("lot").map((r) => r.id),
    ...rowsOf("change_row").flatMap((r) => (r.tbl === "lot" ? [(r.key as Row | null)?.id] : [])),
  ]);
  for (const [n, c] of rowsOf("closing").entries())
    if (Object.keys((c.taken ?? {}) as Row).some((lot) => !lots.has(lot)))
      wrong.push(`row ${n + 1} of closing takes of a lot that is not there`);
  return wrong;
}
