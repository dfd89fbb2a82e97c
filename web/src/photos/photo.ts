import type { RunPhoto } from "@kobbin/core";
import { day } from "../ui/text/format.ts";

/** Where the bytes of a photo are. */
export const photoSrc = (p: Pick<RunPhoto, "id">): string => `/api/photos/${p.id}`;

/** Who took a photo, and when. */
export const takenBy = (p: RunPhoto): string => `${day(p.on)}, ${p.person}`;
