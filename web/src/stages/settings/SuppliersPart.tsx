import type { SupplierChange } from "@kobbin/contract";
import { SOURCE_CLASSES, type SourceClass } from "@kobbin/core";
import { type SupplierRow, saveSupplier, takeMadeUpAway, useSuppliers } from "../../resources/library.ts";
import { useShop } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { count, typedNumber } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

const CLASS: Readonly<Record<SourceClass, string>> = {
  authorised: "authorised",
  broker: "a broker",
  private: "a private seller",
  unknown: "not known",
};

/** What an order costs at each supplier beside its goods, how long it takes, how far the source can be trusted. */
export function SuppliersPart() {
  const { data, error, mutate } = useSuppliers();
  const shop = useShop();
  const say = useSay();
  const sayError = useSayError();
  if (error && !data) return <Failed error={error} again={() => mutate()} />;
  if (!data) return <Skeleton rows={5} />;
  const madeUp = data.filter((s) => s.feedKey).length;
  return (
    <section aria-labelledby="suppliers">
      <h2 id="suppliers" className="mb-1">
        Suppliers
      </h2>
      <p className="mb-3 text-[14px] text-ink-2">
        Everything here counts when whole baskets are compared. New ones are added where an offer is typed.
      </p>
      {!shop.isDemo && madeUp > 0 && (
        <div className="mb-4 flex flex-wrap items-center gap-4 border-y border-rule py-3">
          <p className="flex-1 text-[14.5px]">
            {count(madeUp, "supplier")} here and the houses that came with the shop are made up: nothing can
            be bought there.
          </p>
          <Button
            onClick={() =>
              takeMadeUpAway().then(
                () => say("The made-up suppliers and houses are gone; history brings them back"),
                sayError,
              )
            }
          >
            Take the made-up ones away
          </Button>
        </div>
      )}
      {data.length === 0 && (
        <p className="mb-3 text-ink-2">
          No supplier yet: one is added where an offer is typed or a quotation is read, in Source.
        </p>
      )}
      {data.map((s) => (
        <Supplier key={s.id} supplier={s} />
      ))}
    </section>
  );
}

function Supplier({ supplier: s }: { supplier: SupplierRow }) {
  const say = useSay();
  const sayError = useSayError();
  const save = (change: Omit<SupplierChange, "version">, what: string) =>
    saveSupplier(s.id, { version: s.version, ...change }).then(
      () => say(`${s.name}: ${what} kept`),
      sayError,
    );
  const money = (
    label: string,
    value: string | number | undefined,
    set: (v: string | null) => Omit<SupplierChange, "version">,
    hint?: string,
  ) => (
    <Kept
      label={`${label}, ${s.currency}`}
      value={value === undefined ? "" : String(value)}
      disabled={false}
      isMono
      hint={hint}
      onSave={(v) => save(set(v === "" ? null : typedNumber(v)), label.toLowerCase())}
    />
  );
  return (
    <fieldset className="mb-4 border-t border-rule pt-2">
      <legend className="pr-3 font-semibold">{s.name}</legend>
      <div className="grid grid-cols-4 gap-x-4 gap-y-2 max-md:grid-cols-2">
        {money("Shipping", s.shipping, (v) => ({ shipping: v ?? "0" }))}
        {money("Free from", s.freeFrom, (v) => ({ freeFrom: v }), s.freeFrom ? undefined : "empty: never")}
        {money("Least order", s.minimumOrder, (v) => ({ minimumOrder: v }))}
        {money("Handling a parcel", s.handling, (v) => ({ handling: v }))}
        {money("Small order below", s.smallOrder?.below, (v) => ({
          smallOrderBelow: v,
          smallOrderFee: v === null ? null : String(s.smallOrder?.fee ?? "0"),
        }))}
        {s.smallOrder &&
          money("Small-order fee", s.smallOrder.fee, (v) => ({
            smallOrderBelow: String(s.smallOrder!.below),
            smallOrderFee: v ?? "0",
          }))}
        <Kept
          label="Duty, %"
          value={s.dutyRate ? String(Math.round(s.dutyRate * 1e4) / 100) : ""}
          disabled={false}
          isMono
          onSave={(v) => save({ dutyRate: Number(typedNumber(v || "0")) / 100 }, "duty")}
        />
        {(s.dutyRate ?? 0) > 0 && (
          <Pick
            label="Duty is taken on"
            value={s.dutyOnFreight ? "freight" : "goods"}
            options={[
              ["goods", "the goods alone"],
              ["freight", "goods and freight"],
            ]}
            onChange={(v) => save({ dutyOnFreight: v === "freight" }, "duty")}
          />
        )}
        <Kept
          label="Days, least"
          value={String(s.daysMin)}
          disabled={false}
          isMono
          onSave={(v) => save({ daysMin: Number(v) }, "days")}
        />
        <Kept
          label="Days, most"
          value={String(s.daysMax)}
          disabled={false}
          isMono
          onSave={(v) => save({ daysMax: Number(v) }, "days")}
        />
        <Pick
          label="The source is"
          value={s.sourceClass ?? "unknown"}
          options={SOURCE_CLASSES.map((c) => [c, CLASS[c]])}
          onChange={(v) => save({ sourceClass: v as SourceClass }, "class")}
        />
        <Pick
          label="Its prices are"
          value={s.includesTax ? "with" : "without"}
          options={[
            ["without", "without tax"],
            ["with", "with tax"],
          ]}
          onChange={(v) => save({ includesTax: v === "with" }, "tax")}
        />
      </div>
    </fieldset>
  );
}
