import type { tallyOf } from "@kobbin/core";
import { count } from "../../ui/text/format.ts";

type Tally = ReturnType<typeof tallyOf>;

/** More of them are told in words only. */
const MOST_DRAWN = 400;

const LOOKS = {
  good: "border-fine bg-fine",
  scrapped: "border-stop bg-stop-soft text-stop",
  open: "border-metal bg-metal-soft",
  planned: "border-rule bg-transparent",
} as const;

/** Every board of the run as a small one: good, scrapped, at work, not begun; a board is in one place only. */
export function Boards({
  tally: t,
  planned,
  wanted,
  unit,
}: {
  tally: Tally;
  planned: number;
  wanted: number;
  unit: string;
}) {
  const rest = Math.max(0, planned - t.started);
  const groups = [
    ["good", t.good, "good"],
    ["open", t.open, "at work"],
    ["scrapped", t.scrapped, "scrapped"],
    ["planned", rest, "not started"],
  ] as const;
  const whole = t.started + rest;
  return (
    <div className="my-4">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="num text-[44px] leading-none font-bold tracking-tight">{t.good}</span>
        <span className="text-[17px] text-ink-2">
          good of {wanted} wanted{t.reworked > 0 ? `, ${t.reworked} of them or others mended` : ""}
        </span>
      </p>
      {whole <= MOST_DRAWN && (
        <div
          role="img"
          aria-label={groups
            .filter(([, n]) => n > 0)
            .map(([, n, words]) => `${n} ${words}`)
            .join(", ")}
          className="mt-3 flex flex-wrap gap-[5px]"
        >
          {groups.flatMap(([key, n]) =>
            Array.from({ length: n }, (_, i) => (
              <span
                key={`${key} ${String(i)}`}
                className={`grid h-[18px] w-[26px] place-items-center border-[1.5px] text-[13px] leading-none font-bold ${LOOKS[key]}`}
              >
                {key === "scrapped" ? "×" : ""}
              </span>
            )),
          )}
        </div>
      )}
      <dl className="mt-3 flex flex-wrap gap-x-8 gap-y-1">
        {groups.map(([key, n, words]) => (
          <div key={key} className="flex items-center gap-2">
            <dt className="order-2 text-ink-2">{words}</dt>
            <dd className="num text-[19px] font-bold">
              <span
                aria-hidden
                className={`mr-2 inline-block h-[12px] w-[17px] border-[1.5px] ${LOOKS[key]}`}
              />
              {n}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-[14px] text-ink-2">
        {count(planned, unit)} to start were planned.
        {t.minutes > 0 && ` ${hours(t.minutes)} of own work so far.`}
      </p>
    </div>
  );
}

/** "1 h 25 min". */
export const hours = (minutes: number): string => {
  const [h, m] = [Math.floor(minutes / 60), Math.round(minutes % 60)];
  return [...(h > 0 ? [`${h} h`] : []), ...(m > 0 || h === 0 ? [`${m} min`] : [])].join(" ");
};
