import { randomUUID } from "node:crypto";
import type { RunOffer, RunSupplier, SourceClass } from "@kobbin/core";
import { addTo } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";
import type { Found, StoredOffer } from "./found.ts";

/** A supplier with the key of its feed, where it has one. */
export interface SupplierRow extends RunSupplier {
  readonly feedKey: string | null;
  readonly version: number;
}

export async function manySuppliers(tx: Tx): Promise<SupplierRow[]> {
  const { rows } = await tx.query<{
    id: string;
    feedKey: string | null;
    name: string;
    currency: string;
    shipping: string;
    freeFrom: string | null;
    daysMin: number;
    daysMax: number;
    below: string | null;
    fee: string | null;
    minimumOrder: string | null;
    handling: string | null;
    dutyRate: string;
    dutyOnFreight: boolean;
    sourceClass: SourceClass;
    includesTax: boolean;
    version: number;
  }>(
    `select id, feed_key as "feedKey", name, currency, shipping, free_from as "freeFrom", days_min as "daysMin", days_max as "daysMax",
            small_order_below as below, small_order_fee as fee, minimum_order as "minimumOrder", handling, duty_rate as "dutyRate", duty_on_freight as "dutyOnFreight",
            source_class as "sourceClass", includes_tax as "includesTax", version
     from supplier order by feed_key nulls last, name`,
  );
  return rows.map(
    ({
      freeFrom,
      shipping,
      below,
      fee,
      minimumOrder,
      handling,
      dutyRate,
      dutyOnFreight,
      includesTax,
      ...r
    }) => ({
      ...r,
      shipping: trim(shipping),
      ...(freeFrom === null ? {} : { freeFrom: trim(freeFrom) }),
      ...(below === null || fee === null ? {} : { smallOrder: { below: trim(below), fee: trim(fee) } }),
      ...(minimumOrder === null ? {} : { minimumOrder: trim(minimumOrder) }),
      ...(handling === null ? {} : { handling: trim(handling) }),
      ...(Number(dutyRate) > 0 ? { dutyRate: Number(dutyRate) } : {}),
      ...(dutyOnFreight ? { dutyOnFreight } : {}),
      ...(includesTax ? { includesTax } : {}),
    }),
  );
}

/** What a supplier's order costs beside its goods, by column. */
export interface SupplierTerms {
  readonly name: string;
  readonly currency: string;
  readonly shipping: string;
  readonly freeFrom?: string | null | undefined;
  readonly daysMin: number;
  readonly daysMax: number;
  readonly smallOrderBelow?: string | null | undefined;
  readonly smallOrderFee?: string | null | undefined;
  readonly minimumOrder?: string | null | undefined;
  readonly handling?: string | null | undefined;
  readonly dutyRate?: number | undefined;
  readonly dutyOnFreight?: boolean | undefined;
  readonly sourceClass?: SourceClass | undefined;
  readonly includesTax?: boolean | undefined;
}

export async function insertSupplier(
  tx: Tx,
  s: SupplierTerms & { readonly feedKey?: string | undefined },
): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `insert into supplier (workshop_id, feed_key, name, currency, shipping, free_from, days_min, days_max, small_order_below,
       small_order_fee, minimum_order, handling, duty_rate, source_class, includes_tax, duty_on_freight)
     values (current_workshop(), $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15) returning id`,
    [
      s.feedKey ?? null,
      s.name,
      s.currency,
      s.shipping,
      s.freeFrom ?? null,
      s.daysMin,
      s.daysMax,
      s.smallOrderBelow ?? null,
      s.smallOrderFee ?? null,
      s.minimumOrder ?? null,
      s.handling ?? null,
      s.dutyRate ?? 0,
      s.sourceClass ?? "unknown",
      s.includesTax ?? false,
      s.dutyOnFreight ?? false,
    ],
  );
  return rows[0]!.id;
}

