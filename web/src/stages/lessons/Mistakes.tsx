import type { MistakesOfYear } from "@kobbin/contract";
import { useSession } from "../../resources/session.ts";
import { count, day, fromMicros, money, written } from "../../ui/text/format.ts";
import { costsOf, type MistakeCost } from "./mistakeCosts.ts";

const WIDE = 220;

/** What the mistakes of a year cost, by what kind they were: own minutes at the shop's hour, boards that were given up. */
export function Mistakes({ mistakes: m }: { mistakes: MistakesOfYear }) {
  const shop = useSession().data?.shop;
  if (!shop) return null;
  const rows = costsOf(m, Number(shop.hourlyRate), shop.currency);
  if (rows.length === 0) return null;
  const most = Math.max(...rows.map((r) => r.cost), 1);
  const total = rows.reduce((n, r) => n + r.cost, 0);
  const isLeast = rows.some((r) => r.unknown > 0);
  return (
    <section aria-labelledby="mistakes" className="mt-7">
      <h2 id="mistakes" className="mb-1 text-[16px]">
        What mistakes cost since {day(m.since)}
      </h2>
      <p className="mb-2 text-[14.5px]">
        {isLeast ? "At least " : ""}
        <b className="num text-[19px]">{money(fromMicros(total), shop.currency)}</b>: own minutes at{" "}
        {money(Number(shop.hourlyRate), shop.currency)} an hour, and boards that were given up
        {m.claims > 0 ? `; ${count(m.claims, "claim")} ${m.claims === 1 ? "was" : "were"} written` : ""}.
      </p>
      <table className="rows w-full max-w-[760px] text-[14.5px]" aria-label="What mistakes cost">
        <tbody>
          {rows.map((r) => (
            <tr key={r.name}>
              <td className="w-[13em] font-semibold">{r.name}</td>
              <td>
                <svg width={WIDE} height="14" className="block" aria-hidden="true">
                  <rect
                    x="0"
                    y="2"
                    width={Math.max(2, (WIDE * r.cost) / most)}
                    height="10"
                    fill="var(--metal)"
                  />
                </svg>
              </td>
              <td className="num text-right whitespace-nowrap">
                {r.unknown === r.n ? "not known" : money(fromMicros(r.cost), shop.currency)}
              </td>
              <td className="text-[13.5px] text-ink-2">{saysOf(r)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const saysOf = (r: MistakeCost): string =>
  [
    count(r.n, r.isBoards ? "board" : "fault"),
    r.minutes > 0 && `${written(String(Math.round(r.minutes)))} min`,
    r.unknown > 0 &&
      `${r.unknown} without ${r.isBoards && r.minutes === 0 ? "a price" : "minutes"}, not counted`,
  ]
    .filter(Boolean)
    .join(", ");
