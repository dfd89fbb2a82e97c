import { OPTION_WORDS, type OptionKey, plainOf } from "@kobbin/core";
import { boardColours } from "../../proof/colours.ts";
import { Small } from "../../proof/Plates.tsx";
import { useEffects, useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { said } from "../../ui/text/format.ts";
import { useTheme } from "../../ui/useTheme.ts";
import type { BoardConnection } from "../../workers/board.ts";
import { OptionRow } from "./OptionRow.tsx";

/** Decisions few boards ask for: folded while all of them are as usual. */
const RARE: ReadonlySet<OptionKey> = new Set([
  "contacts",
  "bevel",
  "material",
  "castellation",
  "edgePlating",
  "via",
  "test",
  "marking",
  "quality",
]);
/** Decisions one sees on the board. */
const SEEN: ReadonlySet<OptionKey> = new Set(["finish", "mask", "legend"]);
/** CSS pixels of a side. */
const SIZE = [58, 42] as const;

/** Every decision of the order sheet the house leaves open; those few boards ask for are folded with their verdict. */
export function Decisions({ board }: { board: BoardConnection | undefined }) {
  const { doc, result } = useRun();
  const effects = useEffects("fab");
  useTheme();
  const options = result.options!;
  const keys = (Object.keys(OPTION_WORDS) as OptionKey[]).filter(
    (key) => effects!.options[key].length > (key === "freight" ? 1 : 0),
  );
  const hasContacts = doc.boards.some((b) => Object.keys(b.measure.edgeContacts ?? {}).length > 0);
  const isAsked = (key: OptionKey) =>
    !RARE.has(key) ||
    (options[key] ?? plainOf(key)) !== plainOf(key) ||
    (hasContacts && (key === "contacts" || key === "bevel"));
  const box = doc.boards[0]?.measure.extentMm;
  const pictureOf = (key: OptionKey) => (value: string) => {
    const { mask, finish, legend } = { ...options, [key]: value } as typeof options;
    if (!board || !box) return null;
    return (
      <span className="flex gap-1">
        {(["top", "bottom"] as const).map((side) => (
          <Small
            key={side}
            board={board}
            box={box}
            plate={{ side, forward: undefined }}
            colours={boardColours(mask, finish, legend)}
            size={SIZE}
          />
        ))}
      </span>
    );
  };
  const row = (key: OptionKey) => (
    <OptionRow key={key} option={key} {...(SEEN.has(key) ? { pictureOf: pictureOf(key) } : {})} />
  );
  const usual = keys.filter((key) => !isAsked(key));
  return (
    <div className="mt-5">
      {keys.filter(isAsked).map(row)}
      {usual.length > 0 && (
        <Fold
          id="usual"
          title="As usual"
          verdict={said(usual.map((key) => OPTION_WORDS[key].word).join(", "))}
        >
          {usual.map(row)}
        </Fold>
      )}
      <div className="border-t border-rule" />
    </div>
  );
}
