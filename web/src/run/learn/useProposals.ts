import {
  type LessonCheck,
  type LessonPlace,
  type LessonProposal,
  learnBoard,
  lessonPlaces,
  proposeLessons,
  triedInFiles,
} from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { storedBoard } from "../../proof/useBoardWorker.ts";
import { readPlacesStored } from "../../workers/board.ts";
import { useRun } from "../runState.ts";
import type { WentWrong } from "./wentWrong.ts";

/**
 * What may be made of something that went wrong, each tried on the board it came from; what is read in its files is tried
 * there before anything is shown. Nothing while they are being read; untried, and said so, where they cannot be.
 */
export function useProposals(of: WentWrong): readonly LessonProposal[] | undefined {
  const { doc, answer } = useRun();
  const at = of.board ?? 0;
  const board = doc.boards[at]!;
  const boardId = answer.boardIds[at] ?? "";
  const seen = useMemo(() => learnBoard(doc, board), [doc, board]);
  const first = useMemo(() => proposeLessons(of, seen), [of, seen]);
  const wanted = useMemo(
    () =>
      first.flatMap((p) => lessonPlaces(p.check, board.measure).map((spot) => ({ check: p.check, spot }))),
    [first, board],
  );
  const [read, setRead] = useState<{
    readonly of: typeof wanted;
    readonly list: readonly LessonProposal[];
  }>();
  useEffect(() => {
    if (wanted.length === 0) return;
    let isCurrent = true;
    storedBoard(boardId)
      .then((b) =>
        readPlacesStored(
          b,
          wanted.map((w) => w.spot),
        ),
      )
      .then((readings) => {
        if ("kind" in readings) throw new Error(readings.message);
        const places = new Map<LessonCheck, LessonPlace[]>();
        wanted.forEach(({ check, spot: { pin, x, y } }, i) => {
          places.set(check, [...(places.get(check) ?? []), { pin, x, y, reading: readings[i]! }]);
        });
        if (isCurrent) setRead({ of: wanted, list: triedInFiles(first, seen, (c) => places.get(c)) });
      })
      .catch(() => isCurrent && setRead({ of: wanted, list: first }));
    return () => {
      isCurrent = false;
    };
  }, [wanted, boardId, first, seen]);
  return wanted.length === 0 ? first : read?.of === wanted ? read.list : undefined;
}
