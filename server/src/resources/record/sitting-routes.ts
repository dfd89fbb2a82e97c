import Router from "@koa/router";
import { type SittingBody, sittingBody } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Deps } from "../../deps.ts";
import { byOf, changeOf } from "../../history/change.ts";
import { mergeRow } from "../../history/merge-row.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { released } from "./released.ts";
import { upsertSitting } from "./sitting-queries.ts";

/** Work at the bench, step by step and board by board: what two devices press is laid together piece by piece. */
export function sittingRoutes(deps: Deps): Router {
  const router = new Router();
  router.put("/api/runs/:id/sittings", async (ctx) => {
    const b = bodyOf(ctx, sittingBody);
    const id = ctx.params.id!;
    const { person } = signed(ctx);
    await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      refuseStrange(b, new Set(document.lines.map((l) => l.id)));
      change.about({ runId: id });
      change.says(sentence(b));
      const row = await upsertSitting(tx, id, { unit: b.unit, step: b.step, person });
      await mergeRow(
        tx,
        "sitting",
        { id: row.id },
        // who has not seen the row saw it empty, as it is made
        b.version ?? 1,
        () => ({
          marks: b.marks,
          lost: b.lost,
          minutes: b.minutes,
          is_done: b.isDone,
          ...(b.used === undefined ? {} : { used: b.used }),
        }),
        `step ${b.step} of board ${b.unit}`,
        byOf(ctx).page,
      );
    });
    ctx.status = 204;
  });
  return router;
}

/** @throws AppError NOT_FOUND where parts of lines were lost that the released bill has not */
function refuseStrange(b: SittingBody, lines: ReadonlySet<string>): void {
  if (Object.keys(b.lost).some((line) => !lines.has(line)))
    throw new AppError(
      "NOT_FOUND",
      "A part that was lost is of no line of this run.",
      "Reload the page; it shows what was released.",
    );
}

/** @example "board 3, step 4: 12 pieces on, 1 in doubt" */
function sentence({ unit, step, marks, lost, isDone, used }: SittingBody): string {
  // a look at what may ail a board puts nothing on it
  const looks = Object.keys(marks).filter((name) => name.startsWith("check ")).length;
  const eye = Object.entries(marks).flatMap(([name, m]) => (name.startsWith("eye ") ? [m] : []));
  const seen = eye.filter((m) => m !== "skipped").length;
  const odd = eye.filter((m) => m === "doubt").length;
  const all = Object.entries(marks).flatMap(([name, m]) => (/^(check|eye) /.test(name) ? [] : [m]));
  const n = (of: string) => all.filter((m) => m === of).length;
  const gone = Object.values(lost).reduce((a, x) => a + x, 0);
  const parts = [
    ...(isDone ? ["done"] : []),
    ...(n("done") + n("doubt") > 0 ? [`${n("done") + n("doubt")} on`] : []),
    ...(n("doubt") > 0 ? [`${n("doubt")} in doubt`] : []),
    ...(n("skipped") > 0 ? [`${n("skipped")} left for later`] : []),
    ...(gone > 0 ? [`${gone} lost`] : []),
    ...(looks > 0 ? [`${looks} ${looks === 1 ? "look" : "looks"} at what may ail it`] : []),
    ...(seen > 0 ? [`${seen} ${seen === 1 ? "kind" : "kinds"} of parts looked at`] : []),
    ...(odd > 0 ? [`${odd} in doubt by eye`] : []),
    ...Object.values(used ?? {}).map((name) => `with ${name}`),
  ];
  return `${unit === 0 ? "all boards" : `board ${unit}`}, step ${step}: ${parts.join(", ") || "begun"}`;
}
