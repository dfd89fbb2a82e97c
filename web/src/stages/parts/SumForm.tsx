import {
  type AttachedSum,
  compareRefs,
  figureWords,
  kindOfLine,
  nearestPreferred,
  type RunLine,
  readAmount,
  standingSum,
  sumKind,
  tolerancedOf,
} from "@kobbin/core";
import { useState } from "react";
import { addSum, saveSum } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { useOnce } from "../../ui/once.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { linesFor } from "./sumLines.ts";

type Draft = Omit<AttachedSum, "id">;

/** Keeps a sum, one that stands or a new one, once. */
function useSave(sum: AttachedSum | undefined, onClose: () => void): (draft: Draft) => void {
  const { id, answer, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  return (draft) =>
    once(() => {
      const done = sum
        ? saveSum(id, sum.id, { ...draft, version: answer.versions[sum.id] })
        : addSum(id, answer.revisionId, draft);
      return done.then(() => {
        did("The sum stands with its lines", done);
        onClose();
      }, sayError);
    });
}

/** A sum while it is typed: what comes out stands below at once, with the nearest values of the series. */
export function SumForm({
  line,
  kindKey,
  sum,
  onClose,
}: {
  line: RunLine;
  kindKey: string;
  sum?: AttachedSum;
  onClose: () => void;
}) {
  const { doc } = useRun();
  const save = useSave(sum, onClose);
  const kind = sumKind(kindKey)!;
  const [draft, setDraft] = useState<Draft>(() => {
    if (sum) {
      const { id: _, ...rest } = sum;
      return rest;
    }
    const own = kindOfLine(line);
    const first = kind.inputs.find((i) => i.part === own);
    return {
      kind: kindKey,
      name: "",
      given: Object.fromEntries(
        kind.inputs.flatMap((i) => (i.usual && !i.isOptional ? [[i.key, i.usual]] : [])),
      ),
      lines: first ? { [first.key]: line.id } : {},
      wanted: "",
      withinPct: 10,
    };
  });
  const now = standingSum(draft, (lineId) => {
    const l = doc.lines.find((x) => x.id === lineId);
    return l ? tolerancedOf(doc, l) : undefined;
  })!;
  const put = (key: string, text: string) => setDraft({ ...draft, given: { ...draft.given, [key]: text } });
  const point = (key: string, lineId: string) => {
    const { [key]: _, ...rest } = draft.lines;
    setDraft({ ...draft, lines: lineId === "" ? rest : { ...rest, [key]: lineId } });
  };
  const wanted = readAmount(draft.wanted);
  const nominal = Object.fromEntries(Object.entries(now.inputs).map(([k, v]) => [k, v.nominal]));
  const solved =
    kind.solve &&
    wanted !== undefined &&
    kind.inputs.every((i) => i.isOptional || i.key === kind.solve!.key || nominal[i.key] !== undefined)
      ? kind.solve.from(nominal, wanted)
      : undefined;
  const unit = (key: string) => kind.inputs.find((i) => i.key === key)!.unit;
  return (
    <form
      className="mb-2 border-l-[3px] border-metal bg-sheet px-4 py-2"
      aria-label={kind.label}
      onSubmit={(e) => {
        e.preventDefault();
        save(draft);
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          e.stopPropagation();
          onClose();
        }
      }}
    >
      <p className="mb-1 text-ink-2">
        <b className="text-ink">{kind.label}.</b> {kind.about}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Inputs kind={kind} line={line} draft={draft} missing={now.missing} onPut={put} onPoint={point} />
        <Field
          label={`Wanted ${kind.figure}`}
          className="w-44"
          isNumber
          placeholder={kind.unit}
          value={draft.wanted}
          onChange={(e) => setDraft({ ...draft, wanted: e.target.value })}
        />
        <Field
          label="Within, %"
          className="w-20"
          isNumber
          inputMode="decimal"
          value={String(draft.withinPct)}
          onChange={(e) =>
            setDraft({ ...draft, withinPct: Math.max(0, Number(e.target.value.replace(",", ".")) || 0) })
          }
        />
        <Field
          label="Called"
          className="w-32"
          value={draft.name}
          onChange={(e) => setDraft({ ...draft, name: e.target.value })}
        />
      </div>
      <p className="mt-2" aria-live="polite">
        {now.result ? (
          <>
            The {kind.figure} is <b className="num">{figureWords(now.result.value, kind.unit)}</b>
            {now.isOff && <span className="text-stop">, outside of what is wanted</span>}
            {now.result.sigma > 0 && (
              <span className="text-ink-2">
                ; by tolerances {figureWords(now.result.worst[0], kind.unit)} to{" "}
                {figureWords(now.result.worst[1], kind.unit)}
                {now.result.outside !== undefined &&
                  `, ${figureWords(100 * now.result.outside, "%")} of the units outside`}
                {now.result.leads &&
                  `; most of it from the ${kind.inputs.find((i) => i.key === now.result!.leads!.key)!.label.toLowerCase()}`}
              </span>
            )}
            .{" "}
            {now.result.beside.map((b) => (
              <span key={b.label} className="mr-3 text-ink-2">
                {b.label} <span className="num text-ink">{figureWords(b.value, b.unit)}</span>
              </span>
            ))}
          </>
        ) : (
          <span className="text-ink-2">
            Still missing:{" "}
            {now.missing.map((k) => kind.inputs.find((i) => i.key === k)!.label.toLowerCase()).join(", ")}.
          </span>
        )}
        {solved !== undefined && Number.isFinite(solved) && solved > 0 && (
          <span className="block text-ink-2">
            For {draft.wanted} it takes {figureWords(solved, unit(kind.solve!.key))}; of the series{" "}
            {nearestPreferred(solved)
              .map(
                (v) =>
                  `${figureWords(v, unit(kind.solve!.key))} (${figureWords(kind.compute({ ...nominal, [kind.solve!.key]: v }), kind.unit)})`,
              )
              .join(" or ")}
            .
          </span>
        )}
      </p>
      <div className="mt-1 flex gap-3">
        <Button type="submit">Keep it with the lines</Button>
        <Button look="bare" onClick={onClose}>
          leave it
        </Button>
      </div>
    </form>
  );
}

