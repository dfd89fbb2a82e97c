import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { COLUMN_WORDS, offWords } from "../../proof/columnWords.ts";
import { Files } from "../../proof/Files.tsx";
import { ListAccount } from "../../proof/ListAccount.tsx";
import { ListTable } from "../../proof/ListTable.tsx";
import { Measures } from "../../proof/Measures.tsx";
import { Proof } from "../../proof/Proof.tsx";
import { useBench, useMemory } from "../../resources/bench.ts";
import { takeHanded } from "../../resources/handed.ts";
import { DropZone } from "../../ui/DropZone.tsx";
import { Progress } from "../../ui/Progress.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { count } from "../../ui/text/format.ts";
import { Findings } from "./Findings.tsx";
import { Keep } from "./Keep.tsx";
import { KeepBoard } from "./KeepBoard.tsx";
import { ofNothing, shownList, withColumn } from "./listColumns.ts";
import { OnPanel } from "./OnPanel.tsx";
import { useDrop } from "./useDrop.ts";

/** A drop of files becomes a product: read and drawn at once in the page, kept when it looks right. */
export function NewProductPage() {
  const [params, setParams] = useSearchParams();
  const productId = params.get("product") ?? undefined;
  const revisionId = params.get("board-of") ?? undefined;
  const runId = params.get("run") ?? undefined;
  const { data: bench } = useBench();
  const { data: memory, error: noMemory } = useMemory();
  const product = bench?.products.find((p) =>
    revisionId ? p.revisions.some((r) => r.id === revisionId) : p.id === productId,
  );
  const title =
    product && revisionId ? `Another board of ${product.name}` : product && `New revision of ${product.name}`;
  const [side, setSide] = useState<"top" | "bottom">("top");
  const { drop, picture, progress, problem, corrections, take, correct } = useDrop(memory);
  // what was dropped on the bench is read here, under the shop's corrections
  const isReady = memory !== undefined || noMemory !== undefined;
  /** Dropped before the corrections were here. */
  const [waiting, setWaiting] = useState<Parameters<typeof take>[0]>();
  useEffect(() => {
    const handed = isReady ? (takeHanded() ?? waiting) : undefined;
    if (!handed) return;
    setWaiting(undefined);
    take(handed);
  }, [isReady, take, waiting]);
  const said = drop?.list && corrections.columns?.[drop.list.file];
  const shown = drop?.list && shownList(drop.list, said);
  const sayColumn = (column: number, role: string) => {
    const list = drop?.list;
    if (list) correct({ columns: { [list.file]: withColumn(list, column, role, said) } });
  };
  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-6 max-sm:px-3">
      <h1>{title ?? "New product"}</h1>
      <p className="mb-4 text-ink-2">
        Layers, drills, parts list, placement file: one archive or loose files, in any mix. Nothing leaves
        this machine until you keep it.
      </p>
      <DropZone onFiles={isReady ? take : setWaiting} isCompact={Boolean(drop || picture)} />
      {progress && !(picture && !drop) && <Progress {...progress} />}
      {problem && (
        <div role="alert" className="my-4 border-l-[3px] border-stop bg-stop-soft px-4 py-3">
          <p className="font-semibold">{problem.message}</p>
          <p className="break-words text-ink-2">{problem.hint}</p>
        </div>
      )}
      {(drop || picture) && (
        <>
          {drop && revisionId && runId ? (
            <KeepBoard drop={drop} corrections={corrections} revisionId={revisionId} runId={runId} />
          ) : drop ? (
            <Keep
              key={product?.id}
              drop={drop}
              corrections={corrections}
              {...(product
                ? {
                    productId: product.id,
                    productName: product.name,
                    labels: product.revisions.map((r) => r.label),
                  }
                : {
                    known: bench?.products ?? [],
                    // the files are read already: only what they are kept as changes
                    onKnown: (id: string) => setParams({ product: id }, { replace: true }),
                  })}
            />
          ) : (
            // where the form will stand, so that the picture stays where it is
            <div className="flex h-[81px] items-center border-y border-rule max-sm:h-[180px]">
              {progress && <Progress {...progress} />}
            </div>
          )}
          {drop && <OnPanel measure={drop.measure} />}
          <div className="mt-5 grid grid-cols-[minmax(0,1fr)_300px] gap-6 max-md:grid-cols-1">
            <section aria-labelledby="picture">
              <div className="mb-2 flex gap-5">
                <h2 id="picture">As delivered</h2>
                {(["top", "bottom"] as const).map((s) => (
                  <Tab key={s} isOn={side === s} onClick={() => setSide(s)}>
                    {s}
                  </Tab>
                ))}
              </div>
              {picture && (
                <Proof
                  board={picture.board}
                  box={picture.box}
                  isSized={drop && drop.measure.outline?.widthMm !== undefined}
                  side={side}
                  height={400}
                  paintKey={picture.key}
                  finish="immersion-gold"
                />
              )}
              {drop && <Measures measure={drop.measure} />}
            </section>
            {drop ? <Findings measure={drop.measure} /> : <div className="skeleton h-[300px]" aria-hidden />}
          </div>
          {drop?.list && shown && (
            <section aria-labelledby="list" className="mt-6">
              <h2 id="list">The parts list, as it is read</h2>
              <p className="mb-2 text-[14px] text-ink-2">
                <span className="num text-[12.5px]">{drop.list.file}</span> becomes{" "}
                {count(drop.parts, "line")}. What a column holds is changed on it; it is remembered for lists
                of such a name.
              </p>
              <ListTable
                list={shown}
                words={[
                  ...COLUMN_WORDS,
                  ...Object.values(shown.roles)
                    .filter((r) => r.startsWith("off "))
                    .map((r) => [r, offWords(r.slice(4))] as const),
                ]}
                rows={drop.list.rows}
                findings={drop.measure.findings.filter((f) => f.file === drop.list!.file)}
                onRole={sayColumn}
              />
              {drop.list.account && (
                <ListAccount
                  account={drop.list.account}
                  onAnswer={(i, role) => sayColumn(i, role === "" ? ofNothing(i) : role)}
                />
              )}
            </section>
          )}
          {drop && <Files measure={drop.measure} onCorrect={correct} />}
        </>
      )}
    </main>
  );
}
