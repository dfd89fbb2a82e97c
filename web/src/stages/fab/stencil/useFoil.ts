import { type FoilSide, type FoilWork, foilWishes, leftOffPaste, pinsOn } from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { useBoardWorker } from "../../../proof/useBoardWorker.ts";
import { useRun } from "../../../run/runState.ts";

/** The foil of one side of one board of the run, worked out off the page's thread. */
export function useFoil(boardIndex: number, side: FoilSide) {
  const { answer, doc } = useRun();
  const { board, error } = useBoardWorker(answer.boardIds[boardIndex] ?? "", "stencil");
  const of = doc.boards[boardIndex];
  const pins = useMemo(() => (of ? pinsOn(of.measure, side) : []), [of, side]);
  const leftOff = useMemo(() => leftOffPaste(doc, of?.id), [doc, of]);
  const wishes = useMemo(() => foilWishes(doc, of?.id, side), [doc, of, side]);
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
  return { work, foilMm: wishes.foilMm, without: wishes.without, leftOff, error, measure: of?.measure };
}
