import Router from "@koa/router";
import type { FoundRow } from "@kobbin/contract";
import { bagCode, boardOfSerial, readBag, readSerial, USUAL_RULE } from "@kobbin/core";
import { readWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { signed } from "../../middleware/session.ts";
import { manyLotsNumbered } from "../library/index.ts";
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
    const bag = readBag(String(ctx.query.q ?? "").slice(0, 100));
    const serial = readSerial(String(ctx.query.q ?? "").slice(0, 100));
    const found: FoundRow[] =
      words.length === 0
        ? []
        : await readWorkshop(pool, signed(ctx).workshopId, async (tx) => [
            ...(bag === undefined ? [] : (await manyLotsNumbered(tx, bag)).map((l) => lotFound(bag, l))),
            ...("serial" in serial ? boardNumbered(await manySeries(tx), serial.serial) : []),
            ...(await manyFound(tx, words)),
          ]);
    ctx.body = found;
  });
  return router;
}

/** The lot of a label, typed or scanned: where it lies on the shelf. */
const lotFound = (
  number: number,
  l: { readonly id: string; readonly mpn: string; readonly qty: number; readonly place: string },
): FoundRow => ({
  kind: "lot",
  text: `${bagCode(number)} ${l.mpn}`,
  more: `${l.qty} on the shelf${l.place ? `, ${l.place}` : ""}`,
  to: `/shelf?lot=${l.id}`,
  boardId: null,
  look: null,
});

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
