import { judgeTry, type TestItem, type TestTry, type TrySaid, type TryVerdict } from "@kobbin/core";
import { addTry, removeTry } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** What was tried of an item on a board, and one more try: judged here at once, and by the server when it gets there. */
export function useTries(unit: number, item: TestItem) {
  const { id, record } = useRun();
  const sayError = useSayError();
  const tries: readonly TestTry[] = (record.tries ?? []).filter((t) => t.unit === unit && t.item === item.id);
  const answer = (said: TrySaid, words: string): TryVerdict => {
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
    return verdict;
  };
  /** The last try was a slip of the hand: it goes, and is in the history. */
  const takeBack = () => {
    const last = tries.at(-1);
    if (last) removeTry(id, last.id).catch(sayError);
  };
  return { tries, answer, takeBack };
}
