import { ATTRITION, type Loss, type LossKind } from "@kobbin/core";
import { undoChange } from "../../resources/history.ts";
import { saveShop, useShop } from "../../resources/session.ts";
import { useKept } from "../../ui/Kept.tsx";
import { typedNumber, written } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

const KINDS: readonly (readonly [LossKind, string])[] = [
  ["chip0201", "chips 0201 and smaller"],
  ["chip0402", "chips 0402"],
  ["chip", "chips 0603 to 1206, chip lamps"],
  ["diode", "small diodes"],
  ["small", "SOT and alike"],
  ["tab", "with a tab"],
  ["gull", "SOIC, TSSOP, QFP"],
  ["gullFine", "QFP of fine pitch"],
  ["leadless", "leadless"],
  ["ball", "with balls"],
  ["connector", "surface-mounted connectors, switches"],
  ["through", "through-hole parts"],
  ["loose", "loose parts"],
  ["costly", "any part above 2.00 each"],
];
const WAYS: readonly (readonly [keyof Loss, string])[] = [
  ["hand", "by hand"],
  ["machine", "by machine"],
];

/** What of a part is bought over, since some are lost on the way: a share of the pieces, and a least number. */
export function LossesPart() {
  const shop = useShop();
  const say = useSay();
  const sayError = useSayError();
  const save = (kind: LossKind, loss: Loss | undefined, words: string) => {
    const { [kind]: _, ...rest } = shop.attrition;
    const done = saveShop({ version: shop.version, attrition: loss ? { ...rest, [kind]: loss } : rest });
    done.then(
      ({ changeId }) =>
        say(words, { ...(changeId ? { undo: () => void undoChange(changeId).catch(sayError) } : {}) }),
      sayError,
    );
  };
  return (
    <section aria-labelledby="losses">
      <h2 id="losses" className="mb-1">
        What is lost on the way
      </h2>
      <p className="mb-3 max-w-[62ch] text-[14px] text-ink-2">
        Of each kind of package a share of the pieces is bought over, and a least number whatever the run. By
        hand they are dropped; by machine they go at the start of a tape. The usual figures stand until you
        set your own.
      </p>
      <div className="overflow-x-auto">
        <table className="rows w-full min-w-[560px]">
          <thead>
            <tr>
              <th rowSpan={2}>Package</th>
              {WAYS.map(([way, label]) => (
                <th key={way} colSpan={2} className="text-center">
                  {label}
                </th>
              ))}
              <th rowSpan={2}>
                <span className="sr-only">Usual</span>
              </th>
            </tr>
            <tr>
              {WAYS.flatMap(([way]) => [
                <th key={`${way} share`} className="text-right">
                  share, %
                </th>,
                <th key={`${way} least`} className="text-right">
                  least
                </th>,
              ])}
            </tr>
          </thead>
          <tbody>
            {KINDS.map(([kind, label]) => (
              <Row
                key={kind}
                label={label}
                own={shop.attrition[kind]}
                usual={ATTRITION[kind]}
                onSave={(loss) =>
                  save(kind, loss, `Losses of ${label}: ${loss ? "your own" : "as usual again"}`)
                }
                onProblem={(text) =>
                  say(text, {
                    isProblem: true,
                    hint: "A share goes from 0 to 50 per cent, a least number from 0 to 10,000.",
                  })
                }
              />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function Row({
  label,
  own,
  usual,
  onSave,
  onProblem,
}: {
  label: string;
  own: Loss | undefined;
  usual: Loss;
  onSave: (loss: Loss | undefined) => void;
  onProblem: (text: string) => void;
}) {
  const loss = own ?? usual;
  const set = (way: keyof Loss, at: 0 | 1, text: string) => {
    const n = Number(typedNumber(text));
    const value = at === 0 ? n / 100 : n;
    const isFine =
      text.trim() !== "" && n >= 0 && (at === 0 ? value <= 0.5 : Number.isInteger(n) && n <= 10_000);
    if (!isFine)
      return onProblem(`“${text}” is no ${at === 0 ? "share" : "number of pieces"}; it stays as it was.`);
    const pair: [number, number] = [...loss[way]];
    pair[at] = Math.round(value * 1e6) / 1e6;
    onSave({ ...loss, [way]: pair });
  };
  return (
    <tr>
      <td className={own ? "font-semibold" : ""}>{label}</td>
      {WAYS.flatMap(([way, words]) =>
        ([0, 1] as const).map((at) => (
          <td key={`${way} ${at}`} className="text-right">
            <Cell
              name={`${label}, ${words}, ${at === 0 ? "share in per cent" : "least number"}`}
              value={written(String(at === 0 ? Math.round(loss[way][0] * 1e4) / 100 : loss[way][1]))}
              onKeep={(text) => set(way, at, text)}
            />
          </td>
        )),
      )}
      <td className="text-right">
        {own && (
          <button
            type="button"
            className="quiet-link"
            aria-label={`Usual losses of ${label}`}
            onClick={() => onSave(undefined)}
          >
            as usual
          </button>
        )}
      </td>
    </tr>
  );
}

function Cell({ name, value, onKeep }: { name: string; value: string; onKeep: (text: string) => void }) {
  return (
    <input
      aria-label={name}
      inputMode="decimal"
      className="num w-16 text-right"
      {...useKept(value, onKeep)}
    />
  );
}
