import { randomBytes, randomUUID } from "node:crypto";
import { existsSync } from "node:fs";
import { readFile } from "node:fs/promises";
import bodyParser from "@koa/bodyparser";
import type Router from "@koa/router";
import Koa from "koa";
import send from "koa-send";
import type { Deps } from "./deps.ts";
import { errors } from "./middleware/errors.ts";
import { ownOrigin, policy, securityHeaders } from "./middleware/security.ts";
import { session } from "./middleware/session.ts";
import { houseRoutes } from "./resources/house/routes.ts";
import { productRoutes } from "./resources/product/routes.ts";
import { releaseRoutes } from "./resources/release/routes.ts";
import { runRoutes } from "./resources/run/routes.ts";
import { sessionRoutes } from "./resources/session/routes.ts";
import { shopRoutes } from "./resources/shop/routes.ts";
import { sourceRoutes } from "./resources/source/routes.ts";

/** The server as a list: what happens to a request, in order. */
export function createApp(deps: Deps): Koa {
  const app = new Koa();
  app.use(requestId(deps));
  app.use(securityHeaders);
  app.use(errors(deps.log));
  app.use(ownOrigin);
  app.use(session(deps.pool));
  app.use(bodyParser({ enableTypes: ["json"], jsonLimit: "4mb", encoding: "utf-8" }));
  for (const router of routers(deps)) app.use(router.routes() as unknown as Koa.Middleware);
  if (deps.config.webRoot) app.use(pages(deps.config.webRoot));
  return app;
}

const routers = (deps: Deps): Router[] => [
  sessionRoutes(deps),
  shopRoutes(deps),
  productRoutes(deps),
  runRoutes(deps),
  sourceRoutes(deps),
  houseRoutes(deps),
  releaseRoutes(deps),
];

/** A number for every request, in the log and in a defect's answer. */
const requestId =
  (deps: Deps): Koa.Middleware =>
  async (ctx, next) => {
    ctx.state.requestId = randomUUID().slice(0, 8);
    const started = performance.now();
    await next();
    if (ctx.path.startsWith("/api/"))
      deps.log({
        level: "info",
        request: ctx.state.requestId,
        method: ctx.method,
        path: ctx.path,
        status: ctx.status,
        ms: Math.round(performance.now() - started),
      });
  };

/** The built page; every path that is no file is answered with it, so that links go deep. Its nonce is new each time. */
function pages(root: string): Koa.Middleware {
  return async (ctx, next) => {
    if (ctx.path.startsWith("/api/") || !["GET", "HEAD"].includes(ctx.method)) return next();
    const path = decodeURIComponent(ctx.path);
    const isAsset = path.startsWith("/assets/");
    if (
      isAsset ||
      (path !== "/" && path !== "/index.html" && !path.includes("..") && existsSync(`${root}${path}`))
    ) {
      await send(ctx, path, { root, maxage: isAsset ? 31_536_000_000 : 0, immutable: isAsset });
      return;
    }
    const nonce = randomBytes(12).toString("base64");
    ctx.set("Content-Security-Policy", policy(nonce));
    ctx.set("Cache-Control", "no-cache");
    ctx.type = "html";
    ctx.body = (await readFile(`${root}/index.html`, "utf8")).replace("__NONCE__", nonce);
  };
}
