import type {
  AuditRow,
  InvitedAnswer,
  JoinBody,
  PasswordBody,
  PeopleAnswer,
  Role,
  SessionRow,
} from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";

export const usePeople = () => useSWR<PeopleAnswer>("/api/people", http.get);
export const useSessions = () => useSWR<SessionRow[]>("/api/sessions", http.get);
export const useAudit = (isWanted: boolean) => useSWR<AuditRow[]>(isWanted ? "/api/audit" : null, http.get);
export const useInvited = (token: string) =>
  useSWR<InvitedAnswer>(`/api/invited/${token}`, http.get, { revalidateOnFocus: false });

const again = (key: string) => mutate(key);
export const invite = (role: Role, note: string) =>
  http.post<{ token: string; expiresAt: string }>("/api/invitations", { role, note }).then(async (made) => {
    await again("/api/people");
    return made;
  });
export const dropInvitation = (id: string) =>
  http.remove(`/api/invitations/${id}`).then(() => again("/api/people"));
export const setRole = (id: string, role: Role) =>
  http.patch(`/api/people/${id}`, { role }).then(() => again("/api/people"));
export const removeMember = (id: string) => http.remove(`/api/people/${id}`).then(() => again("/api/people"));
/** Takes the name of somebody who left out of all that was built and changed, for good. */
export const forgetPerson = (person: string) =>
  http.post<void>("/api/people/forget", { person }).then(() => mutate(() => true));
export const endSession = (id: string) =>
  http.remove(`/api/sessions/${id}`).then(() => again("/api/sessions"));
export const changePassword = (body: PasswordBody) =>
  http.post("/api/session/password", body).then(() => again("/api/sessions"));
export const join = (token: string, body: JoinBody) => http.post(`/api/invited/${token}`, body);
