import type {
  DecisionBody,
  ErratumBody,
  LearnedAnswer,
  LessonBody,
  NewErratumBody,
  NewLessonBody,
  PlanBody,
  ReworkBody,
} from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

/**
 * All the shop has learned.
 *
 * @param isLive asked again while somebody looks, since boards are read and counted in the background
 */
export const useLearned = (isLive = false) =>
  useSWR<LearnedAnswer>("/api/learned", http.get, { refreshInterval: isLive ? 4000 : 0 });

/** Houses by name: any of them may be doubted. */
export const useHouseNames = () =>
  useSWR<readonly { readonly id: string; readonly name: string }[]>("/api/houses", http.get);

async function written<T>(method: string, path: string, body?: unknown) {
  const answer = await outbox.write<T>(method, path, body);
  await Promise.all([mutate("/api/learned"), refetchRuns()]);
  return answer;
}

/** Decides whether a product wants a next revision. */
export const savePlan = (productId: string, body: PlanBody) =>
  written<void>("PUT", `/api/products/${productId}/next-revision`, body);

export type NewLesson = Partial<NewLessonBody> & Pick<NewLessonBody, "title" | "check" | "since">;
export const addLesson = (body: NewLesson) => written<{ id: string }>("POST", "/api/lessons", body);
export const saveLesson = (id: string, body: LessonBody) =>
  written<void>("PATCH", `/api/lessons/${id}`, body);
export const removeLesson = (id: string) => written<void>("DELETE", `/api/lessons/${id}`);

export type NewErratum = Partial<NewErratumBody> &
  Pick<NewErratumBody, "revisionId" | "title" | "harm" | "spot" | "foundOn">;
export const addErratum = (body: NewErratum) => written<{ id: string }>("POST", "/api/errata", body);
export const saveErratum = (id: string, body: ErratumBody) =>
  written<void>("PATCH", `/api/errata/${id}`, body);
export const decideErratum = (id: string, body: DecisionBody) =>
  written<void>("PUT", `/api/errata/${id}/decision`, body);
export const removeErratum = (id: string) => written<void>("DELETE", `/api/errata/${id}`);

export const putRework = (erratum: string, body: ReworkBody) =>
  written<{ id: string }>("PUT", `/api/errata/${erratum}/reworks`, body);
export const removeRework = (id: string) => written<void>("DELETE", `/api/reworks/${id}`);
