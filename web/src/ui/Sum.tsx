import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";

/** One term of a sum as shown. */
export interface SumTerm {
  readonly label: string;
  readonly value: string;
  readonly note?: string | undefined;
  readonly from?: string | undefined;
}

interface SumProps {
  readonly children: ReactNode;
  readonly title: string;
  readonly terms: readonly SumTerm[];
  readonly result: string;
  readonly formula?: string | undefined;
}

const LOOK = "why inline-block min-h-6 cursor-help text-inherit";
const nameOf = ({ title, result }: SumProps) => `${title}: ${result}. Why?`;

/**
 * A figure that opens to its sum: terms, what each came from, and the result. A page has hundreds of them and few are
 * opened: what opens is made when it is asked for.
 */
export function Sum(props: SumProps) {
  const [isMade, setMade] = useState(false);
  if (isMade) return <Opened {...props} />;
  return (
    <button
      type="button"
      className={LOOK}
      aria-label={nameOf(props)}
      aria-haspopup="dialog"
      aria-expanded={false}
      onClick={() => setMade(true)}
    >
      {props.children}
    </button>
  );
}

function Opened(props: SumProps) {
  const { children, title, terms, result, formula } = props;
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={LOOK} aria-label={nameOf(props)}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          collisionPadding={12}
          sideOffset={6}
          className="z-50 max-h-[60vh] w-[min(92vw,400px)] overflow-auto rounded-[3px] border border-rule bg-sheet p-4 text-[14px] shadow-lg"
          aria-label={`Sum of ${title}`}
        >
          <p className="mb-2 font-semibold">{title}</p>
          {formula && <p className="mb-2 text-[13px] text-ink-2">{formula}</p>}
          <table className="w-full">
            <tbody>
              {terms.map((t) => (
                <tr key={`${t.label} ${t.note ?? ""} ${t.value}`} className="align-baseline">
                  <td className="py-[3px] pr-3">
                    {t.label}
                    {(t.note || t.from) && (
                      <span className="block text-[12.5px] leading-tight text-ink-3">
                        {[t.note, t.from].filter(Boolean).join("; ")}
                      </span>
                    )}
                  </td>
                  <td className="num py-[3px] text-right whitespace-nowrap">{t.value}</td>
                </tr>
              ))}
              <tr className="border-t border-rule font-semibold">
                <td className="pt-1">{title}</td>
                <td className="num pt-1 text-right whitespace-nowrap">{result}</td>
              </tr>
            </tbody>
          </table>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
