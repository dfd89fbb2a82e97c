import type { Corrections } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { keepProduct, startRun } from "../../resources/bench.ts";
import { runName } from "../../run/runName.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { nameAndRevision } from "./productName.ts";

/** Keeps a drop as a product or a revision, with a run of it or without. */
export function Keep({
  drop,
  corrections,
  productId,
  productName: knownName,
  labels = [],
  known = [],
  onKnown,
}: {
  drop: { readonly files: readonly File[]; readonly parts: number; readonly places: number };
  corrections: Corrections;
  productId?: string;
  productName?: string;
  labels?: readonly string[];
  /** What the shop has already, where this is to be something new. */
  known?: readonly {
    readonly id: string;
    readonly name: string;
    readonly revisions: readonly { label: string }[];
  }[];
  /** It is one of them after all. */
  onKnown?: (productId: string) => void;
}) {
  const navigate = useNavigate();
  const sayError = useSayError();
  const guess = useMemo(() => nameAndRevision(drop.files.map((f) => f.name)), [drop.files]);
  const [name, setName] = useState(knownName ?? guess.name);
  const [label, setLabel] = useState(() =>
    labels.length === 0
      ? (guess.revision ?? "A")
      : String.fromCharCode((labels.at(-1)?.charCodeAt(0) ?? 64) + 1),
  );
  const [goodBoards, setGoodBoards] = useState("20");
  const [isBusy, setBusy] = useState(false);
  const same = known.find((p) => p.name.toLowerCase() === name.trim().toLowerCase());
  const keep = async (withRun: boolean) => {
    setBusy(true);
    try {
      const kept = await keepProduct({
        name,
        revision: label,
        files: drop.files,
        corrections,
        ...(productId ? { productId } : {}),
      });
      if (!withRun) return navigate("/");
      const good = Math.max(1, Math.round(Number(goodBoards)) || 1);
      const run = await startRun({
        revisionId: kept.revisionId,
        name: runName(good, label),
        goodBoards: good,
      });
      navigate(`/runs/${run.id}/board`);
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
        keep(true);
      }}
    >
      <Field
        label="Product"
        value={name}
        onChange={(e) => setName(e.target.value)}
        required
        maxLength={120}
        disabled={Boolean(productId)}
        className="min-w-52"
      />
      <Field
        label="Revision"
        value={label}
        onChange={(e) => setLabel(e.target.value)}
        required
        maxLength={40}
        className="w-24"
      />
      <Field
        label="Good boards wanted"
        type="number"
        min={1}
        max={100000}
        value={goodBoards}
        onChange={(e) => setGoodBoards(e.target.value)}
        className="w-40"
      />
      <Button type="submit" look="main" disabled={isBusy}>
        {isBusy ? "Keeping …" : "Keep it and start a run"}
      </Button>
      <Button disabled={isBusy} onClick={() => keep(false)}>
        Keep it only
      </Button>
      <p className="text-[13.5px] text-ink-2">
        {count(drop.parts, "line")} of parts, {count(drop.places, "place")}
      </p>
      {same && onKnown && (
        <p className="basis-full text-[14.5px]">
          You have a {same.name} already, revision {same.revisions.map((r) => r.label).join(", ")}.{" "}
          <button type="button" className="quiet-link" onClick={() => onKnown(same.id)}>
            Keep this as its next revision
          </button>
        </p>
      )}
    </form>
  );
}
