import { useState } from "react";
import { useBench } from "../../resources/bench.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { count, typedNumber } from "../../ui/text/format.ts";

const MOST = 5;

/** Boards of other products that share the run's sheets: which, and how many are wanted. */
export function Guests() {
  const { doc, change, isLocked } = useRun();
  const guests = doc.choices.guests ?? [];
  const known = new Map((doc.guests ?? []).map((g) => [g.id, g]));
  const nameOf = (id: string) => known.get(id)?.name ?? "a board that is gone";
  const verdict =
    guests.length === 0
      ? "none shares it"
      : guests.map((g) => `${g.boards} of ${nameOf(g.board)}`).join(", ");
  const set = (next: typeof guests, words: string) => change({ guests: next } as never, words);
  if (isLocked && guests.length === 0) return null;
  return (
    <Fold id="guests" title="Another product on the sheet" verdict={verdict}>
      {guests.map((g) => (
        <p key={g.board} className="flex items-baseline gap-3 border-t border-rule py-2 text-[14px]">
          <span className="min-w-0 flex-1">
            {nameOf(g.board)}
            <span className="block text-[13px] text-ink-2">
              {g.boards} wanted{known.has(g.board) ? ` for ${known.get(g.board)!.product}` : ""}
            </span>
          </span>
          {!isLocked && (
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                set(
                  guests.filter((x) => x !== g),
                  `${nameOf(g.board)} shares the sheet no more`,
                )
              }
            >
              take it off
            </button>
          )}
        </p>
      ))}
      {!isLocked && guests.length < MOST && <AddGuest taken={guests.map((g) => g.board)} onAdd={set} />}
      <p className="mt-2 text-[13px] text-ink-2">
        Boards of one number of layers and one thickness lie on one sheet, in this run's options. Each product
        bears its share of the price by area.
      </p>
    </Fold>
  );
}

function AddGuest({
  taken,
  onAdd,
}: {
  taken: readonly string[];
  onAdd: (next: readonly { board: string; boards: number }[], words: string) => void;
}) {
  const { doc, answer } = useRun();
  const { data } = useBench();
  const [board, setBoard] = useState("");
  const [typed, setTyped] = useState("10");
  const boards = Number(typedNumber(typed.trim()));
  const isNumber = Number.isInteger(boards) && boards >= 1 && boards <= 100_000;
  const options = (data?.products ?? []).flatMap((p) =>
    p.id === answer.productId
      ? []
      : p.revisions
          .filter((r) => !taken.includes(r.boardId))
          .map((r) => [r.boardId, `${p.name} ${r.label}, ${count(r.layers, "layer")}`] as const),
  );
  if (data && options.length === 0)
    return <p className="text-[14px] text-ink-2">There is no other product in this shop.</p>;
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Pick
        className="min-w-[180px] flex-1"
        label="Board"
        value={board}
        options={[["", "choose one"], ...options]}
        onChange={setBoard}
      />
      <Field
        className="w-[90px]"
        label="Boards wanted"
        value={typed}
        inputMode="numeric"
        error={isNumber ? undefined : "1 to 100000"}
        onChange={(e) => setTyped(e.target.value)}
        isNumber
      />
      <Button
        disabled={board === "" || !isNumber}
        onClick={() => {
          const name = options.find(([id]) => id === board)?.[1] ?? "a board";
          onAdd([...(doc.choices.guests ?? []), { board, boards }], `${boards} of ${name} share the sheet`);
          setBoard("");
        }}
      >
        Let it share
      </Button>
    </div>
  );
}
