/** This open page's own number: it tells the server's words about itself from those about others. Kept over a reload. */
export const PAGE_ID: string = (() => {
  const key = "kobbin-page";
  try {
    const old = sessionStorage.getItem(key);
    if (old) return old;
    const fresh = crypto.randomUUID();
    sessionStorage.setItem(key, fresh);
    return fresh;
  } catch {
    return crypto.randomUUID();
  }
})();
