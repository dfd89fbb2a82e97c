import type { Corrections } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { keepBoard } from "../../resources/bench.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { nameAndRevision } from "./productName.ts";

/** Keeps a drop as a further board of a product's revision, its parts list with it. */
export function KeepBoard({
  drop,
  corrections,
  revisionId,
  runId,
}: {
  drop: { readonly files: readonly File[]; readonly parts: number; readonly places: number };
  corrections: Corrections;
  revisionId: string;
  /** The run it was come from. */
  runId: string;
}) {
  const navigate = useNavigate();
  const sayError = useSayError();
  const guess = useMemo(() => nameAndRevision(drop.files.map((f) => f.name)), [drop.files]);
  const [name, setName] = useState(`${guess.name} ${guess.revision ?? ""}`.trim());
  const [times, setTimes] = useState("1");
  const [isBusy, setBusy] = useState(false);
  const keep = async () => {
    setBusy(true);
    try {
      const perProduct = Math.max(1, Math.round(Number(times)) || 1);
      const at = await keepBoard(runId, { revisionId, name, perProduct, files: drop.files, corrections });
      navigate(`/runs/${runId}/board?board=${at}`);
    } catch (error) {
      sayError(error);
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-y border-rule py-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <Field
        label="Name of the board"
        value={name}
        onChange={(e) => setName(e.target.value)}
        required
        maxLength={120}
        className="min-w-52"
      />
      <Field
        label="In each product"
        type="number"
        min={1}
        max={1000}
        value={times}
        onChange={(e) => setTimes(e.target.value)}
        className="w-32"
      />
      <Button type="submit" look="main" disabled={isBusy}>
        {isBusy ? "Keeping …" : "Add it to the product"}
      </Button>
      <p className="text-[13.5px] text-ink-2">
        {count(drop.parts, "line")} of parts join the bill; {count(drop.places, "place")}
      </p>
    </form>
  );
}
