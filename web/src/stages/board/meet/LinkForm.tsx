import {
  judgeLink,
  type LinkPosition,
  type LinkStanding,
  proposedPositions,
  type WiredPart,
} from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { addLink, saveLink } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { useOnce } from "../../../ui/once.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** A link's positions with what each does, and which is set: for the product, and where a version has it otherwise. */
export function LinkForm({
  part,
  board,
  standing,
  onClose,
}: {
  part: WiredPart;
  board: string | undefined;
  standing: LinkStanding | undefined;
  onClose: () => void;
}) {
  const { id, answer, doc, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const row = standing?.row;
  const [positions, setPositions] = useState<readonly LinkPosition[]>(
    () => row?.positions ?? proposedPositions(part),
  );
  const [set, setSet] = useState(row?.set ?? "");
  const [variants, setVariants] = useState<Readonly<Record<string, string>>>(row?.variants ?? {});
  const [isCap, setCap] = useState(row?.isCap ?? false);
  // judged as it stands in the form, before anything of it is kept
  const { hurts } = judgeLink({ id: "", ref: part.ref, positions, set, variants, isCap }, [part]);
  const bad = [set, ...Object.values(variants)].find((name) => hurts[name]);
  const names: [string, string][] = positions.map((p) => [p.name, `${p.name}${p.does ? `: ${p.does}` : ""}`]);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (bad) return;
    const body = {
      ...(board === undefined ? {} : { board }),
      ref: part.ref,
      spec: { positions: positions.map((p) => ({ ...p, does: p.does.trim() })), set, variants, isCap },
    };
    once(() => {
      const done = row ? saveLink(id, row.id, body) : addLink(id, answer.productId, body);
      did(set === "" ? `${part.ref} is to be set` : `${part.ref} is set to ${set}`, done);
      return done.then(onClose, sayError);
    });
  };
  return (
    <form
      aria-label={`How ${part.ref} is set`}
      className="mb-3 border-l-[3px] border-metal bg-sheet px-4 py-3 text-[14.5px]"
      onSubmit={submit}
    >
      <h3 className="mb-1 text-[16px]">{part.ref}</h3>
      <Positions part={part} positions={positions} hurts={hurts} onChange={setPositions} />
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Pick
          label="Goes out as"
          className="w-64"
          value={set}
          options={[["", "not said yet"], ...names]}
          onChange={setSet}
        />
        {(doc.variants ?? []).map((v) => (
          <Pick
            key={v.id}
            label={`In ${v.name}`}
            className="w-56"
            value={variants[v.id] ?? ""}
            options={[["", "as above"], ...names]}
            onChange={(name) => {
              const { [v.id]: _, ...rest } = variants;
              setVariants(name === "" ? rest : { ...rest, [v.id]: name });
            }}
          />
        ))}
        <label className="flex items-center gap-2 pb-1">
          <input
            type="checkbox"
            className="size-5"
            checked={isCap}
            onChange={(e) => setCap(e.target.checked)}
          />
          a cap or a wire of its own closes it
        </label>
      </div>
      {bad && (
        <p role="alert" className="mt-2 text-stop">
          {part.ref} in {bad} is not kept: {hurts[bad]}.
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <Button type="submit" look="main" disabled={bad !== undefined}>
          {row ? "Save" : "Keep it"}
        </Button>
        <Button look="bare" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

/** Every position with the nets it joins, why it hurts where it does, and what it does in one's own words. */
function Positions({
  part,
  positions,
  hurts,
  onChange,
}: {
  part: WiredPart;
  positions: readonly LinkPosition[];
  hurts: LinkStanding["hurts"];
  onChange: (positions: readonly LinkPosition[]) => void;
}) {
  const netOf = (pin: string) => part.pins.find((p) => p.pin === pin)?.name ?? "a net without a name";
  return (
    <table className="rows tight">
      <thead>
        <tr>
          <th>Position</th>
          <th>joins</th>
          <th>what it does</th>
        </tr>
      </thead>
      <tbody>
        {positions.map((p, i) => (
          <tr key={p.name}>
            <td className="num">{p.name}</td>
            <td className={`num ${hurts[p.name] ? "text-stop" : "text-ink-2"}`}>
              {p.joins ? `${netOf(p.joins[0])} with ${netOf(p.joins[1])}` : "nothing"}
              {hurts[p.name] && `: ${hurts[p.name]}`}
            </td>
            <td>
              <input
                aria-label={`What ${part.ref} in ${p.name} does`}
                className="w-64"
                maxLength={200}
                placeholder={p.joins ? "display of the first edition" : "nothing"}
                value={p.does}
                onChange={(e) =>
                  onChange(positions.map((q, k) => (k === i ? { ...q, does: e.target.value } : q)))
                }
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
