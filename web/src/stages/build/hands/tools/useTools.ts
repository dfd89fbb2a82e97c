import { type ToolAtHand, toolAtHand, toolsAt, unitOfStep } from "@kobbin/core";
import { useMemo } from "react";
import { useEquipment } from "../../../../resources/equipment.ts";
import { useRun } from "../../../../run/runState.ts";
import type { Used } from "../sittingModel.ts";

/** With what a step is done: what is shown beside it, and what is written down with it once it is done. */
export interface Tools {
  readonly hand: readonly ToolAtHand[];
  readonly used: Used;
}

/** With what a step of a board is done, as far as the shop lists such machines or somebody said so. */
export function useTools(kind: string, unit: number, said: Used | undefined): Tools {
  const { record } = useRun();
  const { data } = useEquipment();
  return useMemo(() => {
    const hand = toolsAt(kind)
      .map((tool) =>
        toolAtHand(
          tool,
          data?.equipment ?? [],
          unitOfStep(kind, unit),
          said ? { used: said } : undefined,
          record.sittings ?? [],
        ),
      )
      .filter((t) => t.all.length > 0 || t.name !== undefined);
    return { hand, used: Object.fromEntries(hand.flatMap((t) => (t.name ? [[t.tool, t.name]] : []))) };
  }, [kind, unit, said, data, record.sittings]);
}
