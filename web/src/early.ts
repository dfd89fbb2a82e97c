/** An answer asked for before the scripts that want it were there is taken so long after. */
const FRESH_MS = 5000;

const asked = new Map<string, { readonly answer: Promise<Response | undefined>; readonly at: number }>();

/** What the page at an address will ask for first. */
export const firstPaths = (address: string): string[] => {
  const run = /^\/runs\/([0-9a-f-]{36})(?:\/|$)/.exec(address)?.[1];
  return ["/api/session", ...(run ? [`/api/runs/${run}`] : [])];
};

/** Asks while the scripts are still being loaded and evaluated. */
export function askEarly(address: string): void {
  for (const path of firstPaths(address))
    asked.set(path, { answer: fetch(path).catch(() => undefined), at: performance.now() });
}

/** The answer that was asked for early, once, if it came well and is fresh; else nothing, and it is asked for anew. */
export async function takeEarly(path: string): Promise<Response | undefined> {
  const early = asked.get(path);
  asked.delete(path);
  if (!early || performance.now() - early.at > FRESH_MS) return undefined;
  const answer = await early.answer;
  return answer?.ok ? answer : undefined;
}
