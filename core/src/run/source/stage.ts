import type { Stage, Worked } from "../stage/stage.ts";
import { dutyBilled, partsNode, shippingLabel } from "./parts-cost.ts";
import { sourceActual } from "./source-actual.ts";
import { sourceNotes } from "./source-notes.ts";

const sumOf = (by: Readonly<Record<string, number>>) => Object.values(by).reduce((n, v) => n + v, 0);

export const source: Stage = {
  key: "source",
  cost: ({ doc, parts, needs, basket, invoiced }) => partsNode(doc, parts, needs, basket, invoiced),
  cash: ({ doc, basket, invoiced }) => [
    { key: "parts", label: "parts, all that is bought", micros: invoiced },
    { key: "parcels", label: shippingLabel(doc), micros: basket.shipping },
    ...(basket.duty > 0
      ? [{ key: "duty", label: "duty on parts", micros: sumOf(dutyBilled(doc, basket)) }]
      : []),
  ],
  actual: sourceActual,
  days: (w) => partsDays(w)[1],
  ready: (w) => {
    const days = partsDays(w);
    const onWay = days[1] > 0 ? (w.plan?.parcels.partsOnDays ?? 0) : 0;
    return { partsDays: [days[0] + onWay, days[1] + onWay] };
  },
  notes: ({ doc, parts, needs, basket }, add) => sourceNotes(doc, parts, needs, basket, add),
};

/** Days until the last parcel: a supplier's own, and what an offer bought from it takes besides. */
function partsDays({ doc, basket }: Worked): [number, number] {
  const quoted = new Map(
    doc.offers.flatMap((o) => (o.leadDays === undefined ? [] : [[o.id, o.leadDays] as const])),
  );
  return basket.suppliers.reduce<[number, number]>(
    (d, id) => {
      const s = doc.suppliers.find((x) => x.id === id);
      if (!s) return d;
      const buys = basket.lines.flatMap((l) => l.buys.filter((b) => b.supplier === id));
      const more = Math.max(0, ...buys.map((b) => quoted.get(b.offer) ?? 0));
      return [Math.max(d[0], s.daysMin + more), Math.max(d[1], s.daysMax + more)];
    },
    [0, 0],
  );
}
