import Router from "@koa/router";
import type { FoundRow } from "@kobbin/contract";
import { boardOfSerial, readSerial, USUAL_RULE } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { manyFound, manySeries } from "./queries.ts";

/** What the command box finds: products, runs, parts. */
export function findRoutes({ pool }: Deps): Router {
  const router = new Router();
  router.get("/api/find", async (ctx) => {
    const words = String(ctx.query.q ?? "")
      .toLowerCase()
      .split(/\s+/)
      .filter((w) => w !== "")
      .slice(0, 6)
      .map((w) => `%${w.slice(0, 60).replace(/[\\%_]/g, "\\$&")}%`);
    const serial = readSerial(String(ctx.query.q ?? "").slice(0, 100));
    const found: FoundRow[] =
      words.length === 0
        ? []
        : await readWorkshop(pool, signed(ctx).workshopId, async (tx) => [
            ...("serial" in serial ? boardNumbered(await manySeries(tx), serial.serial) : []),
            ...(await manyFound(tx, words)),
          ]);
    ctx.body = found;
  });
  return router;
}

/** The board of a serial number, typed or scanned: where it stands among the tests. */
const boardNumbered = (series: Awaited<ReturnType<typeof manySeries>>, serial: string): FoundRow[] =>
  series.flatMap(({ runId, name, revision, rule, ...of }): FoundRow[] => {
    const n = boardOfSerial(rule || USUAL_RULE, of, serial);
    return n === undefined
      ? []
      : [
          {
            kind: "board",
            text: serial,
            more: `${of.product} ${revision}, board ${n} of ${name}`,
            to: `/runs/${runId}/build?view=board&unit=${n}`,
            boardId: null,
            look: null,
          },
        ];
  });
