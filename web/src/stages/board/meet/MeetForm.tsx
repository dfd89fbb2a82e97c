import { type MeetRow, type MeetStanding, PUT_IN, readPinText, type WiredPart } from "@kobbin/core";
import { type FormEvent, useMemo, useState } from "react";
import { addMeeting, saveMeeting, useOthers } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Field, Pick } from "../../../ui/Field.tsx";
import { useOnce } from "../../../ui/once.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import {
  checkMeeting,
  type DraftPin,
  draftOf,
  KIND_WORDS,
  type MeetDraft,
  newDraft,
  ownSides,
  withTheirs,
} from "./meetDraft.ts";

/** Pins of a connector and of what is put onto it: said once for the product, judged in every run of it. */
export function MeetForm({
  part,
  board,
  standing,
  onClose,
}: {
  part: WiredPart;
  /** Name of the board, where the product has several. */
  board: string | undefined;
  standing: MeetStanding | undefined;
  onClose: () => void;
}) {
  const { id, answer, doc, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const [draft, setDraft] = useState<MeetDraft>(() =>
    standing ? draftOf(standing.row, standing.ours) : newDraft(part),
  );
  const [isTried, setTried] = useState(false);
  const put = (change: Partial<MeetDraft>) => setDraft((d) => ({ ...d, ...change }));
  const checked = checkMeeting(draft, board);
  const proposed = draft.ours.filter((p) => p.isProposed).length;
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setTried(true);
    if (!("body" in checked)) return;
    const { body } = checked;
    once(() => {
      const done = standing ? saveMeeting(id, standing.row.id, body) : addMeeting(id, answer.productId, body);
      did(`${draft.ref} is held against ${body.other} from now on`, done);
      return done.then(onClose, sayError);
    });
  };
  return (
    <form
      aria-label={`What is put onto ${part.ref}`}
      className="mb-4 border-l-[3px] border-metal bg-sheet px-4 py-3"
      onSubmit={submit}
    >
      <h2 className="mb-1 text-[17px]">{part.ref} meets</h2>
      <div className="mb-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Field
          label="What is put onto it"
          placeholder="display, second edition"
          className="w-64"
          maxLength={120}
          value={draft.other}
          onChange={(e) => put({ other: e.target.value })}
        />
        <Field
          label="Gives at the most"
          placeholder="500 mA"
          className="w-32"
          maxLength={20}
          value={draft.gives}
          onChange={(e) => put({ gives: e.target.value })}
        />
        <Pick
          label="Contacts"
          value={draft.rows === 1 ? "line" : draft.numbering}
          options={[
            ["line", "one row"],
            ["zigzag", "two rows, odd and even opposite"],
            ["ring", "two rows, down one side and up the other"],
          ]}
          onChange={(v) => put({ rows: v === "line" ? 1 : 2, numbering: v as MeetDraft["numbering"] })}
        />
      </div>
      <Theirs draft={draft} board={board ?? doc.boards[0]?.name ?? ""} onDraft={setDraft} />
      {proposed > 0 && (
        <p className="mb-1 text-[14px] text-look">
          {proposed === 1 ? "One pin stands" : `${proposed} pins stand`} as the name of the net has it, marked
          with a star: look at each before you save. Whether a supply is given or taken no name tells.
        </p>
      )}
      <Pins draft={draft} onDraft={setDraft} />
      <Stops draft={draft} onDraft={put} />
      {"wrong" in checked && isTried && (
        <p role="alert" className="mt-2 text-[14.5px] text-stop">
          {checked.wrong}
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <Button type="submit" look="main">
          {standing ? "Save" : "Hold them against each other"}
        </Button>
        <Button look="bare" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

/** Where the other side's pins come from: pasted, described before in this shop, or one of our own connectors. */
function Theirs({
  draft,
  board,
  onDraft,
}: {
  draft: MeetDraft;
  /** Name of the board the connector is on. */
  board: string;
  onDraft: (d: MeetDraft) => void;
}) {
  const { doc } = useRun();
  const { data: others } = useOthers();
  const own = useMemo(() => ownSides(doc, draft.ref, board), [doc, draft.ref, board]);
  const [text, setText] = useState("");
  const read = readPinText(text);
  return (
    <div className="mb-3 flex flex-wrap items-start gap-x-5 gap-y-2">
      {others && others.length > 0 && (
        <Pick
          label="Described before"
          className="w-52"
          value=""
          options={[
            ["", "take its pins …"],
            ...others.map((o, i) => [String(i), `${o.other}, ${o.product}`] as const),
          ]}
          onChange={(index) => {
            const o = others[Number(index)];
            if (index === "" || !o) return;
            const { rows = 1, numbering = "line" } = o.spec;
            onDraft({
              ...withTheirs(draft, o.spec.theirs),
              // what was typed is a name of its own
              other: draft.other || o.other,
              rows,
              numbering,
            });
          }}
        />
      )}
      {own.length > 0 && (
        <Pick
          label="One of our own"
          className="w-44"
          value=""
          options={[["", "take its pins …"], ...own.map((o) => [o.label, o.label] as const)]}
          onChange={(label) => {
            const side = own.find((o) => o.label === label);
            if (side) onDraft({ ...withTheirs(draft, side.pins), other: draft.other || label });
          }}
        />
      )}
      <label className="flex min-w-72 flex-1 flex-col gap-[3px] text-[13.5px] text-ink-2">
        Its pins, pasted: a line a pin, its number, its signal, what it is, volts, what it takes
        <textarea
          className="num h-16 text-[13px]"
          placeholder={"1  GND  ground\n2  VCC  supply  5 V\n3  SDA  in/out  3.3 V  0 … 3.6 V"}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="flex flex-col gap-1 self-end pb-1 text-[14px]">
        <Button disabled={read.pins.length === 0} onClick={() => onDraft(withTheirs(draft, read.pins))}>
          Take {read.pins.length || ""} pins
        </Button>
      </div>
      {read.wrong.length > 0 && (
        <ul className="w-full text-[14px] text-stop">
          {read.wrong.slice(0, 4).map((w) => (
            <li key={w.line}>
              Line {w.line}: {w.because}; it is not taken.
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Both sides pin by pin. */
function Pins({ draft, onDraft }: { draft: MeetDraft; onDraft: (d: MeetDraft) => void }) {
  const change = (side: "ours" | "theirs", i: number, over: Partial<DraftPin>) =>
    onDraft({
      ...draft,
      [side]: draft[side].map((p, k) => (k === i ? { ...p, isProposed: false, ...over } : p)),
    });
  const length = Math.max(draft.ours.length, draft.theirs.length);
  const free = () => {
    const names = new Set(draft.theirs.map((p) => p.pin));
    let n = draft.theirs.length + 1;
    while (names.has(String(n))) n++;
    return String(n);
  };
  return (
    <div className="overflow-x-auto">
      <table className="rows tight w-full text-[13.5px] [&_td]:pr-0.5 [&_th]:pr-0.5">
        <thead>
          <tr>
            <th colSpan={5}>{draft.ref}, this board</th>
            <th colSpan={6}>{draft.other || "the other side"}</th>
          </tr>
          <tr>
            <th>Pin</th>
            <th>Net</th>
            <th>is</th>
            <th>V</th>
            <th>takes, V</th>
            <th>Pin</th>
            <th>Signal</th>
            <th>is</th>
            <th>V</th>
            <th>takes, V</th>
            <th>for ours</th>
          </tr>
        </thead>
        <tbody>
          {Array.from({ length }, (_, i) => {
            const [a, b] = [draft.ours[i], draft.theirs[i]];
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: rows are places, their names are being typed
              <tr key={i}>
                {a ? (
                  <>
                    <td className="num">{a.pin}</td>
                    <td className="num text-ink-2">
                      {a.net || "–"}
                      {a.isProposed && <span title="as the net is called"> *</span>}
                    </td>
                    <Facts pin={a} name={`${draft.ref}.${a.pin}`} onChange={(o) => change("ours", i, o)} />
                  </>
                ) : (
                  <td colSpan={5} className="text-ink-3">
                    no pin of ours
                  </td>
                )}
                {b ? (
                  <TheirPin
                    pin={b}
                    place={i + 1}
                    ours={draft.ours}
                    onChange={(o) => change("theirs", i, o)}
                  />
                ) : (
                  <td colSpan={6} className="text-ink-3">
                    none
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 flex gap-4 text-[14px]">
        <button
          type="button"
          className="quiet-link"
          onClick={() =>
            onDraft({
              ...draft,
              theirs: [
                ...draft.theirs,
                { pin: free(), net: "", kind: "", volts: "", takes: "", to: "", isProposed: false },
              ],
            })
          }
        >
          one more pin of theirs
        </button>
        {draft.theirs.length > 1 && (
          <button
            type="button"
            className="quiet-link"
            onClick={() => onDraft({ ...draft, theirs: draft.theirs.slice(0, -1) })}
          >
            one less
          </button>
        )}
      </p>
    </div>
  );
}

function TheirPin({
  pin: b,
  place,
  ours,
  onChange,
}: {
  pin: DraftPin;
  place: number;
  ours: readonly DraftPin[];
  onChange: (over: Partial<DraftPin>) => void;
}) {
  return (
    <>
      <td>
        <input
          aria-label={`Name of pin ${place} of the other side`}
          className="num w-9 px-1"
          value={b.pin}
          onChange={(e) => onChange({ pin: e.target.value })}
        />
      </td>
      <td>
        <input
          aria-label={`Signal of their pin ${b.pin}`}
          className="num w-12 px-1"
          value={b.net}
          onChange={(e) => onChange({ net: e.target.value })}
        />
      </td>
      <Facts pin={b} name={`their pin ${b.pin}`} onChange={onChange} />
      <td>
        <Pick
          label={`Their pin ${b.pin} is meant for`}
          hideLabel
          className="w-12 text-[13px]"
          value={b.to}
          options={[["", "–"], ...ours.map((p) => [p.pin, p.pin] as const)]}
          onChange={(to) => onChange({ to })}
        />
      </td>
    </>
  );
}

function Facts({
  pin,
  name,
  onChange,
}: {
  pin: DraftPin;
  name: string;
  onChange: (over: Partial<DraftPin>) => void;
}) {
  return (
    <>
      <td>
        <Pick
          label={`What ${name} is`}
          hideLabel
          className="w-[5.1rem] text-[13px]"
          value={pin.kind}
          options={KIND_WORDS}
          onChange={(kind) => onChange({ kind: kind as DraftPin["kind"] })}
        />
      </td>
      <td>
        <input
          aria-label={`Volts of ${name}`}
          className="num w-9 px-1"
          inputMode="decimal"
          value={pin.volts}
          onChange={(e) => onChange({ volts: e.target.value })}
        />
      </td>
      <td>
        <input
          aria-label={`Volts that ${name} takes`}
          className="num w-[4.5rem] px-1"
          placeholder="0 … 5"
          value={pin.takes}
          onChange={(e) => onChange({ takes: e.target.value })}
        />
      </td>
    </>
  );
}

const STOPS: readonly MeetRow["stopped"][number][] = ["turned", "mirrored", "shifted"];

/** What cannot happen, and by what: a key, a shroud, a blocked place. */
function Stops({ draft, onDraft }: { draft: MeetDraft; onDraft: (change: Partial<MeetDraft>) => void }) {
  return (
    <fieldset className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-2 text-[14.5px]">
      <legend className="text-[13.5px] text-ink-2">It cannot be put in</legend>
      {STOPS.filter((mode) => draft.rows === 2 || mode !== "mirrored").map((mode) => (
        <label key={mode} className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={draft.stopped.includes(mode)}
            onChange={(e) =>
              onDraft({
                stopped: e.target.checked
                  ? [...draft.stopped, mode]
                  : draft.stopped.filter((m) => m !== mode),
              })
            }
          />
          {PUT_IN[mode]}
        </label>
      ))}
      <Field
        label="because of"
        placeholder="shroud with a key"
        className="w-56"
        maxLength={200}
        value={draft.stopBy}
        onChange={(e) => onDraft({ stopBy: e.target.value })}
      />
    </fieldset>
  );
}
