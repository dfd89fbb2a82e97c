import { readTyped, type TestItem, type TrySaid, type TryVerdict } from "@kobbin/core";
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { BigKey } from "../../../bench-side/Frame.tsx";
import { said, written } from "../../../ui/text/format.ts";
import type { Presses } from "./useBenchKeys.ts";

/** Keys of the step, while nothing is typed: a reading never begins with one of them. */
const COMMANDS: Readonly<Record<string, keyof Presses>> = {
  d: "doubt",
  s: "later",
  p: "pause",
  a: "all",
  Backspace: "back",
};
type Told = {
  readonly text: string;
  readonly look: "text-fine" | "text-stop" | "text-look";
  readonly doubt?: string;
};

/** What the meter shows, as it is typed; the verdict stands there at once. */
export function ReadingField({
  item,
  unit,
  on,
  onAnswer,
  onPass,
}: {
  item: TestItem;
  unit: string;
  on: Presses;
  onAnswer: (said: TrySaid, words: string) => TryVerdict;
  onPass: () => void;
}) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [told, setTold] = useState<Told>();
  useEffect(() => field.current?.focus(), []);
  const enter = () => {
    const r = readTyped(text, unit, item);
    if (r.kind === "wrong") return setTold({ text: r.because, look: "text-look" });
    if (r.kind === "error") {
      onAnswer({ says: "error" }, text.trim());
      setTold({ text: `Kept as no reading: ${r.words}.`, look: "text-look" });
      return setText("");
    }
    if (r.doubt && told?.doubt !== text.trim())
      return setTold({ text: r.doubt, look: "text-look", doubt: text.trim() });
    const verdict = onAnswer({ value: r.value, bound: r.bound }, text.trim());
    const what = `${r.bound ?? ""}${written(r.value)} ${unit}`;
    setText("");
    if (verdict === "pass") return onPass();
    setTold(
      verdict === "fail"
        ? {
            text: `${what} is outside. Stop, or try once more; D goes on with it as failed.`,
            look: "text-stop",
          }
        : { text: `${what} leaves open whether it is inside.`, look: "text-look" },
    );
  };
  const press = (e: KeyboardEvent) => {
    if (e.key === "Enter") {
      e.preventDefault();
      return enter();
    }
    const command = text === "" && !e.ctrlKey && !e.metaKey && !e.altKey ? COMMANDS[e.key] : undefined;
    if (command === undefined) return;
    e.preventDefault();
    on[command]();
  };
  return (
    <div className="mt-4">
      <label htmlFor={id} className="text-[17px] text-ink-2">
        What the meter shows, {unit}
      </label>
      <div className="mt-1 flex items-stretch gap-3">
        <input
          id={id}
          ref={field}
          className="num min-h-[60px] w-[9em] text-[32px]! max-sm:text-[24px]!"
          inputMode="decimal"
          autoComplete="off"
          maxLength={60}
          value={text}
          aria-describedby={told ? `${id}-told` : undefined}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={press}
        />
        <BigKey keys="Enter" look="main" isOff={text.trim() === ""} onPress={enter}>
          enter it
        </BigKey>
      </div>
      {told && (
        <p
          id={`${id}-told`}
          role="alert"
          className={`mt-2 text-[20px] font-semibold max-sm:text-[16px] ${told.look}`}
        >
          {said(told.text)}
        </p>
      )}
    </div>
  );
}
