import * as yup from "yup";

const schema = yup.object({
  DATABASE_URL: yup.string().required("DATABASE_URL is missing: the address of the PostgreSQL database."),
  PORT: yup.number().integer().min(0).max(65535).default(4180),
  HOST: yup.string().default("127.0.0.1"),
  STANDINS_URL: yup.string().default(""),
  DEMO: yup.string().oneOf(["yes", "no"], "DEMO is “yes” or “no”.").default("no"),
  WEB_ROOT: yup.string().default(""),
});

/** The server's configuration, read once. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  readonly host: string;
  readonly standInsUrl: string;
  readonly hasDemo: boolean;
  readonly webRoot: string;
}

/** @throws Error with a sentence per missing or wrong value */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const { DATABASE_URL, PORT, HOST, STANDINS_URL, DEMO, WEB_ROOT } = env;
  const given = Object.fromEntries(
    Object.entries({ DATABASE_URL, PORT, HOST, STANDINS_URL, DEMO, WEB_ROOT }).filter(
      ([, v]) => v !== undefined && v !== "",
    ),
  );
  try {
    const c = schema.validateSync(given, { abortEarly: false });
    return {
      databaseUrl: c.DATABASE_URL,
      port: c.PORT,
      host: c.HOST,
      standInsUrl: c.STANDINS_URL,
      hasDemo: c.DEMO === "yes",
      webRoot: c.WEB_ROOT,
    };
  } catch (error) {
    if (error instanceof yup.ValidationError) throw new Error(error.errors.join("\n"));
    throw error;
  }
}