/** All offers for the lines of a revision, breaks in order. */
export async function manyOffers(tx: Tx, revisionId: string): Promise<StoredOffer[]> {
  const { rows } = await tx.query<{
    id: string;
    line: string;
    supplier: string;
    part: string | null;
    stock: string;
    moq: string;
    multiple: string;
    packaging: string;
    currency: string;
    source: RunOffer["source"];
    capturedOn: string;
    validUntil: string | null;
    leadDays: number | null;
    restriction: string;
    fee: string | null;
    candidate: Found | null;
    breaks: { qty: number; price: string }[];
  }>(
    `select o.id, o.line_id as "line", o.supplier_id as "supplier", o.part_id as part, o.stock, o.moq, o.multiple, o.packaging, o.currency, o.source,
            o.captured_on as "capturedOn", o.valid_until as "validUntil", o.lead_days as "leadDays", o.restriction, o.fee, o.candidate,
            json_agg(json_build_object('qty', b.qty, 'price', b.price::text) order by b.qty) as breaks
     from offer as o
     join bom_line as l on l.id = o.line_id
     join offer_break as b on b.offer_id = o.id
     where l.revision_id = $1
     group by o.id, l.position
     order by l.position, o.supplier_id, o.id`,
    [revisionId],
  );
  return rows.map(({ validUntil, breaks, part, leadDays, restriction, fee, candidate, ...r }) => ({
    ...r,
    ...(candidate === null ? {} : { candidate }),
    ...(part === null ? {} : { part }),
    ...(leadDays === null ? {} : { leadDays }),
    ...(restriction === "" ? {} : { restriction }),
    ...(fee === null ? {} : { fee: trim(fee) }),
    stock: Number(r.stock),
    moq: Number(r.moq),
    multiple: Number(r.multiple),
    breaks: breaks.map((b) => ({ qty: Number(b.qty), price: trim(b.price) })),
    ...(validUntil === null ? {} : { validUntil }),
  }));
}

export interface NewOffer {
  readonly lineId: string;
  readonly supplierId: string;
  /** The library part it is for, where it is not the line's own number. */
  readonly partId?: string | undefined;
  readonly stock: number;
  readonly moq: number;
  readonly multiple: number;
  readonly packaging: string;
  readonly currency: string;
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
  readonly source: "feed" | "typed" | "pasted";
  readonly capturedOn: string;
  readonly validUntil?: string | undefined;
  readonly leadDays?: number | undefined;
  readonly restriction?: string | undefined;
  readonly fee?: string | undefined;
  /** The part a supplier named for a line without a number. */
  readonly candidate?: Found | undefined;
}

/** Takes away what a supplier quoted for some lines before: what it quotes now stands in its place. */
export async function deleteQuoted(tx: Tx, supplierId: string, lineIds: readonly string[]): Promise<void> {
  await tx.query(
    "delete from offer where supplier_id = $1 and line_id = any($2::uuid[]) and source = 'pasted'",
    [supplierId, lineIds],
  );
}

export const insertOffer = async (tx: Tx, o: NewOffer): Promise<string> => (await insertOffers(tx, [o]))[0]!;

/** Rows that go into one statement. */
const BATCH = 1000;

/** Keeps offers with their prices. @returns their ids, in the same order */
export async function insertOffers(tx: Tx, offers: readonly NewOffer[]): Promise<string[]> {
  const rows = offers.map((o) => ({
    id: randomUUID(),
    line_id: o.lineId,
    supplier_id: o.supplierId,
    stock: o.stock,
    moq: o.moq,
    multiple: o.multiple,
    packaging: o.packaging,
    currency: o.currency,
    source: o.source,
    captured_on: o.capturedOn,
    valid_until: o.validUntil ?? null,
    part_id: o.partId ?? null,
    lead_days: o.leadDays ?? null,
    restriction: o.restriction ?? "",
    fee: o.fee && Number(o.fee) > 0 ? o.fee : null,
    candidate: o.candidate ?? null,
    breaks: o.breaks,
  }));
  for (let i = 0; i < rows.length; i += BATCH) {
    const batch = rows.slice(i, i + BATCH);
    await tx.query(
      `insert into offer (workshop_id, id, line_id, supplier_id, stock, moq, multiple, packaging, currency, source, captured_on, valid_until, part_id, lead_days, restriction, fee, candidate)
       select current_workshop(), x.id, x.line_id, x.supplier_id, x.stock, x.moq, x.multiple, x.packaging, x.currency, x.source, x.captured_on, x.valid_until, x.part_id, x.lead_days, x.restriction, x.fee, x.candidate
       from jsonb_to_recordset($1::jsonb) as x (id uuid, line_id uuid, supplier_id uuid, stock bigint, moq bigint, multiple bigint, packaging text, currency text, source text, captured_on date, valid_until date, part_id uuid, lead_days integer, restriction text, fee numeric, candidate jsonb)`,
      [JSON.stringify(batch.map(({ breaks: _, ...r }) => r))],
    );
    const breaks = batch.flatMap((r) => r.breaks.map((b) => ({ offer: r.id, ...b })));
    await tx.query(
      "insert into offer_break (workshop_id, offer_id, qty, price) select current_workshop(), b.offer, b.qty, b.price from unnest($1::uuid[], $2::bigint[], $3::numeric[]) as b (offer, qty, price)",
      [breaks.map((b) => b.offer), breaks.map((b) => b.qty), breaks.map((b) => b.price)],
    );
  }
  return rows.map((r) => r.id);
}

