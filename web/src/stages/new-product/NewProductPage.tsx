import type { Corrections, Measure } from "@kobbin/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { Files } from "../../proof/Files.tsx";
import { Measures } from "../../proof/Measures.tsx";
import { Proof } from "../../proof/Proof.tsx";
import { keepProduct, startRun, useBench, useMemory } from "../../resources/bench.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useSayError } from "../../ui/Toast.tsx";
import { type BoardConnection, connectBoard } from "../../workers/board.ts";
import { DropZone } from "./DropZone.tsx";
import { nameAndRevision } from "./productName.ts";

interface Drop {
  readonly files: readonly File[];
  readonly board: BoardConnection;
  readonly measure: Measure;
  readonly parts: number;
  readonly places: number;
  readonly key: number;
}

/** A drop of files becomes a product: read and drawn at once in the page, kept when it looks right. */
export function NewProductPage() {
  const [params] = useSearchParams();
  const productId = params.get("product") ?? undefined;
  const { data: bench } = useBench();
  const { data: memory } = useMemory();
  const product = bench?.products.find((p) => p.id === productId);
  const [drop, setDrop] = useState<Drop>();
  const [progress, setProgress] = useState<{ what: string; share: number }>();
  const [problem, setProblem] = useState<{ message: string; hint: string }>();
  const [corrections, setCorrections] = useState<Corrections>({});
  const [side, setSide] = useState<"top" | "bottom">("top");
  const connection = useRef<BoardConnection>(undefined);
  useEffect(() => () => connection.current?.close(), []);

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
      setCorrections({});
      setProgress({ what: "taking the files", share: 0 });
      connection.current?.close();
      const board = connectBoard();
      connection.current = board;
      try {
        const bytes = await Promise.all(
          files.map(async (f) => ({
            path: f.name,
            bytes: new Uint8Array(await f.arrayBuffer()),
          })),
        );
        const loaded = await board.load(bytes, {}, (memory ?? {}) as never, (what, share) =>
          setProgress((old) => old && { what, share }),
        );
        if (loaded.kind === "error") setProblem(loaded);
        else if (loaded.measure.outcome === "reject")
          setProblem({
            message: loaded.measure.reason ?? "Nothing in the drop is a board.",
            hint: `Read: ${loaded.measure.layers.map((l) => `${l.file} (${l.reason})`).join("; ")}. Drop the layers and drills your layout program wrote.`,
          });
        else
          setDrop({
            files,
            board,
            measure: loaded.measure,
            parts: loaded.parts,
            places: loaded.places,
            key: Date.now(),
          });
      } catch (error) {
        setProblem({
          message: "The files could not be read.",
          hint: error instanceof Error ? error.message : "Drop them again.",
        });
      } finally {
        setProgress(undefined);
      }
    },
    [memory],
  );

  const correct = async (change: Corrections) => {
    if (!drop) return;
    const next: Corrections = {
      roles: { ...corrections.roles, ...change.roles },
      columns: { ...corrections.columns, ...change.columns },
    };
    setCorrections(next);
    const loaded = await drop.board.reread(next, (memory ?? {}) as never, (what, share) =>
      setProgress((old) => old && { what, share }),
    );
    setProgress(undefined);
    if (loaded.kind === "ok")
      setDrop({
        ...drop,
        measure: loaded.measure,
        parts: loaded.parts,
        places: loaded.places,
        key: Date.now(),
      });
  };

  return (
    <main id="main" className="mx-auto w-full max-w-[1180px] px-6 py-6 max-sm:px-3">
      <h1>{product ? `New revision of ${product.name}` : "New product"}</h1>
      <p className="mb-4 text-ink-2">
        Layers, drills, parts list, placement file: one archive or loose files, in any mix. Nothing leaves
        this machine until you keep it.
      </p>
      <DropZone onFiles={take} isCompact={Boolean(drop)} />
      {progress && (
        <div className="my-4" role="status" aria-live="polite">
          <div className="h-[6px] w-full overflow-hidden rounded-full bg-grid">
            <div className="h-full bg-metal" style={{ width: `${Math.round(progress.share * 100)}%` }} />
          </div>
          <p className="num mt-1 text-[13px] text-ink-2">{progress.what}</p>
        </div>
      )}
      {problem && (
        <div role="alert" className="my-4 border-l-[3px] border-stop bg-stop-soft px-4 py-3">
          <p className="font-semibold">{problem.message}</p>
          <p className="break-words text-ink-2">{problem.hint}</p>
        </div>
      )}
      {drop && (
        <>
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
          <div className="mt-5 grid grid-cols-[minmax(0,1fr)_300px] gap-6 max-md:grid-cols-1">
            <section aria-labelledby="picture">
              <div className="mb-2 flex gap-5">
                <h2 id="picture">As delivered</h2>
                {(["top", "bottom"] as const).map((s) => (
                  <button
                    key={s}
                    type="button"
                    aria-pressed={side === s}
                    onClick={() => setSide(s)}
                    className={side === s ? "border-b-2 border-metal font-semibold" : "text-ink-2"}
                  >
                    {s}
                  </button>
                ))}
              </div>
              {drop.measure.extentMm && (
                <Proof
                  board={drop.board}
                  box={drop.measure.extentMm}
                  side={side}
                  height={400}
                  paintKey={drop.key}
                  finish="immersion-gold"
                />
              )}
              <Measures measure={drop.measure} />
            </section>
            <Findings measure={drop.measure} />
          </div>
          <Files measure={drop.measure} onCorrect={correct} />
        </>
      )}
    </main>
  );
}

