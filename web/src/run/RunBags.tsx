import { lotsOf } from "@kobbin/core";
import { useMemo } from "react";
import { DryBags, useBagged } from "../shelf/DryBags.tsx";
import { useRun } from "./runState.ts";

/** The dry bags of the lots a run takes from, or one of its lines: how long each was out, with a press for what happens to it. */
export function RunBags({
  line,
  isBig = false,
  isBad = false,
  className = "",
}: {
  /** Id of a line of the bill. */
  line?: string;
  /** At the bench. */
  isBig?: boolean;
  /** Only what may not go through heat as it is. */
  isBad?: boolean;
  className?: string;
}) {
  const { doc, record, result: r } = useRun();
  const ours = useMemo(
    () =>
      new Set(
        r.needs
          .filter((n) => line === undefined || n.lines.includes(line))
          .flatMap((n) => lotsOf(doc, n, record.receipts).map((l) => l.id)),
      ),
    [doc, record.receipts, r.needs, line],
  );
  const bags = useBagged((l) => ours.has(l.id));
  return <DryBags lots={bags} isBig={isBig} isBad={isBad} className={className} />;
}
