import {
  arrivedOf,
  asksMoisture,
  boardKey,
  boughtNumber,
  few,
  judgeLot,
  mayChange,
  type PlannedItem,
  type PlannedOrder,
  photosOf,
  type RunDocument,
  type RunReceipt,
  referenceSpots,
  spotPhotosOf,
} from "@kobbin/core";
import { Link } from "react-router";
import { Photos } from "../../photos/Photos.tsx";
import { removeReceipt, setApart, useCountedUnsent } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { comeOf, isBack, openOf } from "../../run/useOrders.ts";
import { DryBags, useBagged } from "../../shelf/DryBags.tsx";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count, day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { Came } from "./Came.tsx";
import { Claims } from "./Claims.tsx";
import { saveLevel } from "./Level.tsx";
import { LotPanel } from "./measure/LotPanel.tsx";
import { Before } from "./over/Before.tsx";
import { Over } from "./over/Over.tsx";
import { ParcelLabels } from "./ParcelLabels.tsx";
import { useCounting } from "./useCounting.ts";
import { useMade } from "./useMade.ts";

/** One order as it comes: what is missing of each line, counted by line or all at once. */
export function Parcel({
  order: o,
  isOpen,
  onMeasure,
  onPhotos,
}: {
  order: PlannedOrder;
  isOpen: boolean;
  onMeasure: (board: number) => void;
  /** The board of its index that is kept back is photographed. */
  onPhotos: (board: number) => void;
}) {
  const { doc, record, life, role } = useRun();
  const asksLevel = useAsksLevel();
  const sayError = useSayError();
  const p = record.purchases.find((x) => x.order === o.key);
  const { whole, some, of } = comeOf(record, o);
  const missing = o.items.filter((i) => openOf(record, o, i) > 0);
  const madeOf = useMade();
  const { counting, isCounted, count: countLine, came } = useCounting(o);
  // of what is doubted in some days each bag has to be looked at
  const alone = missing.filter((i) => o.kind === "parts" && madeOf(i.key).doubts.length > 0);
  const all = missing
    .filter((i) => !alone.includes(i))
    .map((i) => ({ item: i.key, qty: openOf(record, o, i), isApart: false, because: "", place: "" }));
  return (
    <article className="mb-6 border border-rule bg-sheet" aria-label={o.name}>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule px-4 py-3">
        <Mark kind={whole === of ? "ready" : "open"} />
        <div className="mr-auto">
          <h2 className="text-[19px]">{o.name}</h2>
          <p className="text-[14.5px] text-ink-2">
            {whole === of
              ? "all of it came"
              : some === 0
                ? isBack(record, o)
                  ? "taken back: to be ordered again, or elsewhere"
                  : waiting(p?.orderedOn, p?.promisedOn)
                : `${count(of - whole, "line is", "lines are")} not complete`}
          </p>
        </div>
        {isOpen && all.length > 0 && (
          <Button
            className="min-h-11 !text-[16px]"
            onClick={() => came(all, `${alone.length > 0 ? "The others" : "All"} of ${o.name} came`)}
          >
            {alone.length > 0 ? "The others came" : some === 0 ? "All of it came" : "The rest came"}
          </Button>
        )}
        {isOpen && alone.length > 0 && (
          <p className="w-full text-[14px] text-look">
            {few(alone.map((i) => i.label))} {alone.length === 1 ? "is" : "are"} counted alone, by the bag:
            some days are doubted.
          </p>
        )}
      </header>
      <ul>
        {o.items.map((i) => {
          const { usable, apart } = arrivedOf(record, o.key, i.key);
          const left = openOf(record, o, i);
          return (
            <li key={i.key} className="border-b border-rule px-4 py-2 last:border-b-0">
              <div className="flex flex-wrap items-center gap-x-4">
                <div className="mr-auto min-w-0">
                  <p className="text-[17px] font-semibold">{i.label}</p>
                  <p className="num text-[13.5px] text-ink-2">{i.mpn}</p>
                  {o.kind === "boards" && <TriedBare item={i.key} came={usable + apart} />}
                </div>
                <p className="num text-right text-[19px] font-bold">
                  {usable + apart}
                  <span className="text-[15px] font-normal text-ink-2"> of {i.qty}</span>
                </p>
                <HowItStands order={o} item={i} isBegun={some > 0} />
                {isOpen && (
                  <Button
                    className="min-h-11"
                    aria-label={`Count ${i.label}`}
                    aria-expanded={isCounted(i.key)}
                    onClick={() => countLine(i.key)}
                  >
                    Count
                  </Button>
                )}
              </div>
              {o.kind === "boards" && at(doc, i.key) >= 0 && (
                <OfBoards order={o} item={i} isOpen={isOpen} onMeasure={onMeasure} onPhotos={onPhotos} />
              )}
              {counting?.item === i.key && (
                <Came
                  key={counting.nth}
                  item={i}
                  isSent={counting.isSent}
                  line={doc.lines.find((l) => l.id === doc.offers.find((x) => x.id === i.key)?.line)}
                  left={left}
                  isStored={o.kind === "parts"}
                  made={o.kind === "parts" ? madeOf(i.key) : undefined}
                  asksLevel={asksLevel(o, i.key)}
                  onCame={(c, level) => {
                    came([{ item: i.key, ...c }], `${c.qty} × ${i.label} came`);
                    if (level !== "") saveLevel(boughtNumber(doc, i.key), level).catch(sayError);
                  }}
                />
              )}
              <WhatCame order={o} item={i} isOpen={isOpen} came={usable + apart} />
            </li>
          );
        })}
      </ul>
      {o.kind === "parts" && <ParcelLabels order={o} />}
      <Claims order={o} isOpen={mayChange("claim", life, role)} />
    </article>
  );
}

