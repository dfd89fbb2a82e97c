import type { PartRow, UnknownPart } from "@kobbin/contract";
import { useDeferredValue } from "react";
import { addParts, useParts, useUnknownNumbers } from "../../resources/library.ts";
import { useRole } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useParam } from "../../ui/params.ts";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { count, day } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { PartSheet } from "./PartSheet.tsx";

/** So many rows the server gives at a time. */
const SHOWN = 60;

/** The parts the shop knows: what they are, where they are used, which are suspected. */
export function LibraryPage() {
  const [params, set] = useParam();
  const find = params.get("find") ?? "";
  const openId = params.get("part") ?? undefined;
  const words = useDeferredValue(find);
  const { data, error, mutate } = useParts(words);
  const { data: unknown } = useUnknownNumbers();
  const isOwner = useRole() === "owner";
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-5 max-sm:px-3" tabIndex={-1}>
      <div className="mb-3 flex items-start justify-between gap-4 max-sm:flex-wrap">
        <div>
          <h1>Library</h1>
          <p className="text-ink-2">
            What the shop knows of its parts. What is written here is known in every product: what may stand
            in for what, what was tried, what was found bad.
          </p>
        </div>
        <input
          type="search"
          aria-label="Find a part"
          placeholder="number, maker, words"
          className="w-56"
          value={find}
          onChange={(e) => set("find", e.target.value)}
        />
      </div>
      {error && !data ? (
        <Failed error={error} again={() => mutate()} />
      ) : !data ? (
        <Skeleton rows={6} />
      ) : (
        <div
          className={openId ? "grid grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] gap-6 max-lg:grid-cols-1" : ""}
        >
          <div>
            {isOwner && find === "" && unknown && unknown.length > 0 && <Unknown list={unknown} />}
            {data.isNear && <p className="mb-1 text-ink-2">No part holds “{words}”. These come near:</p>}
            {data.parts.length === 0 ? (
              <Empty>
                {find
                  ? `No part holds “${find}”.`
                  : "No part is in the library yet. Take those of the bills in, above."}
              </Empty>
            ) : (
              <Parts
                list={data.parts}
                openId={openId}
                onOpen={(id) => set("part", id, true)}
                isNarrow={openId !== undefined}
              />
            )}
          </div>
          {openId && <PartSheet key={openId} id={openId} onClose={() => set("part", "")} />}
        </div>
      )}
    </main>
  );
}

function Unknown({ list }: { list: readonly UnknownPart[] }) {
  const say = useSay();
  const sayError = useSayError();
  const take = () =>
    addParts(list.map(({ uses: _, ...p }) => ({ ...p, params: { ...p.params } }))).then(
      () => say(`${count(list.length, "part")} taken into the library`),
      sayError,
    );
  return (
    <p className="mb-3 flex flex-wrap items-center gap-3 border-l-[3px] border-metal bg-sheet px-4 py-2 text-[14px]">
      <span>
        The bills name {count(list.length, "number")} the library does not know:{" "}
        {list
          .slice(0, 4)
          .map((p) => p.mpn)
          .join(", ")}
        {list.length > 4 && " …"}
      </span>
      <Button onClick={take}>Take {list.length === 1 ? "it" : "them"} in</Button>
    </p>
  );
}

function Parts({
  list,
  openId,
  onOpen,
  isNarrow,
}: {
  list: readonly PartRow[];
  openId: string | undefined;
  onOpen: (id: string) => void;
  isNarrow: boolean;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="rows tight w-full">
        <thead>
          <tr>
            <th>Number</th>
            <th>Class</th>
            <th>Package</th>
            {!isNarrow && <th>Description</th>}
            {!isNarrow && <th>Tried</th>}
            <th className="text-right">In bills</th>
            {!isNarrow && <th className="text-right">Offers</th>}
            <th className="text-right">On shelf</th>
          </tr>
        </thead>
        <tbody>
          {list.map((p) => (
            <tr key={p.id} className={p.id === openId ? "bg-metal-soft" : "hover:bg-sheet"}>
              <td>
                <button
                  type="button"
                  className="flex items-center gap-2 text-left"
                  onClick={() => onOpen(p.id)}
                >
                  {p.suspect && <Mark kind="blocked" />}
                  <span>
                    <span className="num why">{p.mpn}</span>
                    <span className="block text-[13px] text-ink-2">
                      {p.suspect ? `suspected: ${p.suspect.because}` : p.maker}
                    </span>
                  </span>
                </button>
              </td>
              <td>{p.kind}</td>
              <td className="whitespace-nowrap">{p.package}</td>
              {!isNarrow && <td className="text-ink-2">{p.description}</td>}
              {!isNarrow && (
                <td className="whitespace-nowrap text-ink-2">{p.triedOn ? day(p.triedOn) : "–"}</td>
              )}
              <td className="num text-right">{p.uses || "–"}</td>
              {!isNarrow && <td className="num text-right">{p.offers || "–"}</td>}
              <td className="num text-right">{p.onShelf || "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {list.length >= SHOWN && (
        <p className="mt-1 text-[13px] text-ink-2">The first {SHOWN}. Another word above narrows them.</p>
      )}
    </div>
  );
}
