import { randomBytes } from "node:crypto";
import { afterAll, beforeAll, beforeEach } from "@jest/globals";
import type { Config } from "@kobbin/server";
import pg from "pg";
import { makeDatabase } from "./database.ts";
import { startServer, type TestServer, Visitor } from "./kit.ts";
import { endAll, type Running, startProcess } from "./processes.ts";

/** A server that slows nobody, for a test file that besieges it; and what it called a defect meanwhile. */
export function besieged(over: Partial<Config> = {}): {
  readonly server: TestServer;
  readonly defects: string[];
} {
  let server: TestServer;
  const defects: string[] = [];
  const endless = { burst: 1e9, perSecond: 1e9 };
  beforeAll(async () => {
    server = await startServer(over, {
      limits: { read: endless, write: endless },
      // what ends a stream is told, not found at the next beat
      beatMs: 3_600_000,
      log: (e) => {
        if (e.level === "error") defects.push(JSON.stringify(e).slice(0, 300));
      },
    });
  });
  beforeEach(() => server.owner.query("delete from tries"));
  afterAll(async () => {
    endAll();
    await server.close();
  });
  return {
    get server() {
      return server;
    },
    defects,
  };
}

export const until = async (is: () => Promise<boolean> | boolean, what: string): Promise<void> => {
  for (let i = 0; i < 2400; i++) {
    if (await is()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error(`never: ${what}`);
};

/** The code of a problem document; undefined of any other answer. */
export const codeOf = (r: { body: unknown }): string | undefined =>
  (r.body as { code?: string } | undefined)?.code;

/** A process of its own, as it is run in earnest. */
export async function ownProcess(
  env: Record<string, string> = {},
): Promise<Running & { visitor: () => Visitor; drop: () => Promise<void> }> {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL! });
  await admin.connect();
  const name = `siege_${randomBytes(5).toString("hex")}`;
  const { databaseUrl } = await makeDatabase(admin, name);
  const running = await startProcess({ DATABASE_URL: databaseUrl, ...env });
  return {
    ...running,
    visitor: () => new Visitor({ url: running.url } as never),
    drop: async () => {
      running.child.kill("SIGKILL");
      await running.ended;
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}
