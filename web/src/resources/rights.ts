import type { RightBody, RightChangeBody } from "@kobbin/contract";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

/** What on a product may be somebody's: every run of it is judged by that. */
async function written<T>(method: string, path: string, body?: unknown) {
  const answer = await outbox.write<T>(method, path, body);
  await refetchRuns();
  return answer;
}

export const addRight = (productId: string, body: Partial<RightBody> & Pick<RightBody, "kind" | "what">) =>
  written<{ id: string }>("POST", `/api/products/${productId}/rights`, body);
export const saveRight = (id: string, body: RightChangeBody) =>
  written<void>("PATCH", `/api/rights/${id}`, body);
export const removeRight = (id: string) => written<void>("DELETE", `/api/rights/${id}`);
