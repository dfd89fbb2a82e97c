import { type BesideTest, besidesWords, unitOf } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Mark } from "../../../ui/Mark.tsx";
import { day } from "../../../ui/text/format.ts";
import { useBesideTests } from "./useBesideTests.ts";

const IS: Readonly<Record<BesideTest["is"], string>> = {
  coming: "border-rule text-ink-2",
  due: "border-look text-look",
  pass: "border-fine text-fine",
  fail: "border-stop bg-stop-soft text-stop",
};
const SAYS: Readonly<Record<BesideTest["is"], string>> = {
  coming: "to come",
  due: "to be tried",
  pass: "passes",
  fail: "fails",
};

/** What is tried besides the bench: after days, in the cold, at a stranger's host; board by board with its day. */
export function BesideTests({
  onTry,
  only,
}: {
  onTry: ((unit: number, item: BesideTest["item"]) => void) | undefined;
  /** Of one board. */
  only?: number;
}) {
  const { doc } = useRun();
  const all = useBesideTests().filter((t) => only === undefined || t.unit === only);
  const items = [...new Set(all.map((t) => t.item))];
  if (items.length === 0) return null;
  const due = all.filter((t) => t.is === "due").length;
  return (
    <section aria-label="Besides the bench" className="mt-5">
      <h2 className="mb-1 text-[16px]">
        Besides the bench
        {due > 0 && (
          <span className="ml-3 text-[14.5px] font-normal text-look">
            <Mark kind="look" /> {due} to be tried by now
          </span>
        )}
      </h2>
      <table className="rows w-full text-[14.5px]" aria-label="Besides the bench">
        <tbody>
          {items.map((item) => (
            <tr key={item.id}>
              <td className="w-[14em]">
                <b>{item.name}</b>
              </td>
              <td className="w-[18em] text-ink-2">{besidesWords(item.besides ?? {})}</td>
              <td>
                <span className="flex flex-wrap gap-1.5">
                  {all
                    .filter((t) => t.item === item)
                    .map((t) => (
                      <button
                        key={t.unit}
                        type="button"
                        disabled={!onTry}
                        aria-label={`${item.name} of ${unitOf(doc)} ${t.unit} ${SAYS[t.is]}${t.is === "coming" ? ` from ${day(t.from)}` : ""}${onTry ? ": try it" : ""}`}
                        className={`rounded-[2px] border-[1.5px] px-2 py-0.5 text-[13.5px] ${IS[t.is]}`}
                        onClick={() => onTry?.(t.unit, item)}
                      >
                        <b className="num">{t.unit}</b>{" "}
                        {t.is === "coming" ? `from ${day(t.from)}` : SAYS[t.is]}
                      </button>
                    ))}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
