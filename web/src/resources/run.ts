import type { AskAnswer, OfferBody, QuoteBody, RunAnswer, RunBody, SupplierBody } from "@kobbin/contract";
import type { Corrections, RunLine } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";

const keyOf = (id: string) => `/api/runs/${id}`;

/** A run with its document. */
export const useRunAnswer = (id: string) =>
  useSWR<RunAnswer>(keyOf(id), http.get, { revalidateOnFocus: false });
/** Fetches a run again and hands on what came before. */
const thenRefetch =
  (id: string) =>
  async <T>(answer: T): Promise<T> => {
    await refetchRun(id);
    return answer;
  };
export const refetchRun = (id: string) => mutate(keyOf(id));

export async function saveRun(id: string, body: RunBody): Promise<RunAnswer> {
  const saved = await http.patch<RunAnswer>(keyOf(id), body);
  await mutate(keyOf(id), saved, { revalidate: false });
  return saved;
}

export const deleteRun = (id: string) => http.remove(keyOf(id)).then(() => mutate("/api/bench"));
export const askSuppliers = (id: string) => http.post<AskAnswer>(`${keyOf(id)}/ask`).then(thenRefetch(id));

type Line = Partial<Omit<RunLine, "id">>;
export const saveLine = (runId: string, lineId: string, change: Line) =>
  http.patch(`/api/lines/${lineId}`, change).then(() => refetchRun(runId));
export const addLine = (runId: string, revisionId: string, line: Line) =>
  http.post<{ id: string }>(`/api/revisions/${revisionId}/lines`, line).then(thenRefetch(runId));
export const removeLine = (runId: string, lineId: string) =>
  http.remove(`/api/lines/${lineId}`).then(() => refetchRun(runId));

export const addOffer = (runId: string, lineId: string, offer: OfferBody) =>
  http.post(`/api/lines/${lineId}/offers`, offer).then(() => refetchRun(runId));
export const removeOffer = (runId: string, offerId: string) =>
  http.remove(`/api/offers/${offerId}`).then(() => refetchRun(runId));
export const addSupplier = (runId: string, body: SupplierBody) =>
  http.post<{ id: string }>("/api/suppliers", body).then(thenRefetch(runId));

export const saveQuote = (runId: string, body: QuoteBody) =>
  http.put(`${keyOf(runId)}/quotes`, body).then(() => refetchRun(runId));
export const removeQuote = (runId: string, house: string, kind: string) =>
  http.remove(`${keyOf(runId)}/quotes/${house}/${kind}`).then(() => refetchRun(runId));

export const correctBoard = (runId: string, boardId: string, change: Corrections) =>
  http.post(`/api/boards/${boardId}/corrections`, change).then(() => refetchRun(runId));

export const copyHouse = (runId: string, copyOf: string, name: string) =>
  http.post<{ id: string }>("/api/houses", { copyOf, name }).then(thenRefetch(runId));
export const saveHouse = (runId: string, id: string, profile: unknown) =>
  http.patch(`/api/houses/${id}`, profile).then(() => refetchRun(runId));

export interface Manifest {
  readonly createdAt: string;
  readonly files: readonly { readonly path: string; readonly bytes: number; readonly sha256: string }[];
}
export const useManifest = (id: string | undefined) =>
  useSWR<Manifest>(id ? `${keyOf(id)}/manifest` : null, http.get);
export const releaseRun = (id: string) => http.post(`${keyOf(id)}/release`).then(() => refetchRun(id));
