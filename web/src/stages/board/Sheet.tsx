import { boardColours } from "../../proof/colours.ts";
import { Plates } from "../../proof/Plates.tsx";
import { Proof } from "../../proof/Proof.tsx";
import type { useBoardWorker } from "../../proof/useBoardWorker.ts";
import { useRun } from "../../run/runState.ts";
import { Failed } from "../../ui/States.tsx";
import { mm } from "../../ui/text/format.ts";
import { useTheme } from "../../ui/useTheme.ts";
import type { BoardView } from "./useBoardView.ts";

/** The proof sheet: one plate large, the others small beside it. It stays in view while the places of a measure are gone through. */
export function Sheet({ view: v, worker }: { view: BoardView; worker: ReturnType<typeof useBoardWorker> }) {
  const { result } = useRun();
  // the plates' colours hold the page's paper
  useTheme();
  const { board, what, share, error } = worker;
  const { extentMm, outline } = v.board.measure;
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  if (error) return <Failed error={error} />;
  if (!board)
    return (
      <div className="relative h-[446px] border border-rule bg-sheet">
        <div className="skeleton absolute inset-16" />
        <p role="status" className="num absolute inset-x-0 bottom-4 text-center text-[13px] text-ink-2">
          {what} {Math.round(share * 100)} %
        </p>
      </div>
    );
  if (!extentMm) return <p className="text-ink-2">There is nothing to draw.</p>;
  const { measured, place } = v;
  return (
    <div className={measured ? "sticky -top-5 z-10 bg-paper pb-2" : ""}>
      <div className="flex gap-2 max-md:flex-col">
        <Plates
          board={board}
          box={extentMm}
          shown={v}
          isLow={measured !== undefined}
          colours={boardColours(mask, finish, legend)}
          onShow={v.showPlate}
        />
        <div className="min-w-0 flex-1">
          <Proof
            height={measured ? 400 : 480}
            board={board}
            box={extentMm}
            isSized={outline?.widthMm !== undefined}
            side={v.side}
            forward={v.forward}
            marks={v.marks}
            onMark={(k) => v.set({ note: String(k), measure: undefined })}
            places={measured?.places ?? []}
            isMeasuring={v.isMeasuring}
            focus={v.focus}
            mask={mask}
            finish={finish}
            legend={legend}
          />
        </div>
      </div>
      {measured && (
        <p className="mt-1 flex justify-between text-[14px] text-ink-2">
          <span>
            {measured.label}: {mm(measured.places[place]?.mm ?? measured.mm)} mm, place {place + 1} of{" "}
            {Math.max(1, measured.places.length)}
          </span>
          <button
            type="button"
            className="quiet-link"
            onClick={() => v.set({ measure: undefined, place: undefined })}
          >
            done
          </button>
        </p>
      )}
    </div>
  );
}
