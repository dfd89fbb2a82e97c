import type { RunAnswer } from "@kobbin/contract";
import {
  DEFAULT_ASSEMBLY,
  numberKey,
  type RunDocument,
  SHOP_FIELDS,
  type ShopField,
  type ShopFieldKey,
  shapes,
} from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { manySums, manyVariants } from "../bill/index.ts";
import { manyEquipment } from "../equipment/index.ts";
import { manyFits, manyPlaces } from "../fit/index.ts";
import { manyFoils } from "../foil/index.ts";
import { manyHouses, manyHouseVersions, manyMadeUp } from "../house/index.ts";
import { learnedFor } from "../learn/index.ts";
import { manyFreeLots, manyPartsFor } from "../library/index.ts";
import { manyLinks, manyMeetings } from "../meeting/index.ts";
import { manyPast, manyRecordVersions, oneRecord } from "../record/index.ts";
import { manyRights } from "../rights/index.ts";
import { oneShop } from "../shop/index.ts";
import { manyOffers, manySuppliers, withFound } from "../source/index.ts";
import { manyBillVersions, manyLines } from "./line-queries.ts";
import {
  manyBoards,
  manyGuests,
  manyQuotes,
  manyRemarks,
  maybeFirstArticle,
  maybeRelease,
  oneRun,
  type StoredRun,
} from "./queries.ts";

/** What a run's document is made of, as it is stored. */
async function stored(tx: Tx, run: StoredRun) {
  // sent together: none waits for the answer to another
  const { madeUp, ...all } = await allOf({
    shop: oneShop(tx),
    lines: manyLines(tx, run.revisionId),
    suppliers: manySuppliers(tx),
    offered: manyOffers(tx, run.revisionId),
    houses: manyHouses(tx),
    boards: manyBoards(tx, run.revisionId),
    quotes: manyQuotes(tx, run.id),
    sums: manySums(tx, run.revisionId),
    variants: manyVariants(tx, run.revisionId),
    past: manyPast(tx, run.productId),
    fits: manyFits(tx, run.productId),
    meetings: manyMeetings(tx, run.productId),
    links: manyLinks(tx, run.productId),
    places: manyPlaces(tx, run.revisionId),
    foils: manyFoils(tx, run.productId),
    rights: manyRights(tx, run.productId),
    equipment: manyEquipment(tx),
    learned: learnedFor(tx, run),
    guests: manyGuests(tx, guestIdsOf(run), run.revisionId),
    madeUp: manyMadeUp(tx),
  });
  return {
    ...all,
    first: run.choices.first ? await maybeFirstArticle(tx, run.choices.first) : undefined,
    // the demo shop is made up as a whole
    madeUp: all.shop.isDemo
      ? []
      : [...all.houses, ...all.suppliers].map((x) => x.id).filter((id) => madeUp.includes(id)),
  };
}

/** Waits for every answer, each under its own name. */
async function allOf<T extends Readonly<Record<string, Promise<unknown>>>>(
  asked: T,
): Promise<{ [K in keyof T]: Awaited<T[K]> }> {
  const answers = await Promise.all(Object.values(asked));
  return Object.fromEntries(Object.keys(asked).map((k, i) => [k, answers[i]])) as never;
}

