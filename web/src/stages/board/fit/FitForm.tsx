import type { FitRow } from "@kobbin/core";
import { type FormEvent, useMemo, useState } from "react";
import { Proof } from "../../../proof/Proof.tsx";
import { addFit, saveFit } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Field } from "../../../ui/Field.tsx";
import { fixed, mm } from "../../../ui/format.ts";
import { Tab } from "../../../ui/Tab.tsx";
import { useSayError } from "../../../ui/Toast.tsx";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { type Draft, draftOf, EMPTY, featuresFor, KINDS } from "./draft.ts";
import { checkDraft } from "./fitModel.ts";
import { OtherSide } from "./OtherSide.tsx";

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
  const m = v.board.measure;
  const [draft, setDraft] = useState<Draft>(() => (row ? draftOf(row, m) : EMPTY));
  const [isTried, setTried] = useState(false);
  const put = (change: Partial<Draft>) => setDraft((d) => ({ ...d, ...change }));
  const checked = checkDraft(draft, m, doc.boards.length > 1 ? (row?.board ?? v.board.name) : undefined);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setTried(true);
    if (!("body" in checked)) return;
    const done = row ? saveFit(id, row.id, checked.body) : addFit(id, answer.productId, checked.body);
    done.then(onClose, sayError);
    did(`${checked.body.label} is judged from now on`, done);
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
        <Picked view={v} board={board} draft={draft} onPick={(picked) => put({ picked })} />
        <div className="flex flex-col gap-3">
          <Field
            label="What it must fit"
            placeholder="posts of the case"
            maxLength={120}
            value={draft.label}
            onChange={(e) => put({ label: e.target.value })}
          />
          <OtherSide
            draft={draft}
            others={doc.boards.map((b) => b.name).filter((n) => n !== v.board.name)}
            onChange={put}
          />
          <Field
            label="Greatest play that is wanted, mm"
            hint="for a firm fit; any play is right where it is empty"
            className="w-64"
            isNumber
            inputMode="decimal"
            value={draft.play}
            onChange={(e) => put({ play: e.target.value })}
          />
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

const WITHOUT: Readonly<Partial<Record<Draft["kind"], string>>> = {
  slot: "slot",
  pattern: "hole of 1.5 mm and more",
  pin: "plated hole for a pin",
};

/** The board's own side of a row: picked on the picture, or from the list beside it; or what is measured anyway. */
function Picked({
  view: v,
  board,
  draft,
  onPick,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  draft: Draft;
  onPick: (picked: readonly number[]) => void;
}) {
  const { result, doc } = useRun();
  const m = v.board.measure;
  const features = useMemo(() => featuresFor(m, draft.kind), [m, draft.kind]);
  const isOne = draft.kind === "slot" || draft.kind === "pin";
  const toggle = (i: number) =>
    onPick(
      draft.picked.includes(i) ? draft.picked.filter((k) => k !== i) : isOne ? [i] : [...draft.picked, i],
    );
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const marks = features.map((f, i) => ({
    number: i + 1,
    x: f.x,
    y: f.y,
    level: draft.picked.includes(i) ? ("warning" as const) : ("remark" as const),
    text: draft.picked.includes(i) ? "picked" : "not picked",
  }));
  if (draft.kind === "edge" || draft.kind === "stack")
    return (
      <p className="text-[14.5px] text-ink-2">
        The board's thickness is the one chosen at Fab:{" "}
        <b className="num text-ink">{result.options ? `${result.options.thickness} mm` : "none yet"}</b>. It
        is judged again when another is chosen.
      </p>
    );
  if (draft.kind === "lid" || draft.kind === "facing")
    return (
      <p className="text-[14.5px] text-ink-2">
        What stands on the board is counted with the heights of the library’s parts, of their packages’ names,
        or those usual for them; a part of no known height is named.
        {draft.kind === "facing" && doc.boards.length < 2 && (
          <b className="block text-look">The product has no other board.</b>
        )}
      </p>
    );
  if (draft.kind === "contacts") {
    const row = m.edgeContacts?.[draft.edgeSide];
    return (
      <p className="text-[14.5px] text-ink-2">
        {row ? (
          <>
            The contacts are measured:{" "}
            <b className="num text-ink">
              {row.count} of {mm(row.widthMm)} at {mm(row.pitchMm)} mm
            </b>
            {row.tabMm !== undefined && (
              <>
                {" "}
                on a tab of <b className="num text-ink">{mm(row.tabMm)} mm</b>
              </>
            )}
            .
          </>
        ) : (
          `No edge contacts are found on the ${draft.edgeSide}.`
        )}
      </p>
    );
  }
  if (draft.kind === "outline")
    return (
      <p className="text-[14.5px] text-ink-2">
        The board is measured:{" "}
        <b className="num text-ink">
          {m.outline?.widthMm === undefined
            ? "its outline is open"
            : `${mm(m.outline.widthMm)} × ${mm(m.outline.heightMm)} mm`}
        </b>
        .
      </p>
    );
  return (
    <div>
      {board && m.extentMm && (
        <Proof
          board={board}
          box={m.extentMm}
          isSized={undefined}
          side="top"
          mask={mask}
          finish={finish}
          legend={legend}
          marks={marks}
          onMark={(n) => toggle(n - 1)}
          height={270}
          label={draft.kind === "slot" ? "Pick the slot" : "Pick the holes"}
        />
      )}
      <fieldset className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[14.5px]">
        <legend className="sr-only">{draft.kind === "slot" ? "The slot" : "The holes"}</legend>
        {features.length === 0 && <p className="text-look">The board has no {WITHOUT[draft.kind]}.</p>}
        {features.map((f, i) => (
          <label key={`${f.x} ${f.y}`} className="flex min-h-6 items-center gap-1">
            <input
              type={isOne ? "radio" : "checkbox"}
              name="picked"
              checked={draft.picked.includes(i)}
              onChange={() => toggle(i)}
            />
            <span className="num">
              {i + 1}: {f.kind === "hole" ? mm(f.diameterMm) : `${mm(f.widthMm)} × ${mm(f.lengthMm)}`} at{" "}
              {fixed(f.x, 1)} / {fixed(f.y, 1)}
            </span>
          </label>
        ))}
      </fieldset>
    </div>
  );
}
