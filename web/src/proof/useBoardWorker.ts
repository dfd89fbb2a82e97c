import type { Corrections } from "@kobbin/core";
import { useEffect, useState } from "react";
import { http } from "../resources/http.ts";
import type { BoardConnection } from "../workers/board.ts";
import type { StoredBoard } from "../workers/board.worker.ts";
import { takeBoard } from "./openBoards.ts";

interface State {
  readonly board?: BoardConnection;
  readonly what: string;
  readonly share: number;
  readonly error?: unknown;
}

const FETCHING: State = { what: "fetching the files", share: 0 };

/** A board's files as they are stored, with their corrections. */
export async function storedBoard(boardId: string): Promise<StoredBoard> {
  const { bytes, header } = await http.bytes(`/api/boards/${boardId}/files`, "X-Corrections");
  return { bytes, corrections: (header ? JSON.parse(decodeURIComponent(header)) : {}) as Corrections };
}

/** A stored board in a worker, ready to be painted. A new key reads it again. */
export function useBoardWorker(boardId: string, key: string): State {
  const wanted = `${boardId} ${key}`;
  const [{ of, ...state }, setOf] = useState<State & { readonly of: string }>({ ...FETCHING, of: wanted });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the board's corrections on the server
  useEffect(() => {
    const setState = (next: State) => setOf({ ...next, of: wanted });
    let isCurrent = true;
    // progress comes through a port of its own and may arrive after the result
    let isOpened = false;
    let giveBack: () => void = () => undefined;
    (async () => {
      try {
        const stored = await storedBoard(boardId);
        if (!isCurrent) return;
        const taken = takeBoard(
          boardId,
          stored,
          (what, share) => isCurrent && !isOpened && setState({ what, share }),
        );
        giveBack = taken.giveBack;
        const opened = await taken.shown;
        isOpened = true;
        if (!isCurrent) return;
        if (opened.kind === "ok") setState({ board: taken.board, what: "", share: 1 });
        else
          setState({
            what: "",
            share: 1,
            error: {
              message: `The stored files could not be opened: ${opened.message}`,
              hint: "Download them from the bench and drop them again.",
            },
          });
      } catch (error) {
        if (isCurrent) setState({ what: "", share: 1, error });
      }
    })();
    return () => {
      isCurrent = false;
      giveBack();
    };
  }, [boardId, key]);
  // another board is wanted than the one at hand: that one's worker is about to go, and is painted with no more
  return of === wanted ? state : FETCHING;
}
