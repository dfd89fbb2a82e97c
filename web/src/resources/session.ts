import type { NewShopBody, SessionAnswer, Shop, ShopBody, SignInBody } from "@kobbin/contract";
import useSWR, { mutate } from "swr";
import { http } from "./http.ts";

const KEY = "/api/session";

/** Who is signed in, and whether the demo may be entered. */
export const useSession = () => useSWR<SessionAnswer>(KEY, http.get);

/** The shop of the signed-in person; only below the door. */
export function useShop(): Shop {
  const { data } = useSession();
  if (!data?.shop) throw new Error("useShop outside a signed-in page");
  return data.shop;
}

const fresh = () => mutate(() => true, undefined, { revalidate: true });

export const signIn = (body: SignInBody) => http.post(KEY, body).then(fresh);
export const enterDemo = () => http.post("/api/session/demo").then(fresh);
export const startShop = (body: NewShopBody) => http.post("/api/shops", body).then(fresh);
export const signOut = () => http.remove(KEY).then(fresh);
export const saveShop = (body: Partial<ShopBody>) => http.patch<Shop>("/api/shop", body).then(fresh);
