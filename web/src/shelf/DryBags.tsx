import type { LotRow } from "@kobbin/contract";
import { airOf, bagCode, needsBaking } from "@kobbin/core";
import { useLots } from "../resources/library.ts";
import { BAKE, DryBagKeys, DryBagWords } from "./DryBag.tsx";
import { useNow } from "./useNow.ts";

/** Lots that need a dry bag, of some lots. */
export const useBagged = (mayBe: (lot: LotRow) => boolean): readonly LotRow[] => {
  const { data: lots } = useLots();
  const now = new Date(useNow()).toISOString();
  return (lots ?? []).filter(
    (l) =>
      (l.moisture !== "" || l.air) && l.qty > 0 && mayBe(l) && airOf(l.moisture, l.air, now).is !== "none",
  );
};

/** Lots of the shop whose hours out of the bag run now, or that may not go through heat as they are, the most urgent first. */
export function useOpenBags(): readonly LotRow[] {
  const { data: lots } = useLots();
  const now = new Date(useNow()).toISOString();
  return (lots ?? [])
    .filter((l) => l.air && l.qty > 0)
    .map((lot) => ({ lot, air: airOf(lot.moisture, lot.air, now) }))
    .filter(({ air }) => air.is === "out" || air.is === "soon" || needsBaking(air))
    .sort((a, b) => (a.air.leftHours ?? 0) - (b.air.leftHours ?? 0))
    .map(({ lot }) => lot);
}

/** How it is with the dry bags of a run or of a part that is taken now, each with its keys. */
export function DryBags({
  lots,
  isBig = false,
  isBad = false,
  className = "",
}: {
  lots: readonly LotRow[];
  /** At the bench. */
  isBig?: boolean;
  /** Only what may not go through heat as it is. */
  isBad?: boolean;
  className?: string;
}) {
  const now = new Date(useNow()).toISOString();
  const bad = (l: LotRow) => needsBaking(airOf(l.moisture, l.air, now));
  const shown = isBad ? lots.filter(bad) : lots;
  if (shown.length === 0) return null;
  return (
    <ul aria-label="Dry bags" className={className}>
      {shown.map((l) => (
        <li key={l.id} className="py-1">
          <span className="num font-semibold">{l.mpn}</span>{" "}
          <span className="num text-ink-3">{bagCode(l.number)}</span>
          {l.place && <span className="text-ink-2"> {l.place}</span>}
          <DryBagWords lot={l} />
          {bad(l) && <span className="block max-w-[70ch]">{BAKE}</span>}
          <DryBagKeys lot={l} isBig={isBig} />
        </li>
      ))}
    </ul>
  );
}
