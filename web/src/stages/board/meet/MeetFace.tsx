import {
  harmlessOrder,
  type MeetStanding,
  PUT_IN,
  putOf,
  voltsOn,
  type WiredPart,
  withoutBoard,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { removeLink, removeMeeting } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { After } from "../../../ui/After.tsx";
import { Empty } from "../../../ui/States.tsx";
import { count } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { useOneOpen } from "../../../ui/useOneOpen.ts";
import type { BoardView } from "../useBoardView.ts";
import { Decoupling, Floats, Told } from "./Found.tsx";
import { FlowFace } from "./flow/FlowFace.tsx";
import { Links } from "./Links.tsx";
import { MeetForm } from "./MeetForm.tsx";
import { Power } from "./Power.tsx";
import { Slide, STILL } from "./Slide.tsx";

const WORD = { fine: "fine", idle: "nothing", damage: "damage", unknown: "not known" } as const;
const COLOUR = { fine: "text-fine", idle: "text-ink-2", damage: "text-stop", unknown: "text-look" } as const;

/** Volts, where the fit sheet has millimetres: what meets what at every connector, what feeds the board, what floats. */
export function MeetFace({ view: v }: { view: BoardView }) {
  const { doc, isLocked } = useRun();
  const volts = useMemo(() => voltsOn(doc, v.board), [doc, v.board]);
  const { open: edited, setOpen: setEdited, close } = useOneOpen();
  const board = doc.boards.length > 1 ? v.board.name : undefined;
  if (!volts.isNamed && volts.meetings.length + volts.links.length === 0)
    return (
      <Empty>
        The files of this board do not say which pad is which pin of which net: a netlist, or layers with
        names in them, tells it. Without them nothing can be said of what meets what.
      </Empty>
    );
  const described = new Set(volts.meetings.map((s) => s.row.ref));
  const open = volts.connectors.filter((p) => !described.has(p.ref));
  const started = volts.connectors.find((p) => p.ref === edited);
  const bad = volts.meetings.filter((s) => s.verdict === "damage").length;
  return (
    <section aria-label="What meets what">
      <p className="mb-3 max-w-[80ch] text-[14.5px] text-ink-2">
        {count(volts.connectors.length, "connector")};{" "}
        {volts.meetings.length === 0
          ? "what is put onto them is not known yet."
          : `${volts.meetings.length} held against what is put onto ${volts.meetings.length === 1 ? "it" : "them"}${bad > 0 ? `, ${bad} of which can be damaged` : ""}.`}
      </p>
      {started && !isLocked && (
        <MeetForm part={started} board={board} standing={undefined} onClose={() => close(started.ref)} />
      )}
      <ul>
        {volts.meetings.map((s) =>
          edited === s.row.id && s.part ? (
            <li key={s.row.id}>
              <MeetForm part={s.part} board={board} standing={s} onClose={() => close(s.row.id)} />
            </li>
          ) : (
            <Met key={s.row.id} standing={s} isLocked={isLocked} onEdit={() => setEdited(s.row.id)} />
          ),
        )}
      </ul>
      <Lost />
      <Open parts={open} isLocked={isLocked} onDescribe={setEdited} isFirst={volts.meetings.length === 0} />
      <Links volts={volts} board={board} />
      {volts.power.rails.length > 0 && (
        <section aria-label="What feeds it" className="mt-6 border-t border-rule pt-4">
          <h2 className="mb-2 text-[17px]">What feeds it</h2>
          <Power map={volts.power} />
          <Told list={volts.power.findings} />
        </section>
      )}
      {volts.power.rails.length > 0 && (
        <After>
          <FlowFace board={v.board} boardId={v.boardId} />
        </After>
      )}
      <Decoupling list={volts.decoupling} />
      <Floats floats={volts.floats} onShow={v.show} />
    </section>
  );
}

/** One connector: both rows of contacts to slide, and what each wrong way of putting it in does. */
function Met({
  standing: s,
  isLocked,
  onEdit,
}: {
  standing: MeetStanding;
  isLocked: boolean;
  onEdit: () => void;
}) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const [how, setHow] = useState(STILL);
  const { row } = s;
  const meeting = { ...row, ours: s.ours };
  return (
    <li className="border-t border-rule py-4">
      <p className="mb-2 flex flex-wrap items-baseline gap-x-3">
        <b className="text-[16px]">
          {row.ref} with {row.other}
        </b>
        <b className={COLOUR[s.verdict]}>
          {s.verdict === "damage"
            ? "can be damaged"
            : s.verdict === "idle"
              ? "does not work as meant"
              : WORD[s.verdict]}
        </b>
        {!isLocked && (
          <span className="ml-auto flex gap-4 text-[14px]">
            <button
              type="button"
              className="quiet-link"
              aria-label={`Change ${row.ref} with ${row.other}`}
              onClick={onEdit}
            >
              change
            </button>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Remove ${row.ref} with ${row.other}`}
              onClick={() => {
                const gone = removeMeeting(id, row.id);
                gone.catch(sayError);
                did(`${row.ref} is held against nothing any more`, gone);
              }}
            >
              remove
            </button>
          </span>
        )}
      </p>
      {!s.part && (
        <p className="text-[14.5px] text-look">
          The files name no pins of {row.ref}: what is shown is what was said of it.
        </p>
      )}
      {s.open.length > 0 && (
        <p className="mb-1 text-[14.5px] text-look">
          Not known what {count(s.open.length, "pin")} {s.open.length === 1 ? "is" : "are"}:{" "}
          <span className="num">{s.open.join(", ")}</span>. Every verdict that needs{" "}
          {s.open.length === 1 ? "it" : "them"} stays open.
        </p>
      )}
      {s.byLink.length > 0 && (
        <p className="mb-1 text-[14.5px] text-look">
          Taken from a link as it is set, its volts as the rail is called:{" "}
          <span className="num">
            {s.byLink
              .map((p) => `${p.pin} ${p.net}${p.volts === undefined ? "" : `, ${p.volts} V`}`)
              .join("; ")}
          </span>
          .
        </p>
      )}
      <Slide meeting={meeting} names={[row.ref, row.other]} how={how} onPut={setHow} />
      <Ways standing={s} onPut={setHow} />
    </li>
  );
}

/** Every way of putting it in with what it does, and what would make it harmless. */
function Ways({ standing: s, onPut }: { standing: MeetStanding; onPut: (how: typeof STILL) => void }) {
  const rows = s.row.rows ?? 1;
  // what does harm as it is meant is not mended by another order
  const hurts =
    s.modes[0]?.verdict !== "damage" &&
    s.modes.some((m) => m.mode === "turned" && m.verdict === "damage" && !s.row.stopped.includes(m.mode));
  const order = useMemo(
    () => (hurts ? harmlessOrder({ ...s.row, ours: s.ours }) : undefined),
    [hurts, s.row, s.ours],
  );
  return (
    <>
      <table className="rows tight mt-2 text-[14.5px]">
        <thead>
          <tr>
            <th>Put in</th>
            <th>does</th>
            <th>because</th>
            <th>stopped by</th>
          </tr>
        </thead>
        <tbody>
          {s.modes.map((m) => (
            <tr key={`${m.mode} ${m.by}`}>
              <td>
                <button
                  type="button"
                  className="quiet-link text-left"
                  onClick={() => onPut(putOf(m.mode, rows, m.by))}
                >
                  {m.mode === "shifted"
                    ? `one place to the ${m.by === 1 ? "right" : "left"}`
                    : PUT_IN[m.mode]}
                </button>
              </td>
              <td className={`font-semibold ${COLOUR[m.verdict]}`}>{WORD[m.verdict]}</td>
              <td className="num text-[13.5px] text-ink-2">{m.because ?? ""}</td>
              <td className="text-ink-2">
                {s.row.stopped.includes(m.mode)
                  ? s.row.stopBy || "something that was not named"
                  : m.verdict === "damage"
                    ? "nothing stops it"
                    : ""}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {hurts && (
        <p className="mt-1 max-w-[90ch] text-[14.5px]">
          What would stop it: a shroud with a key; a place blocked on their side and left empty on ours,
          anywhere but in the middle
          {order
            ? order.moved === 0
              ? ""
              : `; or this order of the contacts, which does no harm turned (${order.moved} stand elsewhere): `
            : s.ours.length <= 16
              ? "; no order of these contacts is harmless turned."
              : "."}
          {order && order.moved > 0 && (
            <span className="num">{order.order.map((p) => label(s, p)).join(" · ")}</span>
          )}
        </p>
      )}
    </>
  );
}

const label = (s: MeetStanding, pin: string) => s.ours.find((p) => p.pin === pin)?.net ?? pin;

/** What was said of boards the product has no more: it can only be removed. */
function Lost() {
  const { id, doc, did, isLocked } = useRun();
  const sayError = useSayError();
  const { meetings, links } = withoutBoard(doc);
  const rows = [
    ...meetings.map((m) => ({
      key: m.id,
      words: `${m.ref} with ${m.other}`,
      board: m.board,
      take: removeMeeting,
    })),
    ...links.map((l) => ({ key: l.id, words: `the link ${l.ref}`, board: l.board, take: removeLink })),
  ];
  if (rows.length === 0) return null;
  return (
    <ul className="border-t border-rule py-2 text-[14.5px] text-look">
      {rows.map((r) => (
        <li key={r.key} className="py-1">
          The product has no board called {r.board} any more: {r.words} cannot be judged.{" "}
          {!isLocked && (
            <button
              type="button"
              className="quiet-link"
              aria-label={`Remove ${r.words}`}
              onClick={() => {
                const gone = r.take(id, r.key);
                gone.catch(sayError);
                did(`${r.words} was removed`, gone);
              }}
            >
              remove
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Connectors nobody said anything of yet. */
function Open({
  parts,
  isLocked,
  isFirst,
  onDescribe,
}: {
  parts: readonly WiredPart[];
  isLocked: boolean;
  isFirst: boolean;
  onDescribe: (ref: string) => void;
}) {
  if (parts.length === 0) return null;
  return (
    <section aria-label="Not described" className="mt-2 border-t border-rule pt-4">
      <h2 className="mb-1 text-[17px]">Not known what is put onto these</h2>
      {isFirst && (
        <p className="mb-2 max-w-[75ch] text-[14.5px] text-ink-2">
          Say what is put onto a connector, pin by pin, and Kobbin looks what happens when it goes in the
          wrong way round or a place aside, and what would stop that.
        </p>
      )}
      <ul className="text-[14.5px]">
        {parts.map((p) => (
          <li key={p.ref} className="flex flex-wrap items-baseline gap-x-4 py-1">
            <b className="num min-w-10">{p.ref}</b>
            <span className="num min-w-0 flex-1 text-[13.5px] text-ink-2">
              {p.pins.map((q) => `${q.pin} ${q.name ?? "–"}`).join(" · ")}
            </span>
            {!isLocked && (
              <button
                type="button"
                className="quiet-link"
                aria-label={`Describe ${p.ref}`}
                onClick={() => onDescribe(p.ref)}
              >
                describe what meets it
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
