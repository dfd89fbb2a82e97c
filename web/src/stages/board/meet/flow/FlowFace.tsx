import { type Flow, type FlowAsk, type FlowPlan, RISE_K, type RunBoard } from "@kobbin/core";
import { useState } from "react";
import { Missing } from "../../../../run/power/Missing.tsx";
import { Mark } from "../../../../ui/Mark.tsx";
import { Failed, Skeleton } from "../../../../ui/States.tsx";
import { Sum } from "../../../../ui/Sum.tsx";
import { Tab } from "../../../../ui/Tab.tsx";
import { fixed, mm, said, written } from "../../../../ui/text/format.ts";
import { FlowPicture } from "./FlowPicture.tsx";
import { amps, byNeed, DROP_SHARE, flowLook, kelvin, volts, warmest } from "./flowWords.ts";
import { Through } from "./Through.tsx";
import { useFlow } from "./useFlow.ts";

interface Followed {
  readonly ask: FlowAsk;
  readonly flow: Flow;
}

/** What flows in the copper of each supply and of its way back: how it is shared, what is lost, what gets warm. */
export function FlowFace({ board, boardId }: { board: RunBoard; boardId: string }) {
  const { plan, flows, error } = useFlow(board, boardId);
  if (!plan) return null;
  const list = byNeed(
    plan.asks.flatMap((ask, i): Followed[] => (flows?.[i] ? [{ ask, flow: flows[i] }] : [])),
  );
  return (
    <section aria-label="What flows in its copper" className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1 text-[17px]">What flows in its copper</h2>
      <p className="mb-2 max-w-[90ch] text-[14px] text-ink-2">
        With all that is known drawing at the most, in copper of{" "}
        {written(String(Math.round(plan.copper.outerMm * 1000)))} µm at 20 °C, as the layers have it.
      </p>
      {error ? (
        <Failed error={error} />
      ) : plan.asks.length === 0 ? (
        <p className="text-[14.5px] text-ink-2">
          Nothing is known to draw from a supply whose beginning is known: say what is put onto the connector
          that feeds the board, and what its parts draw.
        </p>
      ) : !flows ? (
        <div role="status" aria-label="Following the current">
          <Skeleton rows={4} />
        </div>
      ) : (
        <Found
          list={list}
          board={board}
          isLeast={(ask) => plan.isLeast || (ask.isReturn && plan.left.length > 0)}
        />
      )}
      <Through board={board} />
      <NotKnown plan={plan} board={board} />
    </section>
  );
}

function Found({
  list,
  board,
  isLeast,
}: {
  list: readonly Followed[];
  board: RunBoard;
  isLeast: (ask: FlowAsk) => boolean;
}) {
  const [chosen, setChosen] = useState<number>();
  const shown = list.find((f) => f.ask.net === chosen) ?? list[0]!;
  const [side, setSide] = useState<"top" | "bottom">();
  const first = shown.flow.stretches[0]?.layer === "bottom" ? "bottom" : "top";
  const up = side ?? first;
  return (
    <div className="flex flex-wrap items-start gap-x-8 gap-y-4">
      <table className="rows tight flex-1 text-[14.5px] sm:min-w-[420px]" aria-label="Currents by net">
        <thead>
          <tr>
            <th>Net</th>
            <th className="text-right">carries</th>
            <th className="text-right">loses, at the most</th>
            <th className="text-right">warms by</th>
          </tr>
        </thead>
        <tbody>
          {list.map((f) => (
            <Row
              key={f.ask.net}
              of={f}
              isLeast={isLeast(f.ask)}
              isShown={f === shown}
              onShow={() => {
                setChosen(f.ask.net);
                setSide(undefined);
              }}
            />
          ))}
        </tbody>
      </table>
      {shown.flow.reason === undefined && (
        <div>
          <div className="mb-1 flex gap-4 text-[14px]">
            <b>{shown.ask.name}</b>
            {(["top", "bottom"] as const).map((s) => (
              <Tab key={s} isOn={up === s} onClick={() => setSide(s)}>
                {s}
              </Tab>
            ))}
          </div>
          <FlowPicture board={board} flow={shown.flow} side={up} />
        </div>
      )}
      {shown.flow.reason === undefined && <Places of={shown} />}
    </div>
  );
}

