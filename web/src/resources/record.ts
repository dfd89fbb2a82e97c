import type { BareTestBody, ClosingBody, PurchaseBody, ReceiptBody, WorkBody } from "@kobbin/contract";
import { mutate } from "swr";
import { written } from "./run.ts";

const of = (runId: string, what: string) => `/api/runs/${runId}/${what}`;

/** What is known of an order. */
export const savePurchase = (runId: string, body: PurchaseBody) =>
  written<void>(runId, "PUT", of(runId, "purchases"), body);
/** A parcel that came. */
export const addReceipt = (runId: string, body: ReceiptBody) =>
  written<{ ids: string[] }>(runId, "POST", of(runId, "receipts"), body);
export const removeReceipt = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/receipts/${id}`);
/** A bare board that was tried with a meter. */
export const addBareTest = (runId: string, body: BareTestBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "bare-tests"), body);
export const removeBareTest = (runId: string, id: string) =>
  written<void>(runId, "DELETE", `/api/bare-tests/${id}`);
/** Counts and minutes of one go at the bench. */
export const addWork = (runId: string, body: WorkBody) =>
  written<{ id: string }>(runId, "POST", of(runId, "work"), body);
export const removeWork = (runId: string, id: string) => written<void>(runId, "DELETE", `/api/work/${id}`);
export const closeRun = (runId: string, body: ClosingBody) =>
  written<void>(runId, "PUT", of(runId, "closing"), body).then((done) =>
    mutate("/api/lots").then(() => done),
  );
