import { sheetBoards } from "@kobbin/core";
import { useEffect, useState } from "react";
import { boardColours } from "../../proof/colours.ts";
import { keptSmall, paintSmall } from "../../proof/thumb/small.ts";
import { useRun } from "../../run/runState.ts";
import { useTheme } from "../../ui/useTheme.ts";

/** A board as it will be delivered, to be laid on a sheet: where its picture lies in its own coordinates, y down. */
export interface BoardPicture {
  readonly url: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** CSS pixels a board is painted at. */
const SIZE = [420, 300] as const;

/** The run's boards and its guests from the top in the chosen colours, each as it is painted. */
export function useBoardPictures(): readonly (BoardPicture | undefined)[] {
  const { answer, doc, result } = useRun();
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const boardIds = [...answer.boardIds, ...answer.guestIds];
  const theme = useTheme();
  const [pictures, setPictures] = useState<readonly (BoardPicture | undefined)[]>([]);
  const looks = sheetBoards(doc).map(({ measure: m }) =>
    JSON.stringify([mask, finish, legend, m.layers, m.extentMm]),
  );
  const look = `${theme} ${looks.join()}`;
  // pictures are painted by a worker, one after the other; the look stands for the colours
  // biome-ignore lint/correctness/useExhaustiveDependencies: look stands for colours and boxes
  useEffect(() => {
    let isWanted = true;
    const urls: string[] = [];
    boardIds.forEach(async (boardId, i) => {
      const wish = {
        boardId,
        look: looks[i] ?? "",
        side: "top" as const,
        colours: boardColours(mask, finish, legend),
        size: SIZE,
      };
      const p = (await keptSmall(wish)) ?? (await paintSmall(wish, () => isWanted));
      if (!p || !isWanted) return;
      const canvas = document.createElement("canvas");
      canvas.width = p.bitmap.width;
      canvas.height = p.bitmap.height;
      canvas.getContext("2d")?.drawImage(p.bitmap, 0, 0);
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done));
      if (!blob || !isWanted) return;
      const url = URL.createObjectURL(blob);
      urls.push(url);
      const [x0, y0, x1, y1] = p.box;
      const [w, h] = [SIZE[0] / p.scale, SIZE[1] / p.scale];
      const picture = { url, x: (x0 + x1) / 2 - w / 2, y: -(y0 + y1) / 2 - h / 2, width: w, height: h };
      setPictures((old) => Object.assign([...old], { [i]: picture }));
    });
    return () => {
      isWanted = false;
      for (const url of urls) URL.revokeObjectURL(url);
      setPictures([]);
    };
  }, [boardIds.join(), look]);
  return pictures;
}
