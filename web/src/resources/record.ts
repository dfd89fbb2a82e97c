import type {
  BareTestBody,
  ClaimBody,
  ClosingBody,
  DefectBody,
  DefectChangeBody,
  KeptBody,
  LoadBody,
  MeasuredBody,
  NewClaimBody,
  OrderStepBody,
  PhotoBody,
  PhotoChangeBody,
  PurchaseBody,
  ReceiptBody,
  ReceiptChangeBody,
  SittingBody,
  TryBody,
  WorkBody,
} from "@kobbin/contract";
import type { LotBefore, TryVerdict } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox, useSaving } from "./outbox.ts";
import { written } from "./run.ts";

const of = (runId: string, what: string) => `/api/runs/${runId}/${what}`;

/** What is known of an order. */
export const savePurchase = (runId: string, body: PurchaseBody) =>
  written<void>(runId, "PUT", of(runId, "purchases"), body);
/** What became of an order at a house. */
export const addStep = (runId: string, body: OrderStepBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "order-steps"), body).then(asked(runId));
export const removeStep = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/order-steps/${id}`);
/** Sends an order to its house over the network; what it says comes by itself. */
export const sendOrder = (runId: string, order: string) =>
  written<{ id: string }>(runId, "POST", of(runId, "send-order"), { order }).then(asked(runId));
/** Asks the house of a sent order again, now. */
export const lookOrder = (runId: string, order: string) =>
  http.post<void>(of(runId, "look-order"), { order }).then(asked(runId));
/** How the questions of a run stand is looked at anew. */
const asked =
  (runId: string) =>
  <T>(done: T): Promise<T> =>
    mutate(of(runId, "asks")).then(() => done);
/** What came lies on the shelf, or does no more. */
const withShelf = <T>(done: T): Promise<T> => mutate("/api/lots").then(() => done);
/** A parcel that came. */
export const addReceipt = (runId: string, body: ReceiptBody) =>
  written<{ ids: string[] }>(runId, "POST", of(runId, "receipts"), body).then(withShelf);
/** Pieces of an item that were counted and cannot be sent now: they are kept on this page, and sent by themselves. */
export function useCountedUnsent(runId: string): (order: string, item: string) => number {
  const saving = useSaving();
  const list =
    saving.kind === "waiting" ? (outbox.pending(of(runId, "receipts")) as readonly ReceiptBody[]) : [];
  return (order, item) =>
    list
      .filter((b) => b.order === order)
      .flatMap((b) => b.items)
      .reduce((n, i) => n + (i.item === item ? i.qty : 0), 0);
}
export const removeReceipt = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/receipts/${id}`).then(withShelf);
/** A bare board that was tried with a meter. */
export const addBareTest = (runId: string, body: BareTestBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "bare-tests"), body);
export const removeBareTest = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/bare-tests/${id}`);
/** A bare board that was measured and looked at. */
export const addMeasured = (
  runId: string,
  body: Pick<MeasuredBody, "item" | "label" | "on" | "readings" | "looks"> & { readonly receipt?: string },
) => written<{ id: string }>(runId, "POST", of(runId, "measured"), body);
export const removeMeasured = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/measured/${id}`);
/** Bare boards put by for something; where they lie; not any more. */
export const addKept = (runId: string, body: KeptBody) =>
  written<{ ids: string[] }>(runId, "POST", of(runId, "kept"), body);
export const saveKept = (runId: string, id: string, place: string) =>
  written<void>(runId, "PATCH", `/api/kept/${id}`, { place });
export const removeKept = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/kept/${id}`);
/** Lots of bare boards that came for other runs and were looked at: the same product's first, the newest first. */
export const useLotsBefore = (runId: string) =>
  useSWR<readonly LotBefore[]>(of(runId, "lots-before"), http.get, { revalidateOnFocus: false });
/** A try of an item of the test plan; the server says what it comes to. */
export const addTry = (runId: string, body: TryBody) =>
  written<{ id: string; verdict: TryVerdict }>(runId, "POST", of(runId, "tries"), body);
export const removeTry = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/tries/${id}`);
/** One go at loading an image into a board; the server says whether it counts as right. */
export const addLoad = (runId: string, body: LoadBody) =>
  written<{ id: string; isRight: boolean }>(runId, "POST", of(runId, "loads"), body);
/** The day on which a board was wiped; null where it was not after all. */
export const saveWiped = (runId: string, id: string, on: string | null) =>
  written<void>(runId, "PATCH", `/api/loads/${id}`, { on });
export const removeLoad = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/loads/${id}`);
/** Something found wrong on a board, and what became of it. */
export const addDefect = (runId: string, body: DefectBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "defects"), body);
export const saveDefect = (runId: string, id: string, body: DefectChangeBody) =>
  written<void>(runId, "PATCH", `/api/defects/${id}`, body);
export const removeDefect = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/defects/${id}`);
/** A delivery that is set apart, or used after all; what lies on the shelf of it goes along. */
export const setApart = (runId: string, id: string, body: ReceiptChangeBody) =>
  written<void>(runId, "PATCH", `/api/receipts/${id}`, body).then(withShelf);
/** What came otherwise than ordered, and what becomes of it. */
export const addClaim = (runId: string, body: NewClaimBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "claims"), body);
export const saveClaim = (runId: string, id: string, body: ClaimBody) =>
  written<void>(runId, "PATCH", `/api/claims/${id}`, body);
export const removeClaim = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/claims/${id}`);
/** A photo of what came, of a board or of a fault on it. */
export const addPhoto = (runId: string, body: PhotoBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "photos"), body);
export const savePhoto = (runId: string, id: string, body: PhotoChangeBody) =>
  written<void>(runId, "PATCH", `/api/photos/${id}`, body);
export const removePhoto = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/photos/${id}`);
/** A step of a board as far as it came at the bench. */
export const saveSitting = (runId: string, body: SittingBody) =>
  written<void>(runId, "PUT", of(runId, "sittings"), body);
/** Counts and minutes of one go at the bench. */
export const addWork = (runId: string, body: WorkBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "work"), body);
export const removeWork = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/work/${id}`);
export const closeRun = (runId: string, body: ClosingBody) =>
  written<void>(runId, "PUT", of(runId, "closing"), body).then(withShelf);
