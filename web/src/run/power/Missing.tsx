import { type LibraryPart, numberKey, type RunBoard, type RunLine } from "@kobbin/core";
import { savePart } from "../../resources/library.ts";
import { refetchRun } from "../../resources/run.ts";
import { Kept } from "../../ui/Kept.tsx";
import { typedNumber } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { useRun } from "../runState.ts";

/** Parts of which nothing is known of what they draw, to be said in place: it is kept in the library, for every run. */
export function Missing({ board, refs }: { board: RunBoard | undefined; refs: readonly string[] }) {
  const { id, doc, isLocked } = useRun();
  const say = useSay();
  const sayError = useSayError();
  const unknown = new Set(refs);
  const lines = doc.lines.filter(
    (l) => (l.board === undefined || l.board === board?.id) && l.refs.some((r) => unknown.has(r)),
  );
  if (unknown.size === 0 || isLocked) return null;
  const save = (part: LibraryPart, key: "restMa" | "mostMa", typed: string) => {
    const clean = typedNumber(typed.trim());
    const value = Number(clean);
    if (clean !== "" && !(value >= 0 && value <= 1e6))
      return say(`“${typed}” is no current in mA.`, { isProblem: true, hint: "It stays as it was." });
    savePart(part.id, { [key]: clean === "" ? null : value })
      .then(() => refetchRun(id))
      .catch(sayError);
  };
  return (
    <section aria-label="What is not known of what draws" className="mt-3">
      <h2 className="text-[15px]">What these draw is not known</h2>
      <ul className="mt-1 grid grid-cols-2 gap-x-8 gap-y-2 max-lg:grid-cols-1">
        {lines.map((l) => {
          const part = doc.library?.find((p) => isOf(l, p));
          return (
            <li
              key={l.id}
              className="grid grid-cols-[minmax(0,1fr)_7.5em_7.5em] items-end gap-3 text-[14.5px]"
            >
              <span className="min-w-0 pb-1">
                <b className="num">{l.refs.filter((r) => unknown.has(r)).join(" ")}</b> {l.valueText}
                <span className="block truncate text-[13px] text-ink-2">{l.description || l.mpn}</span>
              </span>
              {part ? (
                <>
                  <Kept label="at rest, mA" isMono value="" onSave={(v) => save(part, "restMa", v)} />
                  <Kept label="at the most, mA" isMono value="" onSave={(v) => save(part, "mostMa", v)} />
                </>
              ) : (
                <span className="col-span-2 pb-1 text-[13.5px] text-ink-2">
                  not in the library: take it in under Parts
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const isOf = (l: RunLine, p: LibraryPart) => l.mpn !== "" && numberKey(l.mpn) === numberKey(p.mpn);
