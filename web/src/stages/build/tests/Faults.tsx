import { classOf, type Defect, defectRates, pareto, photosOfUnit, unitOf, wilson } from "@kobbin/core";
import { useState } from "react";
import { Link } from "react-router";
import { Photos } from "../../../photos/Photos.tsx";
import { removeDefect, saveDefect } from "../../../resources/record.ts";
import { WriteDown } from "../../../run/learn/WriteDown.tsx";
import { useRun } from "../../../run/runState.ts";
import { Kept } from "../../../ui/Kept.tsx";
import { count, day, fixed, typedNumber, written } from "../../../ui/text/format.ts";
import { useSay, useSayError } from "../../../ui/toast/Toast.tsx";
import { Bridge } from "./Bridge.tsx";
import { wentWrong } from "./faultLesson.ts";

const NONE: readonly Defect[] = [];

/** What was found wrong: how often of what, on how many boards, each with what became of it. */
export function Faults({ mayWrite, only }: { mayWrite: boolean; only?: number }) {
  const { doc, record } = useRun();
  const [learning, setLearning] = useState<Defect>();
  const list = (record.defects ?? NONE).filter((d) => only === undefined || d.unit === only);
  if (list.length === 0) return null;
  return (
    <section aria-label="What was found wrong" className="mt-5">
      <h2 className="mb-1 text-[16px]">What was found wrong</h2>
      {only === undefined && <Often list={list} />}
      <table className="rows w-full text-[14.5px]" aria-label="Each that was found wrong">
        <tbody>
          {list.map((d) => (
            <Row
              key={d.id}
              defect={d}
              mayWrite={mayWrite}
              isAlone={only !== undefined}
              onLearn={setLearning}
            />
          ))}
        </tbody>
      </table>
      {learning && <WriteDown of={wentWrong(doc, learning)} onClose={() => setLearning(undefined)} />}
    </section>
  );
}

/** Boards that were begun at the bench: of the others nothing is known. */
function useLooked(): number {
  const { record } = useRun();
  const units = [
    ...(record.sittings ?? []).flatMap((s) => (s.unit > 0 ? [s.unit] : [])),
    ...(record.tries ?? []).map((t) => t.unit),
    ...(record.defects ?? []).map((d) => d.unit),
  ];
  return new Set(units).size;
}

const WIDE = 430;
const BAR = 24;

/** Codes by how often, each bar with what it and those before it make up; then what that is a board. */
function Often({ list }: { list: readonly Defect[] }) {
  const { doc, result } = useRun();
  const looked = useLooked();
  const unit = unitOf(doc);
  const ours = result.parts.filter((p) => p.method !== "house");
  const joints = ours.reduce((n, p) => n + p.count * p.joints, 0);
  const refs = new Set(ours.flatMap((p) => p.line.refs));
  // of our own joints alone, as the joints they are set against
  const bad = list.filter((d) => classOf(d.code) === "joint" && refs.has(d.at.split(/[. ]/)[0]!)).length;
  const rates = defectRates(list.length, looked, 0);
  const perMillion = defectRates(bad, looked, joints)?.perMillion;
  const bars = pareto(list.map((d) => d.code)).slice(0, 8);
  const most = bars[0]?.n ?? 1;
  const clean = looked - new Set(list.map((d) => d.unit)).size;
  const [low, high] = wilson(clean, looked);
  return (
    <div className="mb-3 flex flex-wrap items-start gap-x-8 gap-y-2">
      <svg
        width={WIDE}
        height={bars.length * BAR + 4}
        className="max-w-full"
        role="img"
        aria-label={`How often: ${bars.map((b) => `${b.name} ${b.n}`).join(", ")}`}
      >
        {bars.map((b, i) => (
          <g key={b.name} transform={`translate(0 ${i * BAR})`}>
            <text x="0" y="16" fontSize="13.5" fill="var(--ink)">
              {b.name}
            </text>
            <rect x="132" y="4" width={Math.max(2, (190 * b.n) / most)} height="15" fill="var(--metal)" />
            <text x={138 + (190 * b.n) / most} y="16" fontSize="13.5" fontWeight="700" fill="var(--ink)">
              {b.n}
            </text>
            <text x={WIDE} y="16" fontSize="12.5" textAnchor="end" fill="var(--ink-2)">
              {fixed(100 * b.upTo, 0)} %
            </text>
          </g>
        ))}
      </svg>
      {rates && (
        <p className="max-w-[40ch] text-[14.5px]">
          <b className="num text-[19px]">{fixed(rates.perUnit, 2)}</b> a {unit}, {count(list.length, "fault")}{" "}
          on {looked} begun
          {perMillion === undefined ? "" : `; ${fixed(perMillion, 0)} of a million of our joints`}.
          <span className="block text-ink-2">
            {clean} of {looked} without any: between {fixed(100 * low, 0)} and {fixed(100 * high, 0)} % is
            what so few can say.
          </span>
        </p>
      )}
    </div>
  );
}

