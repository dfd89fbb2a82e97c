import { type FoilSide, type FoilWork, type KnownPin, leftOffPaste } from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { useBoardWorker } from "../../../proof/useBoardWorker.ts";
import { useRun } from "../../../run/runState.ts";

/** A foil thickness a new plan begins with, mm: the usual one. */
const USUAL_FOIL_MM = 0.12;

/** How a foil is corrected; what the person switched. */
export interface FoilSwitches {
  readonly isNarrowed: boolean;
  readonly isPaned: boolean;
}

/** The foil of one side of one board of the run, worked out off the page's thread. */
export function useFoil(boardIndex: number, side: FoilSide, switches: FoilSwitches) {
  const { answer, doc } = useRun();
  const { board, error } = useBoardWorker(answer.boardIds[boardIndex] ?? "", "stencil");
  const of = doc.boards[boardIndex];
  const foilMm = doc.assembly.foilMm ?? USUAL_FOIL_MM;
  const pins = useMemo(
    (): KnownPin[] =>
      (of?.measure.nets?.islands ?? []).flatMap((n) =>
        n.pads.flatMap((p) =>
          p.layer === side && p.pin !== undefined ? [{ x: p.x, y: p.y, pin: p.pin }] : [],
        ),
      ),
    [of, side],
  );
  const without = useMemo(() => leftOffPaste(doc, of?.id), [doc, of]);
  const wishes = useMemo(() => ({ foilMm, without, ...switches }), [foilMm, without, switches]);
  const [work, setWork] = useState<FoilWork | "none">();
  useEffect(() => {
    let isCurrent = true;
    board?.foil(side, pins, wishes).then(
      (w) => isCurrent && setWork(w ?? "none"),
      () => isCurrent && setWork("none"),
    );
    return () => {
      isCurrent = false;
    };
  }, [board, side, pins, wishes]);
  return { work, foilMm, without, error, measure: of?.measure };
}
