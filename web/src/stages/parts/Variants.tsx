import { type LineOverride, type RunLine, unitOf, type Variant, withVariant } from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { addVariant, removeVariant, saveVariant } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Delta } from "../../ui/ChoiceRow.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { amount, count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { runWorker } from "../../workers/run.ts";
import { nameOf } from "./lineEdits.ts";

const labelOf = (l: RunLine) =>
  `${l.refs.slice(0, 3).join(" ")}${l.refs.length > 3 ? " …" : ""} ${l.valueText || l.mpn}`.trim();

/** Versions of the product on one page: what each fits, what each costs at several quantities, which is made. */
export function Variants({ onClose }: { onClose: () => void }) {
  const { id, answer, doc, did, isLocked } = useRun();
  const sayError = useSayError();
  const [name, setName] = useState("");
  const [more, setMore] = useState<readonly string[]>([]);
  const variants = doc.variants ?? [];
  const touched = new Set([...variants.flatMap((v) => Object.keys(v.overrides)), ...more]);
  const lines = doc.lines.filter((l) => touched.has(l.id));
  const add = () => {
    const done = addVariant(id, answer.revisionId, name.trim());
    done.then(() => did(`Variant ${name.trim()} begins as the bill stands`, done), sayError);
    setName("");
  };
  const set = (v: Variant, line: RunLine, over: LineOverride) => {
    const merged = { ...v.overrides[line.id], ...over };
    // what is as in the bill is no difference
    const kept = Object.fromEntries(
      Object.entries(merged).filter(([k, x]) => x !== line[k as keyof LineOverride]),
    ) as LineOverride;
    const { [line.id]: _, ...rest } = v.overrides;
    const overrides = Object.keys(kept).length > 0 ? { ...rest, [line.id]: kept } : rest;
    const done = saveVariant(id, v.id, { version: answer.versions[v.id], overrides });
    if (!more.includes(line.id)) setMore([...more, line.id]);
    done.then(
      () =>
        did(
          `${v.name}: ${nameOf(line)} ${over.dnp === undefined ? "is otherwise" : over.dnp ? "left off" : "fitted"}`,
          done,
        ),
      sayError,
    );
  };
  return (
    <section
      aria-label="Variants"
      className="mb-4 border-l-[3px] border-metal bg-sheet px-4 py-2 text-[14px]"
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="text-[15px]">Variants</h2>
        <button type="button" className="quiet-link" onClick={onClose}>
          close
        </button>
      </div>
      {variants.length === 0 ? (
        <p className="text-ink-2">
          One bill, several versions: fit this, not that. Each begins as the bill stands.
        </p>
      ) : (
        <div className="overflow-x-auto">
          <Differences
            variants={variants}
            lines={lines}
            touched={touched}
            onSet={set}
            onMore={(l) => setMore([...more, l])}
          />
          <Prices variants={variants} />
          <Made variants={variants} />
        </div>
      )}
      {!isLocked && (
        <form
          className="mt-2 flex items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) add();
          }}
        >
          <Field
            label="A new variant"
            className="w-52"
            placeholder="timer version"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button type="submit" disabled={name.trim() === ""}>
            Add it
          </Button>
        </form>
      )}
    </section>
  );
}

