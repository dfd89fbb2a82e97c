import type {
  AskAnswer,
  BoardBody,
  FirstArticleBody,
  FitBody,
  FoilBody,
  HouseRecord,
  LinkBody,
  MeetBody,
  NewFoilBody,
  NewHouseBody,
  NewSumBody,
  OfferBody,
  QuotationBody,
  QuoteBody,
  RemarkBody,
  RunAnswer,
  RunBody,
  SumBody,
  SupplierBody,
  VariantBody,
} from "@kobbin/contract";
import type { Corrections, RunLine, Variant } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { type Answered, http } from "./http.ts";
import { oneAfterAnother } from "./oneAfterAnother.ts";
import { outbox } from "./outbox.ts";

const keyOf = (id: string) => `/api/runs/${id}`;

/** A run with its document. */
export const useRunAnswer = (id: string) =>
  useSWR<RunAnswer>(keyOf(id), http.get, { revalidateOnFocus: false });
// a fetch that was overtaken by a later one is dropped, and a change that waits for it would be thought to be shown
const fetchAgain = oneAfterAnother((key) => mutate<RunAnswer>(key));
export const refetchRun = (id: string) => fetchAgain(keyOf(id));
/** Every run that is open on the page, fetched again: something they share changed. What is shown stays meanwhile. */
export async function refetchRuns(): Promise<void> {
  const runs: string[] = [];
  const rest = mutate((key) => {
    if (typeof key !== "string" || !key.startsWith("/api/runs/")) return false;
    const isRun = !key.slice("/api/runs/".length).includes("/");
    if (isRun) runs.push(key);
    return !isRun;
  });
  await Promise.all([rest, ...runs.map(fetchAgain)]);
}

