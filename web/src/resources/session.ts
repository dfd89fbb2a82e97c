import type { NewShopBody, Role, SessionAnswer, Shop, ShopBody, SignInBody } from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";
import { refetchRuns } from "./run.ts";

const KEY = "/api/session";

/** Who is signed in, and whether the demo may be entered. */
export const useSession = () => useSWR<SessionAnswer>(KEY, http.get);

/** The shop of the signed-in person; only below the door. */
export function useShop(): Shop {
  const { data } = useSession();
  if (!data?.shop) throw new Error("useShop outside a signed-in page");
  return data.shop;
}

/**
 * Fetches everything again; what is shown, and what is typed into it, stays meanwhile. Runs in their own way: an answer
 * that was asked for before must not come over the one that is asked for now.
 */
const fetchAgain = () =>
  Promise.all([refetchRuns(), mutate((key) => typeof key !== "string" || !key.startsWith("/api/runs/"))]);
/** Forgets everything that was fetched for somebody else. */
export const refreshAll = () => mutate(() => true, undefined, { revalidate: true });

/** Who was at the page before: where the same person comes back to the same shop, the page stays as it stands. */
interface Before {
  readonly person?: string | undefined;
  readonly shopId?: string | undefined;
}
async function comeIn(post: () => Promise<unknown>, before: Before): Promise<void> {
  await post();
  const now = await http.get<SessionAnswer>(KEY);
  const isSame =
    before.person !== undefined && now.person === before.person && now.shop?.id === before.shopId;
  await (isSame ? fetchAgain() : refreshAll());
  outbox.retry();
}

export const signIn = (body: SignInBody, before: Before = {}) => comeIn(() => http.post(KEY, body), before);
export const enterDemo = (before: Before = {}) => comeIn(() => http.post("/api/session/demo"), before);
export const startShop = (body: NewShopBody) => http.post("/api/shops", body).then(refreshAll);
export const signOut = () => http.remove(KEY).then(refreshAll);
export const saveShop = (body: Partial<ShopBody>) =>
  outbox.write<Shop>("PATCH", "/api/shop", body).then(async (done) => {
    await fetchAgain();
    return done;
  });
export const chooseShop = (shopId: string) => http.post("/api/session/shop", { shopId }).then(refreshAll);
export const resetDemo = () => http.post("/api/demo/reset").then(refreshAll);
/** Reads a backup as a shop of its own and goes there. */
export async function restoreShop(file: File): Promise<{ name: string }> {
  const form = new FormData();
  form.append("files", file, file.name);
  const made = await http.form<{ name: string }>("/api/restore", form);
  await refreshAll();
  return made;
}

/** What the signed-in person may do here. */
export function useRole(): Role {
  return useSession().data?.role ?? "bench";
}
