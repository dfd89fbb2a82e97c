import type { NewShopBody, Role, SessionAnswer, Shop, ShopBody, SignInBody } from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";
import { outbox } from "./outbox.ts";

const KEY = "/api/session";

/** Who is signed in, and whether the demo may be entered. */
export const useSession = () => useSWR<SessionAnswer>(KEY, http.get);

/** The shop of the signed-in person; only below the door. */
export function useShop(): Shop {
  const { data } = useSession();
  if (!data?.shop) throw new Error("useShop outside a signed-in page");
  return data.shop;
}

/** Forgets everything that was fetched for somebody else. */
export const refreshAll = () => mutate(() => true, undefined, { revalidate: true });

export const signIn = (body: SignInBody) =>
  http.post(KEY, body).then(async () => {
    await refreshAll();
    outbox.retry();
  });
export const enterDemo = () =>
  http.post("/api/session/demo").then(async () => {
    await refreshAll();
    outbox.retry();
  });
export const startShop = (body: NewShopBody) => http.post("/api/shops", body).then(refreshAll);
export const signOut = () => http.remove(KEY).then(refreshAll);
export const saveShop = (body: Partial<ShopBody>) =>
  outbox.write<Shop>("PATCH", "/api/shop", body).then(async (done) => {
    await refreshAll();
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
