import type { LotRow } from "@kobbin/contract";
import { sampleOf } from "@kobbin/core";
import { type ReactNode, useMemo, useState } from "react";
import { addLot, removeLot, saveLot, useLots } from "../../resources/library.ts";
import { useRole, useSession } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { amount, count, day, money, typedNumber } from "../../ui/format.ts";
import { useParam } from "../../ui/params.ts";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { Sample } from "./Sample.tsx";

const CONDITIONS = [
  ["new", "new"],
  ["opened", "opened"],
  ["salvaged", "salvaged"],
  ["quarantine", "set apart"],
] as const;

/** What lies on the shelf: lots with place, date, cost and condition, who reserved them, what lies idle. */
export function ShelfPage() {
  const { data: lots, error, mutate } = useLots();
  const { data: session } = useSession();
  const isOwner = useRole() === "owner";
  const [find, setFind] = useState("");
  const [params, setParam] = useParam();
  const open = params.get("lot") ?? "";
  const setOpen = (id: string) => setParam("lot", id);
  const currency = session?.shop?.currency ?? "EUR";
  const shown = useMemo(
    () =>
      (lots ?? []).filter((l) =>
        `${l.mpn} ${l.place} ${l.donor} ${l.note}`.toLowerCase().includes(find.toLowerCase()),
      ),
    [lots, find],
  );
  // in the shop's own currency where the rate is known; others are named
  const rates = session?.shop?.rates ?? {};
  const worth = (list: readonly LotRow[]) =>
    list.reduce(
      (s, l) =>
        s + l.qty * Number(l.unitCost) * (l.currency === currency ? 1 : Number(rates[l.currency] ?? 0)),
      0,
    );
  const idle = (lots ?? []).filter((l) => l.uses === 0);
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-5 max-sm:px-3" tabIndex={-1}>
      <div className="mb-3 flex items-start justify-between gap-4 max-sm:flex-wrap">
        <div>
          <h1>Shelf</h1>
          <p className="text-ink-2">
            {lots && lots.length > 0
              ? `${count(lots.length, "lot")} worth ${money(worth(lots), currency)} at what they cost; ${
                  idle.length === 0
                    ? "every number is in some bill"
                    : `${count(idle.length, "lot")} in no bill, ${money(worth(idle), currency)} lying idle`
                }.`
              : "Runs take from here before anything is bought, the oldest lot first."}
          </p>
        </div>
        <input
          type="search"
          aria-label="Find on the shelf"
          placeholder="number, place"
          className="w-44"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
      </div>
      {error && !lots ? (
        <Failed error={error} again={() => mutate()} />
      ) : !lots ? (
        <Skeleton rows={5} />
      ) : (
        <>
          {isOwner && <NewLot currency={currency} />}
          {lots.length === 0 ? (
            <Empty>Nothing is written down as lying on the shelf.</Empty>
          ) : (
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
                    <Lot
                      key={l.id}
                      lot={l}
                      isOwner={isOwner}
                      isOpen={open === l.id}
                      onOpen={() => setOpen(open === l.id ? "" : l.id)}
                    >
                      <Sample lot={l} lots={lots} isOwner={isOwner} />
                    </Lot>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </>
      )}
    </main>
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
  const [qty, setQty] = useState<string>();
  const save = (change: object, words: string) =>
    saveLot(l.id, { version: l.version, ...change }).then(() => say(words), sayError);
  const keep = () => {
    const n = Number(typedNumber(qty ?? ""));
    if (qty !== undefined && Number.isInteger(n) && n >= 0 && n !== l.qty)
      save({ qty: n }, `${l.mpn}: counted ${n}`);
    setQty(undefined);
  };
  const measured = l.sample && sampleOf(l.sample);
  return (
    <>
      <tr className="hover:bg-sheet">
        <td>
          <span className="num">{l.mpn}</span>
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
              value={qty ?? String(l.qty)}
              onChange={(e) => setQty(e.target.value)}
              onBlur={keep}
              onKeyDown={(e) => e.key === "Enter" && keep()}
            />
          ) : (
            <span className="num">{l.qty}</span>
          )}
        </td>
        <td>{l.place || "–"}</td>
        <td className="whitespace-nowrap text-ink-2">{day(l.receivedOn)}</td>
        <td className="num text-right whitespace-nowrap">
          {amount(Number(l.unitCost), l.currency)} {l.currency}
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
        </td>
        <td className="text-[14px] text-ink-2">
          {l.reserved.map((r) => `${r.qty} for ${r.run}`).join(", ") || "–"}
        </td>
        <td className="whitespace-nowrap">
          <button
            type="button"
            className="quiet-link mr-3"
            aria-expanded={isOpen}
            aria-label={`Measured of ${l.mpn}, ${l.place || "no place"}`}
            onClick={onOpen}
          >
            {measured ? `${measured.n} measured` : "measure"}
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

function NewLot({ currency }: { currency: string }) {
  const say = useSay();
  const sayError = useSayError();
  const [draft, setDraft] = useState({
    mpn: "",
    qty: "",
    place: "",
    unitCost: "",
    condition: "new",
    donor: "",
    donors: "",
    each: "",
    usable: "100",
  });
  const field = (key: keyof typeof draft) => ({
    value: draft[key],
    onChange: (e: { target: { value: string } }) => setDraft({ ...draft, [key]: e.target.value }),
  });
  // salvaged: so many donors with so many each, of which a share is usable
  const isSalvaged = draft.condition === "salvaged";
  const harvest = Math.floor(
    (Number(typedNumber(draft.donors)) *
      Number(typedNumber(draft.each)) *
      Number(typedNumber(draft.usable))) /
      100,
  );
  const n = isSalvaged && draft.qty === "" ? harvest : Number(typedNumber(draft.qty));
  const cost = typedNumber(draft.unitCost || "0");
  const isReady = draft.mpn.trim() !== "" && Number.isInteger(n) && n > 0 && /^\d+(\.\d{1,6})?$/.test(cost);
  return (
    <form
      className="mb-4 flex flex-wrap items-end gap-3 border-b border-rule pb-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (!isReady) return;
        addLot({
          mpn: draft.mpn.trim(),
          qty: n,
          place: draft.place.trim(),
          unitCost: cost,
          currency,
          condition: draft.condition as LotRow["condition"],
          donor: draft.donor.trim(),
          note:
            isSalvaged && Number.isFinite(harvest) && harvest > 0
              ? `${draft.donors} donors × ${draft.each}, ${draft.usable} % usable`
              : "",
        }).then(() => {
          say(`${n} × ${draft.mpn.trim()} lie on the shelf now`);
          setDraft({ ...draft, mpn: "", qty: "", unitCost: "", donor: "", donors: "", each: "" });
        }, sayError);
      }}
    >
      <Field label="Part number" className="w-44" isNumber {...field("mpn")} />
      <Field label="Pieces" className="w-20" isNumber inputMode="numeric" {...field("qty")} />
      <Field label="Place" className="w-36" {...field("place")} />
      <Field
        label={`Cost each, ${currency}`}
        className="w-28"
        isNumber
        inputMode="decimal"
        {...field("unitCost")}
      />
      <Pick
        label="Condition"
        value={draft.condition}
        options={CONDITIONS}
        onChange={(v) => setDraft({ ...draft, condition: v })}
      />
      {isSalvaged && (
        <>
          <Field label="Out of what" className="w-40" {...field("donor")} />
          <Field label="Donors" className="w-20" isNumber inputMode="numeric" {...field("donors")} />
          <Field label="In each" className="w-20" isNumber inputMode="numeric" {...field("each")} />
          <Field
            label="Usable, %"
            className="w-24"
            isNumber
            inputMode="decimal"
            hint={harvest > 0 ? `${harvest} pieces` : undefined}
            {...field("usable")}
          />
        </>
      )}
      <Button type="submit" disabled={!isReady}>
        Put on the shelf
      </Button>
    </form>
  );
}
