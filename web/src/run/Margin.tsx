import { MEASURES, type Note } from "@kobbin/core";
import { X } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { LitBoard } from "../proof/LitBoard.tsx";
import { correctBoard } from "../resources/run.ts";
import { Button } from "../ui/Button.tsx";
import { Mark } from "../ui/Mark.tsx";
import { said } from "../ui/text/format.ts";
import { useSayError } from "../ui/toast/Toast.tsx";
import { WriteDown } from "./learn/WriteDown.tsx";
import { Remarks } from "./Remarks.tsx";
import { useRun } from "./runState.ts";
import { stages } from "./stages.ts";

/** Stages whose rows are about parts: what is pointed at is lit on the board. */
const LIT = new Set(["parts", "source", "assemble"]);

/** Numbered notes of the stage: what was measured, the limit and whose, what to do; accepted with a reason. */
export function Margin({
  stage,
  notes,
  isOpen,
  isBeside,
  onClose,
}: {
  /** Left out where there is nothing to note, as in the history. */
  stage: string | undefined;
  notes: readonly Note[];
  /** Opened by hand: on a narrow page it is a drawer. */
  isOpen: boolean;
  /** On a wide page: stands beside the work. */
  isBeside: boolean;
  onClose: () => void;
}) {
  const close = useRef<HTMLButtonElement>(null);
  // what was pressed to open it is gone from the page
  useEffect(() => {
    if (isOpen) close.current?.focus();
  }, [isOpen]);
  return (
    <aside
      aria-label="In the margin"
      className={`no-print min-h-0 overflow-y-auto border-l border-rule px-[18px] py-[14px] max-[1100px]:fixed max-[1100px]:inset-y-0 max-[1100px]:right-0 max-[1100px]:z-30 max-[1100px]:w-[min(92vw,340px)] max-[1100px]:bg-paper max-[1100px]:shadow-xl ${isOpen ? "" : "max-[1100px]:hidden"} ${isBeside ? "" : "min-[1101px]:hidden"}`}
    >
      <div className="mb-2 flex justify-between">
        <h2 className="text-[13.5px] font-semibold text-ink-2">In the margin</h2>
        <button
          type="button"
          onClick={onClose}
          aria-label="Close the margin"
          ref={close}
          className="text-ink-2 hover:text-ink"
        >
          <X className="size-4" />
        </button>
      </div>
      {notes.length === 0 ? (
        <p className="border-t border-rule pt-2 text-[14px] text-ink-2">Nothing to say at this stage.</p>
      ) : (
        <ol>
          {notes.map((n, i) => (
            <NoteRow key={n.key} note={n} number={i + 1} />
          ))}
        </ol>
      )}
      {stage && <Remarks stage={stage} />}
      {isBeside && LIT.has(stage ?? "") && <LitBoard />}
    </aside>
  );
}

