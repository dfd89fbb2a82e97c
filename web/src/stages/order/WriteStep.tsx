import {
  ORDER_STATES,
  type OrderKind,
  type OrderStand,
  type OrderState,
  orderFacts,
  stepWords,
} from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { Button } from "../../ui/Button.tsx";
import { DateField } from "../../ui/DateField.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";

/** Writes down what became of an order: what, when, and the words that went with it. */
export function WriteStep({
  stand,
  kind,
  name,
  onWrite,
}: {
  stand: OrderStand;
  kind: OrderKind;
  name: string;
  onWrite: (state: OrderState, words: string, on: string) => void;
}) {
  const [isShown, setShown] = useState(false);
  const [on, setOn] = useState(todayIso());
  const may = ORDER_STATES.filter(
    (s) =>
      orderFacts(s).isWritten &&
      stepWords(s, kind) !== undefined &&
      (s !== "answered" || stand.questions.length > 0),
  );
  const [state, setState] = useState<OrderState>(may[0]!);
  const chosen = may.includes(state) ? state : may[0]!;
  if (!isShown)
    return (
      <button type="button" className="quiet-link" onClick={() => setShown(true)}>
        write down what became of it
      </button>
    );
  return (
    <form
      aria-label={`What became of the order at ${name}`}
      className="mt-2 flex w-full flex-wrap items-end gap-3 border-l-[3px] border-metal bg-metal-soft px-3 py-2"
      onSubmit={(e: FormEvent<HTMLFormElement>) => {
        e.preventDefault();
        onWrite(chosen, String(new FormData(e.currentTarget).get("words")).trim(), on);
        setShown(false);
      }}
    >
      <Pick
        label="What"
        value={chosen}
        options={may.map((s) => [s, stepWords(s, kind)!] as const)}
        onChange={(v) => setState(v as OrderState)}
      />
      <DateField label="On" value={on} onSave={(d) => setOn(d || todayIso())} className="w-32" />
      <Field
        label={orderFacts(chosen).asks ?? "In its words"}
        name="words"
        maxLength={2000}
        required={orderFacts(chosen).asks !== undefined}
        className="w-80 max-w-full"
      />
      <Button type="submit" look="main">
        Write it down
      </Button>
      <button type="button" className="quiet-link" onClick={() => setShown(false)}>
        leave it
      </button>
    </form>
  );
}