/** What goes into a sum: lines of the bill where it is a part, typed amounts where it is not. */
function Inputs({
  kind,
  line,
  draft,
  missing,
  onPut,
  onPoint,
}: {
  kind: NonNullable<ReturnType<typeof sumKind>>;
  line: RunLine;
  draft: Draft;
  missing: readonly string[];
  onPut: (key: string, text: string) => void;
  onPoint: (key: string, lineId: string) => void;
}) {
  const { doc } = useRun();
  return (
    <>
      {kind.inputs.map((i) =>
        i.part ? (
          <Pick
            key={i.key}
            label={i.label}
            value={draft.lines[i.key] ?? ""}
            options={[
              ["", i.isOptional ? "none" : "choose a line"],
              ...linesFor(i.part, doc.lines, line.id, draft.lines[i.key]).map(
                (l) =>
                  [l.id, `${[...l.refs].sort(compareRefs).slice(0, 3).join(" ")} ${l.valueText}`.trim()] as [
                    string,
                    string,
                  ],
              ),
            ]}
            onChange={(v) => onPoint(i.key, v)}
          />
        ) : (
          <Field
            key={i.key}
            label={`${i.label}${i.isOptional ? " (if known)" : ""}`}
            className="w-36"
            isNumber
            placeholder={i.unit}
            value={draft.given[i.key] ?? ""}
            error={
              draft.given[i.key] && missing.includes(i.key)
                ? `write it like “3.3 ${i.unit}”`.trim()
                : undefined
            }
            onChange={(e) => onPut(i.key, e.target.value)}
          />
        ),
      )}
    </>
  );
}
