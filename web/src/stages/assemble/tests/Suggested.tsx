import { limitText, startingItems, type TestItem } from "@kobbin/core";
import { useDeferredValue, useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { count, said } from "../../../ui/text/format.ts";
import { added } from "./testModel.ts";

const KIND = {
  lamp: "lamp",
  key: "key",
  level: "rests high",
  divider: "divider",
  output: "stays off at the start",
  unplugged: "stays off without its control",
  sinking: "brown-out",
  clock: "clock",
  bus: "bus, counted",
  loop: "sent and received",
  chain: "chain, counted",
  cell: "battery life",
} as const;
const SHOWN = 5;

/** Items that the board itself suggests, measured on it; one at a time or all. */
export function Suggested({
  plan,
  onKeep,
}: {
  plan: readonly TestItem[];
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc } = useRun();
  // the plan and its coverage are painted first
  const later = useDeferredValue(doc);
  const list = useMemo(() => startingItems(later), [later]);
  if (list.length === 0) return null;
  const add = (items: typeof list) =>
    onKeep(
      items.reduce((all, { item }) => added(all, item), [...plan]),
      items.length === 1 ? `${items[0]!.item.name} added` : `${count(items.length, "item")} added`,
    );
  return (
    <div>
      <h2 className="mt-3 flex items-baseline gap-4 text-[15px]">
        What the board itself suggests
        <button type="button" className="quiet-link text-[14px] font-normal" onClick={() => add(list)}>
          add all {list.length}
        </button>
      </h2>
      <ul aria-label="What the board itself suggests">
        {list.slice(0, SHOWN).map((s) => (
          <li key={s.item.name} className="flex items-baseline gap-3 border-b border-rule py-1 text-[14.5px]">
            <span className="min-w-0 flex-1">
              <b>{s.item.name}</b> <span className="text-ink-2">{KIND[s.kind]}</span>
              <span className="block text-[13px] text-ink-2">
                {limitText(s.item) ? `${said(limitText(s.item))}; ` : ""}
                {s.gains > 0 ? `covers ${count(s.gains, "pin")} that no test covers` : "covers no more pins"}
              </span>
            </span>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Add ${s.item.name}`}
              onClick={() => add([s])}
            >
              add
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
