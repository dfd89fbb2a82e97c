import { ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useId, useRef, useState } from "react";
import { said, signed } from "./text/format.ts";

/** An alternative with what it would change. */
export interface Alternative {
  readonly value: string;
  readonly label: string;
  readonly why?: ReactNode;
  /** How it would look. */
  readonly picture?: ReactNode;
  readonly perGood: number;
  readonly days: number;
  readonly isChosen: boolean;
  readonly cannot?: string | undefined;
  /** Something is not priced before or after: the difference is of the rest. */
  readonly isPartial?: boolean;
}

/** ± per good board, in the colour of better or worse and always with its sign. */
export function Delta({ value, places = 2 }: { value: number; places?: number }) {
  const text = signed(value, places);
  return (
    <span className={`num ${text === "0" ? "text-ink-3" : value < 0 ? "text-fine" : "text-stop"}`}>
      {text}
    </span>
  );
}

/** ± days, "0 d" where nothing moves. */
export function DaysDelta({ value }: { value: number }) {
  const text = signed(value, Number.isInteger(value) ? 0 : 1);
  return (
    <span
      className={`num whitespace-nowrap ${text === "0" ? "text-ink-3" : value < 0 ? "text-fine" : "text-stop"}`}
    >
      {text} d
    </span>
  );
}

/** Decision, chosen value, why; opens to the alternatives, each with its effect before it is picked. */
export function ChoiceRow({
  decision,
  why,
  alternatives,
  onChoose,
  disabled = false,
  showsSaving = true,
  about,
}: {
  /** What holds for all alternatives, under them once they are open. */
  about?: ReactNode;
  /** Off where the cheaper alternative gives up something the person asked for. */
  showsSaving?: boolean;
  decision: string;
  why?: ReactNode;
  alternatives: readonly Alternative[];
  onChoose: (value: string) => void;
  disabled?: boolean;
}) {
  const [open, setOpen] = useState(false);
  const toggle = useRef<HTMLButtonElement>(null);
  const id = useId();
  const chosen = alternatives.find((a) => a.isChosen);
  const others = alternatives.filter((a) => !a.cannot && !a.isChosen);
  const cheapest = others.reduce<Alternative | undefined>(
    (b, a) => (!b || a.perGood < b.perGood ? a : b),
    undefined,
  );
  return (
    <div className={`border-t border-rule ${open ? "bg-sheet" : ""}`}>
      <button
        type="button"
        ref={toggle}
        aria-expanded={open}
        aria-controls={id}
        onClick={() => setOpen(!open)}
        className="grid w-full grid-cols-[130px_minmax(140px,1.2fr)_minmax(120px,2fr)_auto] items-baseline gap-x-4 px-2 py-[9px] text-left max-md:grid-cols-[1fr_1fr_auto]"
      >
        <span className="flex items-baseline gap-1 text-ink-2">
          {open ? (
            <ChevronDown className="size-3.5 self-center" aria-hidden />
          ) : (
            <ChevronRight className="size-3.5 self-center" aria-hidden />
          )}
          {decision}
        </span>
        <span className="font-semibold">{said(chosen?.label ?? "not chosen")}</span>
        <span className="text-[14px] text-ink-2 max-md:hidden">
          {typeof why === "string" ? said(why) : why}
        </span>
        <span className="text-[13px] text-ink-3">
          {alternatives.length < 2 ? (
            "only one"
          ) : showsSaving && cheapest && cheapest.perGood < -0.004 ? (
            <>
              at best <Delta value={cheapest.perGood} />
              {cheapest.isPartial && " of what is priced"}
            </>
          ) : (
            `${alternatives.length - 1} more`
          )}
        </span>
      </button>
      {open && (
        <ul id={id} aria-label={`${decision}: alternatives`} className="pb-2">
          {alternatives.map((a) => (
            <li key={a.value}>
              <button
                type="button"
                disabled={disabled || Boolean(a.cannot) || a.isChosen}
                aria-pressed={a.isChosen}
                onClick={() => {
                  onChoose(a.value);
                  setOpen(false);
                  // what was pressed goes away with the list
                  toggle.current?.focus();
                }}
                className={`grid w-full grid-cols-[130px_minmax(140px,1.2fr)_minmax(120px,2fr)_64px_64px] items-baseline gap-x-4 px-2 py-[6px] text-left max-md:grid-cols-[1fr_64px_64px] ${a.isChosen ? "bg-metal-soft" : a.cannot ? "cursor-not-allowed text-ink-3" : "hover:bg-paper"}`}
              >
                <span className="max-md:hidden">{a.picture}</span>
                <span
                  className={`${a.isChosen ? "font-semibold" : ""} ${a.cannot || a.why ? "" : "md:col-span-2"}`}
                >
                  {said(a.label)}
                </span>
                {(a.cannot || a.why) && (
                  <span className="text-[13.5px] text-ink-2 max-md:hidden">
                    {a.cannot && <span className="block">{said(`cannot: ${a.cannot}`)}</span>}
                    {typeof a.why === "string" ? said(a.why) : a.why}
                  </span>
                )}
                {a.isChosen ? (
                  <span className="col-span-2 text-right text-[13px] text-ink-2">chosen</span>
                ) : a.cannot ? (
                  <span className="col-span-2" />
                ) : (
                  <>
                    <span className="text-right">
                      <Delta value={a.perGood} />
                    </span>
                    <span className="text-right">
                      <DaysDelta value={a.days} />
                    </span>
                  </>
                )}
              </button>
            </li>
          ))}
          {about && <li className="px-2 pt-1 text-[13px] text-ink-2">{about}</li>}
          {alternatives.some((a) => a.isPartial) && (
            <li className="px-2 pt-1 text-[13px] text-ink-2">
              Not everything is priced: the differences are of what is.
            </li>
          )}
        </ul>
      )}
    </div>
  );
}
