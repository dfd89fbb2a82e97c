import type { Server } from "node:http";
import bodyParser from "@koa/bodyparser";
import type Router from "@koa/router";
import Koa from "koa";
import type { Deps } from "./deps.ts";
import { guard } from "./middleware/access.ts";
import { knownHost, meet, ownOrigin } from "./middleware/client.ts";
import { errors } from "./middleware/errors.ts";
import { limitRequests } from "./middleware/limits.ts";
import { pages } from "./middleware/pages.ts";
import { replay } from "./middleware/replay.ts";
import { requestLog } from "./middleware/request-log.ts";
import { securityHeaders } from "./middleware/security.ts";
import { session } from "./middleware/session.ts";
import { backupRoutes } from "./resources/backup/routes.ts";
import { billRoutes } from "./resources/bill/routes.ts";
import { calendarRoutes } from "./resources/calendar/routes.ts";
import { equipmentRoutes } from "./resources/equipment/routes.ts";
import { findRoutes } from "./resources/find/routes.ts";
import { fitRoutes } from "./resources/fit/routes.ts";
import { foilRoutes } from "./resources/foil/routes.ts";
import { health } from "./resources/health/health.ts";
import { historyRoutes } from "./resources/history/routes.ts";
import { houseRoutes } from "./resources/house/routes.ts";
import { erratumRoutes, reworkRoutes } from "./resources/learn/erratum-routes.ts";
import { lessonRoutes } from "./resources/learn/lesson-routes.ts";
import { libraryRoutes } from "./resources/library/routes.ts";
import { liveRoutes } from "./resources/live/routes.ts";
import { meetingRoutes } from "./resources/meeting/routes.ts";
import { ownerRoutes } from "./resources/owner/routes.ts";
import { peopleRoutes } from "./resources/people/routes.ts";
import { productRoutes } from "./resources/product/routes.ts";
import { defectRoutes } from "./resources/record/defect-routes.ts";
import { keptRoutes } from "./resources/record/kept-routes.ts";
import { loadRoutes } from "./resources/record/load-routes.ts";
import { orderRoutes } from "./resources/record/order-routes.ts";
import { photoRoutes } from "./resources/record/photo-routes.ts";
import { recordRoutes } from "./resources/record/routes.ts";
import { sittingRoutes } from "./resources/record/sitting-routes.ts";
import { tryRoutes } from "./resources/record/try-routes.ts";
import { waitingRoutes } from "./resources/record/waiting.ts";
import { releaseRoutes } from "./resources/release/routes.ts";
import { rightsRoutes } from "./resources/rights/routes.ts";
import { lineRoutes } from "./resources/run/lines.ts";
import { runRoutes } from "./resources/run/routes.ts";
import { sessionRoutes } from "./resources/session/routes.ts";
import { shopRoutes } from "./resources/shop/routes.ts";
import { sourceRoutes } from "./resources/source/routes.ts";
import { knowRequests } from "./uncaught.ts";

/**
 * The server as a list: what happens to a request, in order.
 * @param knowWho how it is found out who asks; by the session's cookie where left out
 */
export function createApp(deps: Deps, knowWho: Koa.Middleware = session(deps.pool)): Koa {
  // what a proxy says is believed in one place: middleware/client.ts
  const app = knowRequests(new Koa());
  // a reader who goes away in the middle of a stream is no defect
  app.on("error", (error: NodeJS.ErrnoException) => {
    const code = error.code ?? "";
    if (!["ERR_STREAM_PREMATURE_CLOSE", "ECONNRESET", "EPIPE"].includes(code) && !code.startsWith("HPE_"))
      deps.log({ level: "error", message: error.message, stack: error.stack });
  });
  app.use(requestLog(deps));
  app.use(meet(deps.config.trustsProxy));
  app.use(securityHeaders);
  app.use(errors(deps.log));
  app.use(knownHost(deps.config));
  app.use(health(deps));
  app.use(ownOrigin);
  app.use(knowWho);
  app.use(limitRequests(deps.limits));
  app.use(bodyParser({ enableTypes: ["json"], jsonLimit: "4mb", encoding: "utf-8" }));
  app.use(replay(deps.pool));
  const all = routers(deps);
  guard(all);
  for (const router of all) app.use(router.routes() as unknown as Koa.Middleware);
  if (deps.config.webRoot) app.use(pages(deps.config.webRoot));
  return app;
}

/** All routes, by resource. */
export const routers = (deps: Deps): Router[] => [
  sessionRoutes(deps),
  peopleRoutes(deps),
  shopRoutes(deps),
  productRoutes(deps),
  runRoutes(deps),
  lineRoutes(deps),
  billRoutes(deps),
  fitRoutes(deps),
  meetingRoutes(deps),
  foilRoutes(deps),
  equipmentRoutes(deps),
  lessonRoutes(deps),
  erratumRoutes(deps),
  reworkRoutes(deps),
  ownerRoutes(deps),
  rightsRoutes(deps),
  calendarRoutes(deps),
  sourceRoutes(deps),
  libraryRoutes(deps),
  houseRoutes(deps),
  releaseRoutes(deps),
  recordRoutes(deps),
  orderRoutes(deps),
  sittingRoutes(deps),
  tryRoutes(deps),
  loadRoutes(deps),
  defectRoutes(deps),
  photoRoutes(deps),
  keptRoutes(deps),
  waitingRoutes(deps),
  historyRoutes(deps),
  liveRoutes(deps),
  findRoutes(deps),
  backupRoutes(deps),
];

/** How long a request may take to arrive and to be heard; slower ones are cut. */
export function boundTimes(server: Server): Server {
  server.headersTimeout = 15_000;
  server.requestTimeout = 120_000;
  server.keepAliveTimeout = 10_000;
  // more than that are no people
  server.maxConnections = 4000;
  return server;
}
