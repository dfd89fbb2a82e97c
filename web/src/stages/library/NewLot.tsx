import type { LotRow } from "@kobbin/contract";
import { useState } from "react";
import { addLot } from "../../resources/library.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { useOnce } from "../../ui/once.ts";
import { typedNumber } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** What state a lot is in. */
export const CONDITIONS = [
  ["new", "new"],
  ["opened", "opened"],
  ["salvaged", "salvaged"],
  ["quarantine", "set apart"],
] as const;

/** Puts a lot on the shelf; of what is salvaged, as many as donors, pieces and yield come to. */
export function NewLot({ currency }: { currency: string }) {
  const say = useSay();
  const sayError = useSayError();
  const once = useOnce();
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
        once(() =>
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
          }, sayError),
        );
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
