import type { Corrections } from "@kobbin/core";
import { startTransition, useEffect, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { boardColours } from "../../proof/colours.ts";
import { DrillTable, EdgeDetails, type Show, SinglePads } from "../../proof/Details.tsx";
import { Files } from "../../proof/Files.tsx";
import { Measures } from "../../proof/Measures.tsx";
import { MeasureTable } from "../../proof/MeasureTable.tsx";
import { measureGroups } from "../../proof/measureRows.ts";
import type { ProofMark } from "../../proof/Overlay.tsx";
import { type Forward, Proof } from "../../proof/Proof.tsx";
import { Reconciled } from "../../proof/Reconciled.tsx";
import { StencilTable } from "../../proof/StencilTable.tsx";
import { useBoardWorker } from "../../proof/useBoardWorker.ts";
import { correctBoard } from "../../resources/run.ts";
import { notesOf, useRun } from "../../run/runState.ts";
import { useOtherRevisions } from "../../run/useOtherRevisions.ts";
import { count, fixed, mm } from "../../ui/format.ts";
import { useKeys } from "../../ui/keys.ts";
import { Failed } from "../../ui/States.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { useSayError } from "../../ui/Toast.tsx";
import { AgainstBoard } from "./AgainstBoard.tsx";
import { Boards } from "./Boards.tsx";

const VIEWS: readonly (readonly [string, string])[] = [
  ["top", "top"],
  ["bottom", "bottom"],
];
const FORWARD: readonly Forward[] = ["copper", "mask", "paste", "legend"];
const FORWARD_LABEL: Readonly<Record<Forward, string>> = {
  copper: "copper",
  mask: "openings",
  paste: "paste",
  legend: "silkscreen",
};

/** The board as it will be delivered, measured, with its notes at their places. */
export function BoardPage() {
  const { id, answer, doc, result, did, isLocked } = useRun();
  const [params, setParams] = useSearchParams();
  const side = params.get("side") === "bottom" ? "bottom" : "top";
  const forward = FORWARD.find((f) => f === params.get("layer"));
  const notes = notesOf(result, "board");
  const wanted = params.get("note");
  const note = wanted ? notes[Number(wanted) - 1] : undefined;
  // a note leads to the board it is about
  const noted = note?.board === undefined ? -1 : doc.boards.findIndex((b) => b.id === note.board);
  const asked = Math.round(Number(params.get("board") ?? 1)) - 1;
  const index = noted >= 0 ? noted : Math.max(0, Math.min(doc.boards.length - 1, asked || 0));
  const boardId = answer.boardIds[index] ?? "";
  const m = doc.boards[index]!.measure;
  const key = useMemo(() => JSON.stringify(m.layers.map((l) => [l.file, l.role, l.side, l.because])), [m]);
  const { board, what, share, error } = useBoardWorker(boardId, key);
  const [shown, setShown] = useState<{ x: number; y: number; key: string }>();
  // the table of files is long: it comes in slices after the picture's frame stands
  const [hasFiles, setHasFiles] = useState(false);
  useEffect(() => startTransition(() => setHasFiles(true)), []);
  const sayError = useSayError();
  const others = useOtherRevisions();
  const against = others.find((r) => r.id === params.get("against"));
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
  const picture = useRef<HTMLDivElement>(null);
  const houses = doc.houses ?? [];
  const wish = doc.options;
  const groups = useMemo(() => measureGroups(m, houses, wish ?? {}), [m, houses, wish]);
  const measured = groups.flatMap((g) => g.rows).find((r) => r.key === params.get("measure"));
  const place = Math.max(
    0,
    Math.min((measured?.places.length ?? 1) - 1, Number(params.get("place") ?? 1) - 1),
  );
  const measuredAt = measured?.places[place];
  const isMeasuring = params.get("hand") === "measure";
  const marks = notes.flatMap((n, i): ProofMark[] =>
    n.at && (n.board === undefined || n.board === doc.boards[index]!.id)
      ? [{ number: i + 1, x: n.at.x, y: n.at.y, level: n.level, text: n.text }]
      : [],
  );
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
  // biome-ignore lint/correctness/useExhaustiveDependencies: set only closes over params
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
        run: () => set({ hand: isMeasuring ? undefined : "measure" }),
      },
    ],
    [side, params, isMeasuring],
  );
  useKeys(bindings);
  const correct = (change: Corrections) => {
    const done = correctBoard(id, boardId, change);
    const what =
      Object.keys(change).length > 0
        ? "Corrected and remembered for files of such names"
        : "The board was measured again";
    done.then(() => did(what, done), sayError);
  };
  const showAt: Show = (at, k) => {
    set({
      note: undefined,
      measure: undefined,
      // what goes through the board is shown on the side that is up
      side: /top|bottom/.test(at.layer)
        ? at.layer.includes("bottom")
          ? "bottom"
          : undefined
        : (params.get("side") ?? undefined),
    });
    setShown({ x: at.x, y: at.y, key: k });
    picture.current?.scrollIntoView({ block: "nearest" });
  };
  return (
    <section>
      <div ref={picture} className="mb-2 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1>Board</h1>
        <div className="flex flex-wrap gap-x-5 gap-y-1" role="toolbar" aria-label="What the picture shows">
          {VIEWS.map(([v, label]) => (
            <Tab
              key={v}
              isOn={side === v}
              onClick={() => set({ side: v === "top" ? undefined : v, note: undefined })}
            >
              {label}
            </Tab>
          ))}
          <span aria-hidden className="border-l border-rule" />
          {FORWARD.map((f) => (
            <Tab key={f} isOn={forward === f} onClick={() => set({ layer: forward === f ? undefined : f })}>
              {FORWARD_LABEL[f]}
            </Tab>
          ))}
          <span aria-hidden className="border-l border-rule" />
          <Tab isOn={isMeasuring} onClick={() => set({ hand: isMeasuring ? undefined : "measure" })}>
            measure
          </Tab>
          {others.slice(0, 3).map((r) => (
            <Tab
              key={r.id}
              isOn={against?.id === r.id}
              onClick={() => set({ against: against?.id === r.id ? undefined : r.id })}
            >
              against {r.label}
            </Tab>
          ))}
        </div>
      </div>
      <Boards
        index={index}
        onChoose={(i) =>
          set({
            board: i === 0 ? undefined : String(i + 1),
            note: undefined,
            measure: undefined,
            place: undefined,
            side: undefined,
          })
        }
      />
      {error ? (
        <Failed error={error} />
      ) : !board ? (
        <div className="relative h-[460px] border border-rule bg-sheet">
          <div className="skeleton absolute inset-16" />
          <p role="status" className="num absolute inset-x-0 bottom-4 text-center text-[13px] text-ink-2">
            {what} {Math.round(share * 100)} %
          </p>
        </div>
      ) : m.extentMm ? (
        // while the places of a measure are gone through, the picture stays beside the table
        <div className={measured ? "sticky -top-5 z-10 bg-paper pb-2" : ""}>
          <Proof
            height={measured ? 360 : 460}
            board={board}
            box={m.extentMm}
            isSized={m.outline?.widthMm !== undefined}
            side={side}
            forward={forward}
            marks={marks}
            onMark={(k) => set({ note: String(k), measure: undefined })}
            places={measured?.places ?? []}
            isMeasuring={isMeasuring}
            focus={focus}
            mask={result.options?.mask ?? "green"}
            finish={result.options?.finish ?? ""}
            legend={result.options?.legend ?? "white"}
          />
          {measured && (
            <p className="mt-1 flex justify-between text-[14px] text-ink-2">
              <span>
                {measured.label}: {mm(measuredAt?.mm ?? measured.mm)} mm, place {place + 1} of{" "}
                {Math.max(1, measured.places.length)}
              </span>
              <button
                type="button"
                className="quiet-link"
                onClick={() => set({ measure: undefined, place: undefined })}
              >
                done
              </button>
            </p>
          )}
        </div>
      ) : (
        <p className="text-ink-2">There is nothing to draw.</p>
      )}
      <Measures measure={m} onShow={showAt} />
      {against && (
        <AgainstBoard
          revisionId={against.id}
          revision={doc.revision}
          boardId={boardId}
          index={index}
          onShow={showAt}
          onClose={() => set({ against: undefined })}
        />
      )}
      <p className="mt-4 text-[14px] text-ink-2">
        {m.outline?.areaMm2 !== undefined && `${fixed(m.outline.areaMm2, 1)} mm² of board; `}
        {count(m.nets?.count ?? 0, "net")}, {count(m.viaPads, "via")}, {count(m.throughHolePads, "pad")} with
        a hole, {Object.values(m.smdPads).reduce((a, b) => a + b, 0)} without
        {sumOf(m.fiducials) > 0 && `, ${count(sumOf(m.fiducials), "fiducial")}`}
        {sumOf(m.testPads) > 0 && `, ${count(sumOf(m.testPads), "test pad")}`}
        {(m.toolingHoles ?? 0) > 0 && `, ${count(m.toolingHoles!, "unplated hole")} of a millimetre and more`}
        {m.massG !== undefined && `; ${fixed(m.massG, 1)} g bare`}
        {m.stencil?.top && `, ${fixed(m.stencil.top.pasteGrams["0.12"]!, 2)} g of paste through 0.12 mm`}.
      </p>
      {board && (
        <p className="mt-1 flex flex-wrap gap-x-4 text-[14px] text-ink-2">
          {side} side for documents:
          {(["svg", "png"] as const).map((kind) => (
            <button
              key={kind}
              type="button"
              className="quiet-link"
              onClick={() =>
                board
                  .picture(
                    side,
                    kind,
                    boardColours(
                      result.options?.mask ?? "green",
                      result.options?.finish ?? "",
                      result.options?.legend ?? "white",
                    ),
                  )
                  .then(
                    (blob) => blob && saveBlob(blob, `${doc.boards[index]!.name}-${side}.${kind}`),
                    sayError,
                  )
              }
            >
              {kind === "svg" ? "drawing (SVG)" : "picture (PNG)"}
            </button>
          ))}
        </p>
      )}
      {m.nets && !m.nets.islands && !isLocked && (
        <p className="mt-2 text-[14px]">
          An earlier version of Kobbin measured this board, and less of it.{" "}
          <button type="button" className="quiet-link" onClick={() => correct({})}>
            measure it again
          </button>
        </p>
      )}
      {hasFiles && (
        <>
          <MeasureTable
            groups={groups}
            houses={houses.map((h) => h.name)}
            chosen={houses.findIndex((h) => h.id === doc.house?.id)}
            shown={measured ? { key: measured.key, place } : undefined}
            onShow={(row, k) =>
              set({
                note: undefined,
                measure: row.key,
                place: k === 0 ? undefined : String(k + 1),
                side: row.places[k]?.layer.includes("bottom") ? "bottom" : undefined,
              })
            }
          />
          <StencilTable
            measure={m}
            onShow={(at) => {
              set({
                note: undefined,
                measure: undefined,
                layer: "paste",
                side: at.layer.includes("bottom") ? "bottom" : undefined,
              });
              setShown({ ...at, key: `paste ${at.x} ${at.y}` });
            }}
          />
          <DrillTable measure={m} onShow={showAt} />
          <EdgeDetails measure={m} onShow={showAt} />
          <Reconciled measure={m} />
          <SinglePads measure={m} onShow={showAt} />
        </>
      )}
      {hasFiles && <Files measure={m} onCorrect={correct} disabled={isLocked} />}
    </section>
  );
}

const sumOf = (counts: Readonly<Record<string, number>> | undefined) =>
  Object.values(counts ?? {}).reduce((a, b) => a + b, 0);

/** Hands a made file to the person. */
function saveBlob(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const a = document.createElement("a");
  a.href = url;
  a.download = name.toLowerCase().replaceAll(" ", "-");
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
