/** Every screen that can be fetched ahead, so that one may go on while the server is away. */
const ahead: (() => Promise<unknown>)[] = [];

const isThere = () =>
  fetch("/health", { cache: "no-store" }).then(
    (r) => r.ok,
    () => false,
  );

/**
 * Fetches a screen's code, and again while the server is away. Where the server answers and the code is gone, a newer
 * Kobbin took its place: the page is loaded anew; what was not saved yet is kept in the outbox.
 */
export function patient<T>(load: () => Promise<T>): () => Promise<T> {
  const fetchIt = async (): Promise<T> => {
    for (let n = 0; ; n++)
      try {
        return await load();
      } catch (error) {
        if (await isThere()) {
          if (n < 2) continue;
          if (sessionStorage.getItem("kobbin-renewed") === location.href) throw error;
          sessionStorage.setItem("kobbin-renewed", location.href);
          location.reload();
        }
        await new Promise((done) => setTimeout(done, Math.min(5000, 500 * 2 ** n)));
      }
  };
  ahead.push(load);
  return fetchIt;
}

/** Fetches every screen while nothing else is done, one after another. */
export async function fetchAhead(): Promise<void> {
  for (const load of ahead) {
    await new Promise<void>((done) => requestIdleCallback(() => done(), { timeout: 5000 }));
    await load().catch(() => undefined);
  }
}