/** Gathers a run into one document: what the page, the worker pool and the command line compute from. */
export async function buildDocument(
  tx: Tx,
  run: StoredRun,
  today: string,
): Promise<{ document: RunDocument; boardIds: readonly string[]; guestIds: readonly string[] }> {
  const {
    shop,
    lines,
    suppliers,
    offered,
    houses,
    boards,
    quotes,
    sums,
    variants,
    past,
    places,
    learned,
    guests,
    madeUp,
    first,
    ...lists
  } = await stored(tx, run);
  const { library: own, alternates } = await manyPartsFor(tx, lines, run.id);
  const { offers, library } = withFound(offered, own);
  // the shelf may hold what a line names, and what may stand in its place
  const named = [...lines.filter((l) => l.mpn !== ""), ...library];
  const numbers = [...new Set(named.map((l) => numberKey(l.mpn)))];
  const lots = await manyFreeLots(tx, numbers, run.id);
  const house = houses.find((h) => h.id === run.houseId);
  const document: RunDocument = {
    kobbin: "run/1",
    name: run.name,
    product: run.product,
    revision: run.revision,
    today,
    workshop: workshopOf(shop),
    goodBoards: run.goodBoards,
    confidence: run.confidence,
    boards: boards.map(({ placements: _, ...b }) => {
      const [read, known] = [places.get(b.id), learned.places.get(b.id)];
      return { ...b, ...(read ? { places: read } : {}), ...(known ? { learned: known } : {}) };
    }),
    lines,
    placements: boards.flatMap((b) => b.placements.map((p) => ({ ...p, board: b.id }))),
    suppliers: suppliers.map(({ feedKey: _, version: _v, ...s }) => s),
    offers,
    ...filled({
      sums: sums.map(({ version: _, ...x }) => x),
      guests,
      ...lists,
      lessons: learned.lessons,
      errata: learned.errata,
      variants: variants.map(({ version: _, ...x }) => x),
      library,
      alternates,
      lots,
    }),
    ...(house ? { house } : {}),
    houses,
    quotes: quotes.map(({ id: _, ...q }) => q),
    ...filled({ past, madeUp }),
    ...(first ? { first } : {}),
    options: run.options,
    assembly: { ...DEFAULT_ASSEMBLY, ...run.assembly },
    choices: run.choices,
  };
  return { document, boardIds: boards.map((b) => b.id), guestIds: guests.map((g) => g.id) };
}

/** Lists with something in them: a document says nothing of what there is none of. */
const filled = <T extends Readonly<Record<string, readonly unknown[]>>>(lists: T): Partial<T> =>
  Object.fromEntries(Object.entries(lists).filter(([, l]) => l.length > 0)) as Partial<T>;

/** Ids of the boards of other products that are chosen to share its sheets. */
export const guestIdsOf = (run: Pick<StoredRun, "choices">): string[] =>
  (run.choices.guests ?? []).map((g) => g.board).filter((id) => shapes.UUID.test(id));

/** What of the shop a document has: what figures hang on, and of what is left out while nothing is set, what is. */
function workshopOf(shop: Awaited<ReturnType<typeof oneShop>>): RunDocument["workshop"] {
  const settings = (Object.entries(SHOP_FIELDS) as [ShopFieldKey, ShopField][]).flatMap(([key, f]) =>
    !f.document || (f.document.isLeftOut && Object.keys(shop[key]).length === 0) ? [] : [[key, shop[key]]],
  );
  return { currency: shop.currency, ...Object.fromEntries(settings) };
}

/** The document a run was released with; nothing where it was not. */
export async function releasedDocument(tx: Tx, runId: string): Promise<RunDocument | undefined> {
  return (await maybeRelease(tx, runId))?.document;
}

/** A run as the page gets it. A released run shows the document it was released with. */
export async function answerRun(tx: Tx, id: string, today: string): Promise<RunAnswer> {
  const run = await oneRun(tx, id);
  const [{ document, boardIds, guestIds }, last, bill, houses, remarks, record, purchases] =
    await Promise.all([
      buildDocument(tx, run, today),
      maybeRelease(tx, id),
      manyBillVersions(tx, run.revisionId),
      manyHouseVersions(tx),
      manyRemarks(tx, id),
      oneRecord(tx, id),
      manyRecordVersions(tx, id),
    ]);
  const release = run.state === "released" ? last : undefined;
  return {
    id,
    version: run.version,
    state: run.state,
    productId: run.productId,
    revisionId: run.revisionId,
    boardIds,
    guestIds,
    versions: Object.fromEntries([...bill, ...houses, ...purchases].map((v) => [v.id, v.version])),
    remarks,
    document: release?.document ?? document,
    ...(run.summary ? { summary: run.summary } : {}),
    ...(run.askedAt ? { askedAt: run.askedAt.toISOString() } : {}),
    ...(release
      ? { releasedAt: release.releasedAt.toISOString(), packageSha256: release.sha256, record }
      : {}),
  };
}
