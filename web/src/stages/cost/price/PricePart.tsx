import { type Channel, isComplete, microsToText, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { amount, fixed, money, written } from "../../../ui/text/format.ts";
import { useSay } from "../../../ui/toast/Toast.tsx";
import {
  FIRST,
  pricesOf,
  type Selling,
  type Shown,
  typedGrid,
  typedShare,
  typedSum,
  withFact,
} from "./priceModel.ts";

/** What the price must be in each way of selling, and what of it goes where. */
export function PricePart() {
  const { doc, result: r, change, isLocked } = useRun();
  const say = useSay();
  const selling: Selling = doc.choices.price ?? { ...FIRST, taxRate: doc.workshop.taxRate };
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  const prices = useMemo(() => pricesOf(selling, microsToText(r.perGood)), [selling, r.perGood]);
  const keep = (price: Selling, words: string) => change({ price } as never, words);
  const refuse = (words: string) => say(words, { isProblem: true, hint: "It stays as it was." });
  const sum = (key: "packing" | "warranty" | "shipping", label: string) => (
    <Kept
      label={`${label}, ${currency}`}
      isMono
      disabled={isLocked}
      value={written(String(selling[key] ?? ""))}
      onSave={(v) => {
        const { value, wrong } = typedSum(v);
        if (wrong) return refuse(wrong);
        keep({ ...selling, [key]: value ?? "0" }, label);
      }}
    />
  );
  const most = Math.max(1, ...(prices?.shown ?? []).map((s) => Number(s.price.pricePoint ?? 0)));
  return (
    <div>
      <p className="mb-2 max-w-[64ch] text-[14px] text-ink-2">
        One good {unit} costs {isComplete(r.unpriced) ? "" : "at least "}
        {money(r.perGood / 1e6, currency)} in this run. What goes with each one sold comes on top; each way of
        selling takes its part.
      </p>
      <div className="mb-3 grid grid-cols-5 gap-x-4 gap-y-2 max-md:grid-cols-2">
        {sum("packing", "Packing")}
        {sum("warranty", "Kept for warranty")}
        {sum("shipping", "Sending it")}
        <Kept
          label="Tax on sales, %"
          isMono
          disabled={isLocked}
          value={
            selling.taxRate === undefined ? "" : written(String(Math.round(selling.taxRate * 1e4) / 100))
          }
          onSave={(v) => {
            const taxRate = typedShare(v, 1000);
            if (typeof taxRate === "string") return refuse(taxRate);
            keep({ ...selling, taxRate: taxRate ?? 0 }, "Tax on sales");
          }}
        />
        <Kept
          label="Prices end in"
          placeholder="0.90 0.50"
          isMono
          disabled={isLocked}
          value={(selling.grid ?? []).map((g) => written(String(g))).join(" ")}
          onSave={(v) => {
            const grid = typedGrid(v);
            if (typeof grid === "string") return refuse(grid);
            keep({ ...selling, grid }, "Endings of a price");
          }}
        />
      </div>
      <ul aria-label="Ways of selling">
        {selling.channels.map((c, i) => (
          <Way
            // biome-ignore lint/suspicious/noArrayIndexKey: a way of selling has no other name of its own
            key={i}
            channel={c}
            shown={prices?.shown[i]}
            most={most}
            onChange={(next, words) =>
              keep(
                {
                  ...selling,
                  channels: next ? selling.channels.with(i, next) : selling.channels.toSpliced(i, 1),
                },
                words,
              )
            }
          />
        ))}
      </ul>
      {!isLocked && (
        <Button
          className="mt-2"
          onClick={() =>
            keep(
              {
                ...selling,
                channels: [...selling.channels, { name: `way ${selling.channels.length + 1}`, margin: 0.4 }],
              },
              "A way of selling added",
            )
          }
        >
          Add a way of selling
        </Button>
      )}
      <p className="mt-3 text-[13.5px] text-ink-2">
        What it may be sold with (conformity, lead, cells, radio, mains) is for local rules and, where the law
        wants one, a licensed person to say.
      </p>
    </div>
  );
}

/** A way of selling: what it takes, what is wished for, and the price that comes of it. */
function Way({
  channel: c,
  shown,
  most,
  onChange,
}: {
  channel: Channel;
  shown: Shown | undefined;
  most: number;
  onChange: (next: Channel | undefined, words: string) => void;
}) {
  const { doc, isLocked } = useRun();
  const say = useSay();
  const { currency } = doc.workshop;
  const refuse = (words: string) =>
    say(`${c.name}: ${words}`, { isProblem: true, hint: "It stays as it was." });
  const share = (key: "feeShare" | "discount" | "margin", label: string) => (
    <Kept
      label={label}
      isMono
      disabled={isLocked}
      value={c[key] === undefined ? "" : written(String(Math.round(c[key] * 1e4) / 100))}
      onSave={(v) => {
        const value = typedShare(v, key === "discount" ? 99.99 : 100);
        if (typeof value === "string") return refuse(value);
        onChange(withFact(c, key, value), `${c.name}: ${label}`);
      }}
    />
  );
  const sum = (key: "feeFixed" | "list", label: string) => (
    <Kept
      label={label}
      isMono
      disabled={isLocked}
      value={c[key] === undefined ? "" : written(String(c[key]))}
      onSave={(v) => {
        const { value, wrong } = typedSum(v);
        if (wrong) return refuse(wrong);
        onChange(withFact(c, key, value), `${c.name}: ${label}`);
      }}
    />
  );
  return (
    <li className="border-t border-rule py-2">
      <fieldset>
        <legend className="sr-only">{c.name}</legend>
        <div className="grid grid-cols-[1.4fr_repeat(5,minmax(0,1fr))_1.3fr_auto] items-end gap-x-3 gap-y-1 max-lg:grid-cols-3">
          <Kept
            label="Sold by"
            maxLength={120}
            disabled={isLocked}
            value={c.name}
            onSave={(v) => v !== "" && onChange({ ...c, name: v }, `called ${v}`)}
          />
          {share("feeShare", "takes, %")}
          {sum("feeFixed", `and ${currency}`)}
          {share("discount", "rebate, %")}
          {share("margin", "margin, %")}
          {sum("list", "price today")}
          <Pick
            label="The price is"
            value={c.taxIncluded === false ? "without" : "with"}
            disabled={isLocked}
            options={[
              ["with", "with tax"],
              ["without", "without tax"],
            ]}
            onChange={(v) =>
              onChange(withFact(c, "taxIncluded", v === "without" ? false : undefined), `${c.name}: ${v} tax`)
            }
          />
          {!isLocked && (
            <button
              type="button"
              className="quiet-link pb-2"
              aria-label={`Remove ${c.name}`}
              onClick={() => onChange(undefined, `${c.name} is no way of selling any more`)}
            >
              remove
            </button>
          )}
        </div>
        {shown && <Price shown={shown} most={most} hasList={c.list !== undefined} />}
      </fieldset>
    </li>
  );
}

const PARTS = [
  ["cost", "what one costs", "var(--ink-3)"],
  ["fees", "fees", "var(--look)"],
  ["tax", "tax and rebate", "var(--rule-2, var(--rule))"],
  ["stays", "what stays", "var(--fine)"],
] as const;

/** The price of a way, and a bar of what it goes into. */
function Price({
  shown: { price: p, parts },
  most,
  hasList,
}: {
  shown: Shown;
  most: number;
  hasList: boolean;
}) {
  const { doc, result } = useRun();
  const { currency } = doc.workshop;
  // what one costs is a floor then: it leaves that much at the most
  const isOpen = !isComplete(result.unpriced);
  if (!parts || p.pricePoint === undefined || !p.atPoint)
    return <p className="mt-1 text-stop">{p.impossible ?? "No price comes of it."}</p>;
  const isLoss = parts.stays < 0;
  const said = PARTS.map(([key, label]) => `${label} ${amount(parts[key], currency)}`).join(", ");
  const wide = (n: number) => `${Math.max(0, (100 * n) / most)}%`;
  return (
    <div className="mt-2">
      <p className="flex flex-wrap items-baseline gap-x-5">
        <span className="text-[20px]">
          <b className="num">{amount(Number(p.pricePoint), currency)}</b>{" "}
          <span className="text-[14px] text-ink-2">
            {hasList ? "as it is" : "at least, up to the next ending"}
          </span>
        </span>
        <span className={`text-[14.5px] ${isLoss ? "text-stop" : "text-ink-2"}`}>
          {isLoss ? "loses " : "leaves "}
          {isOpen ? (isLoss ? "at least " : "at most ") : ""}
          <span className="num">{amount(Math.abs(parts.stays), currency)}</span>
          {p.atPoint.margin === undefined
            ? ""
            : `, ${fixed(100 * p.atPoint.margin, 1)} % of what is received`}
        </span>
        {p.floor !== undefined && (
          <span className="text-[14.5px] text-ink-2">
            nothing is left at {isOpen ? "no less than " : ""}
            <span className="num">{amount(Number(p.floor), currency)}</span>
          </span>
        )}
      </p>
      <div
        role="img"
        aria-label={said}
        title={said}
        className="mt-1 flex h-4 overflow-hidden rounded-[2px] border border-rule bg-paper"
      >
        {PARTS.map(([key, , colour]) => (
          <span key={key} className="h-full" style={{ width: wide(parts[key]), background: colour }} />
        ))}
      </div>
      <p className="text-[13px] text-ink-2">{said}</p>
    </div>
  );
}