function Row({
  of: { ask, flow: f },
  isLeast,
  isShown,
  onShow,
}: {
  of: Followed;
  isLeast: boolean;
  isShown: boolean;
  onShow: () => void;
}) {
  const look = flowLook(f, ask);
  const [most] = f.drops;
  return (
    <tr className={isShown ? "bg-metal-soft" : ""}>
      <td>
        <button type="button" className="quiet-link text-left" aria-pressed={isShown} onClick={onShow}>
          <b>{ask.name}</b>
        </button>{" "}
        <span className="text-[13px] text-ink-2">
          {ask.isReturn ? "back to" : "from"} {[...new Set(ask.entry.map((p) => p.ref))].join(", ")}
        </span>
      </td>
      {f.reason === undefined ? (
        <>
          <td className="num text-right">
            <Sum
              title={`what ${ask.name} carries`}
              terms={ask.taps.map((t) => ({
                label: t.ref,
                value: amps(t.ma),
                note: f.missed.includes(t.ref) ? "on no copper of the net: not counted" : undefined,
              }))}
              result={`${isLeast ? "at least " : ""}${amps(f.ma)}`}
            >
              {isLeast ? said("at least ") : ""}
              {amps(f.ma)}
            </Sum>
          </td>
          <td className={`num text-right ${look === "drop" ? "text-look" : ""}`}>
            {look === "drop" && <Mark kind="look" />}
            {most ? `${volts(most.mv)}, ${said("to")} ${most.ref}` : ""}
          </td>
          <td className={`num text-right ${look === "warm" ? "text-look" : ""}`}>
            {look === "warm" && <Mark kind="look" />}
            {kelvin(warmest(f))}
          </td>
        </>
      ) : (
        <td colSpan={3} className="text-look">
          {f.reason}
        </td>
      )}
    </tr>
  );
}

/** The warmest places of a net, the warmest hole, and how its contacts share. */
function Places({ of: { ask, flow: f } }: { of: Followed }) {
  const [hole] = f.holes;
  const shared = f.entries.length > 1;
  return (
    <div className="w-full">
      <table className="rows tight text-[14.5px]" aria-label={`Warmest copper of ${ask.name}`}>
        <thead>
          <tr>
            <th />
            <th>Where it is warmest</th>
            <th className="text-right">carries</th>
            <th className="text-right">warms by</th>
            <th className="text-right">{said(`takes for ${RISE_K} K`)}</th>
          </tr>
        </thead>
        <tbody>
          {f.stretches.slice(0, 5).map((s, k) => (
            <tr key={`${s.x1} ${s.y1} ${s.x2} ${s.y2}`}>
              <td className="num text-ink-2">{k + 1}</td>
              <td>
                track of {mm(s.widthMm)} mm, {s.layer}, {fixed(s.lengthMm, 1)} mm long
              </td>
              <td className="num text-right">{amps(s.ma)}</td>
              <td className="num text-right">{kelvin(s.riseK)}</td>
              <td className="num text-right">{amps(s.takesMa)}</td>
            </tr>
          ))}
          {hole && (
            <tr>
              <td className="num text-ink-2">○</td>
              <td>hole of {mm(hole.diameterMm)} mm</td>
              <td className="num text-right">{amps(hole.ma)}</td>
              <td className="num text-right">{kelvin(hole.riseK)}</td>
              <td className="num text-right">{amps(hole.takesMa)}</td>
            </tr>
          )}
        </tbody>
      </table>
      {shared && (
        <p className="mt-1 max-w-[90ch] text-[14px] text-ink-2">
          Its contacts share it by the copper behind each:{" "}
          <span className="num">{f.entries.map((e) => `${e.ref}.${e.pin} ${amps(e.ma)}`).join(" · ")}</span>.
        </p>
      )}
      {f.missed.length > 0 && (
        <p className="mt-1 text-[14px] text-look">
          On no copper of {ask.name} that is reached, and not counted: {f.missed.join(", ")}.
        </p>
      )}
    </div>
  );
}

/** What every figure above hangs on, and what it does not say. */
function NotKnown({ plan, board }: { plan: FlowPlan; board: RunBoard }) {
  return (
    <>
      {plan.left.length > 0 && (
        <p className="mt-2 max-w-[90ch] text-[14px] text-look">Not followed: {said(plan.left.join("; "))}.</p>
      )}
      {plan.assumed.length > 0 && (
        <p className="mt-1 max-w-[90ch] text-[14px] text-ink-2">
          Taken for so: {said(plan.assumed.join("; "))}.
        </p>
      )}
      <p className="mt-1 max-w-[90ch] text-[13.5px] text-ink-2">
        A track is judged by the fit of IPC-2221 (recalled), a quick screen: copper beside it cools it, warm
        parts warm it. {RISE_K} K and {fixed(100 * DROP_SHARE, 0)} % of the volts are told; what your parts
        bear decides.
      </p>
      <Missing board={board} refs={plan.unknown} />
    </>
  );
}
