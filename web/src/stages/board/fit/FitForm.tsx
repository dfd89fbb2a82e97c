import type { FitRow } from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { addFit, saveFit } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Field } from "../../../ui/Field.tsx";
import { useOnce } from "../../../ui/once.ts";
import { Tab } from "../../../ui/Tab.tsx";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { type Draft, draftOf, EMPTY, KINDS } from "./draft.ts";
import { checkDraft } from "./fitModel.ts";
import { OtherSide } from "./OtherSide.tsx";
import { Picked } from "./Picked.tsx";
import { TakenFrom } from "./TakenFrom.tsx";

/** A row of the fit sheet, begun or changed: the board's side is picked on the picture, the other side typed or pasted. */
export function FitForm({
  view: v,
  board,
  row,
  onClose,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  row: FitRow | undefined;
  onClose: () => void;
}) {
  const { id, answer, doc, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const m = v.board.measure;
  const [draft, setDraft] = useState<Draft>(() => (row ? draftOf(row, m) : EMPTY));
  const [isTried, setTried] = useState(false);
  const put = (change: Partial<Draft>) => setDraft((d) => ({ ...d, ...change }));
  const checked = checkDraft(draft, m, doc.boards.length > 1 ? (row?.board ?? v.board.name) : undefined);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setTried(true);
    if (!("body" in checked)) return;
    const { body } = checked;
    once(() => {
      const done = row ? saveFit(id, row.id, body) : addFit(id, answer.productId, body);
      did(`${body.label} is judged from now on`, done);
      return done.then(onClose, sayError);
    });
  };
  return (
    <form
      aria-label={row ? `Change ${row.label}` : "A row of the fit sheet"}
      className="mb-4 border-l-[3px] border-metal bg-sheet px-4 py-3"
      onSubmit={submit}
    >
      <div className="mb-3 flex flex-wrap gap-x-5 gap-y-1 text-[14.5px]">
        {KINDS.map(([kind, words]) => (
          <Tab key={kind} isOn={draft.kind === kind} onClick={() => put({ kind, picked: [] })}>
            {words}
          </Tab>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-5 max-md:grid-cols-1">
        <Picked
          view={v}
          board={board}
          draft={draft}
          onPick={(picked) => put({ picked })}
          onSpot={(spot) => put({ spot })}
        />
        <div className="flex flex-col gap-3">
          <Field
            label={draft.kind === "intended" ? "What it is called" : "What it must fit"}
            placeholder={draft.kind === "intended" ? "ground clip" : "posts of the case"}
            maxLength={120}
            value={draft.label}
            onChange={(e) => put({ label: e.target.value })}
          />
          <OtherSide
            draft={draft}
            others={doc.boards.map((b) => b.name).filter((n) => n !== v.board.name)}
            onChange={put}
          />
          <TakenFrom draft={draft} own={answer.revisionId} onChange={put} />
          {draft.kind !== "intended" && (
            <Field
              label="Greatest play that is wanted, mm"
              hint="for a firm fit; any play is right where it is empty"
              className="w-64"
              isNumber
              inputMode="decimal"
              value={draft.play}
              onChange={(e) => put({ play: e.target.value })}
            />
          )}
          {"wrong" in checked && (isTried || checked.ask) && (
            <p role="alert" className="text-[14.5px] text-stop">
              {checked.wrong}{" "}
              {checked.ask && (
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() =>
                    put(checked.ask === "unit" ? { believesUnit: true } : { believesMirror: true })
                  }
                >
                  {checked.ask === "unit" ? "that is what they are" : "take them from the other side"}
                </button>
              )}
            </p>
          )}
          <div className="flex items-center gap-3">
            <Button type="submit" look="main">
              {row ? "Save" : "Judge it"}
            </Button>
            <Button look="bare" onClick={onClose}>
              Cancel
            </Button>
          </div>
        </div>
      </div>
    </form>
  );
}
