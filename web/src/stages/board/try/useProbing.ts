import type { ProbeDocument } from "@kobbin/core";
import { useEffect, useState } from "react";
import { storedBoard } from "../../../proof/useBoardWorker.ts";
import { probeStored } from "../../../workers/board.ts";

/** The probing list of a stored board for some minutes, worked out off the page's thread. */
export function useProbing(
  boardId: string,
  minutes: number,
): { readonly list?: ProbeDocument; readonly error?: unknown } {
  const of = `${boardId} ${minutes}`;
  const [found, setFound] = useState<{
    readonly of: string;
    readonly list?: ProbeDocument;
    readonly error?: unknown;
  }>();
  useEffect(() => {
    let isCurrent = true;
    storedBoard(boardId)
      .then((b) => probeStored(b, minutes))
      .then((list) => {
        if (!isCurrent) return;
        setFound("kind" in list ? { of, error: { message: list.message, hint: "" } } : { of, list });
      })
      .catch((error) => isCurrent && setFound({ of, error }));
    return () => {
      isCurrent = false;
    };
  }, [boardId, minutes, of]);
  return found?.of === of ? found : {};
}
