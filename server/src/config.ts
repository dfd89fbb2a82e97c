import * as yup from "yup";
import { plainOrigin } from "./origin.ts";

const schema = yup.object({
  DATABASE_URL: yup.string().required("DATABASE_URL is missing: the address of the PostgreSQL database."),
  PORT: yup.number().integer().min(0).max(65535).default(4180),
  HOST: yup.string().default("127.0.0.1"),
  STANDINS_URL: yup.string().default(""),
  FEED_RETRY_MS: yup.number().integer().min(1).default(3000),
  ORDER_LOOK_MS: yup.number().integer().min(1000).default(1_800_000),
  DEMO: yup.string().oneOf(["yes", "first", "no"], "DEMO is “yes”, “first” or “no”.").default("no"),
  WEB_ROOT: yup.string().default(""),
  ROLE: yup.string().oneOf(["all", "web", "worker"], "ROLE is “all”, “web” or “worker”.").default("all"),
  SIGN_UP: yup
    .string()
    .oneOf(["open", "first", "closed"] as const, "SIGN_UP is “open”, “first” or “closed”."),
  SETUP_CODE: yup.string().default(""),
  METRICS_TOKEN: yup.string().default(""),
  TRUST_PROXY: yup.string().oneOf(["yes", "no"], "TRUST_PROXY is “yes” or “no”.").default("no"),
  ORIGINS: yup
    .string()
    .default("")
    .test(
      "origins",
      "ORIGINS is a list of addresses like https://kobbin.example, with scheme and, where it is not the usual one, port.",
      (v) => originsOf(v).every((o) => plainOrigin(o) !== undefined),
    ),
  SHOP_QUOTA_MB: yup.number().integer().min(1).default(2048),
  NEW_SHOPS: yup.number().integer().min(1).default(30),
});

const originsOf = (text: string | undefined): string[] =>
  (text ?? "").split(/[\s,]+/).filter((o) => o !== "");

/** Whether a server that listens there can be reached from this machine only. */
export const isLoopbackHost = (host: string): boolean =>
  host === "localhost" || host === "::1" || /^127\.\d+\.\d+\.\d+$/.test(host);

/** The server's configuration, read once. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  readonly host: string;
  readonly standInsUrl: string;
  /** After how long a supplier that did not answer is asked again; each time twice as long. */
  readonly feedRetryMs: number;
  /** After how long a house is asked again how an order stands. */
  readonly orderLookMs: number;
  readonly hasDemo: boolean;
  /** Runs of the demo shop were built and some are being built; else it stands before its first. */
  readonly isDemoLived: boolean;
  readonly webRoot: string;
  /** What this process does: serve pages, compute in the background, or both. */
  readonly role: "all" | "web" | "worker";
  /** Names the server goes by beside the loopback ones at its own port: scheme, host and port. */
  readonly origins: readonly string[];
  /** Bytes of files a shop may keep. */
  readonly shopQuotaBytes: number;
  /** Shops that may be begun from one network in ten minutes. */
  readonly newShops: number;
  /** Who may start a shop: anybody, the first owner only, nobody. Nobody where the server is reached from elsewhere and it was not asked for. */
  readonly signUp: "open" | "first" | "closed";
  /** What the first owner types who does not sit at this machine. */
  readonly setUpCode: string;
  /** What a collector of metrics from elsewhere shows. */
  readonly metricsToken: string;
  /** A proxy in front says who is calling (X-Forwarded-For, -Proto, -Host). */
  readonly trustsProxy: boolean;
}

/** @throws Error with a sentence per missing or wrong value */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const given = Object.fromEntries(
    Object.keys(schema.fields)
      .map((k) => [k, env[k]] as const)
      .filter(([, v]) => v !== undefined && v !== ""),
  );
  try {
    const c = schema.validateSync(given, { abortEarly: false });
    return {
      databaseUrl: c.DATABASE_URL,
      port: c.PORT,
      host: c.HOST,
      standInsUrl: c.STANDINS_URL,
      feedRetryMs: c.FEED_RETRY_MS,
      orderLookMs: c.ORDER_LOOK_MS,
      hasDemo: c.DEMO !== "no",
      isDemoLived: c.DEMO === "yes",
      webRoot: c.WEB_ROOT,
      role: c.ROLE,
      origins: originsOf(c.ORIGINS).map((o) => plainOrigin(o)!),
      shopQuotaBytes: c.SHOP_QUOTA_MB * 1024 * 1024,
      newShops: c.NEW_SHOPS,
      signUp: c.SIGN_UP ?? (isLoopbackHost(c.HOST) ? "first" : "closed"),
      setUpCode: c.SETUP_CODE,
      metricsToken: c.METRICS_TOKEN,
      trustsProxy: c.TRUST_PROXY === "yes",
    };
  } catch (error) {
    if (error instanceof yup.ValidationError) throw new Error(error.errors.join("\n"));
    throw error;
  }
}
