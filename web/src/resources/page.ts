const KEY = "kobbin-page";

let own = (() => {
  try {
    return sessionStorage.getItem(KEY) ?? undefined;
  } catch {
    return undefined;
  }
})();
const renew = () => {
  own = crypto.randomUUID();
  try {
    sessionStorage.setItem(KEY, own);
  } catch {
    // a page that may keep nothing has a number for as long as it is open
  }
};
if (!own) renew();

// a duplicated tab copies the number of the first; whoever comes second takes one of its own
if (typeof navigator !== "undefined" && navigator.locks)
  void navigator.locks.request(`${KEY} ${own}`, { ifAvailable: true }, (lock) => {
    if (!lock) renew();
    // held until the page goes
    else return new Promise(() => undefined);
  });

/** This open page's number: it tells the server's words about itself from those about others. Kept over a reload. */
export const pageId = (): string => own!;
