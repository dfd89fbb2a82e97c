import { boardKey, type LotBefore, lotSizes } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { manyLotsBefore } from "./kept-queries.ts";

/** So many runs back: what came years ago tells little of a house today. */
const MOST = 24;

/** Lots of bare boards that came for other runs and were looked at: the same product's first, the newest first. */
export async function lotsBefore(
  tx: Tx,
  run: { readonly id: string; readonly productId: string },
): Promise<LotBefore[]> {
  const runs = await manyLotsBefore(tx, run.id, run.productId, MOST);
  return runs.flatMap(({ made, ...r }) =>
    made.boards.flatMap((b, i): LotBefore[] => {
      const item = boardKey(made, i);
      const came = r.came.filter((c) => c.item === item);
      if (came.length === 0) return [];
      const sum = (isApart: boolean) => came.reduce((n, c) => n + (c.isApart === isApart ? c.qty : 0), 0);
      const measured = r.measured.filter((m) => m.item === item);
      const { house } = made;
      return [
        {
          run: r.run,
          runName: r.runName,
          product: r.product,
          revision: r.revision,
          board: b.name,
          boards: made.boards.length,
          isSame: r.productId === run.productId,
          item,
          ...(house ? { house: { id: house.id, name: house.name } } : {}),
          on: came.map((c) => c.on).sort()[0]!,
          came: sum(false) + sum(true),
          apart: sum(true),
          measured: new Set(measured.map((m) => m.label)).size,
          sizes: lotSizes(made, measured, i),
          kept: r.kept.filter((k) => k.item === item),
          photos: r.photos.filter((p) => p.item === item),
        },
      ];
    }),
  );
}
