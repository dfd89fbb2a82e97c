import type { Covering, LaidOut, PanelOffers } from "@kobbin/core";
import { type RefObject, useEffect, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { count, mm, money } from "../../ui/text/format.ts";
import type { PanelConnection } from "../../workers/panel.ts";

/** Several designs: whether one layout for all of them is the cheapest, or sheets of several, and what is over with each. */
export function Layouts({
  worker,
  offers,
}: {
  worker: RefObject<PanelConnection | undefined>;
  offers: PanelOffers;
}) {
  const { doc } = useRun();
  const [made, setMade] = useState<{ readonly of: typeof doc; readonly cover?: Covering | undefined }>();
  useEffect(() => {
    let isCurrent = true;
    const kept = doc.choices.panel;
    const mixed = [...(kept ? [kept] : []), ...offers.proposals.map((p) => p.choice)];
    worker.current?.covering(doc, mixed).then((cover) => isCurrent && setMade({ of: doc, cover }));
    return () => {
      isCurrent = false;
    };
  }, [doc, offers, worker]);
  const cover = made?.of === doc ? made.cover : undefined;
  if (!cover) return null;
  const { one, several, currency, names } = cover;
  const saved = several ? one.cost - several.cost : 0;
  const isOne = !several || saved < 0.005;
  const others =
    several?.layouts.length === 1 ? "another sheet" : count(several?.layouts.length ?? 0, "layout");
  const verdict = !several
    ? "one for all; whether several cost less was not proven"
    : isOne
      ? "one for all is the cheapest"
      : `${others}: bare boards for ${money(saved, currency)} less`;
  return (
    <Fold id="layouts" title="One layout or several" verdict={verdict}>
      <table className="rows w-full text-[14px]">
        <thead>
          <tr>
            <th>Sheets</th>
            <th className="text-right">Over</th>
            <th className="text-right">Bare boards, without the parcel</th>
          </tr>
        </thead>
        <tbody>
          <Way label="one layout" layouts={[one]} over={one.over} cost={one.cost} cover={cover} />
          {several && !isOne && (
            <Way
              label={others}
              layouts={several.layouts}
              over={several.over}
              cost={several.cost}
              cover={cover}
            />
          )}
        </tbody>
      </table>
      <p className="mt-2 text-[13px] text-ink-2">
        Wanted: {cover.demand.map((n, i) => `${n} of ${names[i]}`).join(", ")}. What is over is paid by its
        product's share of the sheet. {several ? "No numbers of these sheets cost less. " : ""}
        {!isOne &&
          several.layouts.length > 1 &&
          "A layout is an order with a set-up of its own: take the other product off here, and start a run of it."}
      </p>
    </Fold>
  );
}

function Way({
  label,
  layouts,
  over,
  cost,
  cover,
}: {
  label: string;
  layouts: readonly LaidOut[];
  over: readonly number[];
  cost: number;
  cover: Covering;
}) {
  const holds = (l: LaidOut) =>
    l.counts.flatMap((n, i) => (n > 0 ? [`${n} of ${cover.names[i]}`] : [])).join(" and ");
  return (
    <tr>
      <td>
        {label}
        {layouts.map((l) => (
          <span key={l.counts.join()} className="block text-[13px] text-ink-2">
            <span className="num">{l.sheets}</span> of {mm(l.widthMm)} × {mm(l.heightMm)} mm with {holds(l)}
          </span>
        ))}
      </td>
      <td className="text-right">
        {over.map((n, i) => (
          <span key={cover.names[i]} className="num block">
            {n}
          </span>
        ))}
      </td>
      <td className="num text-right">{money(cost, cover.currency)}</td>
    </tr>
  );
}
