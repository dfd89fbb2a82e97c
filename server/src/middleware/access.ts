import type Router from "@koa/router";
import { AppError } from "@kobbin/core";
import type { Middleware } from "koa";
import { signed } from "./session.ts";

/**
 * Who may use a route. `anyone`: also without a session. `member`: everybody of the shop; the bench builds, receives
 * and notes. `owner`: who orders, prices and administers.
 */
export type Who = "anyone" | "member" | "owner";

/** Every route of the server, once. The server does not start when one is missing here. */
export const ACCESS: Readonly<Record<string, Who>> = {
  "GET /api/session": "anyone",
  "POST /api/session": "anyone",
  "POST /api/session/demo": "anyone",
  "DELETE /api/session": "anyone",
  "POST /api/shops": "anyone",
  "GET /api/invited/:token": "anyone",
  "POST /api/invited/:token": "anyone",
  "GET /api/calendars/:token": "anyone",

  "POST /api/session/password": "member",
  "POST /api/session/shop": "member",
  "GET /api/sessions": "member",
  "DELETE /api/sessions/:id": "member",
  "GET /api/live": "member",
  "PUT /api/presence": "member",
  "GET /api/bench": "member",
  "GET /api/waiting": "member",
  "GET /api/find": "member",
  "GET /api/history": "member",
  "GET /api/corrections": "member",
  "GET /api/boards/known": "member",
  "GET /api/columns": "member",
  "GET /api/revisions/:id": "member",
  "GET /api/boards/:id/files": "member",
  "GET /api/runs/:id": "member",
  "GET /api/runs/:id/package": "member",
  "GET /api/runs/:id/manifest": "member",
  "GET /api/runs/:id/document": "member",
  "GET /api/runs/:id/asks": "member",
  "GET /api/suppliers": "member",
  "GET /api/houses": "member",
  "GET /api/equipment": "member",
  "GET /api/calendar": "member",
  "GET /api/learned": "member",
  "GET /api/house-records": "member",
  "GET /api/people": "member",
  "GET /api/others": "member",
  "GET /api/parts": "member",
  "GET /api/numbers": "member",
  "GET /api/parts/:id": "member",
  "GET /api/lots": "member",
  "GET /api/lots/:id/moves": "member",
  "GET /api/low": "member",
  "GET /api/photos/:id": "member",
  // the bench notes
  "POST /api/runs/:id/remarks": "member",
  "DELETE /api/remarks/:id": "member",
  // and receives and builds
  "POST /api/runs/:id/receipts": "member",
  "PATCH /api/receipts/:id": "member",
  "DELETE /api/receipts/:id": "member",
  "POST /api/runs/:id/bare-tests": "member",
  "DELETE /api/bare-tests/:id": "member",
  "POST /api/runs/:id/measured": "member",
  "DELETE /api/measured/:id": "member",
  "GET /api/runs/:id/lots-before": "member",
  "POST /api/runs/:id/kept": "member",
  "PATCH /api/kept/:id": "member",
  "DELETE /api/kept/:id": "member",
  "POST /api/runs/:id/work": "member",
  "PUT /api/runs/:id/sittings": "member",
  "POST /api/runs/:id/tries": "member",
  "DELETE /api/tries/:id": "member",
  "POST /api/runs/:id/defects": "member",
  "PATCH /api/defects/:id": "member",
  "DELETE /api/defects/:id": "member",
  "POST /api/runs/:id/loads": "member",
  "PATCH /api/loads/:id": "member",
  "DELETE /api/loads/:id": "member",
  "POST /api/runs/:id/photos": "member",
  "PATCH /api/photos/:id": "member",
  "DELETE /api/photos/:id": "member",
  "POST /api/equipment/:id/reading": "member",
  // who finds something at the bench writes it down there
  "POST /api/lessons": "member",
  "POST /api/errata": "member",
  "PUT /api/errata/:id/reworks": "member",
  "DELETE /api/reworks/:id": "member",
  "GET /api/runs/:id/outs": "member",
  "GET /api/lots/:id/boards": "member",
  "POST /api/lots/:id/air": "member",
  "GET /api/boards/:id/picture": "member",
  "PUT /api/boards/:id/picture": "member",
  "GET /api/boards/:id/difference": "member",
  "PUT /api/runs/:id/outs": "member",
  "DELETE /api/outs/:id": "member",
  "POST /api/reports": "member",
  "DELETE /api/work/:id": "member",
  // and takes back what it may write: the change's own tables decide
  "POST /api/runs/:id/undo": "member",
  "POST /api/runs/:id/redo": "member",
  "POST /api/changes/:id/undo": "member",

  "PATCH /api/shop": "owner",
  "PUT /api/products/:id/next-revision": "owner",
  "DELETE /api/outs/:id/holder": "owner",
  "PATCH /api/reports/:id": "owner",
  "DELETE /api/reports/:id": "owner",
  "PATCH /api/people/:id": "owner",
  "DELETE /api/people/:id": "owner",
  "POST /api/people/forget": "owner",
  "POST /api/invitations": "owner",
  "POST /api/calendar": "owner",
  "DELETE /api/calendar": "owner",
  "DELETE /api/invitations/:id": "owner",
  "GET /api/audit": "owner",
  "GET /api/backup": "owner",
  "POST /api/restore": "owner",
  "POST /api/demo/reset": "owner",
  "POST /api/products": "owner",
  "POST /api/products/:id/fits": "owner",
  "PUT /api/fits/:id": "owner",
  "DELETE /api/fits/:id": "owner",
  "POST /api/products/:id/links": "owner",
  "PUT /api/links/:id": "owner",
  "DELETE /api/links/:id": "owner",
  "POST /api/products/:id/meetings": "owner",
  "PUT /api/meetings/:id": "owner",
  "DELETE /api/meetings/:id": "owner",
  "POST /api/products/:id/foils": "owner",
  "PATCH /api/foils/:id": "owner",
  "DELETE /api/foils/:id": "owner",
  "POST /api/lines/:id/merge": "owner",
  "POST /api/boards/:id/corrections": "owner",
  "POST /api/revisions/:id/boards": "owner",
  "PATCH /api/boards/:id": "owner",
  "DELETE /api/boards/:id": "owner",
  "POST /api/runs": "owner",
  "PATCH /api/runs/:id": "owner",
  "POST /api/runs/:id/first-article": "owner",
  "DELETE /api/runs/:id": "owner",
  "POST /api/runs/:id/order-steps": "owner",
  "DELETE /api/order-steps/:id": "owner",
  "POST /api/runs/:id/claims": "owner",
  "PATCH /api/claims/:id": "owner",
  "DELETE /api/claims/:id": "owner",
  "POST /api/runs/:id/send-order": "owner",
  "POST /api/runs/:id/look-order": "owner",
  "PUT /api/runs/:id/quotes": "owner",
  "DELETE /api/runs/:id/quotes/:house/:kind": "owner",
  "POST /api/runs/:id/ask": "owner",
  "POST /api/runs/:id/ask-houses": "owner",
  "PUT /api/runs/:id/quotes/:house/answer": "owner",
  "POST /api/runs/:id/release": "owner",
  "DELETE /api/runs/:id/release": "owner",
  "PUT /api/runs/:id/purchases": "owner",
  "PUT /api/runs/:id/closing": "owner",
  "POST /api/revisions/:id/lines": "owner",
  "PUT /api/revisions/:id/lines": "owner",
  "PATCH /api/revisions/:id/lines": "owner",
  "PUT /api/columns": "owner",
  "POST /api/revisions/:id/sums": "owner",
  "PATCH /api/sums/:id": "owner",
  "DELETE /api/sums/:id": "owner",
  "POST /api/revisions/:id/variants": "owner",
  "PATCH /api/variants/:id": "owner",
  "DELETE /api/variants/:id": "owner",
  "PATCH /api/lines/:id": "owner",
  "DELETE /api/lines/:id": "owner",
  "POST /api/suppliers": "owner",
  "PATCH /api/suppliers/:id": "owner",
  "POST /api/runs/:id/quotation": "owner",
  "POST /api/lines/:id/offers": "owner",
  "DELETE /api/offers/:id": "owner",
  "POST /api/parts": "owner",
  "PATCH /api/parts/:id": "owner",
  "DELETE /api/parts/:id": "owner",
  "PUT /api/alternates": "owner",
  "POST /api/lots": "owner",
  "POST /api/lots/count": "owner",
  "PATCH /api/lots/:id": "owner",
  "DELETE /api/lots/:id": "owner",
  "PUT /api/runs/:id/reservations": "owner",
  "PATCH /api/lessons/:id": "owner",
  "DELETE /api/lessons/:id": "owner",
  "PATCH /api/errata/:id": "owner",
  "PUT /api/errata/:id/decision": "owner",
  "DELETE /api/errata/:id": "owner",
  "POST /api/products/:id/rights": "owner",
  "PATCH /api/rights/:id": "owner",
  "DELETE /api/rights/:id": "owner",
  "POST /api/equipment": "owner",
  "PATCH /api/equipment/:id": "owner",
  "DELETE /api/equipment/:id": "owner",
  "POST /api/houses": "owner",
  "PATCH /api/houses/:id": "owner",
  // last, as it takes away what others are tried on
  "POST /api/made-up/away": "owner",
};

