import { createHash } from "node:crypto";
import Router from "@koa/router";
import type { FeedAnswer, FeedRule, House, HouseOrder, HouseRequest } from "@kobbin/contract";
import Koa from "koa";
import { FIRST_DAY, offersFor } from "./catalogue.ts";
import { HOUSES } from "./houses/index.ts";
import { shownBy } from "./meter.ts";
import { progressOf } from "./orders.ts";
import { quoteFor } from "./quote.ts";
import { search } from "./search.ts";
import { SUPPLIERS } from "./suppliers.ts";

/** How the stand-ins behave: the same seed and day give the same prices and stock. */
export interface StandInOptions {
  readonly seed: string;
  readonly latencyMs: number;
  /** The simulated day, ISO: prices and stock move with it. */
  readonly day?: string;
  /** Today, ISO: orders come along with it; with the simulated day alone where left out. */
  readonly clock?: () => string;
  /** Suppliers that fail on purpose. */
  readonly failing?: ReadonlySet<string>;
  /** Questions a supplier takes in a minute; more are refused. */
  readonly perMinute?: number;
}

/** What meters show to who asks them; each reading is a little unlike the one before. */
function meterRoutes(
  router: Router,
  willing: Willing,
  seed: string,
  { unplugged, overflowing }: Readonly<Record<"unplugged" | "overflowing", ReadonlySet<string>>>,
): void {
  let n = 0;
  router.get("/meters/:key/reading", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    if (unplugged.has(key)) {
      ctx.status = 503;
      ctx.body = { message: "The meter is not plugged in." };
      return;
    }
    const { unit, near } = ctx.query as Record<string, string | undefined>;
    n += 1;
    ctx.body = overflowing.has(key)
      ? { shows: "OL", unit: unit ?? "V" }
      : shownBy(`${seed} ${key} ${n}`, unit ?? "V", near);
  });
}

type Profile = Omit<House, "id">;
/** Houses that make boards for others answer for themselves. */
const answers = (h: Profile): boolean => h.layers.length > 0 && h.bench === undefined;
const keyOfHouse = (h: Profile): string => h.name.split(" ")[0]!.toLowerCase();

async function bodyOf(ctx: Koa.Context): Promise<unknown> {
  const chunks: Buffer[] = [];
  for await (const c of ctx.req) chunks.push(c as Buffer);
  return JSON.parse(Buffer.concat(chunks).toString() || "{}");
}

/** Who is there. */
function listRoutes(router: Router): void {
  router.get("/suppliers", (ctx) => {
    ctx.body = SUPPLIERS;
  });
  router.get("/houses", (ctx) => {
    // those that answer questions over the network have a key; a bench has none to answer
    ctx.body = HOUSES.map((h) => (answers(h) ? { ...h, feedKey: keyOfHouse(h) } : h));
  });
}

type Willing = (ctx: Koa.Context & { params: Record<string, string> }) => Promise<string | undefined>;

/** The part numbers a question names. */
const mpnsOf = (ctx: Koa.Context): readonly string[] => {
  const { mpn = [] } = ctx.query;
  return (Array.isArray(mpn) ? mpn : [mpn]).filter((m) => m !== "").slice(0, 500);
};

/** What suppliers and houses answer, once they are willing. @param day the simulated one for a question */
function feedRoutes(router: Router, willing: Willing, seed: string, day: (ctx: Koa.Context) => string): void {
  router.get("/suppliers/:key/offers", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    const found = mpnsOf(ctx).map((m) => [m, offersFor(key, m, seed, day(ctx))] as const);
    const answer: FeedAnswer = {
      offers: found.flatMap(([, o]) => o),
      notListed: found.filter(([, o]) => o.length === 0).map(([m]) => m),
    };
    ctx.body = answer;
  });
  router.post("/suppliers/:key/search", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    const { rules = [] } = (await bodyOf(ctx)) as { rules?: FeedRule[] };
    ctx.body = search(key, rules, seed, day(ctx));
  });
  router.post("/houses/:key/quote", async (ctx) => {
    const key = await willing(ctx);
    if (key === undefined) return;
    const house = HOUSES.find((h) => answers(h) && keyOfHouse(h) === key);
    if (!house) {
      ctx.status = 404;
      ctx.body = { message: "No such house." };
      return;
    }
    ctx.body = quoteFor(key, house, (await bodyOf(ctx)) as HouseRequest, seed, day(ctx));
  });
}

