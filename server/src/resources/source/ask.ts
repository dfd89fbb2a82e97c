import type { AskAnswer, FeedAnswer } from "@kobbin/contract";
import type { RunLine } from "@kobbin/core";
import type { NewOffer, SupplierRow } from "./queries.ts";

/** What the feeds said, ready to be stored. */
export interface Asked {
  readonly answer: AskAnswer;
  readonly offers: readonly NewOffer[];
  /** Suppliers that answered: their older feed offers are replaced. */
  readonly answered: readonly string[];
}

/** Asks every supplier with a feed for every line with a part number; each may fail alone. */
export async function askSuppliers(
  url: string,
  suppliers: readonly SupplierRow[],
  lines: readonly RunLine[],
  today: string,
): Promise<Asked> {
  const wanted = lines.filter((l) => l.mpn !== "" && !l.dnp);
  const feeds = suppliers.filter((s) => s.feedKey !== null);
  const byMpn = new Map<string, RunLine[]>();
  for (const l of wanted) byMpn.set(l.mpn, [...(byMpn.get(l.mpn) ?? []), l]);
  const query = [...byMpn.keys()].map((m) => `mpn=${encodeURIComponent(m)}`).join("&");
  const offers: NewOffer[] = [];
  const notListed: Record<string, string[]> = {};
  const failed: { supplier: string; reason: string }[] = [];
  const answered: string[] = [];
  await Promise.all(
    feeds.map(async (s) => {
      try {
        const response = await fetch(`${url}/suppliers/${s.feedKey}/offers?${query}`, {
          signal: AbortSignal.timeout(8000),
        });
        const body = (await response.json()) as FeedAnswer & { message?: string };
        if (!response.ok) throw new Error(body.message ?? `answered ${response.status}`);
        answered.push(s.id);
        for (const o of body.offers)
          for (const l of byMpn.get(o.mpn) ?? [])
            offers.push({ ...o, lineId: l.id, supplierId: s.id, source: "feed", capturedOn: today });
        notListed[s.name] = body.notListed.flatMap((m) => (byMpn.get(m) ?? []).map((l) => l.id));
      } catch (error) {
        failed.push({
          supplier: s.name,
          reason:
            error instanceof Error && error.name === "TimeoutError"
              ? "did not answer in 8 seconds"
              : error instanceof Error
                ? error.message
                : "did not answer",
        });
      }
    }),
  );
  return { answer: { asked: wanted.length, offers: offers.length, notListed, failed }, offers, answered };
}
