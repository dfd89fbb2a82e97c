import type {
  AlternateBody,
  BoardsWith,
  LotAirBody,
  LotBody,
  LotCountsBody,
  LotRow,
  NewLotBody,
  NewPartBody,
  PartAnswer,
  PartBody,
  PartsAnswer,
  ReservationBody,
  SupplierChange,
  UnknownPart,
} from "@kobbin/contract";
import type { LotMove, Low, RunSupplier } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { type Answered, http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

/** Parts of the library that hold every word; without words the first of all. */
export const useParts = (words: string | undefined) =>
  useSWR<PartsAnswer>(words === undefined ? null : `/api/parts?q=${encodeURIComponent(words)}`, http.get, {
    keepPreviousData: true,
  });
/** Numbers of the bills the library does not know. */
export const useUnknownNumbers = () => useSWR<UnknownPart[]>("/api/numbers", http.get);
export const usePart = (id: string | undefined) =>
  useSWR<PartAnswer>(id ? `/api/parts/${id}` : null, http.get);
export const useLots = () => useSWR<LotRow[]>("/api/lots", http.get);

/** Where the pieces of a lot came from and went; asked anew when the lot changed. */
export const useMoves = (lot: Pick<LotRow, "id" | "version">) =>
  useSWR<LotMove[]>(`/api/lots/${lot.id}/moves#${lot.version}`, (key: string) =>
    http.get<LotMove[]>(key.replace(/#.*/, "")),
  );
/** Runs whose boards may have pieces of a lot. */
export const useBoardsWith = (lot: Pick<LotRow, "id">) =>
  useSWR<BoardsWith[]>(`/api/lots/${lot.id}/boards`, http.get);
/** What there is too little of. */
export const useLow = () => useSWR<Low[]>("/api/low", http.get);

/** Everything that shows parts, lots, or a run that stands on them. */
export const refetchLibrary = () =>
  Promise.all([
    mutate(
      (key) =>
        typeof key === "string" &&
        (key.startsWith("/api/parts") || ["/api/lots", "/api/low", "/api/numbers"].includes(key)),
    ),
    refetchRuns(),
  ]);

async function written<T>(method: string, path: string, body?: unknown): Promise<Answered<T>> {
  const answer = await outbox.write<T>(method, path, body);
  await refetchLibrary();
  return answer;
}

export const addParts = (parts: NewPartBody["parts"]) =>
  written<{ ids: string[] }>("POST", "/api/parts", { parts });
export const savePart = (id: string, body: PartBody) => written<void>("PATCH", `/api/parts/${id}`, body);
export const removePart = (id: string) => written<void>("DELETE", `/api/parts/${id}`);
export const decideAlternate = (body: AlternateBody) =>
  written<{ id: string }>("PUT", "/api/alternates", body);
export const addLot = (body: Partial<NewLotBody> & Pick<NewLotBody, "mpn" | "qty" | "currency">) =>
  written<{ id: string }>("POST", "/api/lots", body);
export const saveLot = (id: string, body: LotBody) => written<void>("PATCH", `/api/lots/${id}`, body);
/** What happened to a lot's dry bag, or what its label allows. */
export const sayAir = (id: string, body: LotAirBody) => written<void>("POST", `/api/lots/${id}/air`, body);
export const saveCounts = (body: LotCountsBody) =>
  written<{ differ: number }>("POST", "/api/lots/count", body);
export const removeLot = (id: string) => written<void>("DELETE", `/api/lots/${id}`);
export const reserve = (runId: string, body: ReservationBody) =>
  written<void>("PUT", `/api/runs/${runId}/reservations`, body);

/** A supplier with its terms. */
export type SupplierRow = RunSupplier & { readonly feedKey: string | null; readonly version: number };
export const useSuppliers = () => useSWR<SupplierRow[]>("/api/suppliers", http.get);
/** Takes the made-up suppliers and houses a shop came with away, with what hangs on them. */
export const takeMadeUpAway = () =>
  outbox
    .write<void>("POST", "/api/made-up/away", {})
    .then((done) => Promise.all([mutate("/api/suppliers"), refetchRuns()]).then(() => done));
export const saveSupplier = (id: string, body: SupplierChange) =>
  outbox
    .write<void>("PATCH", `/api/suppliers/${id}`, body)
    .then((done) => Promise.all([mutate("/api/suppliers"), refetchRuns()]).then(() => done));