/** Orders a house was sent, under the reference of who sent them; kept for as long as the stand-ins run. */
function orderRoutes(
  router: Router,
  willing: Willing,
  orders: Map<string, HouseOrder>,
  seed: string,
  day: () => string,
): void {
  // a house is never in the days before it was sent something
  const now = (order: HouseOrder) => (day() > order.sentOn ? day() : order.sentOn);
  const no = (ctx: Koa.Context, status: number, message: string) => {
    ctx.status = status;
    ctx.body = { message };
  };
  const of = async (ctx: Parameters<Willing>[0]) => {
    const key = await willing(ctx);
    if (key === undefined) return undefined;
    const house = HOUSES.find((h) => answers(h) && keyOfHouse(h) === key);
    if (!house) no(ctx, 404, "No such house.");
    return house && { key, house, reference: ctx.params.reference!, at: `${key} ${ctx.params.reference}` };
  };
  router.put("/houses/:key/orders/:reference", async (ctx) => {
    const found = await of(ctx);
    if (!found) return;
    const sent = (await bodyOf(ctx)) as HouseOrder;
    const broken = sent.files.find(
      (f) =>
        createHash("sha256")
          .update(Buffer.from(f.base64 ?? "", "base64"))
          .digest("hex") !== f.sha256,
    );
    if (broken) return no(ctx, 422, `${broken.path} came damaged; please send it again.`);
    const files = sent.files.map(({ path, sha256 }) => ({ path, sha256 }));
    const before = orders.get(found.at);
    if (before && JSON.stringify(before.files) !== JSON.stringify(files))
      return no(ctx, 409, "Other files are another order.");
    const order = { ...sent, files };
    orders.set(found.at, order);
    ctx.body = progressOf(found.key, found.house, found.reference, order, seed, now(order));
  });
  router.post("/houses/:key/orders/:reference/told", async (ctx) => {
    const found = await of(ctx);
    if (!found) return;
    const order = orders.get(found.at);
    if (!order) return no(ctx, 404, "No such order.");
    const { told } = (await bodyOf(ctx)) as Pick<HouseOrder, "told">;
    const next = { ...order, told };
    orders.set(found.at, next);
    ctx.body = progressOf(found.key, found.house, found.reference, next, seed, now(next));
  });
}

/** The simulated suppliers and houses as one small HTTP service. */
export function createStandIns(options: StandInOptions): Koa {
  const app = new Koa();
  const router = new Router();
  let { latencyMs, day = FIRST_DAY } = options;
  const failing = new Set<string>();
  const silent = new Set<string>();
  const meters = { unplugged: new Set<string>(), overflowing: new Set<string>() };
  const asked = new Map<string, number[]>();
  const orders = new Map<string, HouseOrder>();
  // a bad day of one bill alone, for one of many that ask at the same time
  let of: string | undefined;
  let dayOf: string | undefined;
  const isOf = (ctx: Koa.Context) => of !== undefined && mpnsOf(ctx).includes(of);
  listRoutes(router);
  // what lies on the houses' desks
  router.get("/control/orders", (ctx) => {
    ctx.body = [...orders].map(([at, { files }]) => ({ at, files: files.map((f) => f.path) }));
  });
  // what a person at the stand-ins would do: let a day pass, take a supplier down, let one keep silent or lose its orders;
  // "of" a part the day and who is down are so only for who asks for that part
  router.post("/control", (ctx) => {
    const q = ctx.query as Record<string, string | undefined>;
    if (q.of !== undefined) {
      of = q.of;
      dayOf = q.day;
    } else if (q.failing !== undefined) of = undefined;
    if (q.of === undefined && q.day !== undefined && /^\d{4}-\d{2}-\d{2}$/.test(q.day)) day = q.day;
    if (q.latencyMs !== undefined) latencyMs = Number(q.latencyMs);
    for (const at of [...orders.keys()]) if (at.startsWith(`${q.forget} `)) orders.delete(at);
    for (const [set, keys] of [
      [failing, q.failing],
      [silent, q.silent],
      [meters.unplugged, q.unplugged],
      [meters.overflowing, q.overflowing],
    ] as const)
      if (keys !== undefined) {
        set.clear();
        for (const k of keys.split(",").filter(Boolean)) set.add(k);
      }
    ctx.body = { day, latencyMs, failing: [...failing], silent: [...silent] };
  });
  /** The supplier's key, once it is willing to answer: not too often asked, not silent, not down. */
  const willing: Willing = async (ctx) => {
    const key = ctx.params.key!;
    const now = Date.now();
    const recent = (asked.get(key) ?? []).filter((t) => t > now - 60_000);
    asked.set(key, [...recent, now]);
    if (recent.length >= (options.perMinute ?? 600)) {
      ctx.status = 429;
      ctx.set("Retry-After", "60");
      ctx.body = { message: "Too many questions in a minute." };
      return undefined;
    }
    await new Promise((resolve) => setTimeout(resolve, latencyMs));
    if (silent.has(key)) await new Promise((resolve) => setTimeout(resolve, 20_000));
    if ((failing.has(key) && (of === undefined || isOf(ctx))) || options.failing?.has(key)) {
      ctx.status = 503;
      ctx.body = { message: "The feed is down for maintenance." };
      return undefined;
    }
    return key;
  };
  feedRoutes(router, willing, options.seed, (ctx) => (isOf(ctx) ? dayOf : undefined) ?? day);
  meterRoutes(router, willing, options.seed, meters);
  // prices move with the simulated day alone, work goes on by the clock too
  const { clock } = options;
  orderRoutes(router, willing, orders, options.seed, () => (clock && clock() > day ? clock() : day));
  app.use(router.routes());
  return app;
}
