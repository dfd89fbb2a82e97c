import {
  HOLDS,
  type Hold,
  numberKey,
  ODD_WAYS,
  type OddWay,
  type RunAssembly,
  type RunDocument,
  type Step,
  type StepsDocument,
} from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Pick } from "../../../ui/Field.tsx";
import { useSay } from "../../../ui/toast/Toast.tsx";
import { typedRefs } from "./typedRefs.ts";

const ODD = [
  ["", "like the others"],
  ...(Object.keys(ODD_WAYS) as OddWay[]).map((k) => [k, ODD_WAYS[k].label] as const),
] as const;
const HELD = [
  ["", "held as its kind suggests"],
  ...(Object.keys(HOLDS) as Hold[]).map((k) => [k, HOLDS[k].label] as const),
] as const;

type Line = StepsDocument["steps"][number]["lines"][number];

const ofLibrary = (doc: RunDocument, line: Line): readonly string[] =>
  line.mpn === "" ? [] : (doc.library?.find((p) => numberKey(p.mpn) === numberKey(line.mpn))?.covers ?? []);

/** What a step's parts hide once they are on, and which of them wait for the test. */
export function Covers({ step, lines }: { step: Step; lines: readonly Line[] }) {
  const { doc, change } = useRun();
  const say = useSay();
  const { covers = {} } = doc.assembly;
  const later = new Set(doc.choices.steps?.afterTest ?? []);
  const said = lines.filter((l) => (covers[l.line] ?? []).length + ofLibrary(doc, l).length > 0).length;
  const keepCovers = (line: Line, text: string) => {
    const typed = typedRefs(text);
    if ("wrong" in typed) return say(typed.wrong, { isProblem: true, hint: "It stays as it was." });
    const { refs } = typed;
    if (refs.join(" ") === (covers[line.line] ?? []).join(" ")) return;
    const next: RunAssembly["covers"] = { ...covers, [line.line]: refs };
    change(
      { assembly: { covers: next } } as never,
      refs.length === 0 ? `${line.refs[0]} covers nothing` : `${line.refs[0]} covers ${refs.join(", ")}`,
    );
  };
  const set = (key: "odd" | "held", line: Line, value: string, words: string) => {
    const { [line.line]: _, ...rest } = (doc.assembly[key] ?? {}) as Record<string, string>;
    const next = value === "" ? rest : { ...rest, [line.line]: value };
    change({ assembly: { [key]: next } } as never, `${line.refs[0]}: ${words}`);
  };
  const wait = (line: Line, waits: boolean) => {
    const afterTest = waits ? [...later, line.line] : [...later].filter((l) => l !== line.line);
    const { school = "low", own } = doc.choices.steps ?? {};
    change(
      { steps: { school, ...(own ? { own } : {}), ...(afterTest.length > 0 ? { afterTest } : {}) } } as never,
      `${line.refs[0]} ${waits ? "waits for the test" : "goes on before the test again"}`,
    );
  };
  return (
    <details className="mt-1">
      <summary className="quiet-link cursor-pointer text-[14px]">
        what its parts cover{said > 0 ? ` (${said})` : ""}, what is soldered unlike the others
        {step.kind === "place" ? "" : ", held otherwise, waits for the test"}
      </summary>
      <ul className="mt-1">
        {lines
          .filter((l) => l.refs.length > 0)
          .map((l) => (
            <li key={l.line} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-[3px] text-[14px]">
              <span className="num w-[92px] truncate">{l.refs.join(" ")}</span>
              <label className="flex flex-1 items-center gap-2 text-ink-2">
                covers
                <input
                  key={(covers[l.line] ?? []).join(" ")}
                  className="num min-w-[110px] flex-1"
                  aria-label={`${l.refs[0]} covers`}
                  maxLength={400}
                  defaultValue={(covers[l.line] ?? []).join(" ")}
                  onBlur={(e) => keepCovers(l, e.target.value)}
                  onKeyDown={(e) => e.key === "Enter" && keepCovers(l, e.currentTarget.value)}
                />
              </label>
              {ofLibrary(doc, l).length > 0 && (
                <span className="text-ink-2">and, by the library, {ofLibrary(doc, l).join(" ")}</span>
              )}
              {step.kind !== "mechanical" && (
                <Pick
                  label={`${l.refs[0]} is soldered`}
                  hideLabel
                  className="min-w-[140px] flex-1"
                  value={doc.assembly.odd?.[l.line] ?? ""}
                  options={ODD}
                  onChange={(v) => set("odd", l, v, v === "" ? "as the others" : ODD_WAYS[v as OddWay].label)}
                />
              )}
              {step.kind === "iron" && (
                <Pick
                  label={`${l.refs[0]} is held by`}
                  hideLabel
                  className="min-w-[140px] flex-1"
                  value={doc.assembly.held?.[l.line] ?? ""}
                  options={HELD}
                  onChange={(v) =>
                    set(
                      "held",
                      l,
                      v,
                      v === "" ? "held as its kind suggests" : `held by: ${HOLDS[v as Hold].label}`,
                    )
                  }
                />
              )}
              {step.kind !== "place" && (
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    checked={later.has(l.line)}
                    onChange={(e) => wait(l, e.target.checked)}
                  />
                  after the test
                </label>
              )}
            </li>
          ))}
      </ul>
    </details>
  );
}
