import { useBench } from "../resources/bench.ts";
import { useRun } from "./runState.ts";

/** Other revisions of the product that can be set against this one, oldest first, with whether they were kept before it. */
export function useOtherRevisions() {
  const { answer } = useRun();
  const { data } = useBench();
  const all = data?.products.find((p) => p.id === answer.productId)?.revisions ?? [];
  const own = all.find((r) => r.id === answer.revisionId)?.createdAt ?? "";
  return all
    .filter((r) => r.id !== answer.revisionId)
    .map((r) => ({ ...r, isBefore: r.createdAt < own }))
    .sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1));
}

/** Boards of other products, newest first, that may be set against this one: a sister design, or one it shall stand in for. */
export function useOtherDesigns() {
  const { answer } = useRun();
  const { data } = useBench();
  return (data?.products ?? [])
    .filter((p) => p.id !== answer.productId)
    .flatMap((p) =>
      p.revisions.map((r) => ({ id: r.id, label: `${p.name} ${r.label}`, createdAt: r.createdAt })),
    )
    .sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
}
