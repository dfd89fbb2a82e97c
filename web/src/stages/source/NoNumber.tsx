import {
  ASSUMED,
  type ClassRules,
  candidatesFor,
  type RuleClass,
  type RuleKind,
  ruleLines,
  SETTLED,
  usualRules,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { undoChange } from "../../resources/history.ts";
import { saveShop, useRole, useShop } from "../../resources/session.ts";
import { NumbersDialog } from "../../run/NumbersDialog.tsx";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

const WORDS: Readonly<Record<RuleKind, readonly [one: string, many: string]>> = {
  resistor: ["resistor", "resistors"],
  capacitor: ["capacitor", "capacitors"],
  lamp: ["lamp", "lamps"],
  connector: ["row of pins", "rows of pins"],
};

/**
 * Lines that name no part, class by class: what is taken where they do not say it, confirmed once for every product, and
 * for how many of them a supplier has something that is known to do.
 */
export function NoNumber() {
  const { doc, answer, isLocked } = useRun();
  const isOwner = useRole() === "owner";
  const shop = useShop();
  const say = useSay();
  const sayError = useSayError();
  const { classes, tooLittle } = useMemo(() => ruleLines(doc), [doc]);
  const [typed, setTyped] = useState<ClassRules>({});
  const [isPasting, setPasting] = useState(false);
  const [isShown, setShown] = useState(false);
  const [changing, setChanging] = useState<RuleKind>();
  if (classes.length === 0 && tooLittle.length === 0) return null;
  const open = classes.filter((c) => !c.isConfirmed);
  const fieldsOf = (kind: RuleKind) => ({
    ...usualRules(kind),
    ...doc.workshop.rules?.[kind],
    ...typed[kind],
  });
  const take = (kinds: readonly RuleKind[]) => {
    const rules = { ...shop.rules, ...Object.fromEntries(kinds.map((k) => [k, fieldsOf(k)])) };
    const done = saveShop({ version: shop.version, rules });
    done.then(({ changeId }) => {
      setChanging(undefined);
      setTyped({});
      say(`Taken for every product: ${kinds.map((k) => WORDS[k][1]).join(", ")}`, {
        ...(changeId ? { undo: () => void undoChange(changeId).catch(sayError) } : {}),
      });
    }, sayError);
  };
  const canChange = isOwner && !isLocked;
  return (
    <section aria-labelledby="no-number" className="mb-5 border-l-[3px] border-metal bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 id="no-number">
          {count(
            classes.reduce((n, c) => n + c.lines.length, tooLittle.length),
            "line",
          )}{" "}
          without a part number
        </h2>
        {canChange && (
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => setPasting(true)}>Paste numbers</Button>
            {open.length > 1 && (
              <Button look={answer.askedAt ? "main" : "plain"} onClick={() => take(open.map((c) => c.kind))}>
                Take all of these as they stand
              </Button>
            )}
          </div>
        )}
      </div>
      <p className="mb-2 max-w-[70ch] text-[14px] text-ink-2">
        Any part will do that is known to have what the line says, and this where it says nothing. The
        cheapest for the whole basket is bought; what a supplier does not state is never taken.
      </p>
      {/* what is settled steps back; what is open, or cannot be had, stands there */}
      <details open={isShown || open.length > 0} onToggle={(e) => setShown(e.currentTarget.open)}>
        <summary className="text-[14px]">
          {open.length > 0 ? "what is taken where a line does not say it" : "taken by the shop's rules"}
        </summary>
        <table className="rows w-full">
          <tbody>
            {classes.map((c) => {
              const isOpen = canChange && (!c.isConfirmed || changing === c.kind);
              return (
                <tr key={c.kind} className="align-top max-sm:grid max-sm:gap-1 max-sm:py-2">
                  <td className="w-40 max-sm:w-auto">
                    <b>
                      {c.lines.length} {WORDS[c.kind][c.lines.length === 1 ? 0 : 1]}
                    </b>
                    <Does of={c} fields={fieldsOf(c.kind)} wasAsked={answer.askedAt !== undefined} />
                  </td>
                  <td>
                    <div className="flex flex-wrap gap-x-4 gap-y-1">
                      {ASSUMED[c.kind].map((f) =>
                        isOpen ? (
                          <label key={f.key} className="text-[13px] text-ink-2">
                            {f.label}
                            <input
                              className="num ml-2"
                              size={Math.max(6, (fieldsOf(c.kind)[f.key] ?? "").length + 1)}
                              value={fieldsOf(c.kind)[f.key] ?? ""}
                              placeholder="any"
                              onChange={(e) =>
                                setTyped({
                                  ...typed,
                                  [c.kind]: { ...fieldsOf(c.kind), [f.key]: e.target.value },
                                })
                              }
                            />
                          </label>
                        ) : (
                          <span key={f.key} className="text-[14px] text-ink-2">
                            {f.label} <span className="num text-ink">{fieldsOf(c.kind)[f.key] || "any"}</span>
                          </span>
                        ),
                      )}
                      {SETTLED[c.kind] && (
                        <span className="self-center text-[13px] text-ink-2">{SETTLED[c.kind]}</span>
                      )}
                    </div>
                  </td>
                  <td className="w-28 text-right whitespace-nowrap max-sm:w-auto max-sm:text-left">
                    {isOpen ? (
                      <Button onClick={() => take([c.kind])}>Take {WORDS[c.kind][1]}</Button>
                    ) : canChange ? (
                      <button type="button" className="quiet-link" onClick={() => setChanging(c.kind)}>
                        change
                      </button>
                    ) : (
                      <span className="text-[13px] text-ink-2">
                        {c.isConfirmed ? "taken" : "an owner confirms"}
                      </span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </details>
      {tooLittle.length > 0 && (
        <p className="mt-2 flex items-baseline gap-2 text-[14px]">
          <Mark kind="look" />
          <span>
            {tooLittle.length === 1 ? "One says" : `${tooLittle.length} say`} too little to be asked for:{" "}
            {tooLittle
              .slice(0, 6)
              .map((t) => `${t.line.refs[0] ?? t.line.valueText}: ${t.why}`)
              .join("; ")}
            {tooLittle.length > 6 ? " …" : ""}.
          </span>
        </p>
      )}
      {isPasting && <NumbersDialog onClose={() => setPasting(false)} />}
    </section>
  );
}

/** For how many lines of a class something is known to do, with the assumptions as they stand in the fields. */
function Does({
  of,
  fields,
  wasAsked,
}: {
  of: RuleClass;
  fields: Readonly<Record<string, string>>;
  wasAsked: boolean;
}) {
  const { doc } = useRun();
  const none = useMemo(() => {
    const named = new Set(doc.offers.flatMap((o) => (o.part ? [`${o.line} ${o.part}`] : [])));
    const rules = { ...doc.workshop.rules, [of.kind]: fields };
    return of.lines.filter(
      ({ line }) =>
        !doc.offers.some((o) => o.line === line.id && o.part === undefined) &&
        !candidatesFor(line, doc.library ?? [], doc.alternates ?? [], { rules }).some(
          (c) => c.isUsable && named.has(`${line.id} ${c.part.id}`),
        ),
    );
  }, [doc, of, fields]);
  if (!wasAsked) return <span className="block text-[12.5px] text-ink-2">suppliers were not asked yet</span>;
  return (
    <span className={`block text-[12.5px] leading-tight ${none.length > 0 ? "text-look" : "text-ink-2"}`}>
      {none.length === 0
        ? "parts for all of them"
        : `nothing known to do for ${none
            .slice(0, 3)
            .map((l) => l.line.refs[0] ?? l.line.valueText)
            .join(", ")}${none.length > 3 ? " …" : ""}`}
    </span>
  );
}
