import type { MeterBody, MeterReading } from "@kobbin/contract";
import { readTyped, type TestItem, type TrySaid } from "@kobbin/core";
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { BigKey } from "../../../bench-side/Frame.tsx";
import { readMeter, useEquipment } from "../../../resources/equipment.ts";
import { useUnitOf } from "../../../run/useSerial.ts";
import { said, written } from "../../../ui/text/format.ts";
import type { Presses } from "./useBenchKeys.ts";
import type { Came } from "./useTries.ts";

/** Keys of the step, while nothing is typed: a reading never begins with one of them. */
const COMMANDS: Readonly<Record<string, keyof Presses>> = {
  d: "doubt",
  s: "later",
  p: "pause",
  a: "all",
  f: "fault",
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
  onLeave,
}: {
  item: TestItem;
  unit: string;
  on: Presses;
  onAnswer: (said: TrySaid, words: string) => Came;
  onPass: () => void;
  onLeave: () => void;
}) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [told, setTold] = useState<Told>();
  useEffect(() => field.current?.focus(), []);
  const found = useMeter(item, unit);
  const meter = found === "not known yet" ? undefined : found;
  const unitNamed = useUnitOf();
  const [, setParams] = useSearchParams();
  /** @param words what is kept of it beside the reading */
  const enter = (typed: string, words = typed.trim()) => {
    const r = readTyped(typed, unit, item);
    if (r.kind === "wrong") {
      // a label that was scanned into it brings its board; what a meter says brings none
      const found = words === typed.trim() ? unitNamed(typed) : { wrong: "" };
      if ("unit" in found) return setParams({ view: "hands", unit: String(found.unit) }, { replace: true });
      return setTold({ text: r.because, look: "text-look" });
    }
    if (r.kind === "error") {
      onAnswer({ says: "error" }, words);
      setTold({ text: `Kept as no reading: ${r.words}.`, look: "text-look" });
      return setText("");
    }
    if (r.doubt && told?.doubt !== typed.trim()) {
      setText(typed);
      return setTold({ text: r.doubt, look: "text-look", doubt: typed.trim() });
    }
    const { verdict, because } = onAnswer({ value: r.value, bound: r.bound }, words);
    const what = `${r.bound ?? ""}${written(r.value)} ${unit}`;
    setText("");
    if (because)
      return setTold({
        text: `${because}. Read it once more, or go back to that point; D goes on with it as failed.`,
        look: "text-stop",
      });
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
  const ask = async () => {
    if (!meter || meter.isAsked) return;
    const r = await meter.ask();
    if ("refused" in r)
      setTold({ text: `${meter.name} gives nothing: ${r.refused} Type what it shows.`, look: "text-look" });
    else enter(`${r.shows} ${r.unit === "pieces" ? "" : r.unit}`, `${meter.name}: ${r.shows} ${r.unit}`);
    field.current?.focus();
  };
  const askSoon = useSoon(found !== "not known yet", ask);
  const press = (e: KeyboardEvent) => {
    if (e.key === "Enter") {
      e.preventDefault();
      return enter(text);
    }
    // first it takes back what is typed, then it leaves
    if (e.key === "Escape") {
      e.preventDefault();
      return text === "" ? onLeave() : setText("");
    }
    if (e.key === "m" && text === "" && found) {
      e.preventDefault();
      return askSoon();
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
      <div className="mt-1 flex flex-wrap items-stretch gap-3">
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
        <BigKey keys="Enter" look="main" isOff={text.trim() === ""} onPress={() => enter(text)}>
          enter it
        </BigKey>
        {meter && (
          <BigKey keys="M" isOff={meter.isAsked} onPress={ask}>
            {meter.isAsked ? "reading …" : `read ${meter.name}`}
          </BigKey>
        )}
      </div>
      {told && <Saying id={`${id}-told`} told={told} />}
    </div>
  );
}

/** What came of the last entry, readable at arm's length. */
function Saying({ id, told }: { id: string; told: Told }) {
  return (
    <p id={id} role="alert" className={`mt-2 text-[20px] font-semibold max-sm:text-[16px] ${told.look}`}>
      {said(told.text)}
    </p>
  );
}

/** Does something at once, or once it is known what with: a key that is pressed early is answered, not typed. */
function useSoon(isKnown: boolean, act: () => Promise<void>): () => void {
  const [isWanted, setWanted] = useState(false);
  const latest = useRef(act);
  latest.current = act;
  useEffect(() => {
    if (!isWanted || !isKnown) return;
    setWanted(false);
    void latest.current();
  }, [isWanted, isKnown]);
  return () => (isKnown ? void act() : setWanted(true));
}

/** The first meter of the shop that is asked over the network; nothing where there is none. */
function useMeter(item: TestItem, unit: string) {
  const { data, isLoading } = useEquipment();
  const [isAsked, setAsked] = useState(false);
  const meter = data?.equipment.find((e) => e.kind === "meter" && e.state === "ready" && e.facts.asked);
  if (!meter) return isLoading ? ("not known yet" as const) : undefined;
  const ask = async (): Promise<MeterReading> => {
    setAsked(true);
    try {
      return await readMeter(meter.id, { unit: unit as MeterBody["unit"], near: nearOf(item) });
    } catch (error) {
      return { refused: error instanceof Error ? error.message : "It did not answer." };
    } finally {
      setAsked(false);
    }
  };
  return { name: meter.name, isAsked, ask };
}

/** What a simulated meter is to be near: the middle of the limits, or well within the one there is. */
function nearOf({ min, max }: TestItem): string | undefined {
  if (min === undefined && max === undefined) return undefined;
  const near =
    max === undefined
      ? 1.5 * Number(min)
      : min === undefined
        ? 0.6 * Number(max)
        : (Number(min) + Number(max)) / 2;
  return String(Number(near.toPrecision(6)));
}
