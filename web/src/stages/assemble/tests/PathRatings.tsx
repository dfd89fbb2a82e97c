import { type OutputRating, outputPath, pathRatings, type TestItem } from "@kobbin/core";
import { useState } from "react";
import { storedBoard } from "../../../proof/useBoardWorker.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { said } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { flowStored } from "../../../workers/board.ts";

type Found = ReturnType<typeof pathRatings> & { readonly assumed: readonly string[]; readonly of: string };

/** What the board itself says its path carries: its copper followed from contact to part, its contacts by the library. */
export function PathRatings({
  item: t,
  onTake,
}: {
  item: TestItem;
  onTake: (ratings: readonly OutputRating[], what: string) => void;
}) {
  const { doc, result, answer } = useRun();
  const sayError = useSayError();
  const [found, setFound] = useState<Found>();
  const [isFollowing, setFollowing] = useState(false);
  const ratings = t.load?.ratings ?? [];
  const path = outputPath(doc, t, result.options ?? doc.options);
  if (!path || !t.load) return null;
  // what was followed for another load or other pins says nothing of these
  const of = JSON.stringify([path.asks, path.copper]);
  const follow = async () => {
    setFollowing(true);
    try {
      const at = doc.boards.indexOf(path.board);
      const flows =
        path.asks.length === 0
          ? []
          : await flowStored(await storedBoard(answer.boardIds[at]!), {
              asks: path.asks,
              copper: path.copper,
            });
      if ("kind" in flows) throw new Error(flows.message);
      setFound({ ...pathRatings(doc, path, flows), assumed: path.assumed, of });
    } catch (error) {
      sayError(error);
    } finally {
      setFollowing(false);
    }
  };
  const shown = found?.of === of ? found : undefined;
  const fresh = (shown?.ratings ?? []).filter(
    (r) => !ratings.some((x) => x.what === r.what && x.amps === r.amps),
  );
  return (
    <div className="mt-2 text-[14px]">
      {!shown && (
        <Button disabled={isFollowing} onClick={follow}>
          {isFollowing ? "Following its copper …" : "What do copper and contacts carry?"}
        </Button>
      )}
      {shown && (
        <ul aria-label="What copper and contacts carry">
          {shown.ratings.map((r) => (
            <li key={r.what} className="num">
              {said(`${r.what}: ${r.amps} A`)}
              {r.what.startsWith("copper ") && (
                <span className="text-ink-2">{said(", 10 K warmer at its weakest track or hole")}</span>
              )}
            </li>
          ))}
          {[...shown.left, ...shown.assumed.map((a) => `taken: ${a}`)].map((l) => (
            <li key={l} className="text-ink-2">
              {l}
            </li>
          ))}
        </ul>
      )}
      {fresh.length > 0 && (
        <Button
          className="mt-1"
          onClick={() =>
            onTake(
              [...ratings.filter((x) => !fresh.some((r) => r.what === x.what)), ...fresh],
              fresh.map((r) => `${r.what} ${r.amps} A`).join(", "),
            )
          }
        >
          Take {fresh.length === 1 ? "it" : "them"} into its path
        </Button>
      )}
    </div>
  );
}
