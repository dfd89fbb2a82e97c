import Router from "@koa/router";
import { loadBody, wipeBody } from "@kobbin/contract";
import {
  AppError,
  answersRight,
  imageFits,
  type ProgramImage,
  type RunDocument,
  reworkedRevision,
} from "@kobbin/core";
import type { Deps } from "../../deps.ts";
import { changeOf } from "../../history/change.ts";
import { signed } from "../../middleware/session.ts";
import { bodyOf } from "../body.ts";
import { reworksOf } from "../learn/index.ts";
import { deleteLoad, insertLoad, updateWiped } from "./load-queries.ts";
import { released } from "./released.ts";

/** What is loaded into boards: which image and file is what was released; a pair that is refused is refused here too. */
export function loadRoutes(deps: Deps): Router {
  const router = new Router();
  router.post("/api/runs/:id/loads", async (ctx) => {
    const { image: asked, ...b } = bodyOf(ctx, loadBody);
    const id = ctx.params.id!;
    ctx.body = await changeOf(ctx, deps, async (tx, change) => {
      const { document } = await released(tx, id);
      const image = imageOf(document, asked);
      const { is, because } = imageFits(
        image,
        document.revision,
        reworkedRevision(document.revision, await reworksOf(tx, id, b.unit)),
      );
      if (is === "no")
        throw new AppError("NOT_ALLOWED", because, "Take the version that runs on this board.");
      // what the tool said speaks against whoever says it went well
      const isRight = b.isRight && answersRight(image, b.said) !== false;
      const unknown = Object.keys(b.given).find((name) => !image.values.some((v) => v.name === name));
      if (unknown !== undefined)
        throw new AppError(
          "NOT_FOUND",
          `${image.name} gives a board nothing called ${unknown}.`,
          "Reload the page; it shows what was released.",
        );
      change.about({ runId: id });
      change.says(
        `board ${b.unit}: ${image.name}${image.version ? ` ${image.version}` : ""} ${isRight ? "loaded" : "not loaded"} at ${image.at}`,
      );
      const { name, version, at, sha256 } = image;
      // what is wiped again is no record of the shop's: only that it was given
      const given = Object.fromEntries(
        image.values.map((v) => [v.name, v.isWiped ? "" : (b.given[v.name] ?? "")]),
      );
      return {
        id: await insertLoad(tx, id, {
          ...b,
          given,
          image: image.id,
          name,
          version,
          at,
          sha256,
          isRight,
          person: signed(ctx).person,
        }),
        isRight,
      };
    });
    ctx.status = 201;
  });
  router.patch("/api/loads/:id", async (ctx) => {
    const { on } = bodyOf(ctx, wipeBody);
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, unit, name } = await updateWiped(tx, ctx.params.id!, on);
      change.about({ runId });
      change.says(`board ${unit}: ${on ? "wiped" : "not wiped after all"} of what ${name} was given`);
    });
    ctx.status = 204;
  });
  router.delete("/api/loads/:id", async (ctx) => {
    await changeOf(ctx, deps, async (tx, change) => {
      const { runId, unit, name } = await deleteLoad(tx, ctx.params.id!);
      change.about({ runId });
      change.says(`board ${unit}: ${name} was not loaded after all`);
    });
    ctx.status = 204;
  });
  return router;
}

function imageOf(document: RunDocument, id: string): ProgramImage {
  const image = document.assembly.images?.find((i) => i.id === id);
  if (image) return image;
  throw new AppError(
    "NOT_FOUND",
    "Nothing of that kind was released to be loaded.",
    "Reload the page; it shows what was released.",
  );
}
