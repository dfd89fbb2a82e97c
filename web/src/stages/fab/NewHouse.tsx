import {
  boardFacts,
  type FabOptionKey,
  type FirstPrice,
  type House,
  type HouseLimits,
  houseFromQuotation,
  LIMITS,
  readPriceTable,
  USUAL_OPTIONS,
} from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { beginHouse } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { typedNumber } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { ProfileIn } from "./ProfileFile.tsx";

const AMOUNT = { inputMode: "decimal", pattern: "\\d+([.,]\\d{1,6})?", isNumber: true } as const;
const WHOLE = { type: "number", min: 0, isNumber: true } as const;
const ASKED: readonly (readonly [FabOptionKey, string])[] = [
  ["thickness", "Thickness"],
  ["finish", "Finish"],
  ["mask", "Mask colour"],
  ["legend", "Silkscreen"],
  ["copper", "Outer copper"],
];
/** The three that houses write first. */
const FIRST_LIMITS = ["minTrackMm", "minNetSpaceMm", "minHoleMm"] as const;

/** Cells of a pasted table: by tabs, semicolons or commas, whichever the first row has. */
function cellsOf(text: string): string[][] {
  const lines = text.split(/\r?\n/);
  const mark = ["\t", ";", ","].find((m) => lines[0]?.includes(m)) ?? "\t";
  return lines.map((l) => l.split(mark));
}

/** What was typed, as a profile of the house. @throws AppError where the prices are none of one house */
function profileOf(
  f: FormData,
  options: Readonly<Record<FabOptionKey, string>>,
  board: ReturnType<typeof boardFacts>,
  today: string,
  table: readonly [FirstPrice, ...FirstPrice[]] | undefined,
): Omit<House, "id"> {
  const text = (key: string) => String(f.get(key) ?? "").trim();
  const amount = (key: string) => typedNumber(text(key));
  const price = (n: number): FirstPrice => ({
    pieces: Number(text(`pieces${n}`)),
    boards: amount(`boards${n}`),
  });
  const chosen = (key: FabOptionKey) => USUAL_OPTIONS[key].find((o) => o.value === options[key])!;
  const limits: HouseLimits = Object.fromEntries(
    FIRST_LIMITS.flatMap((key) => (text(key) === "" ? [] : [[key, Number(amount(key))]])),
  );
  return houseFromQuotation({
    name: text("name"),
    currency: text("currency").toUpperCase(),
    today,
    board,
    options: {
      thickness: chosen("thickness"),
      copper: chosen("copper"),
      finish: chosen("finish"),
      mask: chosen("mask"),
      legend: chosen("legend"),
    },
    prices: table ?? (text("pieces2") === "" && text("boards2") === "" ? [price(1)] : [price(1), price(2)]),
    freight: amount("freight"),
    handling: amount("handling"),
    leadDays: Number(text("leadDays")),
    transitDays: Number(text("transitDays")),
    delayDays: Number(amount("delayDays")),
    limits,
  });
}