/**
 * Drops what suppliers named for lines whose own number somebody sells after all: nothing has to stand in for those.
 * What a line without a number is offered stays.
 */
export async function deleteNeedlessFound(tx: Tx, lineIds: readonly string[]): Promise<void> {
  await tx.query(
    `delete from offer as o
     using bom_line as l
     where o.line_id = l.id and l.mpn <> '' and o.candidate is not null and l.id = any($1::uuid[])
       and exists (
         select 1 from offer as own
         where own.line_id = l.id and own.part_id is null and own.candidate is null
       )`,
    [lineIds],
  );
}

/**
 * Puts what the feeds say now in place of what they said before, for these lines and the suppliers that answered; typed
 * and pasted offers stay. An offer that is as it was only gets its new date: the record of a week's asking is short.
 */
export async function replaceFeedOffers(
  tx: Tx,
  lineIds: readonly string[],
  supplierIds: readonly string[],
  offers: readonly NewOffer[],
): Promise<void> {
  const { rows } = await tx.query<{ id: string; text: string }>(
    `select o.id, concat_ws('|', o.line_id, o.supplier_id, coalesce(o.part_id::text, o.candidate ->> 'print', ''), o.stock, o.moq, o.multiple, o.packaging, o.currency, coalesce(trim_scale(o.fee)::text, ''),
              (select string_agg(b.qty || ' ' || trim_scale(b.price), ',' order by b.qty) from offer_break as b where b.offer_id = o.id)) as text
     from offer as o
     where o.source = 'feed' and o.line_id = any($1::uuid[]) and o.supplier_id = any($2::uuid[])
     for update of o`,
    [lineIds, supplierIds],
  );
  const old = new Map<string, string[]>();
  for (const r of rows) addTo(old, r.text, r.id);
  const same: string[] = [];
  const fresh: NewOffer[] = [];
  for (const o of offers) {
    const id = old.get(textOf(o))?.pop();
    if (id) same.push(id);
    else fresh.push(o);
  }
  await tx.query("delete from offer where id = any($1::uuid[])", [[...old.values()].flat()]);
  if (same.length > 0)
    await tx.query("update offer set captured_on = $2 where id = any($1::uuid[])", [
      same,
      offers[0]!.capturedOn,
    ]);
  await insertOffers(tx, fresh);
}

/** A decimal without zeros that say nothing. */
const plain = (decimal: string): string => (decimal.includes(".") ? decimal.replace(/\.?0+$/, "") : decimal);

/** An offer's content as one text, as the statement above writes it. */
const textOf = (o: NewOffer): string =>
  [
    o.lineId,
    o.supplierId,
    o.partId ?? o.candidate?.print ?? "",
    o.stock,
    o.moq,
    o.multiple,
    o.packaging,
    o.currency,
    o.fee && Number(o.fee) > 0 ? plain(o.fee) : "",
    [...o.breaks]
      .sort((a, b) => a.qty - b.qty)
      .map((b) => `${b.qty} ${plain(b.price)}`)
      .join(","),
  ].join("|");

export async function deleteOffer(tx: Tx, id: string): Promise<string> {
  const { rows } = await tx.query<{ revisionId: string }>(
    `delete from offer as o using bom_line as l where l.id = o.line_id and o.id = $1 returning l.revision_id as "revisionId"`,
    [id],
  );
  return one(rows, "offer").revisionId;
}

/** How many of some lines are in a bill, and how many of some parts in the library. */
export async function countKnown(
  tx: Tx,
  revisionId: string,
  lines: readonly string[],
  parts: readonly string[],
): Promise<{ lines: number; parts: number }> {
  const { rows } = await tx.query<{ lines: number; parts: number }>(
    `select (select count(*)::int from bom_line where revision_id = $1 and id = any($2::uuid[])) as lines,
            (select count(*)::int from part where id = any($3::uuid[])) as parts`,
    [revisionId, lines, parts],
  );
  return rows[0]!;
}
