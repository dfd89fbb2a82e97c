import { randomBytes } from "node:crypto";
import { existsSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { send } from "@koa/send";
import type Koa from "koa";
import { policy } from "./security.ts";

/** The built page; every path that is no file is answered with it, so that links go deep. Its nonce is new each time. */
export function pages(root: string): Koa.Middleware {
  return async (ctx, next) => {
    if (ctx.path.startsWith("/api/") || !["GET", "HEAD"].includes(ctx.method)) return next();
    // a path that is no path throws here, and is answered as such
    const path = decodeURIComponent(ctx.path);
    const isAsset = path.startsWith("/assets/");
    if (
      isAsset ||
      (path !== "/" && path !== "/index.html" && !path.includes("..") && existsSync(`${root}${path}`))
    ) {
      // each is there compressed too, and sent so to who takes it
      ctx.vary("Accept-Encoding");
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
