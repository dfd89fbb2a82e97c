import type { PhotoBody } from "@kobbin/contract";
import { useState } from "react";
import { addPhoto } from "../resources/record.ts";
import { useRun } from "../run/runState.ts";
import { todayIso } from "../ui/text/dates.ts";
import { count } from "../ui/text/format.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";
import { smaller } from "./smaller.ts";

/** What photos are taken of: a line of an order as it came, a board, a fault on it. */
export type PhotoOf = Pick<PhotoBody, "order" | "item" | "spot" | "unit" | "defect">;

/** Keeps photos of something of the run, one after the other; how many are still under way. */
export function useAddPhotos(): {
  readonly add: (files: readonly File[], of: PhotoOf, what: string) => Promise<void>;
  readonly left: number;
} {
  const { id, did } = useRun();
  const say = useSay();
  const sayError = useSayError();
  const [left, setLeft] = useState(0);
  const add = async (files: readonly File[], of: PhotoOf, what: string) => {
    setLeft((n) => n + files.length);
    for (const file of files) {
      try {
        const done = addPhoto(id, { ...of, on: todayIso(), note: "", jpeg: await smaller(file) });
        did(`A photo of ${what} is kept`, done);
        await done;
      } catch (error) {
        // what the browser cannot read is said by name; what the server refuses, in its words
        if (error instanceof Error && error.name === "Error")
          say(`${file.name}: ${error.message}`, {
            isProblem: true,
            hint:
              files.length > 1
                ? `The others of the ${count(files.length, "photo")} go on.`
                : "Choose another one.",
          });
        else sayError(error);
      } finally {
        setLeft((n) => n - 1);
      }
    }
  };
  return { add, left };
}
