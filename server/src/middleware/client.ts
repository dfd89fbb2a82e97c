import { isIP } from "node:net";
import { AppError } from "@kobbin/core";
import type { Context, Middleware } from "koa";
import type { Config } from "../config.ts";
import { plainOrigin } from "../origin.ts";

/** Who calls and under which name, as far as it can be believed. */
export interface Client {
  /** The caller's address; "unknown" where a proxy did not say. */
  readonly address: string;
  /** The caller sits at this machine, and no proxy stands between. */
  readonly isHere: boolean;
  /** Scheme, host and port the caller believes to talk to. */
  readonly origin: string;
}

/** Headers a proxy adds; who has one came through something. */
const FORWARDED = [
  "x-forwarded-for",
  "x-forwarded-host",
  "x-forwarded-proto",
  "forwarded",
  "x-real-ip",
  "via",
];
const LOOPBACK = ["localhost", "127.0.0.1", "[::1]"];
const isLoopback = (address: string) =>
  /^(127\.\d{1,3}\.\d{1,3}\.\d{1,3}|::1|::ffff:127\.\d{1,3}\.\d{1,3}\.\d{1,3})$/.test(address);

/** The one value of a header; undefined where it is missing or stands there twice. */
function single(ctx: Context, name: string): string | undefined {
  const value = ctx.req.headers[name];
  return typeof value === "string" && value !== "" && !value.includes(",") ? value.trim() : undefined;
}

/** What is believed of a request. Of a proxy's words only those of the one in front of us, where the server was told of it. */
export function clientOf(ctx: Context, trustsProxy: boolean): Client {
  const socket = ctx.req.socket;
  const own = socket.remoteAddress ?? "";
  const isEncrypted = Boolean((socket as { encrypted?: boolean }).encrypted);
  const isForwarded = FORWARDED.some((h) => ctx.req.headers[h] !== undefined);
  if (!trustsProxy) {
    const origin = `${isEncrypted ? "https" : "http"}://${single(ctx, "host") ?? ""}`;
    return { address: isIP(own) ? own : "unknown", isHere: isLoopback(own) && !isForwarded, origin };
  }
  // the last address is the one our proxy saw; those before it are the caller's own words
  const last = String(ctx.req.headers["x-forwarded-for"] ?? "")
    .split(",")
    .at(-1)!
    .trim();
  const address = isIP(last) ? last : "unknown";
  const scheme = single(ctx, "x-forwarded-proto") === "https" || isEncrypted ? "https" : "http";
  const host = single(ctx, "x-forwarded-host") ?? single(ctx, "host") ?? "";
  return { address, isHere: isLoopback(address), origin: `${scheme}://${host}` };
}

/** Writes down who calls, before anything is decided by it. */
export const meet =
  (trustsProxy: boolean): Middleware =>
  (ctx, next) => {
    ctx.state.client = clientOf(ctx, trustsProxy);
    return next();
  };

/** Who calls, as {@link meet} wrote it down. */
export const client = (ctx: Context): Client => ctx.state.client as Client;

/** A caller's network, for what is counted per network: /24 of the older addresses, /64 of the newer ones. */
export function networkOf(address: string): string {
  const old = /^(?:::ffff:)?(\d+\.\d+\.\d+)\.\d+$/.exec(address)?.[1];
  if (old) return old;
  if (!isIP(address)) return address;
  const [head = "", tail = ""] = address.split("::");
  const front = head.split(":").filter((g) => g !== "");
  const back = address.includes("::") ? tail.split(":").filter((g) => g !== "") : [];
  const zeros = Array.from({ length: Math.max(0, 8 - front.length - back.length) }, () => "0");
  return [...front, ...zeros, ...back].slice(0, 4).join(":");
}

/** Whether the server goes by a name: the loopback names at its own port, and those it was told. */
function isOwn(origin: string, ctx: Context, names: readonly string[]): boolean {
  const plain = plainOrigin(origin);
  if (plain === undefined) return false;
  if (names.includes(plain)) return true;
  const port = ctx.req.socket.localPort ?? 0;
  const scheme = (ctx.req.socket as { encrypted?: boolean }).encrypted ? "https" : "http";
  return LOOPBACK.some((name) => plain === new URL(`${scheme}://${name}:${port}`).origin);
}

/**
 * Believes a request only under a name the server goes by: a page elsewhere may point a name of its own at this machine,
 * and the browser would take it for that page's. Probes of /health and /ready may come by any name; they tell nothing.
 */
export const knownHost =
  (config: Pick<Config, "origins">): Middleware =>
  async (ctx, next) => {
    if (ctx.path !== "/health" && ctx.path !== "/ready" && !isOwn(client(ctx).origin, ctx, config.origins))
      throw new AppError(
        "WRONG_HOST",
        "This server does not go by that name.",
        "Open it under its own address; whoever runs it adds another in ORIGINS.",
      );
    await next();
  };

/** Writes must come from our own pages: the Origin header has to be the very address the request went to. */
export const ownOrigin: Middleware = async (ctx, next) => {
  if (!["GET", "HEAD", "OPTIONS"].includes(ctx.method)) {
    const given = plainOrigin(single(ctx, "origin") ?? "");
    if (given === undefined || given !== plainOrigin(client(ctx).origin))
      throw new AppError(
        "WRONG_ORIGIN",
        "The request did not come from a page of this shop.",
        "Open Kobbin itself and try again.",
      );
  }
  await next();
};