function Findings({ measure }: { measure: Measure }) {
  const order = { error: 0, warning: 1, remark: 2 };
  const list = [...measure.findings].sort((a, b) => order[a.level] - order[b.level]);
  return (
    <section aria-labelledby="found">
      <h2 id="found" className="mb-2">
        What was found
      </h2>
      {list.length === 0 ? (
        <p className="text-ink-2">Nothing to remark.</p>
      ) : (
        <ol>
          {list.map((f, i) => (
            <li
              key={`${f.tag} ${f.file} ${f.line} ${f.row} ${f.text}`}
              className="grid grid-cols-[22px_1fr] gap-2 border-t border-rule py-2 text-[14px]"
            >
              <Mark
                kind={f.level === "error" ? "blocked" : f.level === "warning" ? "look" : "remark"}
                count={i + 1}
              />
              <div className="min-w-0">
                <p className="break-words">{f.text}</p>
                {f.do && <p className="text-ink-2">{f.do}</p>}
                {f.file && (
                  <p className="num text-[12px] break-all text-ink-3">
                    {f.file}
                    {f.line ? `, line ${f.line}` : ""}
                    {f.row ? `, row ${f.row}` : ""}
                  </p>
                )}
              </div>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

function Keep({
  drop,
  corrections,
  productId,
  productName: knownName,
  labels = [],
}: {
  drop: Drop;
  corrections: Corrections;
  productId?: string;
  productName?: string;
  labels?: readonly string[];
}) {
  const navigate = useNavigate();
  const sayError = useSayError();
  const guess = useMemo(() => nameAndRevision(drop.files.map((f) => f.name)), [drop.files]);
  const [name, setName] = useState(knownName ?? guess.name);
  const [label, setLabel] = useState(() =>
    labels.length === 0
      ? (guess.revision ?? "A")
      : String.fromCharCode((labels.at(-1)?.charCodeAt(0) ?? 64) + 1),
  );
  const [goodBoards, setGoodBoards] = useState("20");
  const [isBusy, setBusy] = useState(false);
  const keep = async (withRun: boolean) => {
    setBusy(true);
    try {
      const kept = await keepProduct({
        name,
        revision: label,
        files: drop.files,
        corrections,
        ...(productId ? { productId } : {}),
      });
      if (!withRun) return navigate("/");
      const run = await startRun({
        revisionId: kept.revisionId,
        name: "first run",
        goodBoards: Math.max(1, Math.round(Number(goodBoards)) || 1),
      });
      navigate(`/runs/${run.id}/board`);
    } catch (error) {
      sayError(error);
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-y border-rule py-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep(true);
      }}
    >
      <Field
        label="Product"
        value={name}
        onChange={(e) => setName(e.target.value)}
        required
        maxLength={120}
        disabled={Boolean(productId)}
        className="min-w-52"
      />
      <Field
        label="Revision"
        value={label}
        onChange={(e) => setLabel(e.target.value)}
        required
        maxLength={40}
        className="w-24"
      />
      <Field
        label="Good boards wanted"
        type="number"
        min={1}
        max={100000}
        value={goodBoards}
        onChange={(e) => setGoodBoards(e.target.value)}
        className="w-40"
      />
      <Button type="submit" look="main" disabled={isBusy}>
        {isBusy ? "Keeping …" : "Keep it and start a run"}
      </Button>
      <Button disabled={isBusy} onClick={() => keep(false)}>
        Keep it only
      </Button>
      <p className="text-[13.5px] text-ink-2">
        {drop.parts} lines of parts, {drop.places} places
      </p>
    </form>
  );
}