/** Sends a change and fetches the run again before it is called done. */
export async function written<T>(
  runId: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<Answered<T>> {
  const answer = await outbox.write<T>(method, path, body);
  await refetchRun(runId);
  return answer;
}

export async function saveRun(id: string, body: RunBody): Promise<Answered<RunAnswer>> {
  const saved = await outbox.write<RunAnswer>("PATCH", keyOf(id), body);
  await mutate(keyOf(id), saved.value, { revalidate: false });
  return saved;
}

export const deleteRun = (id: string) =>
  outbox.write("DELETE", keyOf(id)).then((done) => mutate("/api/bench").then(() => done));
/** How the questions to suppliers stand; looked at each second while some are open, should the stream be cut. */
export const useAsks = (id: string) =>
  useSWR<AskAnswer>(`${keyOf(id)}/asks`, http.get, {
    revalidateOnFocus: false,
    refreshInterval: (a) =>
      [...(a?.asks ?? []), ...(a?.houses ?? []), ...(a?.orders ?? [])].some(
        (x) => x.state === "waiting" || x.state === "asking",
      )
        ? 2000
        : 0,
  });
export const askSuppliers = (id: string) =>
  http.post<AskAnswer>(`${keyOf(id)}/ask`).then((a) => mutate(`${keyOf(id)}/asks`, a, { revalidate: false }));

/** What the shop has seen of each house. */
export const useHouseRecords = () =>
  useSWR<readonly HouseRecord[]>("/api/house-records", http.get, { revalidateOnFocus: false });

/** Asks every house that can be asked, for so many boards started; answers come as quotations, one by one. */
export const askHouses = (id: string, start: number) =>
  http
    .post<AskAnswer>(`${keyOf(id)}/ask-houses`, { start })
    .then((a) => mutate(`${keyOf(id)}/asks`, a, { revalidate: false }));
export const answerQuote = (runId: string, house: string, answer: string) =>
  written<void>(runId, "PUT", `${keyOf(runId)}/quotes/${house}/answer`, { answer });

/** What of a line becomes otherwise; a parent or board of null: it belongs to none any more. */
export type LineChange = Partial<Omit<RunLine, "id" | "parent" | "board">> & {
  readonly parent?: string | null;
  readonly board?: string | null;
};
/** A line with a change laid over it. */
export function changedLine(line: RunLine, { parent, board, ...change }: LineChange): RunLine {
  const { parent: oldParent, board: oldBoard, ...rest } = { ...line, ...change };
  const up = parent === undefined ? oldParent : parent;
  const on = board === undefined ? oldBoard : board;
  return { ...rest, ...(up ? { parent: up } : {}), ...(on ? { board: on } : {}) };
}
export const saveLine = (runId: string, lineId: string, version: number | undefined, change: LineChange) =>
  written<void>(runId, "PATCH", `/api/lines/${lineId}`, { version, ...change });
export const saveLines = (
  runId: string,
  revisionId: string,
  lines: readonly (LineChange & { readonly id: string; readonly version: number | undefined })[],
) => written<void>(runId, "PATCH", `/api/revisions/${revisionId}/lines`, { lines });
export const addLines = (runId: string, revisionId: string, lines: readonly LineChange[]) =>
  written<{ ids: string[] }>(runId, "POST", `/api/revisions/${revisionId}/lines`, lines);
export const mergeLines = (
  runId: string,
  keep: string,
  version: number | undefined,
  others: readonly string[],
) => written<void>(runId, "POST", `/api/lines/${keep}/merge`, { version, others });
/** @param board only this board's lines are replaced */
export const replaceLines = (
  runId: string,
  revisionId: string,
  lines: readonly LineChange[],
  board?: string,
) =>
  written<{ ids: string[] }>(runId, "PUT", `/api/revisions/${revisionId}/lines`, {
    lines,
    ...(board === undefined ? {} : { board }),
  });
/** Columns of lists that were confirmed before: headings → column → what it holds. */
export const useLists = () => useSWR<Record<string, Record<string, string>>>("/api/columns", http.get);
export const rememberList = (source: string, columns: Readonly<Record<string, string>>) =>
  outbox.write<void>("PUT", "/api/columns", { source, columns }).then(() => mutate("/api/columns"));
export const addSum = (runId: string, revisionId: string, body: NewSumBody) =>
  written<{ id: string }>(runId, "POST", `/api/revisions/${revisionId}/sums`, body);
export const saveSum = (runId: string, id: string, body: SumBody) =>
  written<void>(runId, "PATCH", `/api/sums/${id}`, body);
export const removeSum = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/sums/${id}`);
export const addVariant = (
  runId: string,
  revisionId: string,
  name: string,
  overrides: Variant["overrides"] = {},
) => written<{ id: string }>(runId, "POST", `/api/revisions/${revisionId}/variants`, { name, overrides });
export const saveVariant = (runId: string, id: string, body: VariantBody) =>
  written<void>(runId, "PATCH", `/api/variants/${id}`, body);
export const removeVariant = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/variants/${id}`);
export const removeLine = (runId: string, lineId: string) =>
  written<void>(runId, "DELETE", `/api/lines/${lineId}`);

export const addOffer = (runId: string, lineId: string, offer: OfferBody) =>
  written(runId, "POST", `/api/lines/${lineId}/offers`, offer);
export const addQuotation = (runId: string, body: QuotationBody) =>
  written<{ offers: number }>(runId, "POST", `${keyOf(runId)}/quotation`, body);
export const removeOffer = (runId: string, offerId: string) =>
  written(runId, "DELETE", `/api/offers/${offerId}`);
export const addSupplier = (runId: string, body: SupplierBody) =>
  written<{ id: string }>(runId, "POST", "/api/suppliers", body).then((a) => a.value);

export const saveQuote = (runId: string, body: QuoteBody) =>
  written(runId, "PUT", `${keyOf(runId)}/quotes`, body);
export const removeQuote = (runId: string, house: string, kind: string) =>
  written(runId, "DELETE", `${keyOf(runId)}/quotes/${house}/${kind}`);

/** A row of the product's fit sheet; runs of the product are judged by it at once. */
export const addFit = (runId: string, productId: string, body: FitBody) =>
  written<{ id: string }>(runId, "POST", `/api/products/${productId}/fits`, body);
