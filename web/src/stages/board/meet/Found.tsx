import { type Decoupled, type Floating, NEAR_MM } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { count, fixed } from "../../../ui/text/format.ts";
import type { BoardView } from "../useBoardView.ts";

/** What of the supplies is dangerous or missing. */
export function Told({
  list,
}: {
  list: readonly { readonly text: string; readonly do: string; readonly kind: string }[];
}) {
  if (list.length === 0) return null;
  return (
    <ul className="mt-2 max-w-[90ch] text-[14.5px]">
      {list.map((f) => (
        <li key={f.text} className="py-1">
          <span className={f.kind === "cell-fed" || f.kind === "two-sources" ? "text-stop" : "text-look"}>
            {f.text}
          </span>{" "}
          {f.do}
        </li>
      ))}
    </ul>
  );
}

/** Capacitors by each chip's supply: how many for how many pins, and how near. */
export function Decoupling({ list }: { list: readonly Decoupled[] }) {
  const { doc } = useRun();
  if (list.length === 0) return null;
  const valueTextOf = (ref: string) => doc.lines.find((l) => l.refs.includes(ref))?.valueText ?? "";
  return (
    <section aria-label="Capacitors at supply pins" className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1 text-[17px]">Capacitors at supply pins</h2>
      <p className="mb-1 text-[14px] text-ink-2">To ground, within {NEAR_MM} mm of a supply pin.</p>
      <table className="rows tight text-[14.5px]">
        <tbody>
          {list.map((d) => (
            <tr key={`${d.ref} ${d.net}`}>
              <td className="num">{d.ref}</td>
              <td className="num text-ink-2">{d.net}</td>
              <td className="whitespace-nowrap">{count(d.pins, "pin")}</td>
              <td className={d.by.length === 0 ? "text-look" : "num text-[13.5px]"}>
                {d.by.length === 0
                  ? "none"
                  : d.by
                      .map((c) =>
                        [c.ref, valueTextOf(c.ref), `at ${fixed(c.mm, 1)}`].filter(Boolean).join(" "),
                      )
                      .join(" · ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Control inputs that nothing holds. */
export function Floats({ floats, onShow }: { floats: readonly Floating[]; onShow: BoardView["show"] }) {
  return (
    <section aria-label="What floats" className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1 text-[17px]">What floats</h2>
      {floats.length === 0 ? (
        <p className="text-[14.5px] text-ink-2">
          Every gate, enable and reset that the names tell is held to a rail by a resistor.
        </p>
      ) : (
        <ul className="max-w-[90ch] text-[14.5px]">
          {floats.map((f) => (
            <li key={`${f.ref}.${f.pin}`} className="py-1">
              {f.text} {f.do}{" "}
              <button type="button" className="quiet-link" onClick={() => onShow(f.at, `float ${f.ref}`)}>
                show
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
