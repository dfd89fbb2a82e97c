import type Router from "@koa/router";
import { type FirstArticleBody, firstArticleBody } from "@kobbin/contract";
import { AppError, firstArticlePlan, layChoices, pluggedRef, type RunLine } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { insertVariant, manyVariants } from "../bill/index.ts";
import { bodyOf } from "../body.ts";
import { givenColumns } from "../columns.ts";
import { insertLines, manyLines, nextPosition } from "./line-queries.ts";
import { insertRun, manyRuns, oneRun } from "./queries.ts";

/** A first article is begun, and the run it is of waits for it. */
export function firstArticleRoute(router: Router, deps: Deps): void {
  router.post("/api/runs/:id/first-article", async (ctx) => {
    const body = bodyOf(ctx, firstArticleBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const run = await oneRun(tx, id);
      change.about({ runId: id });
      change.says(`a first article of ${body.boards} begun for ${run.name}`);
      const first = await beginFirstArticle(tx, id, body);
      await mergeRow(
        tx,
        "fork",
        { id: run.forkId },
        body.version,
        (base) => givenColumns(layChoices(base, { first })),
        "this run",
        byOf(ctx).page,
      );
      return { id: first };
    });
    ctx.status = 201;
  });
}

/**
 * Begins the run of a first article: the same revision and choices, so many products, and a version of the bill in which
 * what is dear is plugged into sockets.
 * @returns the new run's id
 * @throws AppError NOT_FOUND where a line is not of this bill or has no reference
 */
async function beginFirstArticle(tx: Tx, runId: string, b: FirstArticleBody): Promise<string> {
  const run = await oneRun(tx, runId);
  if (run.state !== "open")
    throw new AppError(
      "NOT_ALLOWED",
      "This run is released: its first article would come after it.",
      "Begin a first article before a run is released.",
    );
  const lines = await manyLines(tx, run.revisionId);
  const odd = b.sockets.find((s) => !lines.some((l) => l.id === s.line && l.refs.length > 0));
  if (odd)
    throw new AppError(
      "NOT_FOUND",
      "One of the lines for a socket is not of this bill, or has no reference.",
      "Load the page again and choose it anew.",
    );
  const variant = b.sockets.length === 0 ? run.choices.variant : await socketed(tx, run, lines, b);
  // what was typed unseen was of that run, and so was what was accepted
  const { first: _, accepted: _a, again: _g, variant: _v, ...choices } = run.choices;
  return insertRun(tx, {
    revisionId: run.revisionId,
    name: await freeName(tx, `${run.name}, first article`),
    goodBoards: b.boards,
    houseId: run.houseId,
    options: run.options,
    assembly: run.assembly,
    choices: { ...choices, ...(variant ? { variant } : {}) },
  });
}

/** The version of the bill with sockets, over what the run's own version has otherwise. */
async function socketed(
  tx: Tx,
  run: Awaited<ReturnType<typeof oneRun>>,
  lines: readonly RunLine[],
  { sockets }: FirstArticleBody,
): Promise<string> {
  const plan = firstArticlePlan(lines, sockets);
  const added = await insertLines(tx, run.revisionId, await nextPosition(tx, run.revisionId), plan.added);
  const variants = await manyVariants(tx, run.revisionId);
  const own = variants.find((v) => v.id === run.choices.variant)?.overrides ?? {};
  const plugged = new Set(lines.filter((l) => plan.sockets[l.id]).flatMap((l) => l.refs.map(pluggedRef)));
  const known = lines.filter((l) => l.refs.length > 0 && l.refs.every((r) => plugged.has(r)));
  const overrides = {
    ...own,
    ...Object.fromEntries(Object.entries(plan.sockets).map(([id, s]) => [id, { ...own[id], ...s }] as const)),
    ...Object.fromEntries([...added, ...known.map((l) => l.id)].map((id) => [id, { dnp: false }] as const)),
  };
  const names = new Set(variants.map((v) => v.name));
  let name = "first article";
  for (let n = 2; names.has(name); n++) name = `first article ${n}`;
  return insertVariant(tx, run.revisionId, name, overrides);
}

async function freeName(tx: Tx, wished: string): Promise<string> {
  const names = new Set((await manyRuns(tx)).map((r) => r.name));
  let name = wished.slice(0, 110);
  for (let n = 2; names.has(name); n++) name = `${wished.slice(0, 110)} ${n}`;
  return name;
}