export const saveFit = (runId: string, id: string, body: FitBody) =>
  written<void>(runId, "PUT", `/api/fits/${id}`, body);
export const removeFit = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/fits/${id}`);

/** A connector of the product and what is put onto it; runs of the product are judged by it at once. */
export const addMeeting = (runId: string, productId: string, body: MeetBody) =>
  written<{ id: string }>(runId, "POST", `/api/products/${productId}/meetings`, body);
export const saveMeeting = (runId: string, id: string, body: MeetBody) =>
  written<void>(runId, "PUT", `/api/meetings/${id}`, body);
export const removeMeeting = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/meetings/${id}`);
/** A link of the product that is to be set. */
export const addLink = (runId: string, productId: string, body: LinkBody) =>
  written<{ id: string }>(runId, "POST", `/api/products/${productId}/links`, body);
export const saveLink = (runId: string, id: string, body: LinkBody) =>
  written<void>(runId, "PUT", `/api/links/${id}`, body);
export const removeLink = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/links/${id}`);
/** Other sides the shop has described before. */
export const useOthers = () =>
  useSWR<readonly { readonly other: string; readonly product: string; readonly spec: MeetBody["spec"] }[]>(
    "/api/others",
    http.get,
  );

/** A foil of the product: kept, written on, taken off the list. */
export const addFoil = (runId: string, productId: string, body: NewFoilBody) =>
  written<{ id: string }>(runId, "POST", `/api/products/${productId}/foils`, body);
export const saveFoil = (runId: string, id: string, body: FoilBody) =>
  written<void>(runId, "PATCH", `/api/foils/${id}`, body);
export const removeFoil = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/foils/${id}`);

export const addRemark = (runId: string, body: RemarkBody) =>
  written<{ id: string }>(runId, "POST", `${keyOf(runId)}/remarks`, body);
export const removeRemark = (runId: string, id: string) => written(runId, "DELETE", `/api/remarks/${id}`);

export const correctBoard = (runId: string, boardId: string, change: Corrections) =>
  written(runId, "POST", `/api/boards/${boardId}/corrections`, change);

export const saveBoard = (runId: string, boardId: string, change: BoardBody) =>
  written<void>(runId, "PATCH", `/api/boards/${boardId}`, change);
export const removeBoard = (runId: string, boardId: string) =>
  written<void>(runId, "DELETE", `/api/boards/${boardId}`);

export const copyHouse = (runId: string, copyOf: string, name: string) =>
  written<{ id: string }>(runId, "POST", "/api/houses", { copyOf, name }).then((a) => a.value);
export const beginHouse = (runId: string, body: NewHouseBody) =>
  written<{ id: string }>(runId, "POST", "/api/houses", body).then((a) => a.value);
export const saveHouse = (runId: string, id: string, version: number | undefined, profile: object) =>
  written(runId, "PATCH", `/api/houses/${id}`, { ...profile, version });

export interface Manifest {
  readonly createdAt: string;
  readonly files: readonly { readonly path: string; readonly bytes: number; readonly sha256: string }[];
}
export const useManifest = (id: string | undefined) =>
  useSWR<Manifest>(id ? `${keyOf(id)}/manifest` : null, http.get);
/** Releases a run with every change of this page in it. */
/** Opens a released run again, while nothing was done of it. */
export async function takeBackRelease(id: string): Promise<void> {
  await outbox.settled();
  await http.remove(`${keyOf(id)}/release`);
  await refetchRun(id);
}
export async function releaseRun(id: string): Promise<void> {
  await outbox.settled();
  await http.post(`${keyOf(id)}/release`);
  await refetchRun(id);
}

/** Begins a first article of a run, in a run of its own. */
export async function beginFirstArticle(
  runId: string,
  body: { readonly version: number; readonly boards: number; readonly sockets: FirstArticleBody["sockets"] },
) {
  const answer = await written<{ id: string }>(runId, "POST", `/api/runs/${runId}/first-article`, body);
  await mutate("/api/bench");
  return answer;
}
