import type { Piece } from "@kobbin/core";
import { useMemo } from "react";
import { type KeyBinding, useKeys } from "../../../ui/keys.ts";
import { TAKEN, type Taken } from "./taken.ts";
import type { Sitting } from "./useSitting.ts";

export type Presses = Readonly<
  Record<"next" | "back" | "doubt" | "later" | "lost" | "pause" | "all" | "fault", () => unknown>
>;

/** The keys of a step; while it is paused, none but the one that goes on. */
export function useBenchKeys(
  on: Presses,
  at: {
    readonly isPaused: boolean;
    readonly piece: Piece | undefined;
    readonly pedal: string | undefined;
    readonly sat: Sitting["sat"];
    readonly of: Taken;
    /** It is answered by what is typed: a press alone says nothing. */
    readonly isTyped: boolean;
    /** Something is being noted: its keys are that one's. */
    readonly isNoting: boolean;
  },
): void {
  const { isPaused, piece, pedal, sat, of, isTyped, isNoting } = at;
  const words = TAKEN[of];
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the keys do hangs on the piece that is next
  const bindings = useMemo<KeyBinding[]>(() => {
    if (isNoting) return [];
    if (isPaused) return [{ keys: "p", does: "go on", run: on.pause }];
    const does = piece ? `it is ${words.yes}` : "the step is done";
    return [
      ...(isTyped
        ? []
        : [
            { keys: "Enter", does, run: on.next },
            { keys: " ", does, run: on.next },
            ...(pedal ? [{ keys: pedal, does: "the pedal: as Enter", run: on.next }] : []),
          ]),
      { keys: "Backspace", does: "back", run: on.back },
      ...(piece
        ? [
            { keys: "d", does: words.no, run: on.doubt },
            { keys: "s", does: "leave it for later", run: on.later },
            ...(words.lost ? [{ keys: "x", does: words.lost, run: on.lost }] : []),
            ...(of === "pieces" ? [] : [{ keys: "a", does: `all of it is ${words.yes}`, run: on.all }]),
          ]
        : []),
      { keys: "f", does: "note what is wrong", run: on.fault },
      { keys: "p", does: "pause", run: on.pause },
    ];
  }, [isPaused, piece, sat, pedal, isTyped, isNoting]);
  useKeys(bindings, true);
}
