import type { Measure } from "@kobbin/core";
import { Fold } from "../ui/Fold.tsx";
import { count } from "../ui/text/format.ts";

/** Parts list × placement × pads, and netlist × copper: what agrees, and by name what does not. */
export function Reconciled({ measure: m }: { measure: Measure }) {
  const c = m.crossCheck;
  const lists: readonly (readonly [string, readonly string[] | undefined, string])[] = c
    ? [
        ["in the list, without pads on the board", c.withoutPads, "is a footprint missing?"],
        [
          "pads on the board, in no line of the list",
          c.padsWithoutPart,
          "add a line, or write it in as not fitted",
        ],
        ["in the list, without a place", c.inBomNotPlaced, "soldered by hand, or missing from the placement"],
        ["placed, but in no line of the list", c.placedNotInBom, "who buys it?"],
        ["placed, though not fitted", c.placedButDnp, "take it out of what goes to a house"],
        ["on the bottom", c.partsOnBottom, "a second side costs set-up"],
        ["with a drilled pad", c.throughHole, "soldered by hand, or selectively"],
      ]
    : [];
  const net = m.netlist;
  return (
    <Fold id="reconciled" title="Parts list, places, pads and nets" verdict={verdictOf(m)}>
      <dl className="mt-1 grid grid-cols-[minmax(220px,auto)_1fr] text-[14px] max-sm:grid-cols-1">
        <Entry term="nets of the copper">
          {count(m.nets?.count ?? 0, "piece")} of joined copper
          {m.nets?.islands && `, ${m.nets.islands.length} with pads`}
          {m.nets?.singlePad ? `, ${m.nets.singlePad} of one pad only` : ""}
        </Entry>
        <Entry term="against the netlist">
          {net ? (
            <span className={net.agrees ? "" : "font-semibold text-stop"}>
              {net.agrees ? "agrees" : "does not agree, see the margin"}: {count(net.nets, "net")},{" "}
              {count(net.points, "point")}
            </span>
          ) : (
            <span className="text-ink-2">
              no netlist came with the layers; drop one to have opens and shorts found
            </span>
          )}
        </Entry>
        {lists.map(([term, refs, hint]) =>
          refs === undefined ? null : (
            <Entry key={term} term={term}>
              {refs.length === 0 ? (
                <span className="text-ink-2">none</span>
              ) : (
                <>
                  <span className="num">{refs.join(", ")}</span>
                  <span className="ml-2 text-[12.5px] text-ink-3">{hint}</span>
                </>
              )}
            </Entry>
          ),
        )}
        {!c && (
          <Entry term="parts and places">
            <span className="text-ink-2">no parts list or placement came with the layers</span>
          </Entry>
        )}
      </dl>
    </Fold>
  );
}

function verdictOf(m: Measure): string {
  const netlist = m.netlist ? `the netlist ${m.netlist.agrees ? "agrees" : "does not agree"}` : "no netlist";
  const c = m.crossCheck;
  const odd = c
    ? [c.withoutPads, c.padsWithoutPart, c.placedNotInBom, c.placedButDnp].reduce(
        (n, l) => n + (l?.length ?? 0),
        0,
      )
    : 0;
  return `${netlist}, ${!c ? "no list to hold against" : odd === 0 ? "list and board agree" : `${count(odd, "part")} in one and not in the other`}`;
}

function Entry({ term, children }: { term: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="border-t border-rule py-[5px] pr-4 text-ink-2 max-sm:border-b-0">{term}</dt>
      <dd className="border-t border-rule py-[5px] max-sm:border-t-0">{children}</dd>
    </>
  );
}
