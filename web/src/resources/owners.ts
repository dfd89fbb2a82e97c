import type { NewReportBody, OutsBody, ReportBody, UnitOut } from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";

const keyOf = (run: string) => `/api/runs/${run}/outs`;
/** Where the boards of a run went. */
export const useOuts = (run: string) => useSWR<readonly UnitOut[]>(keyOf(run), http.get);

async function written<T>(method: string, path: string, body?: unknown) {
  const answer = await outbox.write<T>(method, path, body);
  await mutate((key) => key === "/api/learned" || (typeof key === "string" && key.endsWith("/outs")));
  return answer;
}

export const putOuts = (run: string, body: Partial<OutsBody> & Pick<OutsBody, "units" | "on" | "towards">) =>
  written<void>("PUT", keyOf(run), body);
export const removeOut = (id: string) => written<void>("DELETE", `/api/outs/${id}`);
export const forgetHolder = (id: string) => written<void>("DELETE", `/api/outs/${id}/holder`);

export const addReport = (body: Partial<NewReportBody> & Pick<NewReportBody, "productId" | "on" | "says">) =>
  written<{ id: string }>("POST", "/api/reports", body);
export const saveReport = (id: string, body: ReportBody) =>
  written<void>("PATCH", `/api/reports/${id}`, body);
export const removeReport = (id: string) => written<void>("DELETE", `/api/reports/${id}`);
