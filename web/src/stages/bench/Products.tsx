import type { ProductRow } from "@kobbin/contract";
import { Link } from "react-router";
import { Thumb } from "../../proof/thumb/Thumb.tsx";
import { count, mm } from "../../ui/text/format.ts";

/** What the shop makes, each revision with its board. */
export function Products({
  products,
  isOwner,
  onStart,
}: {
  products: readonly ProductRow[];
  isOwner: boolean;
  onStart: (p: ProductRow, revisionId: string) => void;
}) {
  return (
    <section aria-labelledby="products">
      <h2 id="products" className="mb-2">
        Products
      </h2>
      <ul>
        {products.map((p) => {
          const latest = p.revisions.at(-1);
          return (
            <li
              key={p.id}
              className="grid grid-cols-[84px_180px_1fr_auto] items-start gap-4 border-t border-rule py-3 max-sm:grid-cols-[84px_minmax(0,1fr)] max-sm:gap-x-3 max-sm:gap-y-1"
            >
              {latest ? <Thumb boardId={latest.boardId} look={latest.look} /> : <span />}
              <span className="font-semibold">{p.name}</span>
              <ul className="flex flex-col gap-1 max-sm:col-span-2">
                {p.revisions.map((v) => (
                  <li key={v.id} className="flex flex-wrap items-baseline gap-x-4 text-ink-2">
                    <span>revision {v.label}</span>
                    <span className="num">
                      {v.widthMm == null ? "size not known" : `${mm(v.widthMm)} × ${mm(v.heightMm)} mm`}
                    </span>
                    <span>{count(v.layers, "layer")}</span>
                    {v.boards > 1 && <span>and {count(v.boards - 1, "board")} more</span>}
                    <span>{count(v.lines, "line")} of parts</span>
                    {isOwner && (
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() => onStart(p, v.id)}
                        aria-label={`Start a run of ${p.name} ${v.label}`}
                      >
                        start a run
                      </button>
                    )}
                    <a
                      className="quiet-link"
                      href={`/api/boards/${v.boardId}/files`}
                      download
                      aria-label={`Download the files of ${p.name} ${v.label}`}
                    >
                      files as dropped
                    </a>
                  </li>
                ))}
              </ul>
              <span className="flex gap-4 max-sm:col-span-2">
                {isOwner && (
                  <Link to={`/new?product=${p.id}`} className="quiet-link">
                    new revision
                  </Link>
                )}
                <Link
                  to={`/products/${p.id}/history`}
                  className="quiet-link"
                  aria-label={`History of ${p.name}`}
                >
                  history
                </Link>
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
