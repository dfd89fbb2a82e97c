import {
  BOARD_SIDES,
  type BoardSide,
  boardOf,
  compareRefs,
  isComplete,
  isForPaste,
  type Method,
  Places,
  type RunBoard,
  setWay,
  unitOf,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { DaysDelta } from "../../../ui/ChoiceRow.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { useKeys } from "../../../ui/keys.ts";
import { Tab } from "../../../ui/Tab.tsx";
import { count, signed } from "../../../ui/text/format.ts";
import { METHODS, wayChange, withHouse } from "./useWayEffects.ts";
import { Swatch, WAY_WORDS, WayPicture } from "./WayPicture.tsx";
import { type Pointed, WayTable } from "./WayTable.tsx";
import { framed, SIDE_WORDS, type WayRow, wayRows } from "./wayRows.ts";

const BY = { house: "by the house", stencil: "with paste, here", iron: "by iron, here" } as const;

/** Who puts on what, part by part and side by side: as a table with what each way would change, and on the board. */
export function WaysFace() {
  const { doc, result, change } = useRun();
  const rows = useMemo(() => {
    const places = new Places(doc);
    return wayRows(result.parts, (line, ref) => places.of(line, ref));
  }, [doc, result]);
  const [pointed, setPointed] = useState<Pointed>();
  const nowhere = useMemo(() => {
    const places = new Places(doc);
    return result.parts
      .filter((p) => p.kind !== "loose" && isForPaste(p))
      .flatMap((p) => p.line.refs.filter((ref) => places.of(p.line, ref) === undefined));
  }, [doc, result]);
  if (rows.length === 0) return <p className="text-ink-2">Nothing of it is soldered.</p>;
  const set = (row: WayRow, method: Method) =>
    change(
      { assembly: wayChange(doc, result, row, method) } as never,
      `${row.level === "line" ? row.refs.slice(0, 3).join(" ") : row.label} ${BY[method]}`,
    );
  const lines = rows.flatMap((r) => (r.level === "line" ? r.parts.map((p) => p.line) : []));
  const hasBoth = new Set(lines).size < lines.length;
  return (
    <section aria-label="Part by part">
      <Pictures rows={rows} pointed={pointed} />
      <WayTable rows={rows} onSet={set} onPoint={setPointed} />
      {nowhere.length > 0 && (
        <p className="mt-2 text-[13.5px] text-look">
          No placement file says on which side {count(nowhere.length, "part")}{" "}
          {nowhere.length === 1 ? "sits" : "sit"}: counted on the top. <Names refs={nowhere} />
        </p>
      )}
      <p className="mt-2 text-[13.5px] text-ink-2">
        What it would change per good {unitOf(doc)}, in {doc.workshop.currency}, while everything else stays
        as it is.{isComplete(result.unpriced) ? "" : " Not everything is priced: it is of what is."}
        {hasBoth ? " A line that sits on both sides may go another way on each." : ""}
      </p>
    </section>
  );
}

/** Which house is meant by the column: the one chosen, else the first that assembles; chosen here. */
function WhichHouse() {
  const { doc, change, isLocked } = useRun();
  const able = (doc.houses ?? []).filter((h) => h.assembly);
  if (able.length === 0)
    return (
      <p className="mb-3 text-[14px] text-ink-2">
        No house here places parts: add one with prices for it under Fab.
      </p>
    );
  const now = able.find((h) => h.id === doc.assembly.house)?.id ?? able[0]!.id;
  return (
    <div className="mb-3 max-w-72">
      <Pick
        label="The house that is meant"
        value={now}
        disabled={isLocked}
        options={able.map((h) => [h.id, h.name] as const)}
        onChange={(house) =>
          change({ assembly: { house } } as never, `Placed by ${able.find((h) => h.id === house)!.name}`)
        }
      />
    </div>
  );
}

/** The boards of the run, side by side, beside them what a frame has picked or what is pointed at in the table. */
function Pictures({ rows, pointed }: { rows: readonly WayRow[]; pointed: Pointed | undefined }) {
  const { doc, result, change, isLocked } = useRun();
  const [index, setIndex] = useState(0);
  const [picked, setPicked] = useState<{ readonly side: BoardSide; readonly refs: ReadonlySet<string> }>();
  const board: RunBoard | undefined = doc.boards[index] ?? doc.boards[0];
  const methodOf = useMemo(() => {
    const isMany = doc.boards.length > 1;
    return new Map(
      result.parts
        .filter((p) => p.kind !== "loose" && board !== undefined && boardOf(doc, p.line) === board)
        .flatMap((p) =>
          p.line.refs.map((ref) => [isMany ? `${ref} of ${board!.name}` : ref, p.method] as const),
        ),
    );
  }, [doc, result, board]);
  // references are told apart by board: a frame speaks of the lines of the board it is drawn on
  const ofBoard = useMemo(() => {
    const ids = new Set(doc.lines.flatMap((l) => (boardOf(doc, l) === board ? [l.id] : [])));
    return rows.flatMap((r) => (r.level === "line" && r.parts.every((p) => ids.has(p.line)) ? [r] : []));
  }, [doc, rows, board]);
  const found = useMemo(() => picked && framed(ofBoard, picked.refs, picked.side), [ofBoard, picked]);
  const bindings = useMemo(() => {
    if (!found || found.parts.length === 0 || isLocked) return [];
    return METHODS.filter((m) => !(found.isByHand && m === "stencil")).map((m) => ({
      keys: KEYS[m],
      does: `what is framed goes ${BY[m]}`,
      run: () => {
        change(
          { assembly: { ...withHouse(doc, m), ...setWay(doc, found.parts, m) } } as never,
          `${found.refs.slice(0, 3).join(" ")}${found.refs.length > 3 ? " …" : ""} ${BY[m]}`,
        );
        setPicked(undefined);
      },
    }));
  }, [found, isLocked, doc, change]);
  // while something is framed its keys mean that and nothing else
  useKeys(bindings, bindings.length > 0);
  const lit = useMemo(() => {
    const ids = new Set(ofBoard.flatMap((r) => r.parts.map((p) => p.line)));
    const isHere = pointed?.row.parts.some((p) => ids.has(p.line)) ?? false;
    return new Set(isHere ? pointed!.row.refs : []);
  }, [ofBoard, pointed]);
  if (!board) return null;
  const sides = BOARD_SIDES.filter((side) => ofBoard.some((r) => r.parts.some((p) => p.side === side)));
  return (
    <div className="mb-4">
      {doc.boards.length > 1 && (
        <div className="mb-2 flex gap-x-4 text-[14px]">
          {doc.boards.map((b, i) => (
            <Tab
              key={b.id ?? b.name}
              isOn={b === board}
              onClick={() => {
                setIndex(i);
                setPicked(undefined);
              }}
            >
              {b.name}
            </Tab>
          ))}
        </div>
      )}
      <div className="flex flex-wrap gap-x-5 gap-y-3">
        {sides.map((side) => (
          <WayPicture
            key={`${board.name} ${side}`}
            board={board}
            side={side}
            methodOf={methodOf}
            lit={lit}
            picked={picked?.side === side ? new Set(found?.refs) : NOTHING}
            onPick={(refs) => setPicked(refs.size > 0 ? { side, refs } : undefined)}
          />
        ))}
        <div className="min-h-[104px] min-w-[260px] flex-1 text-[14px]">
          <Legend rows={rows} />
          <WhichHouse />
          <div aria-live="polite">
            {found && picked && found.parts.length > 0 ? (
              <>
                <p>
                  <b>{count(found.refs.length, "part")}</b> on {SIDE_WORDS[picked.side]}
                  {found.refs.length > picked.refs.size
                    ? `, whole lines: ${found.refs.length - picked.refs.size} more than the frame holds`
                    : ""}
                  : <Names refs={found.refs} />
                </p>
                <p className="mt-1 flex flex-wrap gap-2">
                  {bindings.map((b) => (
                    <Button key={b.keys} onClick={b.run}>
                      {WAY_WORDS[METHODS.find((m) => KEYS[m] === b.keys)!]}{" "}
                      <kbd className="ml-1">{b.keys}</kbd>
                    </Button>
                  ))}
                </p>
              </>
            ) : pointed ? (
              <PointedAt pointed={pointed} />
            ) : (
              !isLocked && <p className="text-ink-2">Draw a frame around parts to say who puts them on.</p>
            )}
          </div>
        </div>
      </div>
    </div>
  );
}

/** What a row or a cell of the table is about, in words: its parts, and what the other way would change or why it cannot be. */
function PointedAt({ pointed: { row, method, effect } }: { pointed: Pointed }) {
  return (
    <>
      <p>
        {row.label}: <Names refs={row.refs} />
      </p>
      {method && effect?.cannot && (
        <p className="mt-1 text-ink-2">
          <b>{BY[method]}, it cannot be:</b> {effect.cannot}
        </p>
      )}
      {method && effect && !effect.cannot && (
        <p className="mt-1 text-ink-2">
          {BY[method]}: own work {signed(effect.minutes, 0)} min, <DaysDelta value={effect.days} />
        </p>
      )}
      {effect?.brings && (
        <p className="mt-1 text-stop">
          The order would then not go out before this is put right: {effect.brings}
        </p>
      )}
    </>
  );
}

const Names = ({ refs }: { refs: readonly string[] }) => (
  <span className="num">
    {[...refs].sort(compareRefs).slice(0, 10).join(" ")}
    {refs.length > 10 ? " …" : ""}
  </span>
);

const NOTHING: ReadonlySet<string> = new Set();
const KEYS = { house: "h", stencil: "p", iron: "i" } as const;

/** How the ways are filled, with how many pieces go each. */
function Legend({ rows }: { rows: readonly WayRow[] }) {
  const lines = rows.filter((r) => r.level === "line");
  return (
    <p className="mb-3 flex flex-wrap gap-x-4 text-[14px]">
      {METHODS.map((m) => (
        <span key={m} className="whitespace-nowrap">
          <Swatch method={m} /> {BY[m]}{" "}
          <b className="num">{Math.round(lines.reduce((n, r) => n + r.by[m], 0))}</b>
        </span>
      ))}
    </p>
  );
}
