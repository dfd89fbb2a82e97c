import { makesBoards } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import type { Show } from "../../proof/Details.tsx";
import { type MeasureRow, measureGroups } from "../../proof/measureRows.ts";
import type { ProofMark } from "../../proof/Overlay.tsx";
import type { Plate } from "../../proof/Plates.tsx";
import type { Forward } from "../../proof/Proof.tsx";
import { notesOf, useRun } from "../../run/runState.ts";
import { useKeys } from "../../ui/keys.ts";

const FORWARD: readonly Forward[] = ["copper", "mask", "paste", "legend"];

/** The keys of the board's page: its hands, and the board turned over. */
function useBoardKeys(
  set: (change: Record<string, string | undefined>) => void,
  params: URLSearchParams,
  side: Plate["side"],
) {
  const is = (hand: string) => params.get("hand") === hand;
  // biome-ignore lint/correctness/useExhaustiveDependencies: all of it closes over params alone
  const bindings = useMemo(
    () => [
      {
        keys: "f",
        does: "turn the board over",
        run: () => set({ side: side === "top" ? "bottom" : undefined }),
      },
      {
        keys: "m",
        does: "measure between two points",
        run: () => set({ hand: is("measure") ? undefined : "measure" }),
      },
      {
        keys: "p",
        does: "try the bare board with a meter",
        run: () => set({ hand: is("try") ? undefined : "try" }),
      },
      {
        keys: "v",
        does: "look what meets what, in volts",
        run: () => set({ hand: is("meet") ? undefined : "meet", against: undefined }),
      },
      {
        keys: "i",
        does: "look at what stands on the board",
        run: () => set({ hand: is("stands") ? undefined : "stands", against: undefined }),
      },
    ],
    [side, params],
  );
  useKeys(bindings);
}

/** What the address says of the board's page: which board, which plate, which note or measure is looked at; and how to go on. */
export function useBoardView() {
  const { answer, doc, result } = useRun();
  const [params, setParams] = useSearchParams();
  const [shown, setShown] = useState<{ x: number; y: number; key: string }>();
  const side: Plate["side"] = params.get("side") === "bottom" ? "bottom" : "top";
  const forward = FORWARD.find((f) => f === params.get("layer"));
  const notes = notesOf(result, "board");
  const wanted = params.get("note");
  const note = wanted ? notes[Number(wanted) - 1] : undefined;
  // a note leads to the board it is about
  const noted = note?.board === undefined ? -1 : doc.boards.findIndex((b) => b.id === note.board);
  const asked = Math.round(Number(params.get("board") ?? 1)) - 1;
  const index = noted >= 0 ? noted : Math.max(0, Math.min(doc.boards.length - 1, asked || 0));
  const board = doc.boards[index]!;
  const houses = (doc.houses ?? []).filter(makesBoards);
  const { options } = doc;
  const groups = useMemo(
    () => measureGroups(board.measure, houses, options),
    [board.measure, houses, options],
  );
  const measured = groups.flatMap((g) => g.rows).find((r) => r.key === params.get("measure"));
  const place = Math.max(
    0,
    Math.min((measured?.places.length ?? 1) - 1, Number(params.get("place") ?? 1) - 1),
  );
  const isMeasuring = params.get("hand") === "measure";
  const isTrying = params.get("hand") === "try";
  const isFitting = params.get("hand") === "fit";
  const isMeeting = params.get("hand") === "meet";
  const isStanding = params.get("hand") === "stands";
  const minutes = Math.min(600, Math.max(1, Math.round(Number(params.get("minutes") ?? 5)) || 5));
  const set = (change: Record<string, string | undefined>) =>
    setParams(
      Object.fromEntries(
        Object.entries({ ...Object.fromEntries(params), ...change }).filter(([, v]) => v !== undefined) as [
          string,
          string,
        ][],
      ),
      { replace: true },
    );
  useBoardKeys(set, params, side);
  const measuredAt = measured?.places[place];
  const noteAt = note?.at;
  const focus = useMemo(
    () =>
      noteAt
        ? { x: noteAt.x, y: noteAt.y, key: `note ${wanted}` }
        : measuredAt
          ? { x: measuredAt.x, y: measuredAt.y, key: `measure ${place}` }
          : shown,
    [noteAt, wanted, measuredAt, place, shown],
  );
  const sideOf = (layer: string) => (layer.includes("bottom") ? "bottom" : undefined);
  const show: Show = (at, key) => {
    set({
      note: undefined,
      measure: undefined,
      // what goes through the board is shown on the side that is up
      side: /top|bottom/.test(at.layer) ? sideOf(at.layer) : (params.get("side") ?? undefined),
    });
    setShown({ x: at.x, y: at.y, key });
  };
  return {
    index,
    board,
    boardId: answer.boardIds[index] ?? "",
    side,
    forward,
    isMeasuring,
    isTrying,
    isFitting,
    isMeeting,
    isStanding,
    /** There are for a bare board. */
    minutes,
    groups,
    measured,
    place,
    focus,
    against: params.get("against"),
    marks: notes.flatMap((n, i): ProofMark[] =>
      n.at && (n.board === undefined || n.board === board.id)
        ? [{ number: i + 1, x: n.at.x, y: n.at.y, level: n.level, text: n.text }]
        : [],
    ),
    set,
    show,
    showPlate: (p: Plate) =>
      set({ side: p.side === "top" ? undefined : p.side, layer: p.forward, note: undefined }),
    showRow: (row: MeasureRow, k: number) =>
      set({
        note: undefined,
        measure: row.key,
        place: k === 0 ? undefined : String(k + 1),
        side: sideOf(row.places[k]?.layer ?? ""),
      }),
    showPaste: (at: { readonly layer: string; readonly x: number; readonly y: number }) => {
      set({ note: undefined, measure: undefined, layer: "paste", side: sideOf(at.layer) });
      setShown({ x: at.x, y: at.y, key: `paste ${at.x} ${at.y}` });
    },
  };
}

export type BoardView = ReturnType<typeof useBoardView>;
