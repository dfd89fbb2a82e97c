import type { Corrections } from "@kobbin/core";
import { makesBoards } from "@kobbin/core";
import { useMemo, useRef } from "react";
import { DrillTable, EdgeDetails, type Show, SinglePads } from "../../proof/Details.tsx";
import { Files } from "../../proof/Files.tsx";
import { Measures } from "../../proof/Measures.tsx";
import { MeasureTable } from "../../proof/MeasureTable.tsx";
import { Reconciled } from "../../proof/Reconciled.tsx";
import { StencilTable } from "../../proof/StencilTable.tsx";
import { useBoardWorker } from "../../proof/useBoardWorker.ts";
import { correctBoard } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { useOtherDesigns, useOtherRevisions } from "../../run/useOtherRevisions.ts";
import { After } from "../../ui/After.tsx";
import { Pick } from "../../ui/Field.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { Boards } from "./Boards.tsx";
import { CardEdge } from "./CardEdge.tsx";
import { Cutting } from "./Cutting.tsx";
import { Compared } from "./compare/Compared.tsx";
import { Since } from "./compare/Since.tsx";
import { Facts, ForDocuments } from "./Facts.tsx";
import { FitSheet } from "./fit/FitSheet.tsx";
import { Learned } from "./Learned.tsx";
import { MeetFace } from "./meet/MeetFace.tsx";
import { Sheet } from "./Sheet.tsx";
import { Stands } from "./stands/Stands.tsx";
import { TryBare } from "./try/TryBare.tsx";
import { type BoardView, useBoardView } from "./useBoardView.ts";

/** The board as a proof sheet: plates of one drawing, its figures at their places, the rest folded with its verdict. */
export function BoardPage() {
  const { id, did } = useRun();
  const v = useBoardView();
  const m = v.board.measure;
  const key = useMemo(() => JSON.stringify(m.layers.map((l) => [l.file, l.role, l.side, l.because])), [m]);
  const worker = useBoardWorker(v.boardId, key);
  const sayError = useSayError();
  const others = useOtherRevisions();
  const designs = useOtherDesigns();
  const against = others.find((r) => r.id === v.against) ?? designs.find((r) => r.id === v.against);
  const top = useRef<HTMLDivElement>(null);
  const correct = (change: Corrections) => {
    const done = correctBoard(id, v.boardId, change);
    const what =
      Object.keys(change).length > 0
        ? "Corrected and remembered for files of such names"
        : "The board was measured again";
    done.then(() => did(what, done), sayError);
  };
  const show: Show = (at, k) => {
    v.show(at, k);
    top.current?.scrollIntoView({ block: "nearest" });
  };
  return (
    <section>
      <div ref={top} className="no-print mb-2 flex flex-wrap items-end gap-x-5 gap-y-1">
        <h1 className="mr-auto">Board</h1>
        <Tab isOn={v.isMeasuring} onClick={() => v.set({ hand: v.isMeasuring ? undefined : "measure" })}>
          measure
        </Tab>
        <Tab
          isOn={v.isFitting}
          onClick={() => v.set({ hand: v.isFitting ? undefined : "fit", against: undefined })}
        >
          does it fit
        </Tab>
        <Tab
          isOn={v.isMeeting}
          onClick={() => v.set({ hand: v.isMeeting ? undefined : "meet", against: undefined })}
        >
          what meets what
        </Tab>
        <Tab
          isOn={v.isStanding}
          onClick={() => v.set({ hand: v.isStanding ? undefined : "stands", against: undefined })}
        >
          what stands on it
        </Tab>
        <Tab
          isOn={v.isTrying}
          onClick={() => v.set({ hand: v.isTrying ? undefined : "try", against: undefined })}
        >
          try it bare
        </Tab>
        {others.slice(0, 3).map((r) => (
          <Tab
            key={r.id}
            isOn={against?.id === r.id}
            onClick={() => v.set({ against: against?.id === r.id ? undefined : r.id, hand: undefined })}
          >
            against {r.label}
          </Tab>
        ))}
      </div>
      <div className="no-print flex flex-wrap items-start justify-between gap-x-5">
        <div className="min-w-0 flex-1">
          <Boards
            index={v.index}
            onChoose={(i) =>
              v.set({
                board: i === 0 ? undefined : String(i + 1),
                note: undefined,
                measure: undefined,
                place: undefined,
                side: undefined,
              })
            }
          />
        </div>
        {designs.length > 0 && !v.isTrying && !v.isFitting && !v.isMeeting && !v.isStanding && (
          <Pick
            label="Against another design"
            hideLabel
            className="mb-2 text-[14px]"
            value={designs.some((d) => d.id === v.against) ? v.against! : ""}
            options={[["", "against another design"], ...designs.map((d) => [d.id, d.label] as const)]}
            onChange={(id) => v.set({ against: id === "" ? undefined : id, hand: undefined })}
          />
        )}
      </div>
      {v.isTrying ? (
        <TryBare view={v} board={worker.board} />
      ) : v.isFitting ? (
        <FitSheet key={v.boardId} view={v} board={worker.board} />
      ) : v.isMeeting ? (
        <MeetFace key={v.boardId} view={v} />
      ) : v.isStanding ? (
        <Stands view={v} />
      ) : against ? (
        <Compared view={v} board={worker.board} revisionId={against.id} />
      ) : (
        <Proven view={v} worker={worker} onShow={show} onCorrect={correct} />
      )}
    </section>
  );
}

/** What the board is, as it was read and measured. */
function Proven({
  view: v,
  worker,
  onShow,
  onCorrect,
}: {
  view: BoardView;
  worker: ReturnType<typeof useBoardWorker>;
  onShow: Show;
  onCorrect: (change: Corrections) => void;
}) {
  const { doc, result, isLocked } = useRun();
  const m = v.board.measure;
  const houses = (doc.houses ?? []).filter(makesBoards);
  return (
    <>
      <Sheet view={v} worker={worker} />
      <Measures measure={m} onShow={onShow} />
      <After>
        <Since view={v} />
      </After>
      <Facts measure={m} />
      {worker.board && <ForDocuments board={worker.board} side={v.side} name={v.board.name} />}
      {m.nets && !m.nets.islands && !isLocked && (
        <p className="mt-2 text-[14px]">
          An earlier version of Kobbin measured this board, and less of it.{" "}
          <button type="button" className="quiet-link" onClick={() => onCorrect({})}>
            measure it again
          </button>
        </p>
      )}
      <After>
        <MeasureTable
          groups={v.groups}
          houses={houses.map((h) => h.name)}
          chosen={houses.findIndex((h) => h.id === doc.house?.id)}
          shown={v.measured ? { key: v.measured.key, place: v.place } : undefined}
          onShow={v.showRow}
        />
        <StencilTable measure={m} onShow={v.showPaste} />
        <DrillTable measure={m} onShow={onShow} />
        <CardEdge
          measure={m}
          thicknessMm={result.options ? Number.parseFloat(result.options.thickness) : undefined}
          onShow={onShow}
        />
        <EdgeDetails measure={m} onShow={onShow} />
        <Cutting measure={m} onShow={onShow} />
        <Reconciled measure={m} />
        <SinglePads measure={m} onShow={onShow} />
        <Learned board={v.index} />
        <Files measure={m} onCorrect={onCorrect} disabled={isLocked} isFolded />
      </After>
    </>
  );
}
