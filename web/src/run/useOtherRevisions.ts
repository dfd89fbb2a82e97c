import { useBench } from "../resources/bench.ts";
import { useRun } from "./runState.ts";

/** Other revisions of the product that can be set against this one. */
export function useOtherRevisions() {
  const { answer } = useRun();
  const { data } = useBench();
  return (data?.products.find((p) => p.id === answer.productId)?.revisions ?? []).filter(
    (r) => r.id !== answer.revisionId,
  );
}
