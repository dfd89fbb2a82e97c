import type { KnownBoard } from "@kobbin/contract";
import { knownOnPanel, type Measure } from "@kobbin/core";
import { Link } from "react-router";
import useSWR from "swr";
import { http } from "../../resources/http.ts";
import { count } from "../../ui/text/format.ts";

/** Where a drop is a panel: which of the shop's own boards lie on it, and what that means for what is kept. */
export function OnPanel({ measure }: { measure: Measure }) {
  const { copies, pieces } = measure;
  const { data } = useSWR<readonly KnownBoard[]>(copies && pieces ? "/api/boards/known" : null, http.get);
  if (!copies || !pieces || !data) return null;
  const kinds = knownOnPanel(pieces, data);
  const known = kinds.filter((k) => k.boards.length > 0);
  if (known.length === 0) return null;
  const others = kinds.reduce((n, k) => n + (k.boards.length === 0 ? k.copies : 0), 0);
  const products = new Map(known.map((k) => [k.boards[0]!.productId, k.boards[0]!.product]));
  return (
    <div role="status" className="my-4 border-l-[3px] border-look bg-look-soft px-4 py-3">
      <p className="font-semibold">
        On this panel: {known.map((k) => `${k.copies} of ${namesOf(k.boards)}`).join(", ")}
        {others > 0 && `, and ${count(others, "board")} this shop does not know`}.
      </p>
      <p className="text-ink-2">
        Known by holes and pads: as many, as large and as far apart. Kept here, the panel becomes a product of
        its own, its size, price and counts those of the whole. To order{" "}
        {[...products].map(([id, name], i) => (
          <span key={id}>
            {i > 0 && " or "}
            {name}
          </span>
        ))}{" "}
        on sheets,{" "}
        <Link className="quiet-link" to="/">
          start a run of it
        </Link>{" "}
        and take a sheet in Panel.
      </p>
    </div>
  );
}

/** The newest that it may be, and the others it cannot be told from. */
function namesOf(boards: readonly KnownBoard[]): string {
  const name = (b: KnownBoard) =>
    b.board.startsWith(b.product) ? b.board : `${b.product} ${b.revision}, ${b.board}`;
  return [...new Set(boards.map(name))].join(" or ");
}
