import type {
  BenchAnswer,
  CalendarAnswer,
  CorrectionMemory,
  NewRunBody,
  RevisionAnswer,
  RunAnswer,
  WaitingAnswer,
} from "@kobbin/contract";
import type { Corrections } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";

/** Products and runs. */
export const useBench = () => useSWR<BenchAnswer>("/api/bench", http.get);
/** The secret address of the calendar: who made it and when, never the address itself. */
export const useCalendar = () => useSWR<CalendarAnswer>("/api/calendar", http.get);
export const makeCalendar = async (): Promise<string> => {
  const { path } = await http.post<{ path: string }>("/api/calendar", {});
  await mutate("/api/calendar");
  return path;
};
export const closeCalendar = async (): Promise<void> => {
  await http.remove("/api/calendar");
  await mutate("/api/calendar");
};
export const useWaiting = () => useSWR<WaitingAnswer>("/api/waiting", http.get);
export const useRevision = (id: string | undefined) =>
  useSWR<RevisionAnswer>(id ? `/api/revisions/${id}` : null, http.get);
export const useMemory = () => useSWR<CorrectionMemory>("/api/corrections", http.get);

interface Drop {
  readonly files: readonly File[];
  readonly corrections: Corrections;
}

function formOf(drop: Drop, fields: Readonly<Record<string, string>>): FormData {
  const form = new FormData();
  for (const [key, text] of Object.entries(fields)) form.set(key, text);
  form.set("corrections", JSON.stringify(drop.corrections));
  for (const f of drop.files) form.append("files", f, f.name);
  return form;
}

/** Keeps a drop as a product or as a revision of one. */
export async function keepProduct(
  drop: Drop & { name: string; revision: string; productId?: string },
): Promise<{ productId: string; revisionId: string }> {
  const { name, revision, productId } = drop;
  const form = formOf(drop, { name, revision, ...(productId ? { productId } : {}) });
  const kept = await http.form<{ productId: string; revisionId: string }>("/api/products", form);
  await mutate("/api/bench");
  return kept;
}

/** Keeps a drop as a further board of a revision. @returns its number among the product's boards */
export async function keepBoard(
  runId: string,
  drop: Drop & { revisionId: string; name: string; perProduct: number },
): Promise<number> {
  const form = formOf(drop, { name: drop.name, perProduct: String(drop.perProduct) });
  const { boardId } = await http.form<{ boardId: string }>(`/api/revisions/${drop.revisionId}/boards`, form);
  const run = await mutate<RunAnswer>(`/api/runs/${runId}`, http.get<RunAnswer>(`/api/runs/${runId}`));
  return (run?.boardIds.indexOf(boardId) ?? 0) + 1;
}

export async function startRun(body: NewRunBody): Promise<{ id: string }> {
  const { value } = await outbox.write<{ id: string }>("POST", "/api/runs", body);
  await mutate("/api/bench");
  return value;
}
