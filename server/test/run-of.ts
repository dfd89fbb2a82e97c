import type { RunAnswer } from "@kobbin/contract";
import type { Visitor } from "./kit.ts";

/** A product of dropped files with a run of it, and how it is read. */
export async function runOf(v: Visitor, files: Record<string, Uint8Array | string>, goodBoards = 10) {
  const kept = (await v.drop(files)).body as { revisionId: string; boardId: string };
  const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards }))
    .body as { id: string };
  return { ...kept, id, read: async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer };
}
