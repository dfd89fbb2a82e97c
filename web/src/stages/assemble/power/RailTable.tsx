import type { FirstPowerCard, RailCard } from "@kobbin/core";
import { FEED_WORDS } from "../../../run/feedWords.ts";
import { Sum } from "../../../ui/Sum.tsx";
import { said, written } from "../../../ui/text/format.ts";

const n = (x: number) => written(String(Number(x.toPrecision(3))));
/** Ohm with its prefix. */
const ohm = (x: number) => (x >= 1e6 ? `${n(x / 1e6)} MΩ` : x >= 1000 ? `${n(x / 1000)} kΩ` : `${n(x)} Ω`);

/** Each rail: what a meter shows before power, what is drawn, each with its sum. */
export function RailTable({ card }: { card: FirstPowerCard }) {
  return (
    <table className="rows w-full text-[14.5px]" aria-label="Rails">
      <thead>
        <tr>
          <th />
          <th>Rail</th>
          <th>Read at</th>
          <th className="text-right">Before power, to ground</th>
          <th className="text-right">Draws at rest</th>
          <th className="text-right">at the most</th>
          <th className="text-right">Then reads</th>
        </tr>
      </thead>
      <tbody>
        {card.rails.map((r, i) => (
          <tr key={r.nets.join(" ")}>
            <td className="num text-ink-2">{i + 1}</td>
            <td>
              <b>{r.name}</b>
              <span className="block text-[13px] text-ink-2">
                {r.over
                  ? `over ${r.over.ref}, ${FEED_WORDS[r.over.kind]}`
                  : r.isFed
                    ? "fed from outside"
                    : "not known what feeds it"}
              </span>
            </td>
            <td className="num">{card.reads[i] ?? "–"}</td>
            <td className="num text-right">
              <Before r={r} />
            </td>
            <td className="num text-right">
              <Drawn card={card} at={i} of="restMa" />
            </td>
            <td className="num text-right">
              <Drawn card={card} at={i} of="mostMa" />
            </td>
            <td className="num text-right">
              {r.reads
                ? `${n(r.reads[0])} to ${n(r.reads[1])} V${r.isByName ? " by its name" : ""}`
                : "not known"}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Before({ r }: { r: RailCard }) {
  if (r.leastOhm === undefined) return <>not known</>;
  return (
    <Sum
      title={`${r.name} to ground before power`}
      formula="volts / limit"
      terms={[
        {
          label: "volts of the rail",
          value: `${n(r.volts!)} V`,
          note: r.isByName ? "by its name" : undefined,
        },
        {
          label: "limit for it",
          value: `${r.limitMa} mA`,
          note: "with less than that resistance the supply would be in its limit",
        },
        ...(r.mostOhm === undefined
          ? []
          : [
              {
                label: "no more than its resistors let through",
                value: ohm(r.mostOhm),
                note: "a tenth for resistors and meter",
              },
            ]),
      ]}
      result={`at least ${ohm(r.leastOhm)}`}
    >
      {r.mostOhm === undefined ? `at least ${ohm(r.leastOhm)}` : `${ohm(r.leastOhm)} to ${ohm(r.mostOhm)}`}
    </Sum>
  );
}

/** What passes through a rail, as a sum of what hangs on it and on what it feeds. */
function Drawn({ card, at, of }: { card: FirstPowerCard; at: number; of: "restMa" | "mostMa" }) {
  const r = card.rails[at]!;
  const below = card.rails.filter((x) => x.over?.from === at);
  const own = r.own.loads.filter((l) => l[of] > 0);
  const total = `${r.unknown.length > 0 ? "at least " : ""}${n(r[of])} mA`;
  return (
    <Sum
      title={`${r.name}, ${of === "restMa" ? "at rest" : "at the most"}`}
      terms={[
        ...own.map((l) => ({ label: l.refs.join(" "), value: `${n(l[of])} mA`, note: said(l.because) })),
        ...below.map((x) => ({
          label: `over ${x.over!.ref} to ${x.name}`,
          value: `${n(x[of])} mA`,
          note: "as below",
        })),
        ...(r.unknown.length > 0
          ? [{ label: r.unknown.join(", "), value: "?", note: "nothing is known of it" }]
          : []),
      ]}
      result={total}
    >
      {total}
    </Sum>
  );
}