/** A house that Kobbin does not know, begun from a quotation somebody holds. */
export function NewHouse({ onClose }: { onClose: () => void }) {
  const { id, doc, result, change } = useRun();
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  const [at, setAt] = useState("0");
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [hasTable, setHasTable] = useState(false);
  const [options, setOptions] = useState<Record<FabOptionKey, string>>(() => {
    const begin = (key: FabOptionKey) => {
      const wished = result.options?.[key];
      return USUAL_OPTIONS[key].some((o) => o.value === wished) ? wished! : USUAL_OPTIONS[key][0]!.value;
    };
    return {
      thickness: begin("thickness"),
      copper: begin("copper"),
      finish: begin("finish"),
      mask: begin("mask"),
      legend: begin("legend"),
    };
  });
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    setBusy(true);
    try {
      const board = boardFacts(doc.boards[Number(at)]!.measure);
      const pasted = String(f.get("table") ?? "");
      const read =
        pasted.trim() === ""
          ? undefined
          : readPriceTable(cellsOf(pasted), String(f.get("currency")).toUpperCase());
      setWrong(read?.wrong ?? []);
      if (read && !read.prices) {
        setBusy(false);
        return;
      }
      const table = read?.prices as readonly [FirstPrice, ...FirstPrice[]] | undefined;
      const { checkedOn: _, ...profile } = profileOf(f, options, board, doc.today, table);
      const house = await beginHouse(id, { name: profile.name, profile: profile as never });
      change(
        { houseId: house.id, options: { ...options, leadDays: Number(f.get("leadDays")) } },
        `Boards by ${profile.name}`,
      );
      onClose();
    } catch (error) {
      sayError(error);
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="A house from its quotation"
      about="What one quotation says is enough to begin with; its profile can be edited and grown afterwards."
    >
      <ProfileIn onDone={onClose} />
      <form onSubmit={submit} className="flex flex-col gap-4">
        <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
          <Field label="Name of the house" name="name" required maxLength={120} className="col-span-2" />
          <Field
            label="Its currency"
            name="currency"
            required
            pattern="[A-Za-z]{3}"
            maxLength={3}
            defaultValue={doc.workshop.currency}
          />
          {doc.boards.length > 1 && (
            <Pick
              label="For which board"
              value={at}
              options={doc.boards.map((b, i) => [String(i), b.name] as const)}
              onChange={setAt}
            />
          )}
        </div>
        <fieldset>
          <legend className="mb-1 font-semibold">The price, without freight</legend>
          <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
            <Field
              label="Boards"
              name="pieces1"
              required={!hasTable}
              {...WHOLE}
              min={1}
              defaultValue={result.start}
            />
            <Field label="cost in all" name="boards1" required={!hasTable} {...AMOUNT} />
            <Field label="Another number" name="pieces2" {...WHOLE} min={1} hint="if it says" />
            <Field label="costs in all" name="boards2" {...AMOUNT} />
          </div>
          <p className="mt-1 text-[13px] text-ink-2">
            Two numbers tell what is paid once from what a board costs. With one, half is taken as set-up, and
            other numbers are called a guess.
          </p>
          <label className="mt-2 block text-[13.5px] text-ink-2">
            Or its table, pasted: a column of pieces and one of prices, with their names above
            <textarea
              name="table"
              rows={3}
              className="num mt-1 block w-full"
              onChange={(e) => setHasTable(e.target.value.trim() !== "")}
            />
          </label>
          {wrong.length > 0 && (
            <ul role="alert" className="mt-1 text-[14px] text-stop">
              {wrong.map((w) => (
                <li key={w}>{w}</li>
              ))}
              <li className="text-ink-2">Nothing was kept; mend the table and try again.</li>
            </ul>
          )}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">Way and days</legend>
          <div className="grid grid-cols-5 gap-3 max-md:grid-cols-2">
            <Field label="Freight" name="freight" required {...AMOUNT} />
            <Field label="Import handling" name="handling" required {...AMOUNT} defaultValue="0" />
            <Field label="Days at the house" name="leadDays" required {...WHOLE} max={1000} />
            <Field label="Days on the way" name="transitDays" required {...WHOLE} max={1000} />
            <Field
              label="Usually late by, days"
              name="delayDays"
              required
              {...AMOUNT}
              defaultValue="2"
              hint="your guess"
            />
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">What it was for</legend>
          <div className="grid grid-cols-[1fr_2fr_1fr_1fr_1fr] gap-3 max-md:grid-cols-2">
            {ASKED.map(([key, label]) => (
              <Pick
                key={key}
                label={label}
                value={options[key]}
                options={USUAL_OPTIONS[key].map((o) => [o.value, o.label] as const)}
                onChange={(v) => setOptions({ ...options, [key]: v })}
              />
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">What it can make, mm, where it says</legend>
          <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
            {FIRST_LIMITS.map((key) => (
              <Field key={key} label={LIMITS[key].label} name={key} {...AMOUNT} />
            ))}
          </div>
          <p className="mt-1 text-[13px] text-ink-2">What is left empty is not judged, and a note says so.</p>
        </fieldset>
        <div>
          <Button type="submit" look="main" disabled={isBusy}>
            Keep the house and choose it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
