import type { Middleware } from "koa";
import { client } from "./client.ts";

/** The content policy; style elements only with this page's nonce (the scroll lock of dialogs adds one). */
export const policy = (nonce?: string): string =>
  [
    "default-src 'self'",
    "script-src 'self' 'wasm-unsafe-eval'",
    `style-src 'self'${nonce ? ` 'nonce-${nonce}'` : ""}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

/** Security headers on every answer. */
export const securityHeaders: Middleware = async (ctx, next) => {
  ctx.set("Content-Security-Policy", policy());
  ctx.set("X-Content-Type-Options", "nosniff");
  ctx.set("Referrer-Policy", "same-origin");
  ctx.set("Cross-Origin-Opener-Policy", "same-origin");
  ctx.set("Cross-Origin-Resource-Policy", "same-origin");
  ctx.set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), payment=(), usb=()");
  if (client(ctx).origin.startsWith("https:")) ctx.set("Strict-Transport-Security", "max-age=31536000");
  await next();
};
