import type { RunBoard } from "@kobbin/core";
import { Link } from "react-router";
import { removeBoard, saveBoard } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Kept } from "../../ui/Kept.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { mm } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** The boards of the product: which one is looked at, how often each is in it, another one added. */
export function Boards({ index, onChoose }: { index: number; onChoose: (index: number) => void }) {
  const { id, answer, doc, isLocked } = useRun();
  const several = doc.boards.length > 1 || doc.boards[0]!.perProduct > 1;
  const add = !isLocked && (
    <Link className="quiet-link" to={`/new?board-of=${answer.revisionId}&run=${id}`}>
      add another board
    </Link>
  );
  if (!several) return <p className="no-print mb-2 text-[14px] text-ink-2">{add}</p>;
  return (
    <div className="no-print mb-3 border-y border-rule py-2 text-[14px]">
      <div
        className="flex flex-wrap items-baseline gap-x-6 gap-y-1"
        role="toolbar"
        aria-label="Boards of the product"
      >
        {doc.boards.map((b, i) => (
          <Tab key={answer.boardIds[i] ?? b.name} isOn={i === index} onClick={() => onChoose(i)}>
            {b.perProduct > 1 && <span className="num">{b.perProduct} × </span>}
            {b.name}
            {b.measure.outline?.widthMm !== undefined && (
              <span className="num font-normal text-ink-3">
                {" "}
                {mm(b.measure.outline.widthMm)} × {mm(b.measure.outline.heightMm)} mm
              </span>
            )}
          </Tab>
        ))}
        {add}
      </div>
      {!isLocked && (
        <Edit key={answer.boardIds[index]} boardId={answer.boardIds[index]!} board={doc.boards[index]!} />
      )}
    </div>
  );
}

/** Name of a board and how often it is in a product. */
function Edit({ boardId, board }: { boardId: string; board: RunBoard }) {
  const { id, answer, did } = useRun();
  const sayError = useSayError();
  const save = (change: { name?: string; perProduct?: number }, words: string) => {
    const done = saveBoard(id, boardId, { version: answer.versions[boardId], ...change });
    done.then(() => did(words, done), sayError);
  };
  const remove = () => {
    const done = removeBoard(id, boardId);
    done.then(() => did(`${board.name} was removed with its lines`, done), sayError);
  };
  return (
    <div className="mt-2 flex flex-wrap items-end gap-4">
      <Kept
        label="Name of the board"
        className="w-56"
        maxLength={120}
        value={board.name}
        onSave={(name) => name !== "" && save({ name }, `The board is called ${name}`)}
      />
      <Kept
        label="In each product"
        className="w-28"
        type="number"
        min={1}
        max={1000}
        value={String(board.perProduct)}
        onSave={(text) => {
          const perProduct = Math.round(Number(text));
          if (perProduct >= 1) save({ perProduct }, `${perProduct} of ${board.name} in each product`);
        }}
      />
      <button type="button" className="quiet-link pb-1" onClick={remove}>
        remove this board
      </button>
    </div>
  );
}