/** What is to come still of an item, what is more than ordered or set apart, and what was counted and is not sent yet. */
function HowItStands({
  order: o,
  item: i,
  isBegun,
}: {
  order: PlannedOrder;
  item: PlannedItem;
  isBegun: boolean;
}) {
  const { id, record } = useRun();
  const { usable, apart } = arrivedOf(record, o.key, i.key);
  const unsent = useCountedUnsent(id)(o.key, i.key);
  const left = openOf(record, o, i);
  const more = usable + apart - i.qty;
  return (
    <p className="w-36 text-[14px] max-md:flex-1">
      {left > 0 && <span className={isBegun ? "text-look" : "text-ink-2"}>{left} to come</span>}
      {more > 0 && <span className="text-fine">{more} more than ordered</span>}
      {left === 0 && more === 0 && <span className="text-fine">complete</span>}
      {apart > 0 && <span className="block text-stop">{apart} set apart</span>}
      {unsent > 0 && (
        <span role="status" className="block text-look">
          {unsent} counted, not sent yet
        </span>
      )}
    </p>
  );
}

/** Whether the moisture level of what came is asked for: by whoever may write it down, where boards are heated here. */
function useAsksLevel(): (o: PlannedOrder, item: string) => boolean {
  const { doc, result, role } = useRun();
  return (o, item) =>
    o.kind === "parts" && role === "owner" && result.goes.has("stencil") && asksMoisture(doc, item);
}

/** A kind of bare boards as it came: what was measured of it, what is left over, what is kept back. */
function OfBoards({
  order: o,
  item: i,
  isOpen,
  onMeasure,
  onPhotos,
}: {
  order: PlannedOrder;
  item: PlannedItem;
  isOpen: boolean;
  onMeasure: (board: number) => void;
  onPhotos: (board: number) => void;
}) {
  const { doc, record, life, role } = useRun();
  const index = at(doc, i.key);
  const { usable, apart } = arrivedOf(record, o.key, i.key);
  return (
    <>
      <LotPanel index={index} isOpen={isOpen} onMeasure={() => onMeasure(index)} />
      <Over index={index} isOpen={mayChange("bare_kept", life, role)} />
      {usable + apart > 0 && (
        <KeptBack
          index={index}
          order={o}
          item={i}
          onPhotos={mayChange("photo", life, role) ? () => onPhotos(index) : undefined}
        />
      )}
    </>
  );
}

/** The board that is kept back of a lot: its photos at the agreed spots, and how the lot stands beside others. */
function KeptBack({
  index,
  order: o,
  item: i,
  onPhotos,
}: {
  index: number;
  order: PlannedOrder;
  item: PlannedItem;
  onPhotos: (() => void) | undefined;
}) {
  const { doc, record } = useRun();
  const spots = referenceSpots(doc, index);
  const taken = new Set(spotPhotosOf(record, o.key, i.key).map((p) => p.spot));
  const done = spots.filter((s) => taken.has(s.key)).length;
  return (
    <>
      <p className="text-[14px]">
        <span className="mr-2 text-ink-2">
          {done === 0
            ? "Keep one bare board back and photograph it: a later doubt can be held against it."
            : `${done} of ${count(spots.length, "agreed spot")} photographed.`}
        </span>
        {onPhotos && (
          <button type="button" className="quiet-link min-h-6" onClick={onPhotos}>
            photograph it
          </button>
        )}
      </p>
      <Before index={index} order={o.key} item={i.key} />
    </>
  );
}

/** Index of the board an item of an order is; below 0 for a guest's. */
const at = (doc: RunDocument, item: string): number =>
  doc.boards.findIndex((_, n) => boardKey(doc, n) === item);

