import {
  judgeTry,
  linesOfUnit,
  type TestItem,
  type TestTry,
  type TrySaid,
  type TryVerdict,
} from "@kobbin/core";
import { addTry, removeTry } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** What an answer came to; why it fails though what was read passes. */
export interface Came {
  readonly verdict: TryVerdict;
  readonly because?: string;
}

/** What was tried of an item on a board, and one more try: judged here at once, and by the server when it gets there. */
export function useTries(unit: number, item: TestItem) {
  const { id, doc, record } = useRun();
  const sayError = useSayError();
  const tries: readonly TestTry[] = (record.tries ?? []).filter((t) => t.unit === unit && t.item === item.id);
  /** A point that completes its line, and does not let it stand. */
  const offLine = ({ value = "", bound }: TrySaid): Pick<Came, "because"> => {
    if (!item.point) return {};
    if (bound) return { because: `${item.name}: what only says more or less is no point of a line` };
    const next: TestTry = {
      id: "",
      unit,
      item: item.id,
      name: item.name,
      on: todayIso(),
      value,
      limits: {},
      verdict: "pass",
      words: "",
      person: "",
    };
    const off = linesOfUnit(doc.assembly.tests ?? [], [...(record.tries ?? []), next], unit).find(
      (l) => l.line.of === item.point?.of,
    )?.off;
    return off ? { because: `${off.item.name}: ${off.because}` } : {};
  };
  const answer = (said: TrySaid, words: string): Came => {
    const verdict = judgeTry(item, said);
    addTry(id, {
      unit,
      item: item.id,
      on: todayIso(),
      words,
      ...(said.value === undefined ? {} : { value: said.value }),
      ...(said.bound === undefined ? {} : { bound: said.bound }),
      ...(said.says === undefined ? {} : { says: said.says }),
    }).catch(sayError);
    return verdict === "pass" ? { verdict, ...offLine(said) } : { verdict };
  };
  /** The last try was a slip of the hand: it goes, and is in the history. */
  const takeBack = () => {
    const last = tries.at(-1);
    if (last) removeTry(id, last.id).catch(sayError);
  };
  return { tries, answer, takeBack };
}
