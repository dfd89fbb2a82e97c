import type { ClashDetail, Problem } from "@kobbin/contract";
import { type ErrorCode, fromWire } from "@kobbin/core";
import { takeEarly } from "../early.ts";
import { pageId } from "./page.ts";

/** A request that failed, with what to do; a lost connection is one too. */
export class RequestError extends Error {
  readonly code: string;
  readonly hint: string;
  readonly details: unknown;

  constructor(code: string, message: string, hint: string, details?: unknown) {
    super(message);
    this.name = "RequestError";
    this.code = code;
    this.hint = hint;
    this.details = details;
  }

  /** Goes by itself: the same request may be sent again later. */
  get isPassing(): boolean {
    return ["OFFLINE", "DATABASE_AWAY", "TOO_MANY_TRIES", "BUSY", "STORAGE_FULL"].includes(this.code);
  }
}

/** Both values of every field that somebody else set meanwhile; empty for other errors. */
export function clashesOf(error: unknown): readonly ClashDetail[] {
  if (!(error instanceof RequestError) || error.code !== "STALE_VERSION") return [];
  return (error.details as { clashes?: readonly ClashDetail[] } | undefined)?.clashes ?? [];
}

/** An answer with the number of the change it made. */
export interface Answered<T> {
  readonly value: T;
  readonly changeId?: string;
}

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  // a proxy that finds no server behind it speaks for itself
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  if (!problem && [502, 503, 504].includes(response.status)) throw offline();
  if (problem?.code === "DEFECT" || !problem)
    throw new RequestError(
      "DEFECT",
      problem?.message ?? `The server answered ${response.status}.`,
      problem?.hint ?? "Try again.",
    );
  const error = fromWire({ ...problem, code: problem.code as ErrorCode });
  if (error.code === "NOT_SIGNED_IN") window.dispatchEvent(new Event("kobbin-signed-out"));
  throw new RequestError(error.code, error.message, error.hint, error.details);
}

const offline = () =>
  new RequestError(
    "OFFLINE",
    "The server does not answer.",
    "Nothing was lost on the page; try again when it is back.",
  );

async function send(path: string, init?: RequestInit): Promise<Response> {
  try {
    return await fetch(path, { ...init, headers: { "X-Page": pageId(), ...init?.headers } });
  } catch {
    throw offline();
  }
}

const request = async <T>(path: string, init?: RequestInit): Promise<T> => answer<T>(await send(path, init));

const json = (method: string, body: unknown): RequestInit =>
  body === undefined
    ? { method }
    : { method, headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) };

/** The few verbs the page speaks. Changes of a shop's data go through the outbox, not through here. */
export const http = {
  get: async <T>(path: string) => {
    const early = await takeEarly(path);
    return early ? answer<T>(early) : request<T>(path);
  },
  post: <T>(path: string, body?: unknown) => request<T>(path, json("POST", body)),
  put: <T>(path: string, body: unknown) => request<T>(path, json("PUT", body)),
  patch: <T>(path: string, body: unknown) => request<T>(path, json("PATCH", body)),
  remove: (path: string) => request<void>(path, { method: "DELETE" }),
  form: <T>(path: string, body: FormData) => request<T>(path, { method: "POST", body }),
  /** One change with its key: sent twice, it is done once. */
  async change<T>(method: string, path: string, body: unknown, key: string): Promise<Answered<T>> {
    const init = json(method, body);
    const response = await send(path, { ...init, headers: { ...init.headers, "X-Request-Key": key } });
    const changeId = response.headers.get("X-Change") ?? undefined;
    return { value: await answer<T>(response), ...(changeId ? { changeId } : {}) };
  },
  /** Bytes with one header; used for the board's own files. */
  async bytes(path: string, header: string): Promise<{ bytes: Uint8Array; header: string }> {
    const response = await send(path);
    if (!response.ok) await answer(response);
    return {
      bytes: new Uint8Array(await response.arrayBuffer()),
      header: response.headers.get(header) ?? "",
    };
  },
  /** A picture with one header, as far as there is one. */
  async picture(path: string, header: string): Promise<{ blob: Blob; header: string } | undefined> {
    const response = await send(path);
    if (!response.ok) await answer(response);
    return response.status === 204
      ? undefined
      : { blob: await response.blob(), header: response.headers.get(header) ?? "" };
  },
};
