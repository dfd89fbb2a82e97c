import type { BenchAnswer, CorrectionMemory, NewRunBody, RevisionAnswer, RunAnswer } from "@kobbin/contract";
import type { Corrections } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";

/** Products and runs. */
export const useBench = () => useSWR<BenchAnswer>("/api/bench", http.get);
export const useRevision = (id: string | undefined) =>
  useSWR<RevisionAnswer>(id ? `/api/revisions/${id}` : null, http.get);
export const useMemory = () => useSWR<CorrectionMemory>("/api/corrections", http.get);

/** Keeps a drop as a product or as a revision of one. */
export async function keepProduct(drop: {
  name: string;
  revision: string;
  productId?: string;
  files: readonly File[];
  corrections: Corrections;
}): Promise<{ productId: string; revisionId: string }> {
  const form = new FormData();
  form.set("name", drop.name);
  form.set("revision", drop.revision);
  if (drop.productId) form.set("productId", drop.productId);
  form.set("corrections", JSON.stringify(drop.corrections));
  for (const f of drop.files) form.append("files", f, f.name);
  const kept = await http.form<{ productId: string; revisionId: string }>("/api/products", form);
  await mutate("/api/bench");
  return kept;
}

/** Keeps a drop as a further board of a revision. @returns its number among the product's boards */
export async function keepBoard(
  runId: string,
  drop: {
    revisionId: string;
    name: string;
    perProduct: number;
    files: readonly File[];
    corrections: Corrections;
  },
): Promise<number> {
  const form = new FormData();
  form.set("name", drop.name);
  form.set("perProduct", String(drop.perProduct));
  form.set("corrections", JSON.stringify(drop.corrections));
  for (const f of drop.files) form.append("files", f, f.name);
  const { boardId } = await http.form<{ boardId: string }>(`/api/revisions/${drop.revisionId}/boards`, form);
  const run = await mutate<RunAnswer>(`/api/runs/${runId}`, http.get<RunAnswer>(`/api/runs/${runId}`));
  return (run?.boardIds.indexOf(boardId) ?? 0) + 1;
}

export async function startRun(body: NewRunBody): Promise<{ id: string }> {
  const { value } = await outbox.write<{ id: string }>("POST", "/api/runs", body);
  await mutate("/api/bench");
  return value;
}