/** The routes of some routers, as the keys of {@link ACCESS} are written. */
export const routeKeys = (routers: readonly Router[]): string[] =>
  routers.flatMap((r) =>
    r.stack.flatMap((layer) =>
      layer.methods.filter((m) => m !== "HEAD").map((method) => `${method} ${String(layer.path)}`),
    ),
  );

/**
 * Puts the guard of {@link ACCESS} before every route's own work.
 * @throws Error naming a route that the table does not know
 */
export function guard(routers: readonly Router[], access: Readonly<Record<string, Who>> = ACCESS): void {
  for (const key of routeKeys(routers))
    if (!(key in access)) throw new Error(`nobody said who may use ${key}`);
  for (const r of routers)
    for (const layer of r.stack) {
      const who = access[`${layer.methods.find((m) => m !== "HEAD")} ${String(layer.path)}`]!;
      layer.stack.unshift(allow(who) as never);
    }
}

const allow =
  (who: Who): Middleware =>
  async (ctx, next) => {
    if (who !== "anyone") {
      const { role } = signed(ctx);
      if (who === "owner" && role !== "owner")
        throw new AppError(
          "NOT_ALLOWED",
          "Only an owner of the shop may do this.",
          "At the bench you may look at everything, build, receive and leave remarks; ask an owner for the rest.",
        );
    }
    await next();
  };
