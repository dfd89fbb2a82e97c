import Router from "@koa/router";
import { changedLine, type LineBody, lineBody, linesChange, mergeBody, newBill } from "@kobbin/contract";
import { AppError, compareRefs, LINE_FIELDS, type LineFieldKey } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import type { Json } from "../../history/merge.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { bodyOf, listBodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import {
  deleteFeedOffersOf,
  deleteLine,
  deleteLinesOf,
  insertLines,
  moveOffers,
  nextPosition,
  oneLine,
  type StoredLine,
} from "./line-queries.ts";
import { manyBoardNames, requireRevision } from "./queries.ts";

/** Lines of the bill: one or many added, changed, removed. */
export function lineRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/revisions/:id/lines", async (ctx) => {
    const sent = (ctx.request as { body?: unknown }).body;
    const { lines: list } = await listBodyOf(ctx, newBill, "lines", lineBody, {
      lines: Array.isArray(sent) ? sent : [sent ?? {}],
    });
    const revisionId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, revisionId);
      change.about({ revisionId });
      const boards = await manyBoardNames(tx, revisionId);
      const lines = list.map((b) => toLine(b, boards));
      const ids = await insertLines(tx, revisionId, await nextPosition(tx, revisionId), lines);
      return { id: ids[0]!, ids };
    });
    ctx.status = 201;
  });
  router.put("/api/revisions/:id/lines", async (ctx) => {
    const { lines, board } = await listBodyOf(ctx, newBill, "lines", lineBody);
    const revisionId = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, revisionId);
      change.about({ revisionId });
      const boards = await manyBoardNames(tx, revisionId);
      const of = board === undefined ? undefined : boards.find((b) => b.id === board);
      if (board !== undefined && !of) throw notThere();
      change.says(
        `a bill of ${lines.length} lines took the place of the old one${of && boards.length > 1 ? ` of ${of.name}` : ""}`,
      );
      await deleteLinesOf(tx, revisionId, board);
      const fresh = lines.map((b) => toLine(b, boards, board));
      return { ids: await insertLines(tx, revisionId, await nextPosition(tx, revisionId), fresh) };
    });
  });
  router.patch("/api/revisions/:id/lines", async (ctx) => {
    const { lines } = await listBodyOf(ctx, linesChange, "lines", changedLine);
    const revisionId = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      await requireRevision(tx, revisionId);
      change.about({ revisionId });
      // locked in one order by everybody: two who change many lines at once wait for each other at most once
      const inOrder = [...lines].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
      for (const l of inOrder) await changeLine(tx, l.id, l, byOf(ctx).page, revisionId);
    });
    ctx.status = 204;
  });
  router.patch("/api/lines/:id", async (ctx) => {
    const b = bodyOf(ctx, lineBody);
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ revisionId: await changeLine(tx, ctx.params.id!, b, byOf(ctx).page) });
    });
    ctx.status = 204;
  });
  router.post("/api/lines/:id/merge", async (ctx) => {
    const { others, version } = bodyOf(ctx, mergeBody);
    const id = ctx.params.id!;
    await changeOf(ctx, deps, async (tx, change) => {
      const line = await oneLine(tx, id);
      change.about({ revisionId: line.revisionId });
      const refs = [...line.refs];
      let { qty } = line;
      for (const other of [...new Set(others)].sort()) {
        if (other === id) continue;
        const o = await oneLine(tx, other);
        if (o.revisionId !== line.revisionId)
          throw new AppError(
            "NOT_FOUND",
            `${o.name || "A line"} is not in the bill of this revision.`,
            "Merge lines of one bill.",
          );
        if (o.board !== line.board)
          throw new AppError(
            "NOT_ALLOWED",
            `${o.name || "A line"} is on another board.`,
            "Lines of two boards stay two lines; they are bought together all the same.",
          );
        refs.push(...o.refs);
        qty += o.qty;
        await moveOffers(tx, other, id);
        await deleteLine(tx, other);
      }
      const all = [...new Set(refs)].sort(compareRefs);
      const columns = { refs: all, qty: all.length > 0 ? all.length : qty };
      await setLine(tx, id, line, version, columns, byOf(ctx).page);
    });
    ctx.status = 204;
  });
  router.delete("/api/lines/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      change.about({ revisionId: await deleteLine(tx, ctx.params.id!) });
    });
    ctx.status = 204;
  });
  return router;
}

/**
 * Changes a line; offers of the feed go with the number they were for.
 * @param of the bill it must be in
 * @returns the revision it belongs to
 */
async function changeLine(
  tx: Tx,
  id: string,
  b: LineBody,
  page: string | undefined,
  of?: string,
): Promise<string> {
  const line = await oneLine(tx, id);
  if (of !== undefined && line.revisionId !== of)
    throw new AppError(
      "NOT_FOUND",
      `${line.name || "A line"} is not in the bill of this revision.`,
      "Nothing was changed. Reload the page.",
    );
  const columns = givenColumns(
    Object.fromEntries(Object.entries(LINE_FIELDS).map(([key, f]) => [f.column, b[key as LineFieldKey]])),
  );
  if (b.parent) {
    const above = await oneLine(tx, b.parent);
    if (above.revisionId !== line.revisionId || b.parent === id)
      throw new AppError(
        "NOT_FOUND",
        `${line.name || "The line"} cannot belong to that item.`,
        "Choose another line of the same bill.",
      );
  }
  if (b.board && !(await manyBoardNames(tx, line.revisionId)).some((x) => x.id === b.board)) throw notThere();
  const row = await setLine(tx, id, line, b.version, columns, page);
  if (row.mpn !== line.mpn) await deleteFeedOffersOf(tx, id);
  return line.revisionId;
}

/** Lays columns over a line; what somebody else set meanwhile stands against it. */
const setLine = (
  tx: Tx,
  id: string,
  line: StoredLine,
  version: number | undefined,
  columns: Readonly<Record<string, Json>>,
  page: string | undefined,
) => mergeRow(tx, "bom_line", { id }, version ?? line.version, () => columns, line.name || "the line", page);

const notThere = () =>
  new AppError(
    "NOT_FOUND",
    "There is no such board in this revision.",
    "Nothing was changed. Reload the page.",
  );

/** A new line; what has references is on a board, the first where none is named. */
function toLine(b: LineBody, boards: readonly { readonly id: string }[], of?: string) {
  const refs = b.refs ?? [];
  const board = b.board ?? of ?? (refs.length > 0 ? boards[0]?.id : undefined);
  if (board !== undefined && !boards.some((x) => x.id === board)) throw notThere();
  return {
    ...(board === undefined ? {} : { board }),
    refs,
    qty: refs.length > 0 ? refs.length : (b.qty ?? 1),
    valueText: b.valueText ?? "",
    package: b.package ?? "",
    mpn: b.mpn ?? "",
    maker: b.maker ?? "",
    description: b.description ?? "",
    dnp: b.dnp ?? false,
    mount: b.mount ?? ("none" as const),
    ...(b.origin ? { origin: b.origin } : {}),
    ...(b.madeCost ? { madeCost: b.madeCost } : {}),
  };
}
