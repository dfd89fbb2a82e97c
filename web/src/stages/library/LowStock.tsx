import { useLow } from "../../resources/library.ts";
import { Button } from "../../ui/Button.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { count } from "../../ui/text/format.ts";
import { useSay } from "../../ui/toast/Toast.tsx";

/** Numbers of which fewer lie free than the shop wants to keep: how many bring each back, to be copied into an order. */
export function LowStock() {
  const { data: low } = useLow();
  const say = useSay();
  if (!low || low.length === 0) return null;
  const rows = low.map((l) => `${l.mpn}\t${l.order}`).join("\n");
  return (
    <Fold
      id="low"
      title="Too little on the shelf"
      verdict={`${count(low.length, "number")} below what is to lie here: ${low
        .slice(0, 3)
        .map((l) => l.mpn)
        .join(", ")}${low.length > 3 ? " …" : ""}`}
    >
      <table className="rows w-full max-w-[720px]" aria-label="Too little on the shelf">
        <thead>
          <tr>
            <th>Number</th>
            <th className="text-right">Free</th>
            <th className="text-right">Never fewer than</th>
            <th className="text-right">To order</th>
          </tr>
        </thead>
        <tbody>
          {low.map((l) => (
            <tr key={l.mpn}>
              <td className="num">{l.mpn}</td>
              <td className={`num text-right ${l.free < 0 ? "text-stop" : ""}`}>
                {l.free}
                {l.reserved > 0 && (
                  <span className="block text-[13px] text-ink-2">
                    {l.here} here, {l.reserved} reserved
                  </span>
                )}
              </td>
              <td className="num text-right">{l.least}</td>
              <td className="num text-right font-bold">{l.order}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        className="mt-2"
        onClick={() =>
          navigator.clipboard.writeText(rows).then(
            () => say(`${count(low.length, "row")} copied: number and pieces`),
            () => say("They could not be copied: select the rows above.", { isProblem: true }),
          )
        }
      >
        Copy number and pieces
      </Button>
    </Fold>
  );
}
