import { type BoardConnection, connectBoard, type Shown } from "../workers/board.ts";
import type { StoredBoard } from "../workers/board.worker.ts";

interface Open {
  readonly board: BoardConnection;
  readonly shown: Promise<Shown>;
  users: number;
  closing?: ReturnType<typeof setTimeout>;
}

/** Boards that are read, by what they were read from; the one used last stands last. */
const open = new Map<string, Open>();
/** A board nobody looks at stays read that long, and so many of them: whoever comes from the next stage finds it as it was. */
const IDLE_MS = 60_000;
const MOST_IDLE = 2;

function close(key: string): void {
  const it = open.get(key);
  if (!it || it.users > 0) return;
  clearTimeout(it.closing);
  it.board.close();
  open.delete(key);
}

/** A board in a worker, shared by all who look at it. */
export interface Taken {
  readonly board: BoardConnection;
  readonly shown: Promise<Shown>;
  /** It is not looked at here any more. */
  readonly giveBack: () => void;
}

/** Reads a stored board in a worker, or takes the one that read just these files with just these corrections. */
export function takeBoard(
  boardId: string,
  { bytes, corrections }: StoredBoard,
  progress: (what: string, share: number) => void,
): Taken {
  const key = JSON.stringify([boardId, bytes.length, corrections]);
  let it = open.get(key);
  if (!it) {
    const board = connectBoard();
    it = { board, shown: board.open([{ path: "board.zip", bytes }], corrections, progress), users: 0 };
  }
  clearTimeout(it.closing);
  it.users++;
  open.delete(key);
  open.set(key, it);
  const taken = it;
  let isGiven = false;
  const giveBack = () => {
    if (isGiven) return;
    isGiven = true;
    if (--taken.users > 0) return;
    taken.closing = setTimeout(() => close(key), IDLE_MS);
    const idle = [...open].filter(([, o]) => o.users === 0).map(([k]) => k);
    for (const k of idle.slice(0, -MOST_IDLE)) close(k);
  };
  // what could not be read is read anew by the next
  const drop = () => {
    if (open.get(key) === taken) open.delete(key);
    taken.board.close();
  };
  taken.shown.then((s) => s.kind === "ok" || drop(), drop);
  return { board: taken.board, shown: taken.shown, giveBack };
}
