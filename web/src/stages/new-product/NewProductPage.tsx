import type { Corrections, Measure } from "@kobbin/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { Files } from "../../proof/Files.tsx";
import { Measures } from "../../proof/Measures.tsx";
import { Proof } from "../../proof/Proof.tsx";
import { useBench, useMemory } from "../../resources/bench.ts";
import { Tab } from "../../ui/Tab.tsx";
import { type BoardConnection, connectBoard, type Shown } from "../../workers/board.ts";
import { DropZone } from "./DropZone.tsx";
import { Findings } from "./Findings.tsx";
import { Keep } from "./Keep.tsx";
import { KeepBoard } from "./KeepBoard.tsx";

interface Drop {
  readonly files: readonly File[];
  readonly board: BoardConnection;
  readonly measure: Measure;
  readonly parts: number;
  readonly places: number;
}

/** What can be seen of a drop, before anything is measured. */
interface Picture {
  readonly board: BoardConnection;
  readonly box: readonly [number, number, number, number];
  readonly key: number;
}

/** A drop of files becomes a product: read and drawn at once in the page, kept when it looks right. */
export function NewProductPage() {
  const [params] = useSearchParams();
  const productId = params.get("product") ?? undefined;
  const revisionId = params.get("board-of") ?? undefined;
  const runId = params.get("run") ?? undefined;
  const { data: bench } = useBench();
  const { data: memory } = useMemory();
  const product = bench?.products.find((p) =>
    revisionId ? p.revisions.some((r) => r.id === revisionId) : p.id === productId,
  );
  const title =
    product && revisionId ? `Another board of ${product.name}` : product && `New revision of ${product.name}`;
  const [drop, setDrop] = useState<Drop>();
  const [picture, setPicture] = useState<Picture>();
  const [progress, setProgress] = useState<{ what: string; share: number }>();
  const [problem, setProblem] = useState<{ message: string; hint: string }>();
  const [corrections, setCorrections] = useState<Corrections>({});
  const [side, setSide] = useState<"top" | "bottom">("top");
  const connection = useRef<BoardConnection>(undefined);
  // a worker that stands ready takes the next drop: starting one costs as much as reading a board
  const spare = useRef<BoardConnection>(undefined);
  useEffect(() => {
    spare.current = connectBoard();
    return () => {
      spare.current?.close();
      spare.current = undefined;
      connection.current?.close();
    };
  }, []);
  const showOf = useCallback(
    (board: BoardConnection) => (shown: Shown) => {
      if (board !== connection.current) return;
      const box = shown.kind === "ok" ? shown.box : undefined;
      setPicture((old) => (box ? { board, box, key: (old?.key ?? 0) + 1 } : undefined));
    },
    [],
  );

  const take = useCallback(
    async (given: readonly File[] | Promise<readonly File[]>) => {
      // a drop that holds nothing, or that the disk does not give, leaves what was read before
      const files = await Promise.resolve(given).catch(() => []);
      if (files.length === 0) {
        setProblem({
          message: "There was no file to read in what was dropped.",
          hint: "Drop the archive, the files or their folder as they lie on the disk.",
        });
        return;
      }
      setProblem(undefined);
      setDrop(undefined);
      setPicture(undefined);
      setCorrections({});
      setProgress({ what: "taking the files", share: 0 });
      connection.current?.close();
      const board = spare.current ?? connectBoard();
      spare.current = undefined;
      connection.current = board;
      try {
        const bytes = await Promise.all(
          files.map(async (f) => ({
            path: f.name,
            bytes: new Uint8Array(await f.arrayBuffer()),
          })),
        );
        const loaded = await board.load(
          bytes,
          (memory ?? {}) as never,
          (what, share) => setProgress((old) => old && { what, share }),
          showOf(board),
        );
        if (board !== connection.current) return;
        if (loaded.kind === "error") setProblem(loaded);
        else if (loaded.measure.outcome === "reject") {
          const { reason, findings, layers } = loaded.measure;
          const todo =
            findings.find((f) => f.text === reason)?.do ??
            "Drop the layers and drills your layout program wrote.";
          setProblem({
            message: reason ?? "Nothing in the drop is a board.",
            hint: `${todo} Read: ${layers.map((l) => `${l.file} (${l.reason})`).join("; ")}.`,
          });
        } else
          setDrop({
            files,
            board,
            measure: loaded.measure,
            parts: loaded.parts,
            places: loaded.places,
          });
      } catch (error) {
        if (board !== connection.current) return;
        setProblem({
          message: "The files could not be read.",
          hint: error instanceof Error ? error.message : "Drop them again.",
        });
      } finally {
        if (board === connection.current) {
          setProgress(undefined);
          spare.current ??= connectBoard();
        }
      }
    },
    [memory, showOf],
  );

  const correct = async (change: Corrections) => {
    if (!drop) return;
    const next: Corrections = {
      roles: { ...corrections.roles, ...change.roles },
      columns: { ...corrections.columns, ...change.columns },
    };
    setCorrections(next);
    const loaded = await drop.board.reread(
      next,
      (memory ?? {}) as never,
      (what, share) => setProgress((old) => old && { what, share }),
      showOf(drop.board),
    );
    setProgress(undefined);
    if (loaded.kind === "ok")
      setDrop({
        ...drop,
        measure: loaded.measure,
        parts: loaded.parts,
        places: loaded.places,
      });
  };

  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-6 max-sm:px-3">
      <h1>{title ?? "New product"}</h1>
      <p className="mb-4 text-ink-2">
        Layers, drills, parts list, placement file: one archive or loose files, in any mix. Nothing leaves
        this machine until you keep it.
      </p>
      <DropZone onFiles={take} isCompact={Boolean(drop || picture)} />
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
              drop={drop}
              corrections={corrections}
              {...(product
                ? {
                    productId: product.id,
                    productName: product.name,
                    labels: product.revisions.map((r) => r.label),
                  }
                : {})}
            />
          ) : (
            // where the form will stand, so that the picture stays where it is
            <div className="flex h-[81px] items-center border-y border-rule max-sm:h-[180px]">
              {progress && <Progress {...progress} />}
            </div>
          )}
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
          {drop && <Files measure={drop.measure} onCorrect={correct} />}
        </>
      )}
    </main>
  );
}

function Progress({ what, share }: { what: string; share: number }) {
  return (
    <div className="my-4 w-full" role="status" aria-live="polite">
      <div className="h-[6px] w-full overflow-hidden rounded-full bg-grid">
        <div className="h-full bg-metal" style={{ width: `${Math.round(share * 100)}%` }} />
      </div>
      <p className="num mt-1 text-[13px] text-ink-2">{what}</p>
    </div>
  );
}