/** One note with its actions; used in the margin and in the list of the release. */
export function NoteRow({
  note: n,
  number,
  showStage = false,
  beside,
}: {
  note: Note;
  number: number;
  showStage?: boolean;
  beside?: ReactNode;
}) {
  const { id, answer, change, did, doc, isLocked } = useRun();
  const [params, setParams] = useSearchParams();
  const [reason, setReason] = useState<string>();
  const accepted = doc.choices.accepted ?? {};
  const kind = n.acceptedBecause
    ? "ready"
    : n.level === "error"
      ? "blocked"
      : n.level === "warning"
        ? "look"
        : "remark";
  const isShown = !showStage && params.get("note") === String(number);
  const row = useRef<HTMLLIElement>(null);
  // the picture's mark leads here: what the browser scrolls is outside of React
  useEffect(() => {
    if (isShown) row.current?.scrollIntoView({ block: "nearest" });
  }, [isShown]);
  const sayError = useSayError();
  const at = n.board === undefined ? 0 : doc.boards.findIndex((b) => b.id === n.board);
  const boardId = answer.boardIds[Math.max(0, at)] ?? "";
  const mend = (offer: NonNullable<Note["offer"]>) => {
    const done = correctBoard(id, boardId, { moves: { [offer.file]: offer.move } });
    done.then(() => did("Moved; the board was measured again", done), sayError);
  };
  const accept = () => {
    const text = (reason ?? "").trim();
    if (text === "") return;
    change({ accepted: { ...accepted, [n.key]: text } }, "Accepted with a reason");
    setReason(undefined);
  };
  const takeBack = () => {
    const { [n.acceptedAs ?? n.key]: _, ...rest } = accepted;
    change({ accepted: rest }, "The note is open again");
  };
  return (
    <li
      ref={row}
      data-lines={n.lines?.join(" ")}
      aria-current={isShown || undefined}
      className={`grid ${beside ? "grid-cols-[22px_1fr_170px] max-sm:grid-cols-[22px_1fr]" : "grid-cols-[22px_1fr]"} gap-x-2 border-t border-rule py-[9px] text-[14px] leading-snug ${isShown ? "-mx-2 border-l-2 border-l-metal bg-sheet px-2" : ""}`}
    >
      <Mark kind={kind} count={number} />
      <div className="min-w-0">
        {showStage && (
          <span className="mr-2 text-[12.5px] text-ink-3">
            {stages().find((s) => s.key === n.stage)?.label}
          </span>
        )}
        <p className="inline break-words">{said(n.text)}</p>
        {n.do && <p className="text-ink-2">{said(n.do)}</p>}
        {(n.file || n.line) && (
          <p className="num text-[12px] break-all text-ink-3">
            {n.file}
            {n.line ? `, line ${n.line}` : ""}
          </p>
        )}
        {n.acceptedBecause && <p className="text-ink-2">Accepted: {n.acceptedBecause}</p>}
        <div className="flex flex-wrap gap-x-4 [&_button]:min-h-6">
          {n.offer && !isLocked && (
            <button type="button" className="quiet-link" onClick={() => mend(n.offer!)}>
              {n.offer.says}
            </button>
          )}
          {n.at && n.stage === "board" && (
            <button
              type="button"
              className="quiet-link"
              onClick={() => {
                const { side: _, measure: _m, place: _p, ...rest } = Object.fromEntries(params);
                const isBelow = n.at?.layer?.includes("bottom");
                setParams({ ...rest, note: String(number), ...(isBelow ? { side: "bottom" } : {}) });
              }}
            >
              show it
            </button>
          )}
          {isLearnable(n) && <OnceOnly note={n} board={Math.max(0, at)} />}
          {!isLocked && n.level !== "remark" && !n.isFirm && !n.acceptedBecause && reason === undefined && (
            <button type="button" className="quiet-link" onClick={() => setReason("")}>
              accept with a reason
            </button>
          )}
          {!isLocked && n.acceptedBecause && (
            <button type="button" className="quiet-link" onClick={takeBack}>
              open it again
            </button>
          )}
        </div>
        {reason !== undefined && (
          <Reason
            value={reason}
            onChange={setReason}
            onAccept={accept}
            onLeave={() => setReason(undefined)}
          />
        )}
      </div>
      {beside && <div className="max-sm:col-start-2">{beside}</div>}
    </li>
  );
}

/** Makes a lesson of a note. */
function OnceOnly({ note: n, board }: { note: Note; board: number }) {
  const { doc } = useRun();
  const [isOpen, setIsOpen] = useState(false);
  const measure = measureOf(n.key);
  return (
    <>
      <button type="button" className="quiet-link" onClick={() => setIsOpen(true)}>
        so that it costs once
      </button>
      {isOpen && (
        <WriteDown
          of={{
            place: n.about?.[0] ?? "",
            words: said(n.text),
            came: `a note on ${doc.product} ${doc.revision}`,
            board,
            ...(n.key.includes("direction-unmarked") ? { code: "wrong way round" as const } : {}),
            ...(measure ? { measure } : {}),
          }}
          onClose={() => setIsOpen(false)}
        />
      )}
    </>
  );
}

/** What a later board could be held against: something of the design that is no lesson yet. */
const isLearnable = (n: Note): boolean =>
  !/^(learned|erratum) /.test(n.key) &&
  ((n.stage === "board" && n.about !== undefined) || measureOf(n.key) !== undefined);

/** The measure a note is about, by its key. */
const measureOf = (key: string): string | undefined =>
  MEASURES.find((m) => key.split(" ").includes(m.key))?.key;

/** Why a note is fine here. */
function Reason({
  value,
  onChange,
  onAccept,
  onLeave,
}: {
  value: string;
  onChange: (text: string) => void;
  onAccept: () => void;
  onLeave: () => void;
}) {
  return (
    <form
      className="mt-1 flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        onAccept();
      }}
    >
      <input
        aria-label="Reason"
        placeholder="why it is fine here"
        value={value}
        onChange={(e) => onChange(e.target.value)}
        onKeyDown={(e) => e.key === "Escape" && onLeave()}
        // biome-ignore lint/a11y/noAutofocus: opened by the person's own press
        autoFocus
      />
      <div className="flex gap-2">
        <Button type="submit" disabled={value.trim() === ""}>
          accept
        </Button>
        <Button look="bare" onClick={onLeave}>
          not now
        </Button>
      </div>
    </form>
  );
}
