import type { Problem } from "@kobbin/contract";
import { type ErrorCode, fromWire } from "@kobbin/core";

/** A request that failed, with what to do; a lost connection is one too. */
export class RequestError extends Error {
  readonly code: string;
  readonly hint: string;

  constructor(code: string, message: string, hint: string) {
    super(message);
    this.name = "RequestError";
    this.code = code;
    this.hint = hint;
  }
}

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  if (problem?.code === "DEFECT" || !problem)
    throw new RequestError(
      "DEFECT",
      problem?.message ?? `The server answered ${response.status}.`,
      problem?.hint ?? "Try again.",
    );
  const error = fromWire({ ...problem, code: problem.code as ErrorCode });
  throw new RequestError(error.code, error.message, error.hint);
}

async function request<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new RequestError(
      "OFFLINE",
      "The server does not answer.",
      "Nothing was lost on the page; try again when it is back.",
    );
  }
  return answer<T>(response);
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { "Content-Type": "application/json" },
  body: JSON.stringify(body),
});

/** The few verbs the page speaks. */
export const http = {
  get: <T>(path: string) => request<T>(path),
  post: <T>(path: string, body?: unknown) =>
    request<T>(path, body === undefined ? { method: "POST" } : json("POST", body)),
  put: <T>(path: string, body: unknown) => request<T>(path, json("PUT", body)),
  patch: <T>(path: string, body: unknown) => request<T>(path, json("PATCH", body)),
  remove: (path: string) => request<void>(path, { method: "DELETE" }),
  form: <T>(path: string, body: FormData) => request<T>(path, { method: "POST", body }),
  /** Bytes with one header; used for the board's own files. */
  async bytes(path: string, header: string): Promise<{ bytes: Uint8Array; header: string }> {
    const response = await fetch(path);
    if (!response.ok) await answer(response);
    return {
      bytes: new Uint8Array(await response.arrayBuffer()),
      header: response.headers.get(header) ?? "",
    };
  },
};
