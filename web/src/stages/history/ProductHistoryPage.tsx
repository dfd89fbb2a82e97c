import { useParams } from "react-router";
import { History } from "../../history/History.tsx";
import { useBench } from "../../resources/bench.ts";

/** What was done to a product: its revisions, bills and runs; without a product, all of the shop. */
export function ProductHistoryPage() {
  const { id } = useParams();
  const { data } = useBench();
  const name = id ? data?.products.find((p) => p.id === id)?.name : undefined;
  return (
    <main id="main" className="mx-auto w-full max-w-[860px] px-6 py-6 max-sm:px-3">
      <h1>{id ? `History of ${name ?? "the product"}` : "History of the shop"}</h1>
      <p className="mb-4 text-ink-2">
        {id
          ? "Every change of its revisions, bills and runs, newest first."
          : "Every change of products, runs, houses, suppliers and settings, newest first."}
      </p>
      <History of={id ? { product: id } : {}} />
    </main>
  );
}
