import { consumablesOf, EQUIPMENT, type InHand as Held, type StepsDocument } from "@kobbin/core";
import { useEquipment } from "../resources/equipment.ts";
import { todayIso } from "../ui/text/dates.ts";
import { said } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";

const LOOK: Readonly<Record<Held["is"], string>> = {
  good: "text-ink-2",
  soon: "text-look",
  unknown: "text-look",
  spent: "text-stop",
  other: "text-stop",
};

/** How it is with paste, wire, flux and fluid as they stand on the shop's list today: of the run, or of one of its steps. */
export function InHand({
  kind,
  isBad = false,
  className = "",
}: {
  /** Of a step: what is used there. */
  kind?: StepsDocument["steps"][number]["kind"];
  /** Only what should not be used. */
  isBad?: boolean;
  className?: string;
}) {
  const { doc, result } = useRun();
  const { data } = useEquipment();
  const list = consumablesOf(doc, result, data?.equipment ?? [], todayIso(), kind).filter(
    (h) => !isBad || h.is === "spent" || h.is === "other",
  );
  if (list.length === 0) return null;
  return (
    <ul aria-label="What is used up" className={className}>
      {list.map((h) => (
        <li key={h.kind} className={LOOK[h.is]}>
          {EQUIPMENT[h.kind].label}: {h.name && <b className="text-ink">{h.name}</b>} {said(h.words)}
        </li>
      ))}
    </ul>
  );
}
