import type { LotRow } from "@kobbin/contract";
import { bagCode, readBag, sampleOf } from "@kobbin/core";
import { type ReactNode, useMemo, useState } from "react";
import { removeLot, saveLot, useLots } from "../../resources/library.ts";
import { useRole, useSession } from "../../resources/session.ts";
import { BagLabels } from "../../shelf/BagLabels.tsx";
import { Doubts } from "../../shelf/Doubts.tsx";
import { DryBag, DryBagBrief } from "../../shelf/DryBag.tsx";
import { Made, MadeWords } from "../../shelf/Made.tsx";
import { Pick } from "../../ui/Field.tsx";
import { useKept } from "../../ui/Kept.tsx";
import { useParam } from "../../ui/params.ts";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { count, day, typedNumber, unitPrice } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { CountPlace } from "./CountPlace.tsx";
import { ALL_PLACES, worthOf, worthWords } from "./countModel.ts";
import { LowStock } from "./LowStock.tsx";
import { Moves } from "./Moves.tsx";
import { CONDITIONS, NewLot } from "./NewLot.tsx";
import { Sample } from "./Sample.tsx";

/** What lies on the shelf: lots with place, date, cost and condition, who reserved them, what lies idle. */
export function ShelfPage() {
  const { data: lots, error, mutate } = useLots();
  const { data: session } = useSession();
  const isOwner = useRole() === "owner";
  const [find, setFind] = useState("");
  const [params, setParam] = useParam();
  const open = params.get("lot") ?? "";
  const currency = session?.shop?.currency ?? "EUR";
  const counting = params.get("count") ?? "";
  const [isPrinting, setPrinting] = useState(false);
  // a label that is scanned into the field finds its lot
  const bag = readBag(find);
  const found = useMemo(
    () =>
      (lots ?? []).filter((l) =>
        bag === undefined
          ? `${l.mpn} ${l.place} ${l.donor} ${l.note} ${l.made ?? ""}`
              .toLowerCase()
              .includes(find.toLowerCase())
          : l.number === bag,
      ),
    [lots, find, bag],
  );
  // what was taken to the last piece is looked for, not looked over; what becomes empty while one looks stays
  const [lay] = useState(() => new Set<string>());
  for (const l of lots ?? []) if (l.qty > 0 || l.reserved.length > 0) lay.add(l.id);
  const isAll = find !== "" || params.get("empty") === "shown";
  const shown = isAll ? found : found.filter((l) => lay.has(l.id) || l.id === open);
  const empty = (lots ?? []).filter((l) => !lay.has(l.id)).length;
  // an empty bag needs no label, unless it is the one that was asked for
  const labelled = shown.filter((l) => l.qty > 0 || shown.length === 1);
  const rates = session?.shop?.rates ?? {};
  const worth = (list: readonly LotRow[]) =>
    worthWords(
      worthOf(
        list.map((lot) => ({ lot, qty: lot.qty })),
        currency,
        rates,
      ),
      currency,
    );
  const idle = (lots ?? []).filter((l) => l.uses === 0);
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-5 max-sm:px-3" tabIndex={-1}>
      <div className="mb-3 flex items-start justify-between gap-4 max-sm:flex-wrap">
        <div>
          <h1>Shelf</h1>
          <p className="text-ink-2">
            {lots && lots.length > 0
              ? `${count(lots.length - empty, "lot")} worth ${worth(lots)} at what they cost; ${
                  idle.length === 0
                    ? "every number is in some bill"
                    : `${count(idle.length, "lot")} in no bill, ${worth(idle)} lying idle`
                }.`
              : "Runs take from here before anything is bought, the oldest lot first."}
            {empty > 0 && (
              <>
                {" "}
                <button
                  type="button"
                  className="quiet-link min-h-6"
                  onClick={() => setParam("empty", isAll ? "" : "shown")}
                >
                  {isAll && find === "" ? `hide ${empty} that are empty` : `${empty} more are empty`}
                </button>
              </>
            )}
          </p>
        </div>
        {counting === "" && (
          <Tools
            many={labelled.length}
            mayCount={isOwner && lots !== undefined && lots.length > 0}
            find={find}
            onFind={setFind}
            onCount={() => setParam("count", ALL_PLACES, true)}
            onPrint={() => setPrinting(true)}
          />
        )}
      </div>
      {error && !lots ? (
        <Failed error={error} again={() => mutate()} />
      ) : !lots ? (
        <Skeleton rows={5} />
      ) : counting !== "" && isOwner ? (
        <CountPlace
          lots={lots}
          place={counting}
          currency={currency}
          rates={rates}
          onPlace={(place) => setParam("count", place)}
        />
      ) : (
        <>
          <LowStock />
          {isPrinting && (
            <BagLabels labels={labelled.map((lot) => ({ lot }))} onDone={() => setPrinting(false)} />
          )}
          {isOwner && <NewLot currency={currency} />}
          {lots.length === 0 ? (
            <Empty>Nothing is written down as lying on the shelf.</Empty>
          ) : (
            <Lots
              shown={shown}
              lots={lots}
              isOwner={isOwner}
              open={open}
              onOpen={(id) => setParam("lot", open === id ? "" : id)}
            />
          )}
        </>
      )}
    </main>
  );
}