/** What came of an item: each delivery, and how it looked. */
function WhatCame({
  order: o,
  item: i,
  isOpen,
  came,
}: {
  order: PlannedOrder;
  item: PlannedItem;
  isOpen: boolean;
  came: number;
}) {
  const { record, life, role } = useRun();
  return (
    <div className="flex flex-wrap items-end gap-x-4">
      <div className="min-w-[260px] flex-1">
        <Deliveries order={o} item={i} isOpen={isOpen} />
        {came > 0 && o.kind === "parts" && <BagsThatCame order={o.key} item={i.key} />}
      </div>
      <Photos
        of={{ order: o.key, item: i.key }}
        what={i.label}
        list={photosOf(record, o.key, i.key)}
        mayAdd={mayChange("photo", life, role) && came > 0}
      />
    </div>
  );
}

/** Of parts that must not lie in the air for long: how their bag came, asked where it is counted. */
function BagsThatCame({ order, item }: { order: string; item: string }) {
  const { record } = useRun();
  const came = new Set(record.receipts.filter((r) => r.order === order && r.item === item).map((r) => r.lot));
  return <DryBags lots={useBagged((l) => came.has(l.id))} isBig className="text-[14px]" />;
}

/** What came of an item, delivery by delivery: each can be set apart, or taken back where it was counted in error. */
function Deliveries({
  order: o,
  item: i,
  isOpen,
}: {
  order: PlannedOrder;
  item: PlannedItem;
  isOpen: boolean;
}) {
  const { id, doc, record, result, did } = useRun();
  const sayError = useSayError();
  const board = o.kind === "boards" ? at(doc, i.key) : -1;
  // what was measured says why, where it does
  const because = board < 0 ? "" : judgeLot(doc, result, record, board).notAsOrdered.join("; ").slice(0, 500);
  return (
    <ol>
      {record.receipts
        .filter((r) => r.order === o.key && r.item === i.key)
        .map((r) => (
          <li key={r.id} className="flex gap-3 py-[2px] text-[14px] text-ink-2">
            <span className="num">{r.qty}</span> on {day(r.arrivedOn)}
            {r.isApart && <span className="text-stop">set apart{r.because && `: ${r.because}`}</span>}
            {isOpen && <Apart receipt={r} label={i.label} because={because} />}
            {isOpen && (
              <button
                type="button"
                className="quiet-link min-h-6"
                aria-label={`Remove ${r.qty} × ${i.label} of ${day(r.arrivedOn)}`}
                onClick={() => {
                  const gone = removeReceipt(id, r.id);
                  gone.catch(sayError);
                  did(`${r.qty} × ${i.label} did not come after all`, gone);
                }}
              >
                remove
              </button>
            )}
          </li>
        ))}
    </ol>
  );
}

/** A delivery that was counted is set apart, or used after all: what disagrees is seen later than it is counted. */
function Apart({ receipt: r, label, because }: { receipt: RunReceipt; label: string; because: string }) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const words = r.isApart ? "may be used after all" : "set apart";
  return (
    <button
      type="button"
      className="quiet-link ml-auto min-h-6"
      aria-label={`${r.qty} × ${label} of ${day(r.arrivedOn)}: ${words}`}
      onClick={() => {
        const done = setApart(id, r.id, { isApart: !r.isApart, because: r.isApart ? "" : because });
        done.catch(sayError);
        did(`${r.qty} × ${label} ${r.isApart ? words : "are set apart"}`, done);
      }}
    >
      {words}
    </button>
  );
}

/** Boards that came and were tried with a meter, and the way to try one. */
function TriedBare({ item, came }: { item: string; came: number }) {
  const { id, doc, record } = useRun();
  const tests = (record.bareTests ?? []).filter((t) => t.item === item);
  const bad = tests.filter((t) => t.faults.length > 0).length;
  const at = doc.boards.findIndex((_, i) => boardKey(doc, i) === item);
  if (at < 0 || (came === 0 && tests.length === 0)) return null;
  return (
    <p className="text-[14px]">
      {tests.length > 0 && (
        <span className={`mr-3 ${bad > 0 ? "text-stop" : "text-fine"}`}>
          {tests.length} tried bare, {bad === 0 ? "all hold" : `${bad} with faults`}
        </span>
      )}
      <Link
        className="quiet-link inline-flex min-h-6 items-center"
        to={`/runs/${id}/board?hand=try${at > 0 ? `&board=${at + 1}` : ""}`}
      >
        try one bare
      </Link>
    </p>
  );
}

const waiting = (orderedOn?: string, promisedOn?: string): string =>
  promisedOn
    ? `promised for ${day(promisedOn)}`
    : orderedOn
      ? `ordered on ${day(orderedOn)}`
      : "nothing of it came yet";
