import type { Corrections, ListHead, Measure } from "@kobbin/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { useMemory } from "../../resources/bench.ts";
import { type BoardConnection, connectBoard, type Shown } from "../../workers/board.ts";

interface Drop {
  readonly files: readonly File[];
  readonly board: BoardConnection;
  readonly measure: Measure;
  readonly parts: number;
  readonly places: number;
  readonly list: ListHead | undefined;
}

/** What can be seen of a drop, before anything is measured. */
interface Picture {
  readonly board: BoardConnection;
  readonly box: readonly [number, number, number, number];
  readonly key: number;
}

/** A drop as it is read in the page: its picture at once, its figures when they are measured, read again under corrections. */
export function useDrop(memory: ReturnType<typeof useMemory>["data"]) {
  const [drop, setDrop] = useState<Drop>();
  const [picture, setPicture] = useState<Picture>();
  const [progress, setProgress] = useState<{ what: string; share: number }>();
  const [problem, setProblem] = useState<{ message: string; hint: string }>();
  const [corrections, setCorrections] = useState<Corrections>({});
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
            list: loaded.list,
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
        list: loaded.list,
      });
  };
  return { drop, picture, progress, problem, corrections, take, correct };
}
