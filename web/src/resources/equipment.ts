import type { EquipmentBody, MeterBody, MeterReading, NewEquipmentBody } from "@kobbin/contract";
import type { Equipment } from "@kobbin/core";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

/** Machines and tools of the shop. */
export const useEquipment = () =>
  useSWR<{ readonly equipment: readonly Equipment[] }>("/api/equipment", http.get);

/** A machine of the shop: what the order of work of every run is judged by. */
async function written<T>(method: string, path: string, body?: unknown) {
  const answer = await outbox.write<T>(method, path, body);
  await Promise.all([mutate("/api/equipment"), refetchRuns()]);
  return answer;
}
export const addEquipment = (body: Partial<NewEquipmentBody> & Pick<NewEquipmentBody, "kind" | "name">) =>
  written<{ id: string }>("POST", "/api/equipment", body);
export const saveEquipment = (id: string, body: EquipmentBody) =>
  written<void>("PATCH", `/api/equipment/${id}`, body);
export const removeEquipment = (id: string) => written<void>("DELETE", `/api/equipment/${id}`);
/** What a meter shows, asked over the network; nothing is changed by it. */
export const readMeter = (id: string, body: MeterBody) =>
  http.post<MeterReading>(`/api/equipment/${id}/reading`, body);