/** Which lines the versions fit otherwise, a column each. */
function Differences({
  variants,
  lines,
  touched,
  onSet,
  onMore,
}: {
  variants: readonly Variant[];
  lines: readonly RunLine[];
  touched: ReadonlySet<string>;
  onSet: (v: Variant, line: RunLine, over: LineOverride) => void;
  /** A line that is to differ too. */
  onMore: (lineId: string) => void;
}) {
  const { doc, isLocked } = useRun();
  return (
    <table className="rows tight">
      <thead>
        <tr>
          <th>Line</th>
          <th>the bill</th>
          {variants.map((v) => (
            <th key={v.id}>{v.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.id}>
            <td>
              <span className="num">{labelOf(l)}</span>
            </td>
            <td>{l.dnp ? "not placed" : "placed"}</td>
            {variants.map((v) => {
              const o = v.overrides[l.id];
              const isFitted = !(o?.dnp ?? l.dnp);
              return (
                <td key={v.id}>
                  <label className="flex items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-6"
                      aria-label={`${nameOf(l)} in ${v.name}`}
                      checked={isFitted}
                      disabled={isLocked}
                      onChange={(e) => onSet(v, l, { dnp: !e.target.checked })}
                    />
                    {(o?.mpn !== undefined || o?.valueText !== undefined) && (
                      <span className="num">{o.mpn ?? o.valueText}</span>
                    )}
                  </label>
                  {isFitted && !isLocked && <Other line={l} variant={v} onSet={onSet} />}
                </td>
              );
            })}
          </tr>
        ))}
        {!isLocked && (
          <tr>
            <td colSpan={2 + variants.length}>
              <Pick
                label="Another line that differs"
                hideLabel
                value=""
                options={[
                  ["", "another line that differs …"],
                  ...doc.lines
                    .filter((l) => !touched.has(l.id))
                    .map((l) => [l.id, labelOf(l)] as [string, string]),
                ]}
                onChange={(v) => v && onMore(v)}
              />
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Which version this run makes. */
function Made({ variants }: { variants: readonly Variant[] }) {
  const { id, doc, change, did, isLocked } = useRun();
  const sayError = useSayError();
  const chosen = variants.find((v) => v.id === doc.choices.variant);
  return (
    <table className="rows tight mt-1">
      <tbody>
        <tr>
          <td className="text-ink-2">This run makes</td>
          <td>
            <Choose
              label="the bill"
              isChosen={!chosen}
              onChoose={() => change({ variant: null }, "The bill as it stands is made")}
              isLocked={isLocked}
            />
          </td>
          {variants.map((v) => (
            <td key={v.id}>
              <Choose
                label={v.name}
                isChosen={v.id === chosen?.id}
                onChoose={() => change({ variant: v.id }, `${v.name} is made`)}
                isLocked={isLocked}
              />{" "}
              {!isLocked && v.id !== chosen?.id && (
                <button
                  type="button"
                  className="quiet-link"
                  aria-label={`Remove ${v.name}`}
                  onClick={() => {
                    const done = removeVariant(id, v.id);
                    done.then(() => did(`${v.name} was removed`, done), sayError);
                  }}
                >
                  remove
                </button>
              )}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

function Choose({
  label,
  isChosen,
  onChoose,
  isLocked,
}: {
  label: string;
  isChosen: boolean;
  onChoose: () => void;
  isLocked: boolean;
}) {
  if (isChosen) return <b>{label}</b>;
  if (isLocked) return <span className="text-ink-2">{label}</span>;
  return (
    <button type="button" className="quiet-link" onClick={onChoose}>
      {label}
    </button>
  );
}

/** Another part in one version: its number, or nothing for the bill's own. */
function Other({
  line,
  variant,
  onSet,
}: {
  line: RunLine;
  variant: Variant;
  onSet: (v: Variant, line: RunLine, over: LineOverride) => void;
}) {
  const [text, setText] = useState<string>();
  const now = variant.overrides[line.id]?.mpn ?? line.mpn;
  if (text === undefined)
    return (
      <button
        type="button"
        className="quiet-link"
        aria-label={`Another part for ${nameOf(line)} in ${variant.name}`}
        onClick={() => setText(now)}
      >
        another part
      </button>
    );
  const keep = () => {
    if (text.trim() !== now) onSet(variant, line, { mpn: text.trim() });
    setText(undefined);
  };
  return (
    <input
      aria-label={`Part number of ${nameOf(line)} in ${variant.name}`}
      className="num w-32"
      value={text}
      // biome-ignore lint/a11y/noAutofocus: the field stands where the pressed button stood
      autoFocus
      onChange={(e) => setText(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setText(undefined);
      }}
    />
  );
}

/** Cost per good board of each version at several quantities, and what it is apart from the bill. */
function Prices({ variants }: { variants: readonly Variant[] }) {
  const { doc } = useRun();
  const { currency } = doc.workshop;
  const quantities = useMemo(
    () => [...new Set([10, 50, 200, doc.goodBoards])].sort((a, b) => a - b),
    [doc.goodBoards],
  );
  const [costs, setCosts] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    let isCurrent = true;
    (async () => {
      const found = new Map<string, number>();
      for (const q of quantities)
        for (const v of [undefined, ...variants]) {
          const made = { ...doc, choices: { ...doc.choices, ...(v ? { variant: v.id } : { variant: "" }) } };
          const p = await runWorker().point(withVariant(made), q);
          if (!isCurrent) return;
          if (p) found.set(`${v?.id ?? ""} ${q}`, p.perGood);
          setCosts(new Map(found));
        }
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, variants, quantities]);
  return (
    <table className="rows tight mt-2">
      <caption className="text-left text-[13px] text-ink-2">
        Per good {unitOf(doc)}, {currency}
      </caption>
      <thead>
        <tr>
          <th>Quantity</th>
          <th className="text-right">the bill</th>
          {variants.map((v) => (
            <th key={v.id} className="text-right">
              {v.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {quantities.map((q) => {
          const bill = costs.get(` ${q}`);
          return (
            <tr key={q}>
              <td>{count(q, "board")}</td>
              <td className="num text-right">{bill === undefined ? "…" : amount(bill, currency)}</td>
              {variants.map((v) => {
                const own = costs.get(`${v.id} ${q}`);
                return (
                  <td key={v.id} className="num text-right">
                    {own === undefined ? "…" : amount(own, currency)}{" "}
                    {own !== undefined && bill !== undefined && <Delta value={own - bill} />}
                  </td>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