/** The lots as rows; the one that is open tells where its pieces came from and went. */
function Lots({
  shown,
  lots,
  isOwner,
  open,
  onOpen,
}: {
  shown: readonly LotRow[];
  lots: readonly LotRow[];
  isOwner: boolean;
  open: string;
  onOpen: (id: string) => void;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="rows w-full min-w-[720px]">
        <thead>
          <tr>
            <th>Number</th>
            <th className="text-right">Pieces</th>
            <th>Place</th>
            <th>Came</th>
            <th className="text-right">Each</th>
            <th>Condition</th>
            <th>Reserved for</th>
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((l) => (
            <Lot key={l.id} lot={l} isOwner={isOwner} isOpen={open === l.id} onOpen={() => onOpen(l.id)}>
              <Made lot={l} isOwner={isOwner} />
              <DryBag lot={l} />
              <Moves lot={l} />
              <Sample lot={l} lots={lots} isOwner={isOwner} />
            </Lot>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What is done with the shelf as a whole, and finding one on it. */
function Tools({
  many,
  mayCount,
  find,
  onFind,
  onCount,
  onPrint,
}: {
  /** Lots that are labelled. */
  many: number;
  /** Whether there is anything to be counted, by whoever may. */
  mayCount: boolean;
  find: string;
  onFind: (words: string) => void;
  onCount: () => void;
  onPrint: () => void;
}) {
  return (
    <div className="flex flex-wrap items-center justify-end gap-4">
      {mayCount && (
        <button type="button" className="quiet-link min-h-6" onClick={onCount}>
          count a place
        </button>
      )}
      {mayCount && many > 0 && (
        <button type="button" className="quiet-link min-h-6" onClick={onPrint}>
          print {count(many, "label")}
        </button>
      )}
      <input
        type="search"
        aria-label="Find on the shelf"
        placeholder="number, place, label"
        className="w-44"
        value={find}
        onChange={(e) => onFind(e.target.value)}
      />
    </div>
  );
}

function Lot({
  lot: l,
  isOwner,
  isOpen,
  onOpen,
  children,
}: {
  lot: LotRow;
  isOwner: boolean;
  isOpen: boolean;
  onOpen: () => void;
  /** What was measured of it, shown below when it is opened. */
  children: ReactNode;
}) {
  const say = useSay();
  const sayError = useSayError();
  const save = (change: object, words: string) =>
    saveLot(l.id, { version: l.version, ...change }).then(() => say(words), sayError);
  const counted = useKept(String(l.qty), (text) => {
    const n = Number(typedNumber(text));
    if (text !== "" && Number.isInteger(n) && n >= 0) save({ qty: n }, `${l.mpn}: counted ${n}`);
  });
  const measured = l.sample && sampleOf(l.sample);
  return (
    <>
      <tr className="hover:bg-sheet">
        <td>
          <span className="num">{l.mpn}</span>
          <span className="num block text-[13px] text-ink-3">{bagCode(l.number)}</span>
          <Doubts lot={l} />
          {l.uses === 0 && <span className="block text-[13px] text-ink-3">in no bill</span>}
          {(l.donor || l.note) && (
            <span className="block text-[13px] text-ink-2">
              {l.donor && `from ${l.donor}`} {l.note}
            </span>
          )}
        </td>
        <td className="text-right">
          {isOwner ? (
            <input
              aria-label={`Pieces of ${l.mpn}, ${l.place || "no place"}`}
              className="num w-20 text-right"
              {...counted}
            />
          ) : (
            <span className="num">{l.qty}</span>
          )}
        </td>
        <td>{l.place || "–"}</td>
        <td className="whitespace-nowrap text-ink-2">{day(l.receivedOn)}</td>
        <td className="num text-right whitespace-nowrap">
          {unitPrice(Number(l.unitCost) * 1e6)} {l.currency}
        </td>
        <td>
          {isOwner ? (
            <Pick
              label={`Condition of ${l.mpn}`}
              hideLabel
              value={l.condition}
              options={CONDITIONS}
              onChange={(v) => save({ condition: v }, `${l.mpn}: ${CONDITIONS.find(([k]) => k === v)?.[1]}`)}
            />
          ) : (
            CONDITIONS.find(([k]) => k === l.condition)?.[1]
          )}
          <DryBagBrief lot={l} />
          {l.made && (
            <span className="block text-[13px]">
              <MadeWords code={l.made} isBrief />
            </span>
          )}
        </td>
        <td className="text-[14px] text-ink-2">
          {l.reserved.map((r) => `${r.qty} for “${r.run}”`).join(", ") || "–"}
        </td>
        <td className="whitespace-nowrap">
          <button
            type="button"
            className="quiet-link mr-3"
            aria-expanded={isOpen}
            aria-label={`Measured of ${l.mpn}, ${l.place || "no place"}`}
            onClick={onOpen}
          >
            {measured ? `${measured.n} measured` : "measure, trace"}
          </button>
          {isOwner && (
            <button
              type="button"
              className="quiet-link"
              aria-label={`Remove ${l.mpn}, ${l.place || "no place"}`}
              onClick={() => removeLot(l.id).then(() => say(`${l.mpn} was taken off the shelf`), sayError)}
            >
              remove
            </button>
          )}
        </td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={8}>{children}</td>
        </tr>
      )}
    </>
  );
}
