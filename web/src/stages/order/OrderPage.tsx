import { microsToNumber } from "@kobbin/core";
import { Link } from "react-router";
import { useManifest } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { money } from "../../ui/format.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";

const about = (path: string): string => {
  if (path.startsWith("fabrication/")) return "as it was handed over, byte for byte";
  if (path.startsWith("baskets/")) return "a basket to import at the supplier";
  if (path.startsWith("sheets/fabrication")) return "the printed sheet for the board house";
  if (path.startsWith("sheets/")) return "the printed sheet for the assembly house";
  if (path.endsWith("placement.csv")) return "where each part sits";
  if (path.endsWith("parts-list.csv")) return "what is fitted";
  return "this run, as one document";
};

/** The order package: one zip per release, with a manifest of hashes. */
export function OrderPage() {
  const { id, answer, doc, result: r, isReleased } = useRun();
  const { data, error, mutate } = useManifest(isReleased ? id : undefined);
  const house = r.house?.name;
  return (
    <section className="max-w-[900px]">
      <h1>Order</h1>
      {!isReleased ? (
        <>
          <p className="mb-3 text-ink-2">
            One package goes out after the release: fabrication files as given, a basket per supplier,
            placement and parts list, a printed sheet per house, and a manifest with hashes.
          </p>
          <p className="flex gap-6">
            <Link to={`/runs/${id}/release`} className="quiet-link">
              to the release
            </Link>
            <a href={`/api/runs/${id}/document`} download className="quiet-link">
              export the run as it stands (run/1)
            </a>
          </p>
        </>
      ) : (
        <>
          <div className="mb-5 flex flex-wrap items-center gap-5 border-y border-rule py-4">
            <a
              href={`/api/runs/${id}/package`}
              download
              className="inline-flex min-h-8 items-center rounded-[3px] border border-ink bg-ink px-3 py-1 font-semibold text-paper"
            >
              Download the package
            </a>
            <p className="text-ink-2">
              {r.basket.suppliers.length} baskets, {house ? `boards from ${house}` : "no house"},{" "}
              {money(microsToNumber(r.cashNeeded), doc.workshop.currency)} in all.
            </p>
            <a href={`/api/runs/${id}/document`} download className="quiet-link">
              the run alone (run/1)
            </a>
          </div>
          {error ? (
            <Failed error={error} again={() => mutate()} />
          ) : !data ? (
            <Skeleton />
          ) : (
            <div className="overflow-x-auto">
              <table className="rows w-full">
                <thead>
                  <tr>
                    <th>In the package</th>
                    <th>What it is</th>
                    <th className="text-right">Bytes</th>
                    <th>SHA-256</th>
                  </tr>
                </thead>
                <tbody>
                  {data.files.map((f) => (
                    <tr key={f.path}>
                      <td className="num text-[13px] break-all">{f.path}</td>
                      <td className="text-[14px] text-ink-2">{about(f.path)}</td>
                      <td className="num text-right">{f.bytes}</td>
                      <td className="num text-[12px] text-ink-3" title={f.sha256}>
                        {f.sha256.slice(0, 12)}…
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          <p className="num mt-3 text-[12px] break-all text-ink-3">package {answer.packageSha256}</p>
          <p className="mt-3 text-[14px] text-ink-2">
            Prices and taxes are your entries at a date; check them before you pay. Whether a product may be
            sold where you sell it is decided by local rules, not here.
          </p>
        </>
      )}
    </section>
  );
}
