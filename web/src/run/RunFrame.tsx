import { useEffect, useMemo, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { Link, Navigate, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { undoLast } from "../resources/history.ts";
import { SavedMark } from "../Saving.tsx";
import { useKeys } from "../ui/keys.ts";
import { Failed, Skeleton } from "../ui/States.tsx";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";
import { ClashDialog } from "./ClashDialog.tsx";
import { Counting } from "./Counting.tsx";
import { Margin } from "./Margin.tsx";
import { notesOf, RunProvider, useRunState } from "./runState.ts";
import { Spine } from "./Spine.tsx";
import { stages } from "./stages.ts";

/** A run: the spine at the left, the stage's work in the middle, the margin at the right. */
export function RunFrame() {
  const id = useParams().id!;
  const { state, first, error, retry } = useRunState(id);
  const navigate = useNavigate();
  const stage = useLocation().pathname.split("/")[3];
  const [marginOpen, setMarginOpen] = useState(false);
  // beside the work the margin stands while it has something to say, unless the person wished otherwise
  const [wish, setWish] = useState<boolean>();
  const notesButton = useRef<HTMLButtonElement>(null);
  const say = useSay();
  const sayError = useSayError();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stage closes the drawer
  useEffect(() => setMarginOpen(false), [stage]);
  const known = stages().find((s) => s.key === stage);
  const notes = state && known ? notesOf(state.result, known.key) : [];
  const said = notes.length + (state?.answer.remarks.filter((r) => r.stage === known?.key).length ?? 0);
  const isBeside = wish ?? said > 0;
  const bindings = useMemo(() => {
    const usable = stages();
    const at = usable.findIndex((s) => s.key === stage);
    const go = (by: number) => {
      const next = usable[at + by];
      if (next) navigate(`/runs/${id}/${next.key}`);
    };
    const back = (verb: "undo" | "redo") =>
      undoLast(id, verb).then(
        ({ says }) =>
          say(verb === "undo" ? `Taken back: ${says}` : says.replace(/^taken back: /, "Brought again: ")),
        sayError,
      );
    return [
      { keys: "Ctrl+z", does: "take back my last change", run: () => void back("undo") },
      { keys: "Ctrl+Shift+z or Ctrl+y", does: "bring it again", run: () => void back("redo") },
      { keys: "h", does: "history of this run", run: () => navigate(`/runs/${id}/history`) },
      { keys: "]", does: "next stage", run: () => go(1) },
      { keys: "[", does: "previous stage", run: () => go(-1) },
      {
        keys: "r",
        does: "remarks and notes in the margin, shown or folded",
        run: () => {
          const isWide = window.matchMedia("(min-width: 1101px)").matches;
          setMarginOpen((o) => (isWide ? !isBeside : !o));
          if (isWide) setWish(!isBeside);
        },
      },
      // a digit each, as far as there are digits; the rest by [ and ]
      ...usable.slice(0, 10).map((s, i) => ({
        keys: String((i + 1) % 10),
        does: `to ${s.label}`,
        run: () => navigate(`/runs/${id}/${s.key}`),
      })),
    ];
  }, [id, navigate, stage, isBeside, say, sayError]);
  useKeys(bindings);
  if (!stage) return <Navigate to={`/runs/${id}/board`} replace />;
  if (!state && first && !error) return <Counting id={id} stage={stage} {...first} />;
  if (!state)
    return (
      <main id="main" className="p-8">
        {error ? (
          <Failed error={error} again={retry} />
        ) : (
          <Skeleton rows={8} label="The run is being computed" />
        )}
      </main>
    );
  const crumb = document.getElementById("crumb");
  return (
    <RunProvider value={state}>
      {crumb &&
        createPortal(
          <span className="max-md:hidden">
            {" / "}
            {state.doc.product} / <b className="text-ink">{state.doc.name}</b>
            <span className="ml-4 text-[13px] text-ink-3">
              <SavedMark life={state.life} />{" "}
              <Link to={`/runs/${id}/history`} className="quiet-link ml-2">
                history
              </Link>
            </span>
          </span>,
          crumb,
        )}
      <div
        className={`grid min-h-0 flex-1 print:block md:overflow-hidden print:overflow-visible ${isBeside ? "grid-cols-[262px_minmax(0,1fr)_276px]" : "grid-cols-[262px_minmax(0,1fr)]"} max-[1100px]:grid-cols-[248px_minmax(0,1fr)] max-md:block`}
      >
        <Spine stage={stage} />
        <main
          id="main"
          className="relative min-h-0 min-w-0 overflow-x-hidden md:overflow-y-auto px-6 pt-4 pb-10 max-md:px-3"
          tabIndex={-1}
        >
          {known && (
            <button
              type="button"
              ref={notesButton}
              className={`no-print quiet-link float-right ml-4 ${isBeside ? "hidden max-[1100px]:inline" : ""}`}
              onClick={() => {
                setMarginOpen(true);
                setWish(true);
              }}
            >
              notes ({said === 0 ? "none" : said})
            </button>
          )}
          {state.isReleased && (
            <p className="mb-3 overflow-hidden border-l-[3px] border-fine bg-fine-soft px-3 py-2 text-[14px]">
              Released: what was ordered stays as it was.{" "}
              <Link to={`/runs/${id}/order`} className="quiet-link">
                to the package
              </Link>
            </p>
          )}
          {state.isLocked && !state.isReleased && (
            <p className="mb-3 overflow-hidden border-l-[3px] border-rule bg-sheet px-3 py-2 text-[14px]">
              You are at the bench here: look at everything, leave remarks. An owner chooses and orders.
            </p>
          )}
          {state.isBehind && <Behind />}
          <Outlet />
        </main>
        <ClashDialog />
        <Margin
          stage={known?.key}
          notes={notes}
          isOpen={marginOpen}
          isBeside={isBeside}
          onClose={() => {
            setMarginOpen(false);
            setWish(false);
            requestAnimationFrame(() => notesButton.current?.focus());
          }}
        />
      </div>
    </RunProvider>
  );
}

/** Said over the work while what each choice would change still belongs to the choices before the last one. */
function Behind() {
  return (
    <p role="status" className="late sticky top-0 z-10 h-0 text-center">
      <span className="border border-rule bg-sheet px-3 py-1 text-[13px] text-ink-2">
        Counting again: what the lines would change is still of the choice before.
      </span>
    </p>
  );
}
