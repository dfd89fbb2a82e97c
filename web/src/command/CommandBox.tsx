import { type KeyboardEvent, useId, useMemo, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { Thumb } from "../proof/thumb/Thumb.tsx";
import { useFound } from "../resources/find.ts";
import { stages as runStages } from "../run/stages.ts";
import { Dialog } from "../ui/Dialog.tsx";
import type { KeyBinding } from "../ui/keys.ts";

interface Item {
  readonly key: string;
  readonly kind: string;
  readonly text: string;
  readonly more: string;
  readonly board?: { readonly id: string; readonly look: string };
  readonly run: () => void;
}

const fits = (words: readonly string[], text: string) => words.every((w) => text.toLowerCase().includes(w));

/** One field that finds products, runs, parts, stages and everything that can be done here by a key. */
export function CommandBox({
  actions,
  onClose,
}: {
  /** What was bound when the box was opened. */
  actions: readonly KeyBinding[];
  onClose: () => void;
}) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { data: found } = useFound(text);
  const id = useId();
  const runId = /^\/runs\/([^/]+)/.exec(pathname)?.[1];
  const items = useMemo<Item[]>(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const go = (to: string) => () => navigate(to);
    const stages = runId
      ? [
          ...runStages().map((s) => [s.label, `/runs/${runId}/${s.key}`] as const),
          ["History", `/runs/${runId}/history`] as const,
        ]
      : [];
    const places: readonly (readonly [string, string])[] = [
      ["Bench", "/"],
      ["New product", "/new"],
      ["Settings", "/settings"],
      ["History of the shop", "/history"],
    ];
    return [
      ...stages
        .filter(([label]) => fits(words, label))
        .map(([label, to]) => ({ key: to, kind: "stage", text: label, more: "of this run", run: go(to) })),
      ...(found ?? []).map((f) => ({
        key: `${f.kind} ${f.to} ${f.text}`,
        kind: f.kind,
        text: f.text,
        more: f.more,
        ...(f.boardId ? { board: { id: f.boardId, look: f.look ?? "" } } : {}),
        run: go(f.to),
      })),
      ...places
        .filter(([label]) => fits(words, label))
        .map(([label, to]) => ({ key: to, kind: "place", text: label, more: "", run: go(to) })),
      ...actions
        .filter((a) => !/^\d$/.test(a.keys) && a.keys !== "/" && fits(words, a.does))
        .map((a) => ({ key: `do ${a.keys} ${a.does}`, kind: "do", text: a.does, more: a.keys, run: a.run })),
    ].slice(0, 14);
  }, [text, found, actions, navigate, runId]);
  const chosen = Math.min(at, items.length - 1);
  const board = items[chosen]?.board;
  const take = (item: Item | undefined) => {
    if (!item) return;
    onClose();
    // after the dialog has gone, so that what it does may move the focus
    setTimeout(item.run, 0);
  };
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 5, PageUp: -5 }[e.key];
    if (by !== undefined) {
      e.preventDefault();
      setAt(Math.max(0, Math.min(items.length - 1, chosen + by)));
    } else if (e.key === "Enter") {
      e.preventDefault();
      take(items[chosen]);
    }
  };
  return (
    <Dialog open onClose={onClose} title="Find or do">
      <input
        type="text"
        role="combobox"
        aria-expanded
        aria-controls={`${id}-list`}
        aria-activedescendant={items[chosen] ? `${id}-${chosen}` : undefined}
        aria-label="A product, a run, a part, a board’s number, a stage, or what to do"
        placeholder="a product, a run, a part, a board’s number, a stage, what to do"
        className="w-full"
        value={text}
        autoFocus
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        onKeyDown={keys}
      />
      <div id={`${id}-list`} role="listbox" aria-label="Found" className="mt-3">
        {items.map((item, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: keys are read by the field above
          // biome-ignore lint/a11y/useFocusableInteractive: as above
          <div
            key={item.key}
            id={`${id}-${i}`}
            role="option"
            aria-selected={i === chosen}
            onClick={() => take(item)}
            onPointerMove={() => setAt(i)}
            className={`grid cursor-pointer grid-cols-[58px_minmax(0,1fr)_auto] items-baseline gap-3 border-t border-rule px-2 py-[6px] ${i === chosen ? "bg-metal-soft" : ""}`}
          >
            <span className="text-[12.5px] text-ink-2">{item.kind}</span>
            <span className="truncate font-semibold">{item.text}</span>
            <span className="num max-w-[230px] truncate text-[12.5px] text-ink-2">{item.more}</span>
          </div>
        ))}
      </div>
      {items.some((i) => i.board) && (
        <div className="mt-3 h-[58px] border-t border-rule pt-3">
          {board && <Thumb key={board.id} boardId={board.id} look={board.look} />}
        </div>
      )}
      {items.length === 0 && (
        <p role="status" className="mt-3 text-ink-2">
          Nothing here is called “{text}”.
        </p>
      )}
    </Dialog>
  );
}