function Row({
  defect: d,
  mayWrite,
  isAlone,
  onLearn,
}: {
  defect: Defect;
  mayWrite: boolean;
  isAlone: boolean;
  onLearn: (d: Defect) => void;
}) {
  const { id, doc, record } = useRun();
  const photos = photosOfUnit(record, d.unit).filter((p) => p.defect === d.id);
  const say = useSay();
  const sayError = useSayError();
  const [isOpen, setOpen] = useState(false);
  const isBridge = d.code === "bridge" && !d.isMended;
  const name = `${unitOf(doc)} ${d.unit}${d.at ? `, ${d.at}` : ""}: ${d.code}`;
  const minutes = (typed: string) => {
    const clean = typedNumber(typed.trim());
    const n = Number(clean);
    if (clean !== "" && !(n >= 0 && n <= 10_000))
      return say(`“${typed}” is no number of minutes.`, { isProblem: true, hint: "It stays as it was." });
    saveDefect(id, d.id, { minutes: clean === "" ? null : n }).catch(sayError);
  };
  return (
    <>
      <tr>
        {!isAlone && (
          <td>
            <Link to={`?view=board&unit=${d.unit}`} className="quiet-link">
              {unitOf(doc)} <b className="num">{d.unit}</b>
            </Link>
          </td>
        )}
        <td className="num font-semibold">{d.at || "the board"}</td>
        <td>
          {d.code} <span className="text-[13px] text-ink-2">{classOf(d.code)}</span>
        </td>
        <td className="w-[7em]">
          {mayWrite ? (
            <Kept
              label={`Minutes for ${name}`}
              isLabelHidden
              isMono
              placeholder="min"
              value={d.minutes === undefined ? "" : written(String(d.minutes))}
              onSave={minutes}
            />
          ) : (
            <span className="num">{d.minutes === undefined ? "" : `${written(String(d.minutes))} min`}</span>
          )}
        </td>
        <td>
          {mayWrite ? (
            <button
              type="button"
              className="quiet-link"
              aria-label={`${name}: ${d.isMended ? "not mended after all" : "it is mended"}`}
              aria-expanded={isBridge ? isOpen : undefined}
              onClick={() =>
                // a bridge that looks gone is measured first
                isBridge ? setOpen(!isOpen) : saveDefect(id, d.id, { isMended: !d.isMended }).catch(sayError)
              }
            >
              {d.isMended ? "mended" : "mended?"}
            </button>
          ) : d.isMended ? (
            "mended"
          ) : (
            ""
          )}
        </td>
        <td className="text-right text-[13.5px] text-ink-2">
          {day(d.on)}, {d.person}
        </td>
        {(mayWrite || photos.length > 0) && (
          <td>
            <Photos of={{ defect: d.id, unit: d.unit }} what={name} list={photos} mayAdd={mayWrite} isShort />
          </td>
        )}
        {mayWrite && (
          <td className="text-right whitespace-nowrap">
            <button
              type="button"
              className="quiet-link mr-4"
              aria-label={`${name}: so that it costs once`}
              onClick={() => onLearn(d)}
            >
              so that it costs once
            </button>
            <button
              type="button"
              className="quiet-link"
              aria-label={`${name} is no fault after all`}
              onClick={() => removeDefect(id, d.id).catch(sayError)}
            >
              no fault
            </button>
          </td>
        )}
      </tr>
      {isBridge && isOpen && (
        <tr>
          <td colSpan={8}>
            <Bridge defect={d} onDone={() => setOpen(false)} />
          </td>
        </tr>
      )}
      {d.note && (
        <tr>
          <td colSpan={8} className="text-[13.5px] text-ink-2">
            {d.note}
          </td>
        </tr>
      )}
    </>
  );
}
