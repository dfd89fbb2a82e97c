import { type PlanOfRun, pocketPlan, pocketPlate, type Step } from "@kobbin/core";
import { useMemo } from "react";
import { boardOfStep, sideOfStep } from "../../../proof/drawnParts.ts";
import { useRun } from "../../../run/runState.ts";
import { count, mm } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { PlanPicture, savePlan } from "./PlanPicture.tsx";

/** A plate whose pockets hold the parts of a step flat while they are soldered, drawn small and printed one to one. */
export function PlateWithPockets({ plan, step }: { plan: PlanOfRun; step: Step }) {
  const { doc } = useRun();
  const sayError = useSayError();
  const board = boardOfStep(doc, step);
  const made = useMemo(() => {
    // what goes through the board stands on the side its joints are not on
    const plate = pocketPlate(
      doc,
      plan.work,
      step,
      sideOfStep(doc, step),
      plan.order.steps.slice(0, step.n - 1),
    );
    const drawing = plate && board && pocketPlan(doc, board, plate);
    return drawing && { plate, drawing };
  }, [doc, plan, step, board]);
  if (!made) return null;
  const held = made.plate.pockets.filter((p) => p.isHeld).length;
  return (
    <details className="mt-2">
      <summary className="quiet-link cursor-pointer text-[14px]">
        a plate with pockets for {count(held, "part")}, {mm(made.plate.thicknessMm)} mm thick
      </summary>
      <PlanPicture plan={made.drawing} />
      <button
        type="button"
        className="quiet-link text-[14px]"
        onClick={() => void savePlan(made.drawing).catch(sayError)}
      >
        print it one to one
      </button>
      {made.plate.without.length > 0 && (
        <p className="text-[13.5px] text-look">
          No pocket, as their size, height or place is not known: {made.plate.without.join(", ")}.
        </p>
      )}
    </details>
  );
}
