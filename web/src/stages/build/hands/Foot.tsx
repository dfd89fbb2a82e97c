import type { ReactNode } from "react";
import { BigKey } from "../../../bench-side/Frame.tsx";
import { TAKEN, type Taken } from "./taken.ts";

/** What can be pressed at a step: with a piece, without, and while it is paused. */
export function Foot({
  isPaused,
  of,
  hasPiece,
  isDone,
  isTyped,
  on,
  beside,
}: {
  isPaused: boolean;
  of: Taken;
  hasPiece: boolean;
  isDone: boolean;
  /** It is answered by what is typed, not by a press here. */
  isTyped: boolean;
  on: Readonly<
    Record<"next" | "back" | "doubt" | "later" | "lost" | "pause" | "all" | "fault", () => unknown>
  >;
  beside: ReactNode;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3 max-sm:gap-2">
      {isPaused ? (
        <BigKey keys="P" look="main" onPress={on.pause}>
          go on
        </BigKey>
      ) : (
        <>
          {!isTyped && (
            <BigKey keys="Enter" look="main" onPress={on.next}>
              {hasPiece ? (of === "pieces" ? "it is on" : TAKEN[of].yes) : isDone ? "done; on" : "step done"}
            </BigKey>
          )}
          <BigKey keys="⌫" onPress={on.back}>
            back
          </BigKey>
          {hasPiece && (
            <>
              <BigKey keys="D" onPress={on.doubt}>
                {TAKEN[of].button}
              </BigKey>
              <BigKey keys="S" onPress={on.later}>
                later
              </BigKey>
              {TAKEN[of].lostShort && (
                <BigKey keys="X" onPress={on.lost}>
                  {TAKEN[of].lostShort}
                </BigKey>
              )}
              {of !== "pieces" && (
                <BigKey keys="A" onPress={on.all}>
                  all of it
                </BigKey>
              )}
            </>
          )}
          <BigKey keys="F" onPress={on.fault}>
            fault
          </BigKey>
          <BigKey keys="P" onPress={on.pause}>
            pause
          </BigKey>
        </>
      )}
      <span className="ml-auto flex flex-wrap gap-x-4 text-[14px] max-sm:hidden">{beside}</span>
    </div>
  );
}
