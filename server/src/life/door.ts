import { randomBytes } from "node:crypto";
import type { AddressInfo } from "node:net";
import { createApp } from "../app.ts";
import { withWorkshop } from "../db/tx.ts";
import type { Deps } from "../deps.ts";
import type { By } from "../history/change.ts";
import { DOOR_KEY, signedAs } from "../middleware/session.ts";

/** A way into a shop as a page has it: the same routes, asked over this machine's own network. */
export interface Door {
  /** @throws Error with what the route answered where it refused */
  ask<T = unknown>(
    method: "GET" | "POST" | "PUT" | "PATCH" | "DELETE",
    path: string,
    body?: object,
  ): Promise<T>;
  /** From now on it is this day, an ISO date: what was done since the day before is written down as done then. */
  on(day: string): Promise<void>;
  /** The server as it is on that day. */
  readonly deps: Deps;
  close(): Promise<void>;
}

/** Nobody types so fast; what is told here was typed over months. */
const UNBOUND = { read: { burst: 1e9, perSecond: 1e9 }, write: { burst: 1e9, perSecond: 1e9 } };

/**
 * Opens a door for one person into one shop: what comes through it is that person's. It is gone when it is closed.
 * @param from the day on which all that stands there was written down
 */
export async function openDoor(deps: Deps, by: By, from: string): Promise<Door> {
  let today = from;
  const then: Deps = {
    ...deps,
    config: { ...deps.config, webRoot: "" },
    limits: UNBOUND,
    today: () => today,
    now: () => new Date(`${today}T09:30:00Z`),
  };
  /** What the history has from its beginning up to now, if nobody else says otherwise. */
  let done = 0n;
  const settle = () =>
    withWorkshop(deps.pool, by.workshopId, async (tx) => {
      const { rows } = await tx.query<{ last: string | null }>(
        "with told as (update change set at = $1 where id > $2 returning id) select max(id) as last from told",
        [then.now!().toISOString(), String(done)],
      );
      done = rows[0]?.last ? BigInt(rows[0].last) : done;
    });
  // others on this machine may find the port, and are nobody there
  const key = randomBytes(32).toString("base64url");
  const who = {
    accountId: by.accountId!,
    workshopId: by.workshopId,
    person: by.person,
    role: "owner",
  } as const;
  const app = createApp(then, signedAs(who, key));
  const server = app.listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    async ask<T>(method: string, path: string, body?: object): Promise<T> {
      const answer = await fetch(`${url}${path}`, {
        method,
        headers: { Origin: url, [DOOR_KEY]: key, "Content-Type": "application/json" },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      const text = await answer.text();
      if (!answer.ok) throw new Error(`${method} ${path} answers ${answer.status}: ${text}`);
      return (text === "" ? undefined : JSON.parse(text)) as T;
    },
    async on(day) {
      if (day === today) return;
      await settle();
      today = day;
    },
    deps: then,
    async close() {
      await settle();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
    },
  };
}
