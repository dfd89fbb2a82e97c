import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ROOT } from "../tools/setup.mjs";

/**
 * People with a shop, a board and a run each who click through it, and how long they wait.
 * @param url where the server answers
 */
export function peopleOf(url) {
  const told = { times: new Map(), failures: new Map(), isCounting: false };
  const archive = readFileSync(join(ROOT, "demo/boards/probe-tail.zip"));

  class Person {
    constructor(n) {
      this.n = n;
      this.cookie = "";
    }
    headers(method) {
      return {
        Origin: url,
        Cookie: this.cookie,
        // everybody from an address of their own, as behind a proxy
        "X-Forwarded-For": `10.0.${this.n >> 8}.${this.n & 255}`,
        ...(method === "GET" ? {} : { "X-Request-Key": randomUUID() }),
      };
    }
    async call(what, method, path, body) {
      const isForm = body instanceof FormData;
      const started = performance.now();
      let status = 0;
      try {
        const r = await fetch(`${url}${path}`, {
          method,
          headers: {
            ...this.headers(method),
            ...(body && !isForm ? { "Content-Type": "application/json" } : {}),
          },
          ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
        });
        const set = r.headers.getSetCookie()[0];
        if (set) this.cookie = set.split(";")[0];
        status = r.status;
        const bytes = await r.arrayBuffer();
        if (told.isCounting)
          told.times.set(what, [...(told.times.get(what) ?? []), performance.now() - started]);
        if (status >= 400) throw new Error(`${status}`);
        return (r.headers.get("content-type") ?? "").includes("json")
          ? JSON.parse(Buffer.from(bytes).toString())
          : undefined;
      } catch (error) {
        if (told.isCounting || status === 0)
          told.failures.set(
            `${what}: ${error.message}`,
            (told.failures.get(`${what}: ${error.message}`) ?? 0) + 1,
          );
        if (!told.isCounting) throw error;
        return undefined;
      }
    }
    async moveIn() {
      await this.call("start", "POST", "/api/shops", {
        name: `Shop ${this.n}`,
        currency: "EUR",
        hourlyRate: "24",
        email: `person-${this.n}`,
        password: "a long password",
      });
      const form = new FormData();
      form.set("name", "Probe Tail");
      form.set("revision", "A");
      form.append("files", new Blob([archive]), "probe-tail.zip");
      const { revisionId } = await this.call("drop a board", "POST", "/api/products", form);
      this.revisionId = revisionId;
      const { id } = await this.call("start a run", "POST", "/api/runs", {
        revisionId,
        name: "load",
        goodBoards: 20,
      });
      this.run = id;
      await this.call("ask the suppliers", "POST", `/api/runs/${id}/ask`);
    }
    async click() {
      const answer = await this.call("open the run", "GET", `/api/runs/${this.run}`);
      if (!answer) return;
      const dice = Math.random();
      const lines = answer.document.lines;
      if (dice < 0.3)
        await this.call("change a choice", "PATCH", `/api/runs/${this.run}`, {
          version: answer.version,
          goodBoards: 10 + Math.floor(Math.random() * 90),
        });
      else if (dice < 0.5) {
        const line = lines[Math.floor(Math.random() * lines.length)];
        await this.call("change a line", "PATCH", `/api/lines/${line.id}`, {
          version: answer.versions[line.id],
          description: `note ${Math.floor(Math.random() * 1e6)}`,
        });
      } else if (dice < 0.6) {
        // what was just changed, taken back
        await this.call("change a choice", "PATCH", `/api/runs/${this.run}`, {
          version: answer.version,
          goodBoards: 10 + Math.floor(Math.random() * 9000),
        });
        await this.call("take back", "POST", `/api/runs/${this.run}/undo`, {});
      } else if (dice < 0.72) await this.call("open the history", "GET", `/api/history?run=${this.run}`);
      else if (dice < 0.84) await this.call("open the bench", "GET", "/api/bench");
      else if (dice < 0.92) await this.call("find", "GET", "/api/find?q=probe");
      else if (dice < 0.97)
        await this.call("download the files", "GET", `/api/boards/${answer.boardIds[0]}/files`);
      else await this.call("ask the suppliers", "POST", `/api/runs/${this.run}/ask`);
    }
  }

  return { Person, told };
}

/** The value below which a share of them lies. */
export const at = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
export const round = (v) => Math.round(v * 10) / 10;
export const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Everybody has a shop and a run: so many at a time. */
export async function moveIn(list) {
  for (let i = 0; i < list.length; i += 4) await Promise.all(list.slice(i, i + 4).map((p) => p.moveIn()));
}

/** Everybody clicks until the time is over, and looks at what came before the next click. */
export const clicking = (list, until) =>
  Promise.all(
    list.map(async (p) => {
      await pause(Math.random() * 2000);
      while (performance.now() < until) {
        await p.click();
        await pause(500 + Math.random() * 2000);
      }
    }),
  );
